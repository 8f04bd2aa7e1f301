import type { ItemSide, RoutineItem } from '../domain/index.ts';
import type { Drill, Reference } from '../reference/index.ts';
import { visits } from './circuits.ts';
import type { Visit } from './circuits.ts';
import { itemSeconds, roundSeconds, roundUp, secondsPerRep, sideDoses } from './seconds.ts';
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
  /** Set number from 1, for work, switch and rest; the rounds of a circuit count on. */
  readonly set: number | null;
  readonly sets: number;
  readonly side: ItemSide;
  /** Repetitions (or seconds, metres, contacts) of a work segment. */
  readonly amount: number | null;
  readonly secondsPerRep: number | null;
  /** The second time of a drill that is done both ways round. */
  readonly otherWay: boolean;
}

type Draft = Omit<Segment, 'start'>;

/** Whole seconds of one visit: the first of an item with its set-up, later rounds without. */
function visitSeconds(drill: Drill, item: RoutineItem, { round }: Visit): number {
  return round > 0 ? roundUp(roundSeconds(drill, item)) : itemSeconds(drill, item);
}

function itemSegments(drill: Drill, item: RoutineItem, visit: Visit): Draft[] {
  const perRep = secondsPerRep(drill, item);
  const doses = sideDoses(drill, item);
  const sets = Math.max(...doses.map((dose) => dose.sets));
  const first = visit.round * sets;
  const base = {
    item: visit.index,
    sets: sets * visit.rounds,
    amount: null,
    secondsPerRep: null,
    otherWay: false,
  };
  const body: Draft[] = [];
  for (let set = 1; set <= sets; set += 1) {
    const parts = doses.filter((dose) => set <= dose.sets);
    const own = { ...base, set: first + set };
    parts.forEach(({ side, amount }, part) => {
      if (part > 0) body.push({ ...own, kind: 'switch', seconds: TIMING.sideSwitch, side });
      const work = { ...own, kind: 'work' as const, seconds: amount * perRep, side, amount };
      body.push({ ...work, secondsPerRep: perRep });
      if (item.bothWays) body.push({ ...work, secondsPerRep: perRep, otherWay: true });
    });
    if (set < sets && item.restSeconds > 0)
      body.push({ ...own, kind: 'rest', seconds: item.restSeconds, side: item.side });
  }
  // Whole seconds per visit: the fraction is spent getting ready.
  const setup = visitSeconds(drill, item, visit) - body.reduce((sum, segment) => sum + segment.seconds, 0);
  if (setup <= 1e-9) return body;
  return [{ ...base, kind: 'setup', seconds: setup, set: null, side: item.side }, ...body];
}

function drillAt(reference: Reference, item: RoutineItem | undefined): Drill {
  const drill = item ? reference.drills.get(item.drill) : undefined;
  if (!drill) throw new RangeError(`unknown drill ${item?.drill ?? ''}`);
  return drill;
}

/**
 * The session second by second: change-overs of 10 s between drills, another 10 s between floor and upright, then
 * each item's set-up, work, side switches and rests; circuits round after round. Items with unknown drills throw.
 */
export function routineTimeline(reference: Reference, items: readonly RoutineItem[]): Segment[] {
  const segments: Segment[] = [];
  let clock = 0;
  const push = (draft: Draft) => {
    segments.push({ ...draft, start: clock });
    clock += draft.seconds;
  };
  let previous: Drill | null = null;
  for (const visit of visits(items)) {
    const { index } = visit;
    const item = items[index];
    const drill = drillAt(reference, item);
    if (!item) continue;
    const between = {
      item: index,
      set: null,
      sets: item.sets,
      side: item.side,
      amount: null,
      secondsPerRep: null,
      otherWay: false,
    };
    if (previous) {
      push({ ...between, kind: 'changeover', seconds: TIMING.changeover });
      if (isFloor(previous.position) !== isFloor(drill.position)) {
        push({ ...between, kind: 'floor-change', seconds: TIMING.floorChange });
      }
    }
    itemSegments(drill, item, visit).forEach(push);
    previous = drill;
  }
  return segments;
}

/** Where the seconds of a routine go: per item (with its rounds, without change-overs), between drills, in all. */
export interface RoutineTime {
  readonly items: readonly number[];
  /** Seconds of changing over to each item, in all its rounds; they add up to `between`. */
  readonly changes: readonly number[];
  readonly between: number;
  readonly total: number;
}

/** Exact seconds of a routine, itemised: items with all their rounds, change-overs and floor changes. */
export function routineTime(reference: Reference, items: readonly RoutineItem[]): RoutineTime {
  const perItem = items.map(() => 0);
  const changes = items.map(() => 0);
  let previous: Drill | null = null;
  for (const visit of visits(items)) {
    const { index } = visit;
    const item = items[index];
    const drill = drillAt(reference, item);
    if (!item) continue;
    perItem[index] = (perItem[index] ?? 0) + visitSeconds(drill, item, visit);
    if (previous) {
      const floor = isFloor(previous.position) !== isFloor(drill.position) ? TIMING.floorChange : 0;
      changes[index] = (changes[index] ?? 0) + TIMING.changeover + floor;
    }
    previous = drill;
  }
  const sum = (parts: readonly number[]) => parts.reduce((all, seconds) => all + seconds, 0);
  const between = sum(changes);
  return { items: perItem, changes, between, total: between + sum(perItem) };
}

/** Exact seconds of a whole routine: items, change-overs and floor changes. */
export function routineSeconds(reference: Reference, items: readonly RoutineItem[]): number {
  return routineTime(reference, items).total;
}
