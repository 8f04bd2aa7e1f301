import { act, cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import { store } from '../../app/store.ts';
import { signedIn } from '../../app/sessionSlice.ts';
import { choose } from '../../testing/choose.ts';
import { problem } from '../../testing/server.ts';
import { DAY, showIn, workspaceOf } from '../../testing/workspace.tsx';
import { CheckIn } from './CheckIn.tsx';

const NOTHING = {
  date: DAY,
  by: '',
  version: null,
  slept: null,
  tension: null,
  minutes: null,
  space: null,
  warmMinutesAgo: null,
  news: '',
  sore: [],
};

/** A server that keeps what is said and answers with it, as long as it is reached. */
const kept = { row: { ...NOTHING } as object, down: false };
beforeEach(() => {
  kept.row = { ...NOTHING };
  kept.down = false;
  store.dispatch(
    signedIn({
      clinician: { id: 'c', name: 'K. Tarn', role: 'clinician' },
      practice: { name: 'P' },
      csrfToken: 't',
    } as never),
  );
});
const show = (over: object = {}) =>
  showIn({ ...workspaceOf({}), ...over } as never, <CheckIn />, ({ method, path, body }) => {
    if (!path.includes('/check-ins/')) return 'no answer';
    if (method === 'GET') return { status: 200, body: kept.row };
    if (kept.down) return problem(503, 'unavailable', 'The database cannot be reached.');
    kept.row = { ...kept.row, ...(body as object), version: 1 };
    return { status: 200, body: kept.row };
  });
const put = (sent: Awaited<ReturnType<typeof show>>) =>
  sent.filter(({ method }) => method === 'PUT').map(({ body }) => body as Record<string, unknown>);
const field = (name: string) => screen.findByRole<HTMLInputElement>('textbox', { name });
const type = async (name: string, value: string) => {
  const input = await field(name);
  fireEvent.change(input, { target: { value } });
  return input;
};

describe('before a session', () => {
  it('an answer is one press, and the same press takes it back', async () => {
    const sent = await show();
    const badly = () => screen.findByRole('button', { name: 'badly' });
    await act(async () => fireEvent.click(await badly()));
    await waitFor(async () => expect((await badly()).getAttribute('aria-pressed')).toBe('true'));
    await act(async () => fireEvent.click(await badly()));
    await waitFor(async () => expect((await badly()).getAttribute('aria-pressed')).toBe('false'));
    expect(put(sent).map(({ slept }) => slept)).toEqual(['badly', null]);
  });

  it('a figure is said when its field is left, whole and at least a minute', async () => {
    const sent = await show();
    fireEvent.blur(await type('Time today', '7.6'));
    await waitFor(() => expect(put(sent)).toMatchObject([{ minutes: 8 }]));
    fireEvent.blur(await type('Time today', '0'));
    await waitFor(() => expect(put(sent).at(-1)).toMatchObject({ minutes: 1 }));
  });

  it('called in, the time is told in throws of 15 s', async () => {
    const sent = await show({ occasion: 'called-in' });
    fireEvent.blur(await type('or in', '12'));
    await waitFor(() => expect(put(sent)).toMatchObject([{ minutes: 3 }]));
    await waitFor(async () => expect((await field('Ready in')).value).toBe('3'));
  });

  it('what is typed and not said is there again; nothing is sent before', async () => {
    const sent = await show();
    await type('Last warm', '20');
    await type('Anything new?', 'new boots');
    cleanup();
    await show();
    expect((await field('Last warm')).value).toBe('20');
    expect((await field('Anything new?')).value).toBe('new boots');
    expect(put(sent)).toEqual([]);
  });

  it('what the server could not store stays typed, with why', async () => {
    kept.down = true;
    await show();
    fireEvent.blur(await type('Anything new?', 'a knock on the shin'));
    expect(await screen.findByText('The database cannot be reached.')).toBeTruthy();
    cleanup();
    await show();
    expect((await field('Anything new?')).value).toBe('a knock on the shin');
  });

  it('what hurts is said with how much, once for a place, and taken back', async () => {
    kept.row = { ...NOTHING, sore: [{ region: 'ankle-foot', side: 'left', nrs: 2 }], version: 1 };
    const sent = await show();
    fireEvent.click(await screen.findByRole('button', { name: 'Something hurts' }));
    const say = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Say it' });
    expect(say().disabled).toBe(true);
    await type('How much', '5');
    await choose('When', 'at rest');
    await act(async () => fireEvent.click(say()));
    await waitFor(() =>
      expect(put(sent)).toMatchObject([
        { sore: [{ region: 'ankle-foot', side: 'left', nrs: 5, when: 'rest' }] },
      ]),
    );
    await screen.findByText(/5\/10 at rest/);
    await act(async () => fireEvent.click(await screen.findByRole('button', { name: /^Take back: / })));
    await waitFor(() => expect(put(sent).at(-1)).toMatchObject({ sore: [] }));
  });
});
