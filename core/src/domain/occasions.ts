import type { BuildRequest, IssuedRoutine } from './caseFile.ts';
import { OCCASION_MODE, OCCASIONS } from './vocabulary.ts';
import type { Mode, Occasion } from './vocabulary.ts';

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

/** Minutes that an athlete has: before activity, and on their own or after it where that is kept. */
interface MinutesOf {
  readonly minutes: number;
  readonly minutesBuild: number | null;
  readonly minutesRestore: number | null;
}

/** Minutes that an athlete usually has for a mode. */
export function usualMinutes({ minutes, minutesBuild, minutesRestore }: MinutesOf, mode: Mode): number {
  return { prepare: minutes, build: minutesBuild ?? minutes, restore: minutesRestore ?? minutes }[mode];
}

/** Minutes there are at short notice, until it is said otherwise (editable convention, low confidence). */
const SHORT_NOTICE_MINUTES = 5;
const SHORT_NOTICE: ReadonlySet<Occasion> = new Set<Occasion>(['called-in', 'between-efforts']);

/** What is asked for at first for an occasion: its mode, the minutes that the athlete has for that, a rapid form at short notice. */
export function usualRequest(request: BuildRequest, occasion: Occasion, athlete: MinutesOf): BuildRequest {
  const mode = OCCASION_MODE[occasion];
  return SHORT_NOTICE.has(occasion)
    ? { ...request, mode, minutes: SHORT_NOTICE_MINUTES, structure: 'rapid-ready' }
    : { ...request, mode, minutes: usualMinutes(athlete, mode) };
}
