import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { choose } from '../../testing/choose.ts';
import { problem } from '../../testing/server.ts';
import type { Sent } from '../../testing/server.ts';
import { showIn, workspaceOf } from '../../testing/workspace.tsx';
import { ImportPage } from './ImportPage.tsx';

vi.setConfig({ testTimeout: 20_000 });
const LUNGE = 'Weight-bearing lunge test, toe-to-wall distance';
const HEAD = 'athlete,date,test,side,trial 1,trial 2,trial 3,pain';
const row = (over: Partial<Record<'who' | 'day' | 'test' | 'side' | 'trials', string>> = {}) => {
  const {
    who = 'Ada Fellgate',
    day = '14.3.2027',
    test = `"${LUNGE}"`,
    side = 'left',
    trials = '7.0,7.2,7.1',
  } = over;
  return `${who},${day},${test},${side},${trials},0`;
};
const athletes = {
  items: [
    { id: 'ada', name: 'Ada Fellgate' },
    { id: 'bo', name: 'Bo Carrick' },
  ],
  next: null,
  pending: 0,
};

/** Shows the page; what is imported is answered as the test says. */
const open = (answer: () => { status: number; body?: unknown } = () => ({ status: 201, body: {} })) =>
  showIn(workspaceOf({}), <ImportPage />, ({ method, path }) => {
    if (method === 'POST' && path === '/screenings/import') return answer();
    if (path === '/athletes') return { status: 200, body: athletes };
    return 'no answer';
  });
const take = async (text: string) => {
  const input = document.querySelector('input[type="file"]');
  if (!input) throw new Error('no file can be chosen');
  fireEvent.change(input, { target: { files: [new File([text], 'visits.csv', { type: 'text/csv' })] } });
  await screen.findByText(/Which column is what/);
};
const preview = () =>
  within(screen.getByRole('table', { name: 'Preview' }))
    .getAllByRole('row')
    .slice(1);
const button = () => screen.getByRole<HTMLButtonElement>('button', { name: /^Import \d+ rows$/ });
const imported = (sent: Sent[]) =>
  sent.filter(({ path }) => path === '/screenings/import').map(({ body }) => body as { rows: unknown[] });

describe('screenings from a file', () => {
  it('are shown as they would be stored, sent once, and counted as the server counted them', async () => {
    const done = { results: 2, visits: 1, athletes: 1, replaced: 1, unchanged: 0 };
    const sent = await open(() => ({ status: 201, body: done }));
    await take([HEAD, row(), row({ side: 'right', trials: '11.0,11.2,11.1' })].join('\n'));
    await waitFor(() => expect(preview()).toHaveLength(2));
    // The mean of the trials counts in this test.
    expect(preview().map(({ textContent }) => textContent)).toEqual([
      `Ada Fellgate14 Mar 2027${LUNGE}left7, 7.2, 7.17.1 cm0`,
      `Ada Fellgate14 Mar 2027${LUNGE}right11, 11.2, 11.111.1 cm0`,
    ]);
    fireEvent.click(button());
    expect(await screen.findByText(/2 results in 1 visits of 1 athlete\./)).toBeTruthy();
    expect(screen.getByText(/1 took the place of another stored value/)).toBeTruthy();
    expect(imported(sent)).toHaveLength(1);
    expect(imported(sent)[0]?.rows[0]).toMatchObject({
      athleteId: 'ada',
      date: '2027-03-14',
      result: { test: 'wblt-distance', side: 'left', trials: [7, 7.2, 7.1], pain: { nrs: 0 } },
    });
  });

  it('with faulty rows say which and why, and go without them only when that is said', async () => {
    const sent = await open();
    await take(
      [
        HEAD,
        row(),
        row({ who: 'Nobody Known' }),
        row({ test: 'Handstand contest' }),
        row({ trials: 'seven,7.1,7.2' }),
      ].join('\n'),
    );
    const faults = within(await screen.findByRole('alert'));
    const said = faults.getAllByRole('listitem').map(({ textContent }) => textContent);
    expect([...new Set(said.map((text) => /^Row (\d)/.exec(text ?? '')?.[1]))]).toEqual(['3', '4', '5']);
    expect(said[0]).toContain('Nobody Known');
    expect(said[1]).toContain('Handstand contest');
    expect(button().disabled).toBe(true);
    fireEvent.click(screen.getByRole('checkbox', { name: /Leave out the 3 faulty rows/ }));
    fireEvent.click(button());
    await waitFor(() => expect(imported(sent)).toHaveLength(1));
    expect(imported(sent)[0]?.rows).toHaveLength(1);
  });

  it('whose headings say nothing are read once each column is chosen', async () => {
    await open();
    await take(['who,when,what,l or r,first', `Bo Carrick,2027-03-02,"${LUNGE}",right,9.5`].join('\n'));
    expect(screen.getByRole('alert').textContent).toMatch(/^Choose the column of: .*athlete/);
    for (const [field, column] of [
      ['athlete', 'who'],
      ['date', 'when'],
      ['test', 'what'],
      ['side', 'l or r'],
      ['trial 1', 'first'],
    ] as const)
      await choose(field, column);
    await waitFor(() => expect(preview()).toHaveLength(1));
    expect(preview()[0]?.textContent).toContain('Bo Carrick2 Mar 2027');
  });

  it('read days such as 3/4/2027 the way that is said', async () => {
    await open();
    await take([HEAD, row({ day: '3/4/2027' })].join('\n'));
    await waitFor(() => expect(preview()[0]?.textContent).toContain('3 Apr 2027'));
    await choose('Days such as 3/4/2027', /^4 March/);
    await waitFor(() => expect(preview()[0]?.textContent).toContain('4 Mar 2027'));
  });

  it('that the server refuses stay on the page, with what it said', async () => {
    const sent = await open(() => problem(409, 'conflict', 'Somebody stored these just now.'));
    await take([HEAD, row()].join('\n'));
    await waitFor(() => expect(preview()).toHaveLength(1));
    fireEvent.click(button());
    expect(await screen.findByText(/Somebody stored these just now/)).toBeTruthy();
    expect(preview()).toHaveLength(1);
    expect(imported(sent)).toHaveLength(1);
  });

  it('are at most 2000 at once, and a file without rows imports nothing', async () => {
    await open();
    const day = (i: number) => new Date(Date.UTC(2016, 0, 1 + i)).toISOString().slice(0, 10);
    await take([HEAD, ...Array.from({ length: 2001 }, (_, i) => row({ day: day(i) }))].join('\n'));
    expect(await screen.findByText(/At most 2000 rows at once; split the file/)).toBeTruthy();
    expect(button().disabled).toBe(true);
    expect(preview()).toHaveLength(8);
    await take(HEAD);
    await waitFor(() => expect(button().textContent).toBe('Import 0 rows'));
    expect(button().disabled).toBe(true);
    expect(screen.queryByRole('alert')).toBeNull();
  });
});
