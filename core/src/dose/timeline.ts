import type { ItemSide, RoutineItem } from '../domain/index.ts';
import type { Drill, Reference } from '../reference/index.ts';
import { itemSeconds, secondsPerRep, sidesDone } from './seconds.ts';
import { isFloor, TIMING } from './settings.ts';

export type SegmentKind = 'changeover' | 'floor-change' | 'setup' | 'work' | 'switch' | 'rest';

/** A stretch of a session with one thing to do. The runner plays exactly these, one after the other. */
export interface Segment {
  readonly kind: SegmentKind;
  /** Seconds from the start of the session. */
  readonly start: number;
  readonly seconds: number;
  /** Index of the routine item; for change-overs the one that comes next. */
  readonly item: number;
  /** Set number from 1, for work, switch and rest. */
  readonly set: number | null;
  readonly sets: number;
  readonly side: ItemSide;
  /** Repetitions (or seconds, metres, contacts) of a work segment. */
  readonly amount: number | null;
  readonly secondsPerRep: number | null;
}

type Draft = Omit<Segment, 'start'>;

function setRounds(drill: Drill, item: RoutineItem): { side: ItemSide; amount: number }[][] {
  if (sidesDone(drill, item.side) === 1) {
    return Array.from({ length: item.sets }, () => [{ side: item.side, amount: item.amount }]);
  }
  const even = { sets: item.sets, amount: item.amount };
  const { left, right } = item.perSide ?? { left: even, right: even };
  return Array.from({ length: Math.max(left.sets, right.sets) }, (_, index) => [
    ...(index < left.sets ? [{ side: 'left' as const, amount: left.amount }] : []),
    ...(index < right.sets ? [{ side: 'right' as const, amount: right.amount }] : []),
  ]);
}

function itemSegments(drill: Drill, item: RoutineItem, index: number): Draft[] {
  const perRep = secondsPerRep(drill, item);
  const rounds = setRounds(drill, item);
  const base = { item: index, sets: rounds.length, amount: null, secondsPerRep: null };
  const body: Draft[] = rounds.flatMap((round, r): Draft[] => {
    const set = r + 1;
    const work = round.flatMap((part, p): Draft[] => [
      ...(p > 0
        ? [{ ...base, kind: 'switch' as const, seconds: TIMING.sideSwitch, set, side: part.side }]
        : []),
      {
        ...base,
        kind: 'work',
        seconds: part.amount * perRep,
        set,
        side: part.side,
        amount: part.amount,
        secondsPerRep: perRep,
      },
    ]);
    const rest: Draft[] =
      r < rounds.length - 1 && item.restSeconds > 0
        ? [{ ...base, kind: 'rest', seconds: item.restSeconds, set, side: item.side }]
        : [];
    return [...work, ...rest];
  });
  // The item's seconds are rounded up; the fraction of a second is spent getting ready.
  const setup = itemSeconds(drill, item) - body.reduce((sum, segment) => sum + segment.seconds, 0);
  const ready: Draft[] =
    setup > 1e-9 ? [{ ...base, kind: 'setup', seconds: setup, set: null, side: item.side }] : [];
  return [...ready, ...body];
}

/**
 * The session second by second: change-overs of 10 s between drills, another 10 s between floor and upright, then
 * each item's set-up, work, side switches and rests. Items with unknown drills throw.
 */
export function routineTimeline(reference: Reference, items: readonly RoutineItem[]): Segment[] {
  const segments: Segment[] = [];
  let clock = 0;
  const push = (draft: Draft) => {
    segments.push({ ...draft, start: clock });
    clock += draft.seconds;
  };
  let previous: Drill | null = null;
  items.forEach((item, index) => {
    const drill = reference.drills.get(item.drill);
    if (!drill) throw new RangeError(`unknown drill ${item.drill}`);
    const between = {
      item: index,
      set: null,
      sets: item.sets,
      side: item.side,
      amount: null,
      secondsPerRep: null,
    };
    if (previous) {
      push({ ...between, kind: 'changeover', seconds: TIMING.changeover });
      if (isFloor(previous.position) !== isFloor(drill.position)) {
        push({ ...between, kind: 'floor-change', seconds: TIMING.floorChange });
      }
    }
    itemSegments(drill, item, index).forEach(push);
    previous = drill;
  });
  return segments;
}

/** Exact seconds of a whole routine: items, change-overs and floor changes. */
export function routineSeconds(reference: Reference, items: readonly RoutineItem[]): number {
  let total = 0;
  let previous: Drill | null = null;
  for (const item of items) {
    const drill = reference.drills.get(item.drill);
    if (!drill) throw new RangeError(`unknown drill ${item.drill}`);
    total += itemSeconds(drill, item);
    if (previous) {
      total += TIMING.changeover;
      if (isFloor(previous.position) !== isFloor(drill.position)) total += TIMING.floorChange;
    }
    previous = drill;
  }
  return total;
}
