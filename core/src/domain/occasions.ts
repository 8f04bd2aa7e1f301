import type { IssuedRoutine } from './caseFile.ts';
import { OCCASION_MODE, OCCASIONS } from './vocabulary.ts';
import type { Occasion } from './vocabulary.ts';

/** What a routine is for; one from before occasions were kept is told by what it does. */
export function occasionOf({ occasion, mode }: Pick<IssuedRoutine, 'occasion' | 'mode'>): Occasion {
  return occasion ?? OCCASIONS.find((one) => OCCASION_MODE[one] === mode) ?? 'before-training';
}

/** The routine at hand and the others in force beside it. */
interface InForce {
  readonly routine: IssuedRoutine | null;
  readonly others: readonly IssuedRoutine[];
}

/** Every routine in force of a record, in the order of the occasions. */
export function inForceOf({ routine, others }: InForce): IssuedRoutine[] {
  return [...(routine ? [routine] : []), ...others].sort(
    (a, b) => OCCASIONS.indexOf(occasionOf(a)) - OCCASIONS.indexOf(occasionOf(b)),
  );
}

/** The same record looked at for one occasion: its routine at hand, the rest beside it. */
export function atOccasion<Record extends InForce>(record: Record, occasion: Occasion): Record {
  const all = inForceOf(record);
  const routine = all.find((one) => occasionOf(one) === occasion) ?? null;
  if (routine === record.routine) return record;
  return { ...record, routine, others: all.filter((one) => one !== routine) };
}
