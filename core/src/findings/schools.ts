import type { Standing } from '../domain/index.ts';
import type { Reference } from '../reference/index.ts';
import { GROWING_AGE, GROWING_LIMITS, MOST_PAIN, PAIN_LIMITS } from './settings.ts';

/** The option chosen for a school, or its default. */
export function schoolOption(reference: Reference, schools: Standing['schools'], id: string): string {
  return schools[id] ?? reference.schools.get(id)?.default ?? '';
}

/**
 * Pain limits 0–10 that hold for an athlete: the practice's own figures up to a ceiling, else the school's; for the growing
 * never above 0–3.
 */
export function painLimits(
  reference: Reference,
  input: Pick<Standing, 'schools' | 'painLimits'>,
  age: number,
): { fine: number; stop: number } {
  const chosen = schoolOption(reference, input.schools, 'pain-limit');
  const limits = input.painLimits ?? PAIN_LIMITS[chosen] ?? { fine: 2, stop: 5 };
  const most = age >= GROWING_AGE ? MOST_PAIN : GROWING_LIMITS;
  return { fine: Math.min(limits.fine, most.fine), stop: Math.min(limits.stop, most.stop) };
}
