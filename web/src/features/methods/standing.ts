import type { ChoiceRow, Methods } from '@yonder/core/contracts';
import type { School } from '@yonder/core/reference';

type Level = 'default' | 'practice' | 'athlete';

/** What holds of a school, from which level it comes, and the choice that made it so. */
export interface SchoolStanding {
  readonly option: string;
  readonly level: Level;
  readonly choice: ChoiceRow | null;
}

/** What holds of a school: the athlete's own choice, else the practice's, else the default. */
export function standingOf(school: School, { practice, athlete }: Pick<Methods, 'practice' | 'athlete'>) {
  const inForce = (rows: readonly ChoiceRow[]) =>
    rows.find((row) => row.school === school.id && row.ended === null) ?? null;
  const own = inForce(athlete);
  const shared = inForce(practice);
  const ofPractice: SchoolStanding = shared
    ? { option: shared.option, level: 'practice', choice: shared }
    : { option: school.default, level: 'default', choice: null };
  const now: SchoolStanding = own ? { option: own.option, level: 'athlete', choice: own } : ofPractice;
  return { now, ofPractice, own };
}
