import { act, renderHook } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { useCreateAthleteMutation } from '../features/athletes/athleteEndpoints.ts';
import { EMPTY_ATHLETE } from '../features/athletes/AthleteForm.tsx';
import { Page } from '../testing/Page.tsx';
import { fakeServer, problem } from '../testing/server.ts';

const fields = { ...EMPTY_ATHLETE, name: 'Bram Tollgate', birthDate: '2001-05-02' };
const idOf = (sent: { body: unknown }) => (sent.body as { id: string }).id;

describe('creating something', () => {
  it('keeps its id until there is an answer, so that a second press stores nothing twice', async () => {
    const answers = ['no answer' as const, { status: 201, body: {} }, { status: 201, body: {} }];
    const sent = fakeServer(({ method }) =>
      method === 'POST' ? (answers.shift() ?? 'no answer') : 'no answer',
    );
    const { result } = renderHook(() => useCreateAthleteMutation(), { wrapper: Page });
    const press = () => act(async () => void (await result.current[0](fields)));
    await press();
    expect(result.current[1].error).toEqual({ kind: 'offline' });
    await press();
    expect(result.current[1].isSuccess).toBe(true);
    await press();
    const [first, again, other] = sent.filter(({ method }) => method === 'POST').map(idOf);
    expect(again).toBe(first);
    expect(other).not.toBe(first); // answered: the next one is another athlete
  });

  it('that was refused is another one when it is sent again', async () => {
    const sent = fakeServer(({ method }) =>
      method === 'POST' ? problem(400, 'invalid-request') : 'no answer',
    );
    const { result } = renderHook(() => useCreateAthleteMutation(), { wrapper: Page });
    for (let n = 0; n < 2; n += 1) await act(async () => void (await result.current[0](fields)));
    const [first, again] = sent.map(idOf);
    expect(again).not.toBe(first);
  });
});
