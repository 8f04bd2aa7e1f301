import { addDays } from '../domain/index.ts';
import type { IsoDay, ItemSide, Mode, Region, RoutineItem } from '../domain/index.ts';
import { RESCREEN } from '../estimate/index.ts';
import { GROWING_AGE, testSideKey } from '../findings/index.ts';
import type { Capacity } from '../findings/index.ts';
import type { Reason } from '../reasons/index.ts';
import { COVER_MATCH, doseTestOf } from '../reference/index.ts';
import type { Drill, Reference } from '../reference/index.ts';
import { AMBER_SETS, mostSets, withinLimits, works } from '../safety/index.ts';
import type { ActivePrecaution } from '../safety/index.ts';

/** What a dose depends on beside the drill: the athlete, the day, the mode. */
export interface DoseContext {
  readonly reference: Reference;
  readonly today: IsoDay;
  readonly age: number;
  /** Years of regular training; below one the sets of a build stay in the lower half of their range. */
  readonly trainingYears: number;
  readonly mode: Mode;
  /** Capacities of the findings report by `test/side`. */
  readonly capacities: ReadonlyMap<string, Capacity>;
  /** School limits on a static stretch before activity, in seconds a side; null = the drill's own range. */
  readonly stretchCapSeconds: number | null;
  /** Restrictions for which long holds are given today: a tendon hurts, and the school uses them. */
  readonly tendonHolds: ReadonlySet<string>;
  /** Regions that hurt more than is fine: the least dose, two sets at most. */
  readonly amber: ReadonlySet<Region>;
  /** Upper end of fine pain by the school, 0–10. */
  readonly fine: number;
  /** Precautions in force: no item goes beyond what their handling allows. */
  readonly precautions: readonly ActivePrecaution[];
}

/** Capacities indexed by `test/side`. */
export function indexCapacities(capacities: readonly Capacity[]): Map<string, Capacity> {
  return new Map(capacities.map((capacity) => [testSideKey(capacity.test, capacity.side), capacity]));
}

/** Share of the maximum per mode: the top of the range in prepare, the middle in build, the bottom in restore. */
function shareFor(mode: Mode, share: { low: number; high: number }): number {
  if (mode === 'prepare') return share.high;
  return mode === 'build' ? (share.low + share.high) / 2 : share.low;
}

/** Rounds down to the grid of a measure: 5 s for holds and timed work, else whole units. */
export function roundAmount(measure: Drill['dose']['measure'], amount: number): number {
  const grid = measure === 'hold-seconds' || measure === 'seconds' ? 5 : 1;
  return Math.floor(amount / grid + 1e-9) * grid;
}

function clamp(value: number, low: number, high: number): number {
  return Math.min(high, Math.max(low, value));
}

/** The fresh, pain-free maximum that counts for a drill on a side; of two sides the worse one. */
export function freshMaximum(
  context: DoseContext,
  drill: Drill,
  side: ItemSide,
): { test: string; value: number } | null {
  const own = doseTestOf(context.reference, drill);
  if (!own) return null;
  const test = own.id;
  const sides =
    own.sides === 'central'
      ? (['central'] as const)
      : side === 'left' || side === 'right'
        ? [side]
        : (['left', 'right'] as const);
  const oldest = addDays(context.today, -RESCREEN.maxDays);
  const values = sides.map((s) => context.capacities.get(testSideKey(test, s)));
  const usable = values.filter((c) => c !== undefined && !c.painLimited && c.date >= oldest);
  if (usable.length < sides.length || usable.length === 0) return null;
  return { test, value: Math.min(...usable.map((c) => c?.estimate ?? 0)) };
}

/** The share of a tested maximum that the mode allows for this category and measure; null where none is set. */
export function allowedShare(context: DoseContext, drill: Drill): number | null {
  const cell = context.reference.doseCell(drill.category, context.mode);
  const share = drill.dose.measure === 'reps' ? cell.repShareOfMax : cell.holdShareOfMax;
  return share ? shareFor(context.mode, share) : null;
}

function lowerHalf(drill: Drill): number {
  const { min, max, default: usual } = drill.dose.amount;
  return clamp(roundAmount(drill.dose.measure, Math.min(usual, min + (max - min) / 4)), min, max);
}

/** Longest hold of a preparation in seconds, but for balance and what a sore tendon is given (editable). */
const PREPARE_HOLD = 20;
/** A region that hurts today and that this drill works; null when there is none. */
function amberRegion(context: DoseContext, drill: Drill): Region | null {
  return [...context.amber].find((region) => works(drill, region)) ?? null;
}

/** Is it a long hold for a tendon that hurts today? */
export function isTendonHold(context: DoseContext, drill: Drill): boolean {
  return (
    drill.dose.measure === 'hold-seconds' &&
    drill.contraction === 'isometric-hold' &&
    drill.serves.some(
      ({ restriction, match }) => match >= COVER_MATCH && context.tendonHolds.has(restriction),
    )
  );
}

function isBalance(reference: Reference, drill: Drill): boolean {
  const [main] = [...drill.serves].sort((a, b) => b.match - a.match);
  return reference.restrictions.get(main?.restriction ?? '')?.kind === 'balance-proprioception';
}

/** The longest that a hold lasts before activity; null where nothing caps it. */
function holdCap(context: DoseContext, drill: Drill): number | null {
  const hold = drill.dose.measure === 'hold-seconds' && drill.contraction === 'isometric-hold';
  if (context.mode !== 'prepare' || !hold || isBalance(context.reference, drill)) return null;
  return PREPARE_HOLD;
}

interface Amount {
  readonly amount: number;
  readonly reason: Reason;
  /** False when the drill's least is more than it should be today: an easier rung is due. */
  readonly fits: boolean;
}

/** The amount of a set, with its reason, and whether the drill's own range allows it. */
function amountFor(context: DoseContext, drill: Drill, side: ItemSide): Amount {
  const { min, max } = drill.dose.amount;
  if (isTendonHold(context, drill)) {
    const { holdSeconds } = context.reference.data.doseModes.tendonHolds;
    const amount = clamp(holdSeconds.min + 5, Math.max(min, holdSeconds.min), Math.min(max, holdSeconds.max));
    return { amount, reason: { rule: 'dose-tendon-hold', seconds: amount, fine: context.fine }, fits: true };
  }
  const amber = amberRegion(context, drill);
  const usual = amber
    ? { amount: min, reason: { rule: 'dose-day-rule', region: amber } as const, fits: true }
    : usualAmount(context, drill, side);
  const cap = holdCap(context, drill);
  if (cap === null || usual.amount <= cap) return usual;
  return { amount: cap, reason: { rule: 'dose-prepare-hold', seconds: cap }, fits: usual.fits && min <= cap };
}

function usualAmount(context: DoseContext, drill: Drill, side: ItemSide): Amount {
  const { min, max, default: usual } = drill.dose.amount;
  const growing = context.age < GROWING_AGE;
  if (context.stretchCapSeconds !== null && drill.category === 'stretch') {
    return {
      amount: Math.min(usual, context.stretchCapSeconds),
      reason: { rule: 'dose-stretch-cap', seconds: context.stretchCapSeconds },
      fits: true,
    };
  }
  const maximum = freshMaximum(context, drill, side);
  const share = allowedShare(context, drill);
  if (maximum && share !== null) {
    const wanted = roundAmount(drill.dose.measure, maximum.value * share);
    const top = growing ? Math.max(min, roundAmount(drill.dose.measure, (min + max) / 2)) : max;
    const reason: Reason = {
      rule: 'dose-from-maximum',
      test: maximum.test,
      maximum: maximum.value,
      share,
      wanted,
    };
    // Above the share, and there is an easier rung: that one is due. Above the maximum itself: never.
    const fits = wanted >= min || (drill.easeTo === null && min <= maximum.value);
    return { amount: clamp(wanted, min, top), reason, fits };
  }
  if (growing) return { amount: lowerHalf(drill), reason: { rule: 'dose-growing', min, max }, fits: true };
  // Warming needs its time: it is no work to be far from failure in.
  if (context.mode === 'prepare' && drill.category !== 'raise')
    return { amount: lowerHalf(drill), reason: { rule: 'dose-lower-half', min, max }, fits: true };
  return { amount: usual, reason: { rule: 'dose-default', amount: usual }, fits: true };
}

/** Numbers of sets that both the mode and the drill allow; the drill's own minimum when they do not meet. */
export function allowedSets(reference: Reference, drill: Drill, mode: Mode): number[] {
  const cell = reference.doseCell(drill.category, mode);
  const low = Math.max(drill.dose.sets.min, cell.sets.min, 1);
  const high = Math.min(drill.dose.sets.max, cell.sets.max);
  if (high < low) return [drill.dose.sets.min];
  return Array.from({ length: high - low + 1 }, (_, i) => low + i);
}

/** Below this many years of regular training an athlete is new to it (editable, convention). */
const NEW_TO_TRAINING_YEARS = 1;

/** Numbers of sets to choose from for this athlete: the allowed ones; in build, for the new to training, their lower half. */
export function setsFor(context: DoseContext, drill: Drill): number[] {
  const { reference, precautions } = context;
  const most = mostSets(reference, drill, precautions);
  const open = allowedSets(reference, drill, context.mode);
  const all = open.some((count) => count <= most) ? open.filter((count) => count <= most) : [most];
  const gentle = amberRegion(context, drill) !== null && !isTendonHold(context, drill);
  const few = all.filter((count) => count <= AMBER_SETS);
  const sets = gentle ? (few.length > 0 ? few : all.slice(0, 1)) : all;
  if (context.mode !== 'build' || context.trainingYears >= NEW_TO_TRAINING_YEARS) return sets;
  return sets.slice(0, Math.ceil(sets.length / 2));
}

/** The item with the drill's own usual dose, both sides, in no phase: what a template holds before it is fitted. */
export function dosedByDefault(drill: Drill): RoutineItem {
  return {
    drill: drill.id,
    side: 'both',
    phase: null,
    sets: drill.dose.sets.default,
    amount: drill.dose.amount.default,
    measure: drill.dose.measure,
    holdSeconds: drill.dose.holdSeconds,
    restSeconds: drill.dose.restSeconds.default,
    tempo: drill.dose.tempo,
    setup: Object.fromEntries(drill.setupVariables.map((v) => [v.id, v.default])),
  };
}

/** The item for a drill, side and number of sets, with the reason of its amount, and whether the drill's range allows it. */
export function dosedItem(
  context: DoseContext,
  drill: Drill,
  side: ItemSide,
  sets: number,
  phase: string | null,
): { item: RoutineItem; reason: Reason; fits: boolean } {
  const cell = context.reference.doseCell(drill.category, context.mode);
  const { amount, reason, fits } = amountFor(context, drill, side);
  const item: RoutineItem = {
    drill: drill.id,
    side,
    phase,
    sets,
    amount,
    measure: drill.dose.measure,
    holdSeconds: drill.dose.holdSeconds,
    restSeconds: clamp(drill.dose.restSeconds.default, cell.restSeconds.min, cell.restSeconds.max),
    tempo: drill.dose.tempo,
    setup: Object.fromEntries(drill.setupVariables.map((v) => [v.id, v.default])),
  };
  return { item: withinLimits(context.reference, drill, item, context.precautions), reason, fits };
}
