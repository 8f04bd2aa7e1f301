/** Limb symmetry index, weaker ÷ stronger × 100 (better ÷ worse where lower is better); at most 100 (FORMULAS 1). */
export function symmetryIndex(left: number, right: number): number {
  const high = Math.max(left, right);
  return high === 0 ? 100 : (Math.min(left, right) / high) * 100;
}

/** Which side is lower in value, or neither. */
export function lowerSide(left: number, right: number): 'left' | 'right' | null {
  if (left === right) return null;
  return left < right ? 'left' : 'right';
}

/** The value the weaker side needs so that the limit against the stronger side is just kept. */
export function symmetryNeed(
  stronger: number,
  limit: { kind: 'absolute' | 'lsi-percent'; threshold: number },
  better: 'higher' | 'lower' | 'band',
): number {
  if (limit.kind === 'absolute')
    return better === 'lower' ? stronger + limit.threshold : stronger - limit.threshold;
  const share = limit.threshold / 100;
  return better === 'lower' ? stronger / share : stronger * share;
}

/** Difference at or above an absolute limit, or an index below a percentage limit. */
export function limitExceeded(
  left: number,
  right: number,
  limit: { kind: 'absolute' | 'lsi-percent'; threshold: number },
): boolean {
  if (limit.kind === 'absolute') return Math.abs(left - right) >= limit.threshold - 1e-9;
  return symmetryIndex(left, right) < limit.threshold - 1e-9;
}
