import { athleteFieldsSchema } from '@yonder/core/contracts';
import type { AthleteFields, AthleteRow } from '@yonder/core/contracts';

/** The typed fields of an athlete's row, without what is kept beside them. */
export function fieldsOf(athlete: AthleteRow): AthleteFields {
  const own = Object.keys(athleteFieldsSchema.shape) as (keyof AthleteFields)[];
  return Object.fromEntries(own.map((key) => [key, athlete[key]])) as unknown as AthleteFields;
}
