import type { ScreeningResult } from '../domain/index.ts';
import type { Test } from '../reference/index.ts';
import { betterOf } from './scale.ts';

/** Aggregate of one visit's trials by the rule of the test, in its unit. Throws on an empty list. */
export function aggregateTrials(test: Test, trials: readonly number[]): number {
  if (trials.length === 0) throw new RangeError(`${test.id}: no trials to aggregate`);
  if (test.trials.aggregate === 'mean') return trials.reduce((sum, v) => sum + v, 0) / trials.length;
  const best = trials.reduce((a, b) => betterOf(test, a, b));
  if (test.trials.aggregate === 'best') return best;
  return trials.reduce((a, b) => (betterOf(test, a, b) === a ? b : a));
}

/** Sample SD ÷ mean × 100 (n − 1); null below two trials or at a mean of zero (FORMULAS 6). */
export function coefficientOfVariation(trials: readonly number[]): number | null {
  if (trials.length < 2) return null;
  const mean = trials.reduce((sum, v) => sum + v, 0) / trials.length;
  if (mean === 0) return null;
  const variance = trials.reduce((sum, v) => sum + (v - mean) ** 2, 0) / (trials.length - 1);
  return (Math.sqrt(variance) / Math.abs(mean)) * 100;
}

/** How far the trials of a side lie apart. */
export interface TrialSpread {
  /** Coefficient of variation in percent, for tests that limit it. */
  readonly cvPercent: number | null;
  /** Highest minus lowest, in the unit of the test. */
  readonly range: number | null;
  readonly exceeded: boolean;
  /** Ask for one more trial, once. */
  readonly askAnother: boolean;
  /** One more was taken and they still lie apart: the value stands, with the larger error. */
  readonly unstable: boolean;
}

/** Spread of trials against the test's own limit (CV in percent, or highest minus lowest). */
export function trialSpread(test: Test, trials: readonly number[]): TrialSpread {
  const range = trials.length < 2 ? null : Math.max(...trials) - Math.min(...trials);
  const cvPercent = test.cvLimitPercent === null ? null : coefficientOfVariation(trials);
  const exceeded =
    (cvPercent !== null && test.cvLimitPercent !== null && cvPercent > test.cvLimitPercent) ||
    (range !== null && test.spreadLimit !== null && range > test.spreadLimit.value + 1e-9);
  return {
    cvPercent,
    range,
    exceeded,
    askAnother: exceeded && trials.length <= test.trials.count,
    unstable: exceeded && trials.length > test.trials.count,
  };
}

/** The trials of a result that count: those nobody struck out. */
export function countedTrials({
  trials = [],
  struck = [],
}: Pick<ScreeningResult, 'trials' | 'struck'>): number[] {
  return trials.filter((_, i) => !struck.some((one) => one.trial === i));
}

/**
 * Error of one result in the unit of the test: the test's SEM, or, where its trials lie further apart than the test
 * allows, the larger of SEM and SD of the trials ÷ √n (rulings, "Spread").
 */
export function resultSd(test: Test, trials: readonly number[]): number {
  const sem = test.sem.value;
  if (!trialSpread(test, trials).exceeded) return sem;
  const mean = trials.reduce((sum, v) => sum + v, 0) / trials.length;
  const variance = trials.reduce((sum, v) => sum + (v - mean) ** 2, 0) / (trials.length - 1);
  return Math.max(sem, Math.sqrt(variance / trials.length));
}

/** True when the value lies within the plausible bounds of the test. */
export function isPlausible(test: Test, value: number): boolean {
  return value >= test.plausible.min && value <= test.plausible.max;
}

type Marks = readonly { mark: 'slight' | 'clear' }[];

const clearOf = (faults: Marks) => faults.filter((fault) => fault.mark === 'clear').length;

/**
 * Grade from marked faults by the stated rule of a movement-quality test. Null when faults alone do not give it: the
 * test has no such rule, or asks for a rating or for two conditions.
 */
export function gradeFromFaults(test: Test, faults: Marks, unable = false): number | null {
  const rule = test.gradingRule;
  if (rule?.kind !== 'fault-count') return null;
  if (unable) return rule.levels.find((level) => level.when !== undefined)?.grade ?? 0;
  const clear = clearOf(faults);
  const slight = faults.length - clear;
  const level = rule.levels.find(
    (l) =>
      (l.maxSlight !== undefined &&
        l.maxClear !== undefined &&
        slight <= l.maxSlight &&
        clear <= l.maxClear) ||
      l.otherwise === true,
  );
  return level?.grade ?? null;
}

/** The least points (lower is better) that clear faults allow where the athlete rates; 0 without such a rule. */
export function ratingFloor(test: Test, faults: Marks): number {
  if (test.gradingRule?.kind !== 'rating-with-floor') return 0;
  const clear = clearOf(faults);
  const floors = test.gradingRule.levels.filter((l) => l.minClear !== undefined && clear >= l.minClear);
  return Math.max(0, ...floors.map((l) => l.floor ?? 0));
}

/** The aggregate of a result in the unit of its test; null when the result holds no value at all. */
export function resultValue(test: Test, result: ScreeningResult): number | null {
  if (result.grade !== undefined) return result.grade;
  const counted = countedTrials(result);
  if (counted.length > 0) return aggregateTrials(test, counted);
  if (result.unable) return gradeFromFaults(test, result.faults ?? [], true);
  if (result.faults) return gradeFromFaults(test, result.faults);
  return null;
}
