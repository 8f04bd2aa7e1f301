import { act, renderHook, waitFor } from '@testing-library/react';
import { bundledReference } from '@yonder/core/reference/bundled';
import { Suspense } from 'react';
import type { ReactNode } from 'react';
import { beforeEach, describe, expect, it } from 'vitest';
import { ReferenceProvider } from '../../app/reference.tsx';
import { Page } from '../../testing/Page.tsx';
import { fakeServer, problem } from '../../testing/server.ts';
import type { Sent } from '../../testing/server.ts';
import { EMPTY_ENTRY } from './entry.ts';
import { typedAt } from './typedResults.ts';
import { useResultSaver } from './useResultSaver.ts';

const lunge = bundledReference.tests.get('wblt-distance');
if (!lunge) throw new Error('no test');
const typed = (...trials: string[]) => ({ ...EMPTY_ENTRY, trials });
const row = ({ path, body }: Sent) => {
  const [, , , , test, side] = path.split('/');
  const { version, ...value } = body as { version: number | null };
  return { status: 200, body: { test, side, ...value, version: (version ?? 0) + 1 } } as const;
};
type Answer = ReturnType<Parameters<typeof fakeServer>[0]>;

let visits = 0;
let place = { athleteId: '', date: '2027-03-01', screeningId: null as string | null };
beforeEach(() => {
  // The page's one sender goes on from test to test: each has an athlete of its own.
  place = { athleteId: `ada-${(visits += 1)}`, date: '2027-03-01', screeningId: `visit-${visits}` };
});
const at = (side: 'left' | 'right') => ({
  athleteId: place.athleteId,
  date: place.date,
  test: 'wblt-distance',
  side,
});

/** The saver of a visit; `answer` stands in for the server of results. */
async function open(answer: (one: Sent) => Answer) {
  const sent = fakeServer((one) => {
    if (one.path === '/reference') return { status: 200, body: { version: 'v' } };
    if (one.path === '/reference/v') return { status: 200, body: bundledReference.data };
    if (one.path === '/figures') return 'no answer';
    if (one.method === 'GET') return { status: 200, body: { items: [], next: null } };
    return answer(one);
  });
  const wrapper = ({ children }: { children: ReactNode }) => (
    <Page>
      <Suspense>
        <ReferenceProvider>{children}</ReferenceProvider>
      </Suspense>
    </Page>
  );
  const hook = await act(async () => renderHook(() => useResultSaver(place), { wrapper }));
  await waitFor(() => expect(hook.result.current).toBeTruthy());
  return { ...hook, writes: () => sent.filter((one) => one.method !== 'GET') };
}

describe('storing what is typed', () => {
  it('makes each change on the version before it, and says stored only when nothing is left here', async () => {
    const leftWhenStored: boolean[] = [];
    const { result, writes } = await open(row);
    await act(async () => {
      result.current.save(lunge, 'left', typed('7'), undefined);
      result.current.save(lunge, 'right', typed('9'), undefined);
    });
    await act(async () => result.current.save(lunge, 'left', typed('7', '7.2'), undefined));
    await waitFor(() => {
      if (result.current.state.kind === 'stored') leftWhenStored.push(typedAt(at('left')) !== undefined);
      expect(result.current.state.kind).toBe('stored');
    });
    const left = writes().filter(({ path }) => path.endsWith('/left'));
    expect(left.map(({ body }) => (body as { version: number | null }).version)).toEqual([null, 1]);
    expect(left.at(-1)?.body).toMatchObject({ trials: [7, 7.2] });
    expect(leftWhenStored).not.toContain(true);
  });

  it('opens the visit with the first value, and takes an emptied result back on its version', async () => {
    place = { ...place, screeningId: null };
    const visit = { id: 'new', date: '2027-03-01', finished: false, version: 1, results: [] };
    const { result, writes } = await open((one) =>
      one.method === 'POST'
        ? { status: 200, body: visit }
        : one.method === 'PUT'
          ? row(one)
          : { status: 204 },
    );
    await act(async () => result.current.save(lunge, 'left', typed('7'), undefined));
    await waitFor(() => expect(result.current.state.kind).toBe('stored'));
    await act(async () =>
      result.current.save(lunge, 'left', EMPTY_ENTRY, { version: 1, trials: [7] } as never),
    );
    await waitFor(() => expect(writes()).toHaveLength(3));
    expect(writes().map(({ method, path }) => `${method} ${path}`)).toEqual([
      `POST /athletes/${place.athleteId}/screenings`,
      'PUT /screenings/new/results/wblt-distance/left',
      'DELETE /screenings/new/results/wblt-distance/left',
    ]);
  });

  it('sent before and only its answer lost, it is stored and no conflict with itself', async () => {
    const current = { test: 'wblt-distance', side: 'left', trials: [7], version: 4 };
    const refused = problem(409, 'version-conflict');
    const { result } = await open(() => ({ ...refused, body: { ...refused.body, current } }));
    await act(async () => result.current.save(lunge, 'left', typed('7'), undefined));
    await waitFor(() => expect(result.current.state.kind).toBe('stored'));
    expect(result.current.conflicts).toEqual([]);
    expect(typedAt(at('left'))).toBeUndefined();
  });

  it('keeps what cannot be sent, says how much that is, and sends it once the server answers', async () => {
    let reachable = false;
    const { result } = await open((one) => (reachable ? row(one) : 'no answer'));
    await act(async () => result.current.save(lunge, 'left', typed('7'), undefined));
    await waitFor(() => expect(result.current.state).toEqual({ kind: 'waiting', count: 1 }));
    expect(typedAt(at('left'))?.entry.trials).toEqual(['7']);
    reachable = true;
    await act(async () => result.current.sender.sendAll());
    await waitFor(() => expect(result.current.state.kind).toBe('stored'), { timeout: 8000 });
    expect(typedAt(at('left'))).toBeUndefined();
  });

  it('with another value stored meanwhile shows both, and stores the one that is chosen on its version', async () => {
    const theirs = { test: 'wblt-distance', side: 'left', trials: [12], version: 4 };
    let conflict = true;
    const { result, writes } = await open((one) => {
      if (!conflict) return row(one);
      conflict = false;
      const refused = problem(409, 'version-conflict');
      return { ...refused, body: { ...refused.body, current: theirs } };
    });
    await act(async () => result.current.save(lunge, 'left', typed('7'), undefined));
    await waitFor(() => expect(result.current.conflicts).toHaveLength(1));
    const [key, both] = result.current.conflicts[0] ?? ['', null];
    expect([both?.mine.entry.trials, both?.theirs?.trials]).toEqual([['7'], [12]]);
    expect(result.current.state.kind).not.toBe('stored');
    await act(async () => result.current.sender.keepMine(key));
    await waitFor(() => expect(result.current.state.kind).toBe('stored'));
    expect(writes().at(-1)?.body).toMatchObject({ trials: [7], version: 4 });
  });

  it('never says stored beside a value that cannot be', async () => {
    const { result, writes } = await open(row);
    await act(async () => result.current.save(lunge, 'left', typed('7'), undefined));
    await waitFor(() => expect(result.current.state.kind).toBe('stored'));
    await act(async () => result.current.type(lunge, 'right', typed('71'), undefined));
    expect(result.current.state).toMatchObject({
      kind: 'faulty',
      message: expect.stringMatching(/trial 1 right: 71 is outside -5 to 25/),
    });
    expect(writes()).toHaveLength(1);
  });
});
