import type { Case } from '../domain/index.ts';
import type { Reference } from '../reference/index.ts';
import { GROWING_AGE, PAIN_LIMITS } from './settings.ts';

/** The option chosen for a school, or its default. */
export function schoolOption(reference: Reference, schools: Case['schools'], id: string): string {
  return schools[id] ?? reference.schools.get(id)?.default ?? '';
}

/** Pain limits 0–10 that hold for an athlete: the school's, and 0–3 for the growing unless the school is stricter. */
export function painLimits(
  reference: Reference,
  schools: Case['schools'],
  age: number,
): { fine: number; stop: number; option: string } {
  const chosen = schoolOption(reference, schools, 'pain-limit');
  const option = age < GROWING_AGE && chosen === '2-5' ? '0-3' : chosen;
  const limits = PAIN_LIMITS[option] ?? { fine: 2, stop: 5 };
  return { ...limits, option };
}
