import { useInterval } from '@mantine/hooks';
import type { SessionWithEvents } from '@yonder/core/contracts';
import type { RoutineItem } from '@yonder/core/domain';
import type { Segment } from '@yonder/core/dose';
import type { IdentifiedItem } from '@yonder/core/routine';
import { advance, back, reduceSession, skip, skipItem, skipRest } from '@yonder/core/session';
import type { Happening, Position } from '@yonder/core/session';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useReference } from '../../app/reference.tsx';
import { useEvents } from './useEvents.ts';

const TICK_MS = 100;

/** The second a run was at on this device; between two events the clock alone knows it. */
function localSecond(sessionId: string): Pick<Position, 'segment' | 'elapsed'> | null {
  const text = sessionStorage.getItem(`run/${sessionId}`);
  return text ? (JSON.parse(text) as Position) : null;
}

/** The pieces of work passed from one segment to another, but for those that are left out. */
function reachedBetween(
  segments: readonly Segment[],
  from: number,
  to: number,
  skipped: readonly number[],
  itemAt: (segment: number) => string,
): Happening[] {
  return segments
    .slice(from, to)
    .map((segment, i) => ({ segment, place: from + i }))
    .filter(({ segment, place }) => segment.kind === 'work' && !skipped.includes(place))
    .map(({ segment, place }) => ({
      type: 'reached',
      item: itemAt(place),
      segment: place,
      set: segment.set ?? 1,
      side: segment.side,
      amount: segment.amount ?? 0,
    }));
}

/** Says of a line what is left out between two positions. */
function leftOut(item: string, from: Position, to: Position): Happening {
  const segments = to.skipped.filter((s) => !from.skipped.includes(s));
  return { type: 'skipped', item, segments, next: to.segment };
}

/** Where the running second is; it goes on from what happened, never behind it. */
function positionAt(
  { segment, elapsed }: Pick<Position, 'segment' | 'elapsed'>,
  happened: Position,
  end: number,
): Position {
  const behind = segment < happened.segment || segment > end;
  return behind ? happened : { segment, elapsed, skipped: happened.skipped };
}

/** Keeps the running second on this device, for a page that is loaded anew. */
function useKeepsSecond(sessionId: string, position: Position): void {
  useEffect(() => {
    const { segment, elapsed } = position;
    sessionStorage.setItem(`run/${sessionId}`, JSON.stringify({ segment, elapsed }));
  }, [position, sessionId]);
}

/** Plays a session. What happened is said as events; everything shown but the running second follows from them. */
export function useRun(session: SessionWithEvents, routine: readonly IdentifiedItem[]) {
  const reference = useReference();
  const { events, say, settled, problem, waiting } = useEvents(session.id, session.events);
  const state = useMemo(() => reduceSession(reference, routine, events), [reference, routine, events]);
  const { items, segments, entries } = state;
  const [second, setSecond] = useState(() => localSecond(session.id) ?? state.position);
  const [playing, setPlaying] = useState(false);
  const last = useRef(0);
  const { skipped } = state.position;
  const end = segments.length;
  const position = useMemo(() => positionAt(second, state.position, end), [second, state.position, end]);
  const finished = position.segment >= segments.length;
  const itemAt = useCallback(
    (segment: number) => routine[segments[segment]?.item ?? routine.length - 1]?.id ?? '',
    [routine, segments],
  );

  useKeepsSecond(session.id, position);

  // A tick may come before the page was drawn again.
  const now = useRef(position);
  useEffect(() => {
    now.current = position;
  }, [position]);
  /** Moves the second; every piece of work it passes was reached. */
  const moveOn = useCallback(
    (next: Position) => {
      const from = now.current.segment;
      now.current = next;
      const reached = reachedBetween(segments, from, next.segment, skipped, itemAt);
      if (reached.length > 0) say(...reached);
      setSecond(next);
    },
    [itemAt, say, segments, skipped],
  );
  const jump = (happening: Happening, next: Position) => {
    say(happening);
    setSecond(next);
  };

  const tick = useInterval(() => {
    const instant = performance.now();
    const seconds = (instant - last.current) / 1000;
    last.current = instant;
    moveOn(advance(segments, now.current, seconds));
  }, TICK_MS);
  useEffect(() => {
    if (playing && !finished) tick.start();
    else tick.stop();
    return tick.stop;
  }, [playing, finished, tick]);

  const leaveOut = (next: Position) => jump(leftOut(itemAt(position.segment), position, next), next);
  const pause = () => {
    setPlaying(false);
    say({ type: 'paused', segment: position.segment, elapsed: position.elapsed });
  };
  return {
    items,
    /** Ids of the lines, in the order of `items`. */
    ids: routine.map(({ id }) => id),
    segments,
    position,
    entries,
    leftOut: state.leftOut,
    provoked: state.provoked,
    playing,
    finished,
    begun: state.started,
    /** The session was closed; only what is remembered of it can still be said. */
    over: state.finished,
    problem,
    waiting,
    say,
    settled,
    play: () => {
      last.current = performance.now();
      setPlaying(true);
    },
    pause,
    skip: () => {
      if (!finished) leaveOut(skip(segments, position));
    },
    /** Leaves out what is left of the drill. */
    skipDrill: () => {
      if (!finished) leaveOut(skipItem(segments, position));
    },
    /** Leaves out what is left of these lines; it goes on with the first piece that is not of them. */
    leaveOutItems: (ids: readonly string[]) => {
      let at = position;
      for (const id of new Set(ids)) {
        const next = skipItem(
          segments,
          at,
          routine.findIndex((line) => line.id === id),
        );
        if (next.skipped.length > at.skipped.length) say(leftOut(id, at, next));
        at = next;
      }
      if (at.segment !== position.segment) setSecond(at);
    },
    back: () => {
      const next = back(segments, position);
      jump({ type: 'went-back', segment: next.segment }, next);
    },
    end: () => leaveOut(skipRest(segments, position)),
    reportPain: (nrs: number, stopAbove: number) => {
      say({ type: 'pain', item: itemAt(position.segment), nrs });
      if (nrs > stopAbove) leaveOut(skipItem(segments, position));
    },
    swap: (index: number, to: RoutineItem) => {
      const item = routine[index]?.id ?? '';
      const { id: _id, ...drill } = to;
      say({ type: 'swapped', item, to: drill });
      setSecond({ segment: -1, elapsed: 0 }); // where the reducer puts it
    },
  };
}

export type Run = ReturnType<typeof useRun>;
