import type { RoutineItem } from '../domain/index.ts';
import type { Drill } from '../reference/index.ts';
import { allowedShare, freshMaximum } from './doseOf.ts';
import type { DoseContext } from './doseOf.ts';
import { sideDoses } from './seconds.ts';

/** How far the hardest set of an item stays from failure. */
export interface FailureDistance {
  /** Share of the tested maximum that a set uses, 0–1 and above; null without a fresh one. */
  readonly share: number | null;
  /** What the mode allows, 0–1; null where it sets no share. */
  readonly allowed: number | null;
  /** Repetitions or seconds left in the tested maximum; null without one. */
  readonly left: number | null;
  readonly test: string | null;
  /** The mode's own words on effort for this category. */
  readonly effortCue: string;
  /** The share goes beyond what the mode allows, or, untested, the amount beyond the drill's range. */
  readonly tooClose: boolean;
}

/** Judges every side's own amount against its own maximum and keeps the nearest to failure. */
export function failureDistance(context: DoseContext, drill: Drill, item: RoutineItem): FailureDistance {
  const { effortCue } = context.reference.doseCell(drill.category, context.mode);
  const allowed = allowedShare(context, drill);
  const sets = sideDoses(drill, item).flatMap(({ side, amount }) => {
    const maximum = freshMaximum(context, drill, side);
    return maximum && maximum.value > 0
      ? [{ share: amount / maximum.value, left: maximum.value - amount, test: maximum.test }]
      : [];
  });
  const amount = Math.max(...sideDoses(drill, item).map((dose) => dose.amount));
  const beyondRange = amount > drill.dose.amount.max;
  const nearest = sets.sort((a, b) => b.share - a.share)[0];
  if (!nearest) return { share: null, allowed, left: null, test: null, effortCue, tooClose: beyondRange };
  // The drill's own minimum is always allowed: below it the drill would be another one.
  const tooClose =
    allowed === null ? beyondRange : nearest.share > allowed + 1e-9 && amount > drill.dose.amount.min;
  return { ...nearest, allowed, effortCue, tooClose };
}
