import { act, renderHook, waitFor } from '@testing-library/react';
import type { SessionEvent } from '@yonder/core/session';
import { describe, expect, it } from 'vitest';
import { Page } from '../../testing/Page.tsx';
import { fakeServer, problem } from '../../testing/server.ts';
import { keepUnsent, unsentEvents, unsentSessions } from './outbox.ts';
import { useEvents } from './useEvents.ts';
import { useSendUnsent } from './useSendUnsent.ts';

const ITEM = '00000000-0000-4000-8000-0000000000c0';
const stored = { status: 200, body: { finished: false } };
const eventsIn = ({ body }: { body: unknown }) => (body as { events: SessionEvent[] }).events;
const types = (events: readonly SessionEvent[]) => events.map((event) => event.type);
const open = (session = 'one', before: SessionEvent[] = []) =>
  renderHook(() => useEvents(session, before), { wrapper: Page });

describe('what is said in a session', () => {
  it('counts at once, is sent in order and let go of when it is acknowledged', async () => {
    const sent = fakeServer(() => stored);
    const { result } = open();
    await act(async () => {
      result.current.say({ type: 'started' });
      result.current.say({ type: 'pain', item: ITEM, nrs: 2 }, { type: 'finished' });
      expect(types(unsentEvents('one'))).toEqual(['started', 'pain', 'finished']);
      expect(await result.current.settled()).toBe(true);
    });
    const arrived = sent.flatMap(eventsIn);
    expect(types(arrived)).toEqual(['started', 'pain', 'finished']);
    expect(arrived.map((event) => event.seq)).toEqual([0, 1, 2]);
    expect(new Set(arrived.map((event) => event.id)).size).toBe(3);
    expect(unsentEvents('one')).toEqual([]);
    expect(types(result.current.events)).toEqual(['started', 'pain', 'finished']);
  });

  it('waits on the device while nobody answers, over a reload too, and goes with its own ids', async () => {
    fakeServer(() => 'no answer');
    const first = open();
    await act(async () => {
      first.result.current.say({ type: 'pain', item: ITEM, nrs: 4 });
      expect(await first.result.current.settled()).toBe(false);
    });
    expect(first.result.current.problem).toMatch(/does not answer/);
    const [kept] = unsentEvents('one');
    first.unmount();
    const sent = fakeServer(() => stored);
    const again = open();
    expect(types(again.result.current.events)).toEqual(['pain']);
    await act(async () => void (await again.result.current.settled()));
    expect(sent.flatMap(eventsIn)).toEqual([kept]);
    expect(unsentEvents('one')).toEqual([]);
  });

  it('is taken back with its reason when the rules refuse it; what was said beside it is kept', async () => {
    const sent = fakeServer((one) =>
      types(eventsIn(one)).includes('swapped')
        ? problem(422, 'safety-refused', 'not with this precaution')
        : stored,
    );
    const { result } = open();
    const to = {
      drill: 'box-drop-landing',
      side: 'both' as const,
      phase: null,
      sets: 1,
      amount: 5,
      measure: 'contacts' as const,
      holdSeconds: null,
      restSeconds: 0,
      tempo: null,
      setup: {},
    };
    await act(async () => {
      result.current.say({ type: 'started' }, { type: 'swapped', item: ITEM, to }, { type: 'finished' });
      expect(await result.current.settled()).toBe(true); // nothing waits any more
    });
    expect(types(result.current.events)).toEqual(['started', 'finished']);
    expect(result.current.problem).toContain('not with this precaution');
    expect(unsentEvents('one')).toEqual([]);
    const kept = sent.filter((one) => !types(eventsIn(one)).includes('swapped')).flatMap(eventsIn);
    expect(types(kept)).toEqual(['started', 'finished']);
  });

  it('left behind by an earlier page is sent at the next visit; what is not ours to send stays', async () => {
    const event = { type: 'started' as const, id: ITEM, device: 'x', seq: 0, at: '2027-03-01T12:00:00.000Z' };
    keepUnsent('mine', [event]);
    keepUnsent('theirs', [event]);
    fakeServer(({ path }) => (path.includes('mine') ? stored : problem(404, 'not-found')));
    renderHook(() => useSendUnsent(), { wrapper: Page });
    await waitFor(() => expect(unsentSessions()).toEqual(['theirs']));
  });
});
