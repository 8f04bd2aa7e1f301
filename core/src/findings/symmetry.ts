import type { Estimate } from '../estimate/index.ts';
import { limitExceeded, reserveOf, symmetryIndex, symmetryNeed } from '../measure/index.ts';
import type { Test } from '../reference/index.ts';
import { evidenceRow } from './evidence.ts';
import type { Need } from './needs.ts';
import { FINDING_SETTINGS } from './settings.ts';
import type { AsymmetryRow, Evidence } from './types.ts';

/** What side differences are judged on. */
export interface SymmetryContext {
  readonly painFine: number;
  /** School `flag-inside-error`: a difference must exceed MDC95 as well ("both"), or the limit alone ("threshold"). */
  readonly requireMdc: boolean;
  /** With the denominator "involved ÷ uninvolved" only the injured side is judged; null judges the weaker one. */
  readonly involved: 'left' | 'right' | null;
  /** Under sixteen nothing but the other side speaks: it is no mere difference, and counts at most half. */
  readonly youth: boolean;
}

/** A difference of the sides, beyond its error or within. */
export interface JudgedSymmetry {
  readonly row: AsymmetryRow | null;
  readonly evidence: Evidence | null;
}

/**
 * Judges left against right for one test: the weaker side's own row when the limit is exceeded and the difference is
 * larger than the error; "possible, repeat" when it is exceeded inside the error.
 */
export function judgeSymmetry(
  test: Test,
  left: Estimate,
  right: Estimate,
  needs: { left: readonly Need[]; right: readonly Need[] },
  context: SymmetryContext,
): JudgedSymmetry {
  const limit = test.flag.asymmetry;
  const weaker: 'left' | 'right' = reserveOf(test, left.mean, right.mean) <= 0 ? 'left' : 'right';
  const difference = Math.abs(left.mean - right.mean);
  const indexPercent = limit?.kind === 'lsi-percent' ? symmetryIndex(left.mean, right.mean) : null;
  if (!limit || difference === 0) return { row: null, evidence: null };
  const base = { test: test.id, weaker, left: left.mean, right: right.mean, difference, indexPercent };
  if (!limitExceeded(left.mean, right.mean, limit))
    return { row: { ...base, state: 'within-limit' }, evidence: null };
  if (context.requireMdc && difference < test.mdc95.value - 1e-9) {
    return { row: { ...base, state: 'possible-repeat' }, evidence: null };
  }
  const row: AsymmetryRow = { ...base, state: 'counts' };
  if (context.involved !== null && context.involved !== weaker) return { row, evidence: null };
  const own = weaker === 'left' ? left : right;
  const other = weaker === 'left' ? right : left;
  const met = !context.youth && needs[weaker].every((need) => reserveOf(test, own.mean, need.value) >= 0);
  const need: Need = {
    value: symmetryNeed(other.mean, limit, test.better),
    source: { kind: 'symmetry', id: weaker === 'left' ? 'right' : 'left' },
  };
  const sd = own.sd === null || other.sd === null ? null : Math.sqrt(own.sd ** 2 + other.sd ** 2);
  return {
    row,
    evidence: evidenceRow(test, weaker, own, need, {
      painFine: context.painFine,
      sd,
      capped: met,
      ...(context.youth ? { severityCap: FINDING_SETTINGS.youthSeverityCap } : {}),
    }),
  };
}
