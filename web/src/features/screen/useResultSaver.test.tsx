import { act, renderHook, waitFor } from '@testing-library/react';
import { bundledReference } from '@yonder/core/reference/bundled';
import { describe, expect, it } from 'vitest';
import { Page } from '../../testing/Page.tsx';
import { fakeServer, problem } from '../../testing/server.ts';
import type { Sent } from '../../testing/server.ts';
import { EMPTY_ENTRY } from './entry.ts';
import { useResultSaver } from './useResultSaver.ts';

const lunge = bundledReference.tests.get('wblt-distance');
if (!lunge) throw new Error('no test');
const typed = (...trials: string[]) => ({ ...EMPTY_ENTRY, trials });
const open = (screeningId: string | null = 'visit') =>
  renderHook(() => useResultSaver({ athleteId: 'ada', date: '2027-03-01', screeningId }), { wrapper: Page });
const row = ({ path, body }: Sent) => {
  const [, , , , test, side] = path.split('/');
  const { version, ...value } = body as { version: number | null };
  return { status: 200, body: { test, side, ...value, version: (version ?? 0) + 1 } };
};

describe('storing what is typed', () => {
  it('makes each change on the version before it, and says stored only when all is', async () => {
    const seen: string[] = [];
    const saidTooSoon: boolean[] = [];
    const sent = fakeServer((one) => {
      saidTooSoon.push(seen.includes('stored'));
      return row(one);
    });
    const { result } = renderHook(
      () => {
        const saver = useResultSaver({ athleteId: 'ada', date: '2027-03-01', screeningId: 'visit' });
        seen.push(saver.state.kind);
        return saver;
      },
      { wrapper: Page },
    );
    await act(async () => {
      result.current.save(lunge, 'left', typed('7'), undefined);
      result.current.save(lunge, 'left', typed('7', '7.2'), undefined);
    });
    await waitFor(() => expect(result.current.state.kind).toBe('stored'));
    expect(sent.map(({ body }) => (body as { version: number | null }).version)).toEqual([null, 1]);
    expect(saidTooSoon).toEqual([false, false]);
  });

  it('opens the visit with the first value, and takes an emptied result back on its version', async () => {
    const sent = fakeServer((one) => {
      if (one.method === 'POST')
        return {
          status: 200,
          body: { id: 'new', date: '2027-03-01', finished: false, version: 1, results: [] },
        };
      return one.method === 'PUT' ? row(one) : { status: 204 };
    });
    const { result } = open(null);
    await act(async () => result.current.save(lunge, 'left', typed('7'), undefined));
    await waitFor(() => expect(result.current.state.kind).toBe('stored'));
    expect(sent.slice(0, 2).map(({ method, path }) => `${method} ${path}`)).toEqual([
      'POST /athletes/ada/screenings',
      'PUT /screenings/new/results/wblt-distance/left',
    ]);
  });

  it('says why something is not stored, and goes on with the next', async () => {
    let first = true;
    fakeServer((one) => {
      if (!first) return row(one);
      first = false;
      return problem(409, 'version-conflict', 'Somebody changed this meanwhile');
    });
    const { result } = open();
    await act(async () => result.current.save(lunge, 'left', typed('7'), undefined));
    await waitFor(() =>
      expect(result.current.state).toEqual({ kind: 'failed', message: 'Somebody changed this meanwhile' }),
    );
    await act(async () => result.current.save(lunge, 'right', typed('9'), undefined));
    await waitFor(() => expect(result.current.state.kind).toBe('stored'));
  });
});
