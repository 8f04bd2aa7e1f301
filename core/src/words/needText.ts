import type { Capacity } from '../findings/index.ts';
import type { Reference } from '../reference/index.ts';
import { YOUTH_AGE } from '../safety/index.ts';
import { figure } from './figures.ts';

/** What a side needs with its unit, or why no figure is held against it at this age. */
export function needText(
  reference: Reference,
  { test, need, adultNeed, unusedNeed, unit }: Capacity,
  age: number,
): string {
  if (need !== null) return figure(need, unit);
  if (unusedNeed !== null) return 'needs body mass';
  if (adultNeed === null) return 'none';
  return age < YOUTH_AGE
    ? `adult ${figure(adultNeed, unit)}, not used under ${YOUTH_AGE}`
    : `${figure(adultNeed, unit)} is for up to ${reference.tests.get(test)?.reference.ages?.to} years: no figure at ${age}`;
}
