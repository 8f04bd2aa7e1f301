import { asInForce } from '../assess/index.ts';
import type { Assessment } from '../assess/index.ts';
import type { RoutineItem, Standing } from '../domain/index.ts';
import { allowedSets, allowedShare, dosedItem, freshMaximum, roundAmount } from '../dose/index.ts';
import type { DoseContext } from '../dose/index.ts';
import type { Drill, SetupVariable } from '../reference/index.ts';
import { AMOUNT_STEP } from './settings.ts';

/** Where a dose is heading: amount and sets. */
export interface DoseTarget {
  readonly amount: number;
  readonly sets: number;
  /** The mode's share of the tested maximum stops the amount before the criterion. */
  readonly cappedByMaximum: boolean;
}

/** Amount and sets the drill's own criterion asks for, never closer to failure than the mode allows. */
export function doseTarget(context: DoseContext, drill: Drill, item: RoutineItem): DoseTarget {
  const { progressWhen, dose } = drill;
  const wanted =
    (dose.measure === 'hold-seconds' ? progressWhen.holdReached : progressWhen.amountReached) ??
    dose.amount.max;
  const amount = Math.min(dose.amount.max, Math.max(wanted, dose.amount.min));
  const sets = allowedSets(context.reference, drill, context.mode);
  const mostSets = Math.max(item.sets, Math.min(progressWhen.setsCompleted, Math.max(...sets)));
  const maximum = freshMaximum(context, drill, item.side);
  const share = allowedShare(context, drill);
  if (maximum && share !== null) {
    const cap = Math.max(dose.amount.min, roundAmount(dose.measure, maximum.value * share));
    if (cap < amount) return { amount: cap, sets: mostSets, cappedByMaximum: true };
  }
  return { amount, sets: mostSets, cappedByMaximum: false };
}

/** The item with its dose one step up, or null when the target is reached. Amount first, then sets. */
export function moreDose(drill: Drill, item: RoutineItem, target: DoseTarget): RoutineItem | null {
  const raised = (amount: number) =>
    Math.max(amount, Math.min(target.amount, amount + AMOUNT_STEP[drill.dose.measure]));
  if (item.amount < target.amount) {
    const { perSide } = item;
    if (!perSide) return { ...item, amount: raised(item.amount) };
    // The extra set for the weak side stays: only the amounts move.
    const side = ({ sets, amount }: { sets: number; amount: number }) => ({ sets, amount: raised(amount) });
    return {
      ...item,
      amount: raised(item.amount),
      perSide: { left: side(perSide.left), right: side(perSide.right) },
    };
  }
  return item.sets < target.sets ? { ...withoutUneven(item), sets: item.sets + 1 } : null;
}

function withoutUneven(item: RoutineItem): RoutineItem {
  const { perSide: _uneven, ...rest } = item;
  return rest;
}

function stepIndex(variable: SetupVariable, item: RoutineItem): number {
  const at = variable.steps.indexOf(item.setup[variable.id] ?? variable.default);
  return at < 0 ? variable.steps.indexOf(variable.default) : at;
}

/** Steps run easier to harder; one variable by one step (the first that still has room). */
export function setupStep(
  drill: Drill,
  item: RoutineItem,
  by: 1 | -1,
): { item: RoutineItem; variable: SetupVariable } | null {
  for (const variable of drill.setupVariables) {
    const value = variable.steps[stepIndex(variable, item) + by];
    if (value === undefined) continue;
    return { item: { ...item, setup: { ...item.setup, [variable.id]: value } }, variable };
  }
  return null;
}

/** The neighbouring level with a fresh dose for the same side; null at the end of the ladder. */
export function levelItem(
  context: DoseContext,
  drill: Drill | undefined,
  item: RoutineItem,
): RoutineItem | null {
  if (!drill) return null;
  const side = drill.unilateral ? (item.side === 'central' ? 'both' : item.side) : 'both';
  const sets = allowedSets(context.reference, drill, context.mode);
  return dosedItem(context, drill, side, Math.min(item.sets, sets.at(-1) ?? 1), item.phase).item;
}

/** The item one step easier: amount, then set-up, then level, then a set less; null when it is the easiest already. */
export function easier(context: DoseContext, drill: Drill, item: RoutineItem): RoutineItem | null {
  if (item.amount > drill.dose.amount.min) {
    const amount = Math.max(drill.dose.amount.min, item.amount - AMOUNT_STEP[drill.dose.measure]);
    return { ...withoutUneven(item), amount };
  }
  const setup = setupStep(drill, item, -1);
  if (setup) return setup.item;
  const below = drill.easeTo ? context.reference.drills.get(drill.easeTo) : undefined;
  const level = levelItem(context, below, item);
  if (level) return level;
  return item.sets > 1 ? { ...withoutUneven(item), sets: item.sets - 1 } : null;
}

/**
 * The item so many steps easier after time off: one takes its amount back, two its amount to the least and a set-up step or
 * level as well; null when it is the easiest already.
 */
export function easierBy(
  context: DoseContext,
  drill: Drill,
  item: RoutineItem,
  steps: 1 | 2,
): RoutineItem | null {
  const once = easier(context, drill, item);
  if (steps === 1 || !once || once.drill !== drill.id) return once;
  const least = { ...withoutUneven(once), amount: drill.dose.amount.min };
  return easier(context, drill, least) ?? least;
}

/** The first level of the item's ladder that may be offered, at its usual dose and easiest set-up; null where none is. */
export function begunAnew(
  context: DoseContext,
  drill: Drill,
  item: RoutineItem,
  offered: (drill: Drill) => boolean,
): RoutineItem | null {
  const ladder = context.reference.ladders.get(drill.ladder)?.drills ?? [drill.id];
  const first = ladder.flatMap((id) => context.reference.drills.get(id) ?? []).find(offered);
  const fresh = levelItem(context, first, item);
  if (!first || !fresh) return null;
  const easiest = Object.fromEntries(
    first.setupVariables.flatMap((v) => (v.steps[0] === undefined ? [] : [[v.id, v.steps[0]]])),
  );
  return { ...fresh, setup: { ...fresh.setup, ...easiest } };
}

/** How the routine in force is dosed: by its own mode. Without a routine nothing is dosed, so any mode will do. */
export function doseInForce(assessment: Assessment): DoseContext {
  const { standing, doses } = asInForce(assessment);
  return doses[standing.routine?.mode ?? 'prepare'];
}

/** Items of the routine in force; empty without one. */
export function itemsOf(input: Standing): readonly RoutineItem[] {
  return input.routine?.items ?? [];
}
