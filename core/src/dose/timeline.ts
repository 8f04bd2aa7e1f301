import type { ItemSide, RoutineItem } from '../domain/index.ts';
import { isLine, PAUSE } from '../reference/index.ts';
import type { Drill, Reference } from '../reference/index.ts';
import { inRound, inTurn, visits } from './circuits.ts';
import type { Visit } from './circuits.ts';
import { itemSeconds, roundUp, secondsPerRep, sideDoses, sidesDone } from './seconds.ts';
import { isFloor, TIMING } from './settings.ts';

/** What a stretch of a routine’s time is spent on. */
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
  /** Repetitions (or seconds, metres, contacts) of a work segment; null where the clock alone says how long. */
  readonly amount: number | null;
  readonly secondsPerRep: number | null;
  /** The second time of a drill that is done both ways round. */
  readonly otherWay: boolean;
}

type Draft = Omit<Segment, 'start'>;

/** A visit to an item with its drill and what lies before it. */
interface Stop {
  readonly visit: Visit;
  readonly item: RoutineItem;
  readonly drill: Drill;
  /** Seconds of changing over to it, of getting down or up, and of resting between rounds or stations. */
  readonly changeover: number;
  readonly floorChange: number;
  readonly restBefore: number;
}

const untimed = (item: RoutineItem) => isLine(item.drill) && item.amount === 0;

function drillAt(reference: Reference, item: RoutineItem): Drill {
  const drill = reference.drills.get(item.drill);
  if (!drill) throw new RangeError(`unknown drill ${item.drill}`);
  return drill;
}

/** Rest between rounds, or between stations by the clock: it takes the place of a change-over. Null = there is none. */
function restBetween({ circuit }: RoutineItem, { round, first }: Visit): number | null {
  if (!circuit || (first && round === 0)) return null;
  if (first && circuit.restSeconds !== undefined) return circuit.restSeconds;
  if (circuit.pace?.by === 'clock') return circuit.pace.rest;
  return circuit.pace?.by === 'every' ? 0 : null;
}

/**
 * The items in the order they are done, each visit with what lies before it: 10 s between drills, another 10 s between floor
 * and upright; nothing beside a rest, and no getting down or up for what is said in own words. Items with unknown drills throw.
 */
function stops(reference: Reference, items: readonly RoutineItem[]): Stop[] {
  let previous: Drill | null = null;
  return visits(items).flatMap((visit): Stop[] => {
    const item = items[visit.index];
    if (!item || untimed(item)) return [];
    const drill = drillAt(reference, item);
    const before = previous;
    previous = drill;
    const still = { visit, item, drill, changeover: 0, floorChange: 0, restBefore: 0 };
    if (!before) return [still];
    const rest = restBetween(item, visit);
    if (rest !== null) return [{ ...still, restBefore: rest }];
    if (drill.id === PAUSE || before.id === PAUSE) return [still];
    const moves =
      !isLine(drill.id) && !isLine(before.id) && isFloor(before.position) !== isFloor(drill.position);
    return [{ ...still, changeover: TIMING.changeover, floorChange: moves ? TIMING.floorChange : 0 }];
  });
}

/** Whole seconds of one visit: the first of an item with its set-up, later rounds without; at stations no set-up at all. */
function visitSeconds({ drill, item, visit }: Stop): number {
  const pace = item.circuit?.pace;
  if (pace?.by === 'clock') return pace.work;
  const work = roundUp(inTurn(drill, item, visit.round));
  if (pace?.by === 'every') return Math.max(pace.seconds, work);
  return visit.round > 0 ? work : itemSeconds(drill, inRound(item, 0));
}

/** A station by the clock: its seconds, halved between the sides of a drill that is done a side at a time. */
function stationSegments({ drill, item, visit }: Stop, seconds: number): Draft[] {
  const sides = sidesDone(drill, item.side) === 2 ? (['left', 'right'] as const) : [item.side];
  const half = Math.floor(seconds / sides.length);
  const counts = drill.dose.measure === 'seconds' || drill.dose.measure === 'hold-seconds';
  return sides.map((side, part) => {
    const own = part === sides.length - 1 ? seconds - half * part : half;
    return {
      kind: 'work',
      seconds: own,
      item: visit.index,
      set: visit.round + 1,
      sets: visit.rounds,
      side,
      amount: counts ? own : null,
      secondsPerRep: counts ? 1 : null,
      otherWay: false,
    };
  });
}

function itemSegments(stop: Stop): Draft[] {
  const { drill, visit } = stop;
  const whole = visitSeconds(stop);
  if (stop.item.circuit?.pace?.by === 'clock') return stationSegments(stop, whole);
  const item = inRound(stop.item, visit.round);
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
  const left = whole - body.reduce((sum, segment) => sum + segment.seconds, 0);
  if (left <= 1e-9) return body;
  // What is left of its turn is rest; else whole seconds per visit, the fraction spent getting ready.
  if (item.circuit?.pace?.by === 'every')
    return [...body, { ...base, kind: 'rest', seconds: left, set: first + sets, side: item.side }];
  return [{ ...base, kind: 'setup', seconds: left, set: null, side: item.side }, ...body];
}

/**
 * The session second by second: what lies between drills, then each item's set-up, work, side switches and rests; circuits
 * round after round, by the clock where they are paced by it. Own words without time have no segment.
 */
export function routineTimeline(reference: Reference, items: readonly RoutineItem[]): Segment[] {
  const segments: Segment[] = [];
  let clock = 0;
  const push = (draft: Draft) => {
    segments.push({ ...draft, start: clock });
    clock += draft.seconds;
  };
  for (const stop of stops(reference, items)) {
    const { item, visit, changeover, floorChange, restBefore } = stop;
    const between = {
      item: visit.index,
      set: null,
      sets: item.sets,
      side: item.side,
      amount: null,
      secondsPerRep: null,
      otherWay: false,
    };
    if (restBefore > 0) push({ ...between, kind: 'rest', seconds: restBefore });
    if (changeover > 0) push({ ...between, kind: 'changeover', seconds: changeover });
    if (floorChange > 0) push({ ...between, kind: 'floor-change', seconds: floorChange });
    itemSegments(stop).forEach(push);
  }
  return segments;
}

/** Where the seconds of a routine go: per item (with its rounds, without change-overs), between drills, in all. */
export interface RoutineTime {
  readonly items: readonly number[];
  /** Seconds of changing over to each item and of resting before its turn, in all its rounds; they add up to `between`. */
  readonly changes: readonly number[];
  readonly between: number;
  readonly total: number;
}

/** Exact seconds of a routine, itemised: items with all their rounds, change-overs and floor changes. */
export function routineTime(reference: Reference, items: readonly RoutineItem[]): RoutineTime {
  const perItem = items.map(() => 0);
  const changes = items.map(() => 0);
  for (const stop of stops(reference, items)) {
    const { index } = stop.visit;
    perItem[index] = (perItem[index] ?? 0) + visitSeconds(stop);
    changes[index] = (changes[index] ?? 0) + stop.changeover + stop.floorChange + stop.restBefore;
  }
  const sum = (parts: readonly number[]) => parts.reduce((all, seconds) => all + seconds, 0);
  const between = sum(changes);
  return { items: perItem, changes, between, total: between + sum(perItem) };
}

/** Exact seconds of a whole routine: items, change-overs and floor changes. */
export function routineSeconds(reference: Reference, items: readonly RoutineItem[]): number {
  return routineTime(reference, items).total;
}
