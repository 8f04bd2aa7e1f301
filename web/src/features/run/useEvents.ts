import type { Happening, SessionEvent } from '@yonder/core/session';
import { useCallback, useEffect, useRef, useState } from 'react';
import { errorText } from '../../app/api.ts';
import type { ApiError } from '../../app/api.ts';
import { newId } from '../../app/newId.ts';
import { keepUnsent, settleEvents, unsentEvents } from './outbox.ts';
import { useAppendEventsMutation } from './sessionEndpoints.ts';

const RETRY_MS = 5000;
const BATCH = 200;

/** Refused for what they say, not for who says it or when: sent again they are refused again. */
function refusedForGood(error: ApiError): boolean {
  if (error.kind !== 'problem') return false;
  const { status, code } = error.problem;
  return (status === 400 || status === 409 || status === 422) && code !== 'version-conflict';
}

export interface Told {
  /** Everything known to have happened: what was there before, and what was said here. */
  readonly events: readonly SessionEvent[];
  /** Says what happened. It counts at once; the server gets it as soon as it can be reached. */
  readonly say: (...happenings: Happening[]) => void;
  /** True once nothing waits any more: acknowledged, or refused and taken back. False when the server cannot be reached. */
  readonly settled: () => Promise<boolean>;
  readonly problem: string | null;
  /** Events that the server has not acknowledged. */
  readonly waiting: number;
}

/**
 * The events of a session on this page. What is said is kept on the device first and sent in order, again and again until
 * it is acknowledged; an event that the rules refuse is taken back and its reason shown.
 */
export function useEvents(sessionId: string, before: readonly SessionEvent[]): Told {
  const [append] = useAppendEventsMutation();
  const [events, setEvents] = useState<readonly SessionEvent[]>(() => [
    ...before,
    ...unsentEvents(sessionId),
  ]);
  const [waiting, setWaiting] = useState(() => unsentEvents(sessionId).length);
  const [problem, setProblem] = useState<string | null>(null);
  const [page] = useState(newId);
  const count = useRef(0);
  const sending = useRef<Promise<boolean>>(Promise.resolve(true));
  const busy = useRef(false);

  const settle = useCallback(
    (done: readonly SessionEvent[], refused = false) => {
      settleEvents(sessionId, done);
      setWaiting(unsentEvents(sessionId).length);
      if (!refused) return;
      const gone = new Set(done.map((event) => event.id));
      setEvents((all) => all.filter((event) => !gone.has(event.id)));
    },
    [sessionId],
  );

  const send = useCallback(async (): Promise<boolean> => {
    let sound = true;
    let parts = 1;
    busy.current = true;
    for (let rest = unsentEvents(sessionId); rest.length > 0; rest = unsentEvents(sessionId)) {
      const part = rest.slice(0, Math.ceil(Math.min(rest.length, BATCH) / parts));
      try {
        await append({ sessionId, events: part }).unwrap();
        settle(part);
        if (sound) setProblem(null);
      } catch (error) {
        setProblem(errorText(error));
        sound = false;
        if (!refusedForGood(error as ApiError)) {
          busy.current = false;
          return false;
        }
        // One faulty event must not hold up the others: halve until it stands alone.
        if (part.length === 1) settle(part, true);
        else parts *= 2;
      }
    }
    busy.current = false;
    return sound;
  }, [append, sessionId, settle]);

  // One round after the other; what was said while one was on its way goes with the next.
  const settled = useCallback((): Promise<boolean> => {
    sending.current = sending.current.then(send);
    return sending.current;
  }, [send]);

  const say = useCallback(
    (...happenings: Happening[]) => {
      const at = new Date().toISOString();
      const said = happenings.map((happening) => {
        const seq = count.current;
        count.current += 1;
        return { ...happening, id: newId(), device: page, seq, at } as SessionEvent;
      });
      keepUnsent(sessionId, said);
      setEvents((all) => [...all, ...said]);
      setWaiting(unsentEvents(sessionId).length);
      void settled();
    },
    [page, sessionId, settled],
  );

  useEffect(() => {
    if (waiting === 0) return undefined;
    const again = setInterval(() => {
      if (!busy.current) void settled();
    }, RETRY_MS);
    return () => clearInterval(again);
  }, [waiting, settled]);
  return { events, say, settled, problem, waiting };
}
