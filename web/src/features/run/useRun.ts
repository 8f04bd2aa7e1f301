import { useInterval } from '@mantine/hooks';
import type { SessionRow } from '@yonder/core/contracts';
import type { DiaryEntry, RoutineItem } from '@yonder/core/domain';
import { routineTimeline } from '@yonder/core/dose';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { errorText } from '../../app/api.ts';
import type { ApiError } from '../../app/api.ts';
import { useReference } from '../../app/reference.tsx';
import { advance, back, entriesOf, skip, skipItem } from './runner.ts';
import type { PainReport, Position } from './runner.ts';
import { useSaveSessionMutation } from './sessionEndpoints.ts';

const TICK_MS = 100;
const SAVE_EVERY_MS = 4000;

/** The last second of a run on this device; the server gets it every few seconds. */
function localPosition(sessionId: string): Position | null {
  const text = sessionStorage.getItem(`run/${sessionId}`);
  return text ? (JSON.parse(text) as Position) : null;
}

function laterOf(a: Position, b: Position | null): Position {
  if (!b) return a;
  return b.segment > a.segment || (b.segment === a.segment && b.elapsed > a.elapsed) ? b : a;
}

/** Plays a session: position, pause, skip, pain, swap; kept on the server as it goes. */
export function useRun(session: SessionRow, routine: readonly RoutineItem[]) {
  const reference = useReference();
  const [items, setItems] = useState<readonly RoutineItem[]>(session.progress.played ?? routine);
  const segments = useMemo(() => routineTimeline(reference, items), [reference, items]);
  const [position, setPosition] = useState<Position>(() =>
    laterOf(session.progress, localPosition(session.id)),
  );
  const [playing, setPlaying] = useState(false);
  const [pains, setPains] = useState<ReadonlyMap<number, PainReport>>(new Map());
  const [problem, setProblem] = useState<string | null>(null);
  const [save] = useSaveSessionMutation();
  const version = useRef(session.version);
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  const last = useRef(0);
  const finished = position.segment >= segments.length;

  const tick = useInterval(() => {
    const now = performance.now();
    const seconds = (now - last.current) / 1000;
    last.current = now;
    setPosition((current) => advance(segments, current, seconds));
  }, TICK_MS);

  const play = useCallback(() => {
    last.current = performance.now();
    setPlaying(true);
  }, []);
  useEffect(() => {
    if (playing && !finished) tick.start();
    else tick.stop();
    return tick.stop;
  }, [playing, finished, tick]);

  useEffect(() => {
    sessionStorage.setItem(`run/${session.id}`, JSON.stringify(position));
  }, [position, session.id]);

  const store = useCallback(
    (entries: DiaryEntry[], done: boolean): Promise<boolean> => {
      const played = items === routine ? null : [...items];
      const progress = { ...position, played };
      const next = queue.current.then(() =>
        save({
          sessionId: session.id,
          body: { version: version.current, progress, entries, finished: done },
        }).unwrap(),
      );
      const settled = next.then(
        (row) => {
          version.current = row.version;
          setProblem(null);
          return true;
        },
        (error: ApiError) => {
          setProblem(errorText(error));
          return false;
        },
      );
      queue.current = settled;
      return settled;
    },
    [items, routine, position, save, session.id],
  );
  const latest = useRef(store);
  useEffect(() => {
    latest.current = store;
  });
  const keep = useInterval(() => void latest.current([], false), SAVE_EVERY_MS);
  useEffect(() => {
    if (playing && !finished) keep.start();
    else keep.stop();
    return keep.stop;
  }, [playing, finished, keep]);
  useEffect(() => {
    void latest.current([], false);
  }, [position.segment]);

  const reportPain = (pain: number, stopAbove: number) => {
    const index = segments[position.segment]?.item ?? items.length - 1;
    const stopped = pain > stopAbove;
    setPains((current) =>
      new Map(current).set(index, { pain: Math.max(pain, current.get(index)?.pain ?? 0), stopped }),
    );
    if (stopped) setPosition((current) => skipItem(segments, current));
  };
  const swap = (index: number, item: RoutineItem) => {
    const next = items.map((other, i) => (i === index ? item : other));
    const start = routineTimeline(reference, next).findIndex(
      (s) => s.item === index && s.kind !== 'changeover' && s.kind !== 'floor-change',
    );
    setItems(next);
    setPosition((current) => ({
      segment: Math.max(0, start),
      elapsed: 0,
      skipped: current.skipped.filter((s) => s < start),
    }));
  };
  return {
    items,
    segments,
    position,
    playing,
    finished,
    problem,
    pains,
    play,
    pause: () => setPlaying(false),
    skip: () => setPosition((current) => skip(segments, current)),
    back: () => setPosition((current) => back(segments, current)),
    end: () =>
      setPosition((current) => ({
        segment: segments.length,
        elapsed: 0,
        skipped: [...current.skipped, ...segments.keys()].filter(
          (s) => s >= current.segment || current.skipped.includes(s),
        ),
      })),
    reportPain,
    swap,
    entries: () => entriesOf(routine, items, segments, position, pains),
    store,
  };
}

export type Run = ReturnType<typeof useRun>;
