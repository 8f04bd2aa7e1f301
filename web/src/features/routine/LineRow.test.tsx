import { fireEvent, screen } from '@testing-library/react';
import type { Circuit, RoutineItem, Section } from '@yonder/core/domain';
import { render } from '@testing-library/react';
import { useState } from 'react';
import { expect, it, vi } from 'vitest';
import { Page } from '../../testing/Page.tsx';
import { CircuitHead, SectionHead } from './GroupHeads.tsx';
import { LineFields } from './LineRow.tsx';

/** Holds what a row says, as the draft does. */
function Row<T extends object>({
  start,
  said,
  draw,
}: {
  start: T;
  said: (now: T) => void;
  draw: (now: T, change: (next: Partial<T>) => void) => React.ReactNode;
}) {
  const [now, set] = useState(start);
  return (
    <Page>
      <table>
        <tbody>
          {draw(now, (change) => {
            const next = { ...now, ...change };
            set(next);
            said(next);
          })}
        </tbody>
      </table>
    </Page>
  );
}
const nothing = () => undefined;
const field = <E extends HTMLElement = HTMLInputElement>(label: string) => screen.getByLabelText<E>(label);
const type = (label: string, value: string) => fireEvent.change(field(label), { target: { value } });

it('words that a line needs are never said empty: an emptied field is as it was when it is left', () => {
  const said = vi.fn();
  const start = { drill: 'own-words', words: 'ice if sore', amount: 0 } as RoutineItem;
  render(
    <Row
      start={start}
      said={said}
      draw={(item, onChange) => (
        <tr>
          <LineFields
            item={item}
            index={2}
            change={0}
            onChange={onChange}
            onDouble={nothing}
            onRemove={nothing}
          />
        </tr>
      )}
    />,
  );
  type('Words of line 3', '   ');
  expect(said).not.toHaveBeenCalled();
  expect(field('Words of line 3').value).toBe('');
  type('Words of line 3', 'ice and up');
  type('Words of line 3', '');
  fireEvent.blur(field('Words of line 3'));
  expect(field('Words of line 3').value).toBe('ice and up');
  expect(said.mock.lastCall?.[0].words).toBe('ice and up');
  type('Who leads line 3', 'coach');
  type('Who leads line 3', '');
  expect(said.mock.lastCall?.[0].ledBy).toBeUndefined();
  expect(screen.getByRole('link', { name: 'Make a drill of line 3' }).getAttribute('href')).toBe(
    '/library/new?named=ice+and+up',
  );
});

it('a part keeps a name and takes only minutes that a part can have', () => {
  const said = vi.fn();
  const start: Section = { id: 's', name: 'Legs', minutes: 4 };
  render(
    <Row
      start={start}
      said={said}
      draw={(section, onChange) => (
        <SectionHead section={section} seconds={300} onChange={onChange} onRemove={nothing} />
      )}
    />,
  );
  expect(screen.getByText(/1 min 00 s over/)).toBeTruthy();
  type('Name of the section', '');
  expect(said).not.toHaveBeenCalled();
  type('Minutes of Legs', '500');
  expect(said.mock.lastCall?.[0]).toEqual({ ...start, minutes: null });
  type('Minutes of Legs', '6');
  expect(screen.queryByText(/over$/)).toBeNull();
});

it('rounds: by the clock they do not grow, what is none is left out, and no figure leaves its bounds', () => {
  const said = vi.fn();
  const onEnd = vi.fn();
  render(
    <Row<Circuit>
      start={{ id: 'c', rounds: 3 }}
      said={said}
      draw={(circuit, onChange) => (
        <CircuitHead circuit={circuit} seconds={90} onChange={onChange} onEnd={onEnd} />
      )}
    />,
  );
  const last = () => said.mock.lastCall?.[0] as Circuit;
  type('Rounds', '99');
  expect(last().rounds).toBe(20);
  type('More each round', '2');
  type('Rest between rounds', '30');
  expect(last()).toMatchObject({ step: 2, restSeconds: 30 });
  type('Rest between rounds', '0');
  expect(last().restSeconds).toBeUndefined();
  type('Pace of the rounds', 'clock');
  expect(last().pace).toEqual({ by: 'clock', work: 30, rest: 15 });
  expect(screen.queryByLabelText('More each round')).toBeNull();
  type('Seconds at a station', '45');
  type('Seconds between stations', '5');
  expect(last().pace).toEqual({ by: 'clock', work: 45, rest: 5 });
  type('Pace of the rounds', 'every');
  type('Seconds from start to start', '50');
  expect(last().pace).toEqual({ by: 'every', seconds: 50 });
  type('Pace of the rounds', 'free');
  expect(last().pace).toBeUndefined();
  fireEvent.click(screen.getByRole('button', { name: 'take apart' }));
  expect(onEnd).toHaveBeenCalled();
});
