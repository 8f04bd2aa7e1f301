import { normalCdf } from '../estimate/index.ts';
import { ratioWithError, RATIO_RULES } from '../measure/index.ts';
import type { RatioRule } from '../measure/index.ts';
import type { TestSide } from './capacities.ts';
import { stateOf } from './evidence.ts';
import type { Evidence, RatioRow } from './types.ts';
import { testSideKey } from './visits.ts';

function ratioState(
  rule: RatioRule,
  ratio: { value: number; low95: number; high95: number },
): RatioRow['state'] {
  if (rule.limit === null) return 'no-limit';
  if (ratio.high95 < rule.limit) return 'below';
  return ratio.value < rule.limit ? 'within-error' : 'enough';
}

/**
 * The weaker muscle's row: the reserve is the ratio's distance to its limit, its MDC95 from the ratio's own error.
 * Severity 0: a ratio also falls when the other muscle gets stronger, so it may explain a finding but never rank one
 * (docs/decisions/0004-ratios-explain.md).
 */
function ratioEvidence(
  rule: RatioRule,
  limit: number,
  muscle: TestSide,
  ratio: { value: number; sd: number },
): Evidence {
  const reserve = ratio.value - limit;
  const mdc95 = 1.96 * Math.SQRT2 * ratio.sd;
  const margin = reserve / mdc95;
  const pShort = normalCdf(-reserve / ratio.sd);
  return {
    test: muscle.test.id,
    side: muscle.side,
    estimate: ratio.value,
    sd: ratio.sd,
    need: limit,
    needSource: { kind: 'ratio', id: rule.id },
    mdc95,
    reserve,
    margin,
    pShort,
    state: stateOf(pShort),
    severity: 0,
    capped: false,
    painLimited: false,
    date: muscle.estimate.last.date,
  };
}

/** Ratios of each side with their own error, and rows for those clearly below their limit. Adults only. */
export function judgeRatios(
  estimates: ReadonlyMap<string, TestSide>,
  youth: boolean,
): { rows: RatioRow[]; evidence: Evidence[] } {
  const rows: RatioRow[] = [];
  const evidence: Evidence[] = [];
  for (const rule of RATIO_RULES) {
    for (const side of ['left', 'right'] as const) {
      const a = estimates.get(testSideKey(rule.numerator, side));
      const b = estimates.get(testSideKey(rule.denominator, side));
      if (!a || !b || a.estimate.sd === null || b.estimate.sd === null) continue;
      const ratio = ratioWithError(
        { mean: a.estimate.mean, sd: a.estimate.sd },
        { mean: b.estimate.mean, sd: b.estimate.sd },
      );
      if (!ratio) continue;
      const state = youth ? 'no-limit' : ratioState(rule, ratio);
      rows.push({ id: rule.id, side, ...ratio, limit: youth ? null : rule.limit, state });
      if (state === 'below' && rule.limit !== null) evidence.push(ratioEvidence(rule, rule.limit, a, ratio));
    }
  }
  return { rows, evidence };
}
