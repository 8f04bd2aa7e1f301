import type { Test } from '../reference/index.ts';

/** Grades and points are ordinal: never averaged, the last one counts (rulings, "Need, reserve, margin"). */
export function isOrdinal(test: Test): boolean {
  return test.unit === 'grade-0-3' || test.unit === 'points-0-5';
}

/** Pain tests (0–10) are gates, not capacities. */
export function isPainTest(test: Test): boolean {
  return test.unit === 'nrs-0-10';
}

/** True when a trend with an error can be kept for the test. */
export function isContinuous(test: Test): boolean {
  return !isOrdinal(test) && !isPainTest(test);
}

/** The better of two values of the test; `band` tests are read as at-least values. */
export function betterOf(test: Test, a: number, b: number): number {
  return test.better === 'lower' ? Math.min(a, b) : Math.max(a, b);
}

/** `value − need` signed so that more is better, in the unit of the test. */
export function reserveOf(test: Test, value: number, need: number): number {
  return test.better === 'lower' ? need - value : value - need;
}
