import { act, screen, waitFor } from '@testing-library/react';
import type { RoutineRow, SessionWithEvents } from '@yonder/core/contracts';
import { item } from '@yonder/core/testing/cases';
import { afterEach, expect, it, vi } from 'vitest';
import { showIn, workspaceOf } from '../../testing/workspace.tsx';
import { Runner } from './Runner.tsx';

const routine = {
  id: 'r',
  number: 1,
  totalSeconds: 60,
  items: [{ ...item('cat-camel'), id: 'line' }],
  reasons: [],
  schools: {},
} as unknown as RoutineRow;
const session = { id: 's', items: null, events: [], finished: false } as unknown as SessionWithEvents;

/** What the server answers when it is asked whether the run may go on; null: nobody answers. */
let door: object | null;
const open = (of: RoutineRow = routine) =>
  showIn(
    workspaceOf({}),
    <Runner session={session} routine={of} answers={{}} scores={{}} onLeave={() => undefined} />,
    ({ method, path }) => {
      if (path === '/sessions/s/door' && door) return { status: 200, body: door };
      if (method === 'POST' && path === '/sessions/s/events') return { status: 200, body: { ...session } };
      return 'no answer';
    },
  );
const fiveSecondsLater = () => act(() => vi.advanceTimersByTimeAsync(5000));
const warning = (words: string) => ({
  ...item('own-words', { words, amount: 0, measure: 'seconds', caution: true }),
  id: words,
});
const unheard = () => screen.queryByText(/No answer since/);

afterEach(() => vi.useRealTimers());

it('says from when nobody answers whether the run may go on, until somebody does; a stop then ends it', async () => {
  vi.useFakeTimers({ shouldAdvanceTime: true });
  door = { blocked: null, items: [] };
  await open();
  await fiveSecondsLater();
  expect(unheard()).toBeNull();
  door = null;
  await fiveSecondsLater();
  await waitFor(() => expect(unheard()?.textContent).toContain('does not stop this run by itself'));
  // Asked again in vain it stays said.
  await fiveSecondsLater();
  expect(unheard()).not.toBeNull();
  door = { blocked: 'Refer the same day.', items: [] };
  await fiveSecondsLater();
  await waitFor(() => expect(screen.getByText('Refer the same day.')).toBeTruthy());
  expect(unheard()).toBeNull();
});

it.each([
  ['stop if pain > 2/10', 2],
  ['stop if pain > 9/10', 5],
])(
  'the pain at which a drill stops is the stricter of the school’s and the list’s own: %s',
  async (words, limit) => {
    door = null;
    await open({ ...routine, items: [warning(words), ...routine.items] } as RoutineRow);
    const said = screen.getByText(/^Stop a drill if it hurts more than/).textContent;
    expect(said).toContain(`more than ${limit}/10.`);
    expect(said).toContain(words);
  },
);
