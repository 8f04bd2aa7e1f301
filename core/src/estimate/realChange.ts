import { reserveOf } from '../measure/index.ts';
import type { Test } from '../reference/index.ts';

/** 1.645·√2, the factor of MDC90 on the SEM (FORMULAS 5). */
export const MDC90_PER_SEM = 2.33;

/** Is a difference larger than the error of the test? "possibly" lies between MDC90 and MDC95. */
export type RealChange = 'yes' | 'possibly' | 'no';

/**
 * Is the difference between two visits larger than the test's own error? `difference` is signed so that positive is
 * better, in the unit of the test.
 */
export function realChange(test: Test, from: number, to: number): { difference: number; real: RealChange } {
  const difference = reserveOf(test, to, from);
  const size = Math.abs(difference) + 1e-9;
  if (size >= test.mdc95.value) return { difference, real: 'yes' };
  return { difference, real: size >= MDC90_PER_SEM * test.sem.value ? 'possibly' : 'no' };
}
