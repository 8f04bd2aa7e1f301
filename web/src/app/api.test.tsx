import { act, renderHook, waitFor } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Me } from '@yonder/core/contracts';
import { useTemplatesQuery } from '../features/routine/templateEndpoints.ts';
import { useCreateAthleteMutation } from '../features/athletes/athleteEndpoints.ts';
import { EMPTY_ATHLETE } from '../features/athletes/AthleteForm.tsx';
import { useMeQuery } from '../features/auth/authEndpoints.ts';
import { Page } from '../testing/Page.tsx';
import { fakeServer, problem } from '../testing/server.ts';
import { allItems, allPages, conflictOf, errorText } from './api.ts';
import { signedIn, signedOut } from './sessionSlice.ts';
import { store } from './store.ts';
import { setTimeZone } from './practiceZone.ts';
import { timeText, today } from './today.ts';

describe('a whole list', () => {
  const pages = [
    { items: [1, 2], next: 'b/2', pending: 3 },
    { items: [3], next: 'c', pending: 9 },
    { items: [], next: null, pending: 9 },
  ];

  it('is fetched page after page, each asked for by the one before', async () => {
    const asked: string[] = [];
    const fetch = (path: string) => {
      asked.push(path);
      return { data: pages[asked.length - 1] };
    };
    const all = await allPages<number, { pending: number }>('/athletes', fetch);
    expect(all).toEqual({ data: { items: [1, 2, 3], pending: 3 } });
    expect(asked).toEqual([
      '/athletes?limit=1000',
      '/athletes?limit=1000&after=b%2F2',
      '/athletes?limit=1000&after=c',
    ]);
  });

  it('is not shown in part: a page that fails fails the list', async () => {
    let count = 0;
    const fetch = () => {
      count += 1;
      return count === 1 ? { data: pages[0] } : { error: { kind: 'offline' as const } };
    };
    expect(await allItems<number>('/athletes?x=1', fetch)).toEqual({ error: { kind: 'offline' } });
  });

  it('reaches a page through the store', async () => {
    const template = { id: 't', name: 'Descent day' };
    fakeServer(() => ({ status: 200, body: { items: [template], next: null } }));
    const { result } = renderHook(() => useTemplatesQuery(), { wrapper: Page });
    await waitFor(() => expect(result.current.data).toEqual([template]));
  });
});

describe('a session that has ended', () => {
  const me = (name: string) =>
    ({
      clinician: { id: 'c', name, role: 'clinician' },
      practice: { name: 'P' },
      csrfToken: name,
    }) as unknown as Me;
  const asking = () => {
    const { result } = renderHook(() => useCreateAthleteMutation(), { wrapper: Page });
    return () => result.current[0](EMPTY_ATHLETE);
  };
  const session = () => store.getState().session;
  afterEach(() => void store.dispatch(signedOut()));

  it('is said at the door, and a second refusal does not take the word away', async () => {
    fakeServer(() => problem(401, 'not-signed-in'));
    store.dispatch(signedIn(me('one')));
    const ask = asking();
    await act(async () => void (await Promise.all([ask(), ask()])));
    expect(session()).toMatchObject({ me: null, ended: true });
    await act(async () => void (await ask()));
    expect(session()).toMatchObject({ me: null, ended: true });
  });
  it('is said at the door also where who is signed in is asked for again', async () => {
    store.dispatch(signedIn(me('one')));
    fakeServer(() => problem(401, 'not-signed-in'));
    renderHook(() => useMeQuery(), { wrapper: Page });
    await waitFor(() => expect(session()).toMatchObject({ me: null, ended: true }));
    await act(async () => undefined);
    expect(session().ended).toBe(true);
  });
  it('ends no other: a refusal that comes after the next sign-in is the old one’s', async () => {
    fakeServer(() => problem(401, 'not-signed-in'));
    store.dispatch(signedIn(me('one')));
    const ask = asking();
    await act(async () => {
      const late = ask();
      store.dispatch(signedIn(me('two')));
      await late;
    });
    expect(session().me?.csrfToken).toBe('two');
  });
});

describe('what a refusal says', () => {
  it('is its detail with every fault, and the row of a conflict', () => {
    const { body } = problem(409, 'version-conflict', 'Somebody changed this meanwhile');
    const refused = {
      kind: 'problem' as const,
      problem: {
        ...body,
        errors: [{ path: '$.name', message: 'a name is needed' }],
        current: { version: 3 },
      },
    };
    expect(errorText(refused)).toBe('Somebody changed this meanwhile: a name is needed');
    expect(conflictOf(refused)).toEqual({ version: 3 });
    expect(errorText({ kind: 'offline' })).toMatch(/kept on this device/);
  });
});

describe('today', () => {
  afterEach(() => vi.useRealTimers());
  it('is the practice’s, wherever the device is', async () => {
    vi.useFakeTimers({ now: new Date('2027-03-01T10:30:00Z') });
    await act(async () => setTimeZone('Pacific/Kiritimati'));
    expect(today()).toBe('2027-03-02');
    expect(timeText('2027-03-01T10:30:00Z')).toBe('2 Mar 2027, 00:30');
    setTimeZone('Pacific/Pago_Pago');
    expect(today()).toBe('2027-02-28');
    setTimeZone('UTC');
  });
});
