import type { Side } from '../domain/index.ts';
import { normalCdf } from '../estimate/index.ts';
import type { Estimate } from '../estimate/index.ts';
import { isContinuous, isPainTest, reserveOf } from '../measure/index.ts';
import type { Test } from '../reference/index.ts';
import type { Need } from './needs.ts';
import { FINDING_SETTINGS } from './settings.ts';
import type { Evidence, FindingState } from './types.ts';

/** State from the probability that capacity is below need (rulings, "state by probability"). */
export function stateOf(pShort: number): FindingState {
  if (pShort >= FINDING_SETTINGS.short) return 'short';
  if (pShort >= FINDING_SETTINGS.likelyShort) return 'likely-short';
  return pShort > FINDING_SETTINGS.withinError ? 'within-error' : 'enough';
}

/** clamp(−margin/2, 0, 1): two real changes below need is the most severe. */
export function severityOf(margin: number): number {
  return Math.min(1, Math.max(0, -margin / 2));
}

/** Divisor of the reserve: MDC95; one grade or point; two points of pain. */
function marginUnit(test: Test): number {
  if (isContinuous(test)) return test.mdc95.value;
  return isPainTest(test) ? 2 : 1;
}

/** An estimate against a need: margin, state and severity. */
export interface JudgedNeed {
  readonly reserve: number;
  readonly margin: number;
  readonly pShort: number;
}

/** A grade or points say short or not with this certainty at most (rulings, editable). */
const GRADE_P = { short: 0.9, enough: 0.1 } as const;

/** Without an error of its own the last value decides: a pain gate wholly, a grade as far as a grade can. */
function pOfLast(test: Test, reserve: number): number {
  if (isPainTest(test)) return reserve < 0 ? 1 : 0;
  return reserve < 0 ? GRADE_P.short : GRADE_P.enough;
}

/** Reserve (unit of the test), margin and probability of a shortfall. `sd` null: the last value decides. */
export function judgeNeed(test: Test, value: number, sd: number | null, need: number): JudgedNeed {
  const reserve = reserveOf(test, value, need);
  const margin = reserve / marginUnit(test);
  const pShort = sd === null ? pOfLast(test, reserve) : normalCdf(-reserve / sd);
  return { reserve, margin, pShort };
}

/** One evidence row of a task, floor, override or symmetry need. `sd` overrides the estimate's own (symmetry). */
export function evidenceRow(
  test: Test,
  side: Side,
  estimate: Estimate,
  need: Need,
  options: { painFine: number; sd?: number | null; capped?: boolean; severityCap?: number },
): Evidence {
  const sd = options.sd === undefined ? estimate.sd : options.sd;
  const judged = judgeNeed(test, estimate.mean, sd, need.value);
  const capped = options.capped ?? false;
  const severity = severityOf(judged.margin);
  const state = stateOf(judged.pShort);
  return {
    test: test.id,
    side,
    estimate: estimate.mean,
    sd,
    need: need.value,
    needSource: need.source,
    mdc95: test.mdc95.value,
    ...judged,
    state: capped && state === 'short' ? 'likely-short' : state,
    severity: Math.min(severity, capped ? FINDING_SETTINGS.symmetrySeverityCap : 1, options.severityCap ?? 1),
    capped,
    painLimited: isPainLimited(test, estimate, options.painFine),
    date: estimate.last.date,
  };
}

/** Taken with more pain than the "fine" limit: shown as such, no dose from it, no advance on it. */
export function isPainLimited(test: Test, estimate: Estimate, painFine: number): boolean {
  return !isPainTest(test) && estimate.last.pain !== null && estimate.last.pain > painFine;
}
