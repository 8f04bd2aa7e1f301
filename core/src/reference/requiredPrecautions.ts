import { handlingForbids } from './handling.ts';
import type { Described } from './handling.ts';
import type { Drill, Precaution } from './types.ts';

/** Long holds at the end of a range are for care, never forbidden, in those who bend too far. */
const WITH_CARE: readonly { category: Drill['category']; precaution: string }[] = [
  { category: 'stretch', precaution: 'generalised-hypermobility' },
];

/** Precautions whose handling forbids a drill like this by its traits; what is named one by one is no trait. */
export function forbiddingPrecautions(drill: Described, precautions: readonly Precaution[]): string[] {
  const byTrait = ({ forbids, ...rest }: Precaution): Precaution => ({
    ...rest,
    forbids: forbids?.filter((wanted) => !wanted.ladder && !wanted.drill),
  });
  return precautions.filter((one) => handlingForbids(byTrait(one), drill)).map(({ id }) => id);
}

/**
 * Precautions that a drill like this has to carry, so that setting one of them keeps it out or prints its handling.
 * Every shipped drill keeps to it; a practice's own has to.
 */
export function requiredPrecautions(drill: Described, precautions: readonly Precaution[]): string[] {
  const withCare = WITH_CARE.filter(({ category }) => category === drill.category);
  return [
    ...new Set([...forbiddingPrecautions(drill, precautions), ...withCare.map((c) => c.precaution)]),
  ].sort();
}
