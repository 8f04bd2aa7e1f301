import { YOUTH_AGE } from '../safety/index.ts';
import type { Offering } from './battery.ts';
import { offeredTests } from './capacities.ts';
import type { Reason } from '../reasons/index.ts';
import { testWorths } from './worth.ts';

/** A test that would tell most about what to build, with its minutes. */
export interface SharpeningTest {
  readonly test: string;
  readonly minutes: number;
  readonly why: readonly Reason[];
}

/** The tests most likely to change the routine per minute of testing, best first; ties go to the smaller id. */
export function sharpeningTests(
  { reference, standing: input, safety, report }: Offering,
  count: number,
): SharpeningTest[] {
  const offered = offeredTests(reference, safety, YOUTH_AGE);
  return testWorths(reference, input, offered, report.capacities)
    .filter(({ worth }) => worth > 0)
    .sort((a, b) => b.worth / b.minutes - a.worth / a.minutes || (a.test.id < b.test.id ? -1 : 1))
    .slice(0, count)
    .map(({ test, minutes, why }) => ({ test: test.id, minutes, why }));
}
