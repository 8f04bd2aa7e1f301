import { fireEvent, screen, within } from '@testing-library/react';
import type { TodaysCopy } from '@yonder/core/checkin';
import type { RoutineRow } from '@yonder/core/contracts';
import { expect, it, vi } from 'vitest';
import { showIn, workspaceOf } from '../../testing/workspace.tsx';
import { TodaysSession } from './TodaysSession.tsx';

const line = (id: string, drill: string) => ({
  id,
  drill,
  side: 'both',
  phase: null,
  sets: 2,
  amount: 8,
  measure: 'reps',
  holdSeconds: null,
  restSeconds: 0,
  tempo: null,
  setup: {},
});
const issued = [line('a', 'cat-camel'), line('b', 'pogo-hop'), line('c', 'dead-bug')];
const routine = { number: 4, totalSeconds: 600, items: issued } as unknown as RoutineRow;
const copy = {
  items: [issued[0], issued[1], line('c', 'bird-dog')],
  out: new Set(['b']),
  seconds: 515,
  changes: [
    {
      id: 'out/b',
      kind: 'out',
      item: 'b',
      seconds: -70,
      firm: true,
      because: {
        rule: 'forbidden-today',
        drill: 'pogo-hop',
        because: 'precaution-exclude',
        about: 'no-impact',
      },
    },
    {
      id: 'swapped/c',
      kind: 'swapped',
      item: 'c',
      seconds: -15,
      firm: false,
      because: { rule: 'no-room-today', drill: 'dead-bug' },
    },
  ],
} as unknown as TodaysCopy;

const show = async (over: Partial<TodaysCopy> = {}, undone: string[] = []) => {
  const on = { onUndo: vi.fn(), onRestore: vi.fn() };
  await showIn(
    workspaceOf({}),
    <TodaysSession routine={routine} copy={{ ...copy, ...over }} undone={undone} {...on} />,
  );
  return on;
};

it('each change says what, why and by how much; what safety asks for has no way back', async () => {
  const { onUndo } = await show();
  expect(screen.getByRole('heading').textContent).toBe('The session today: 10 min 00 s → 8 min 35 s');
  const [out, swapped] = screen.getAllByRole('listitem');
  if (!out || !swapped) throw new Error('two changes');
  expect(out.textContent).toMatch(/hops.*−1:10by rule$/);
  expect(within(out).queryByRole('button')).toBeNull();
  expect(swapped.textContent).toMatch(/for dead bug.*2 × 8.*−0:15/i);
  fireEvent.click(within(swapped).getByRole('button', { name: /^Put back: / }));
  expect(onUndo).toHaveBeenCalledWith('swapped/c');
});

it('what was put back can be taken up again; where nothing changes it says so', async () => {
  const { onRestore } = await show({ changes: [] }, ['swapped/c']);
  expect(screen.getByText('Nothing of what was said changes it.')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: '1 put back: take up again' }));
  expect(onRestore).toHaveBeenCalled();
});
