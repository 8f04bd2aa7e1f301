import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { problem } from '../../testing/server.ts';
import { showIn, workspaceOf } from '../../testing/workspace.tsx';
import { TodayPage } from './TodayPage.tsx';

vi.setConfig({ testTimeout: 20_000 });
const athlete = (id: string, name: string, todo: object[], over: object = {}) => ({
  id,
  name,
  sport: 'fell running',
  todo,
  oldResults: 0,
  ...over,
});
const pain = (nrs: number, above: boolean) => ({
  kind: 'pain',
  drill: 'dead-bug',
  side: 'left',
  pain: nrs,
  above,
  date: '2027-02-28',
});
const BLOCKED = { kind: 'blocked', region: 'all', redFlag: 'gen-fracture' };
const DECISIONS = { kind: 'decisions', drill: 'cat-camel', decision: 'keep', items: 3, occasion: null };
const RESCREEN = {
  kind: 'rescreen',
  test: 'wblt-distance',
  side: 'left',
  chance: 0.3,
  drills: 2,
  seconds: 150,
  date: '2027-01-20',
};
const open = (items: object[], over: { pending?: number; sessions?: object[] } = {}) =>
  showIn(workspaceOf({}), <TodayPage />, ({ path }) => {
    if (path === '/athletes') return { status: 200, body: { items, next: null, pending: over.pending ?? 0 } };
    if (path === '/sessions') return { status: 200, body: { items: over.sessions ?? [] } };
    return 'no answer';
  });
const names = (group: string) =>
  within(screen.getByRole('region', { name: group }))
    .getAllByRole('listitem')
    .map((row) => row.querySelector('a')?.textContent);

describe('what waits today', () => {
  it('stands with the stop sign first, pain over the limit before what is due, and leads to its work', async () => {
    await open([
      athlete('b', 'Bo Carrick', [{ kind: 'not-asked', never: true, topics: 12 }, DECISIONS]),
      athlete('a', 'Ada Fellgate', [pain(6, true), RESCREEN], { oldResults: 3 }),
      athlete('c', 'Cy Oldtown', [BLOCKED, pain(2, false)]),
      athlete('d', 'Dee Northfell', []),
    ]);
    await screen.findByRole('region', { name: 'Before anybody moves' });
    expect(names('Before anybody moves')).toEqual(['Cy Oldtown', 'Ada Fellgate', 'Bo Carrick']);
    expect(names('Changes work done today')).toEqual(['Cy Oldtown', 'Bo Carrick']);
    expect(names('When there is a quiet hour')).toEqual(['Ada Fellgate']);
    for (const [action, path] of [
      ['Record who has seen them: Cy Oldtown', '/athletes/c/story'],
      ['Ask now: Bo Carrick', '/athletes/b/gate'],
      ['Decide: Bo Carrick', '/athletes/b/progress'],
      ['Screen: Ada Fellgate', '/athletes/a/screen?region=ankle-foot'],
    ] as const)
      expect(screen.getByRole('link', { name: action }).getAttribute('href')).toBe(path);
    expect(screen.getByRole('heading', { level: 1 }).textContent).toContain(
      '3 before anybody moves. 3 more can be done today.',
    );
    // A side is said, not only coloured; what is asked for is not counted among what is not.
    expect(screen.getByText(/Rescreen weight-bearing lunge test.*2 min 30 s/)).toBeTruthy();
    expect(screen.getAllByText('left:', { exact: false }).length).toBeGreaterThan(0);
    expect(screen.getByRole('status').textContent).toBe(
      '2 old results could change nothing now and are not asked for. 1 athlete needs nothing from you.',
    );
  });

  it('is gone through by keys, from line to line and not beyond the ends', async () => {
    await open([athlete('a', 'Ada Fellgate', [pain(6, true)]), athlete('b', 'Bo Carrick', [DECISIONS])]);
    const first = await screen.findByRole('link', { name: 'Look: Ada Fellgate' });
    const second = screen.getByRole('link', { name: 'Decide: Bo Carrick' });
    const key = (name: string) => fireEvent.keyDown(document.documentElement, { key: name });
    key('j');
    expect(document.activeElement).toBe(first);
    key('j');
    key('j');
    expect(document.activeElement).toBe(second);
    key('k');
    key('k');
    expect(document.activeElement).toBe(first);
  });

  it('of hundreds shows a dozen of a group, and the rest on a press', async () => {
    await open(Array.from({ length: 40 }, (_, i) => athlete(`a${i}`, `Athlete ${100 + i}`, [DECISIONS])));
    const group = await screen.findByRole('region', { name: 'Changes work done today' });
    expect(within(group).getAllByRole('listitem')).toHaveLength(12);
    fireEvent.click(within(group).getByRole('button', { name: '28 more' }));
    expect(within(group).getAllByRole('listitem')).toHaveLength(40);
  });

  it('is nothing: says so, and tells who is alone how to begin', async () => {
    await open([athlete('d', 'Dee Northfell', [])]);
    expect(await screen.findByRole('heading', { name: 'Nothing waits' })).toBeTruthy();
    expect(screen.queryByRole('link', { name: 'Add the first athlete' })).toBeNull();
  });
  it('in an empty practice leads to the first athlete', async () => {
    await open([]);
    expect((await screen.findByRole('link', { name: 'Add the first athlete' })).getAttribute('href')).toBe(
      '/athletes/new',
    );
  });
  it('that cannot be read says why, and does not look like nothing', async () => {
    await showIn(workspaceOf({}), <TodayPage />, ({ path }) =>
      path === '/athletes' ? problem(503, 'unavailable', 'The database does not answer.') : 'no answer',
    );
    expect((await screen.findByRole('alert')).textContent).toContain('The database does not answer.');
    expect(screen.queryByText('Nothing waits')).toBeNull();
  });
  it('still being worked out says how many', async () => {
    await open([athlete('d', 'Dee Northfell', [])], { pending: 7 });
    expect(await screen.findByText(/7 are being worked out…/)).toBeTruthy();
  });
});

describe('since yesterday', () => {
  it('counts sessions that were ended, and the most pain that was told', async () => {
    const session = (id: string, over: object) => ({
      id,
      athleteId: 'a',
      athlete: 'Ada Fellgate',
      finished: true,
      left: 0,
      pain: null,
      ...over,
    });
    await open([athlete('a', 'Ada Fellgate', [])], {
      sessions: [
        session('1', { pain: 2 }),
        session('2', { pain: 4, left: 1 }),
        session('3', { finished: false }),
      ],
    });
    const since = await screen.findByRole('region', { name: 'Since yesterday' });
    await waitFor(() => expect(since.textContent).toContain('2, most 4/10'));
    expect(since.textContent).toMatch(/Sessions run2/);
    expect(since.textContent).toMatch(/Begun, not finished1/);
    expect(within(since).getAllByRole('listitem')).toHaveLength(2);
  });
});
