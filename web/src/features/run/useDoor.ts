import { useEffect, useEffectEvent, useState } from 'react';
import { useDoorOfRunQuery } from './sessionEndpoints.ts';
import type { Run } from './useRun.ts';

/** How often a run that is open asks whether it may go on. */
const ASK_MS = 4000;

/** What stops a run by now: everything, with the reason, or lines of it that were left out, each with its reason. */
export interface Stopped {
  /** The instant of the last answer, where nobody answers now: what was said elsewhere since is not known. */
  readonly unheardSince: string | null;
  readonly blocked: string | null;
  readonly items: readonly string[];
}

/**
 * Asks every few seconds whether a run may go on. A sign that is open by now halts it; a line that is forbidden by now is
 * left out, at once where it is the one being done. Where nobody answers, that is said.
 */
export function useDoor(sessionId: string, run: Run): Stopped {
  const { data, isError, isFetching, fulfilledTimeStamp } = useDoorOfRunQuery(sessionId, {
    pollingInterval: ASK_MS,
    skip: run.finished,
  });
  const [opened] = useState(() => Date.now());
  const [unheard, setUnheard] = useState(false);
  // Being asked again is no answer yet.
  if (!isFetching && isError !== unheard) setUnheard(isError);
  const blocked = run.finished ? null : (data?.blocked ?? null);
  const [said, setSaid] = useState<readonly string[]>([]);
  const [answered, setAnswered] = useState(data);
  // What was left out stays said, although the next answer does not name it any more.
  if (data !== answered) {
    setAnswered(data);
    setSaid([...new Set([...said, ...(data?.items ?? []).map(({ why }) => why)])]);
  }
  const obey = useEffectEvent(() => {
    if (blocked !== null && run.playing) run.pause();
    const forbidden = run.finished ? [] : (data?.items ?? []);
    if (forbidden.length > 0) run.leaveOutItems(forbidden.map(({ item }) => item));
  });
  useEffect(() => obey(), [data, blocked]);
  const since = new Date(fulfilledTimeStamp ?? opened).toISOString();
  return { blocked, items: said, unheardSince: unheard && !run.finished ? since : null };
}
