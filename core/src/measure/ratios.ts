/** A ratio of two estimates with its first-order error: sd = r·√((sa/a)² + (sb/b)²). */
export function ratioWithError(
  a: { mean: number; sd: number },
  b: { mean: number; sd: number },
): { value: number; sd: number; low95: number; high95: number } | null {
  if (a.mean <= 0 || b.mean <= 0) return null; // the propagation needs values away from zero
  const value = a.mean / b.mean;
  const sd = value * Math.sqrt((a.sd / a.mean) ** 2 + (b.sd / b.mean) ** 2);
  return { value, sd, low95: value - 1.96 * sd, high95: value + 1.96 * sd };
}

/** Two tests set against each other, with the limit some use. */
export interface RatioRule {
  readonly id: string;
  readonly name: string;
  readonly numerator: string;
  readonly denominator: string;
  /** Below it the numerator is the weaker muscle; null = reported without a limit. */
  readonly limit: number | null;
  readonly source: string;
  readonly confidence: 'low' | 'medium';
}

/** Agonist–antagonist ratios of FORMULAS 3; limits are editable defaults, citations recalled and unverified. */
export const RATIO_RULES: readonly RatioRule[] = [
  {
    id: 'adductor-abductor',
    name: 'Hip adductor to abductor',
    numerator: 'hip-adduction-strength',
    denominator: 'hip-abduction-strength',
    limit: 0.8,
    source: 'Tyler 2001, one ice-hockey cohort (recalled, unverified)',
    confidence: 'medium',
  },
  {
    id: 'shoulder-er-ir',
    name: 'Shoulder external to internal rotator',
    numerator: 'shoulder-er-strength',
    denominator: 'shoulder-ir-strength',
    limit: 0.7,
    source: 'Ellenbecker, Davies 2000 and hand-held practice (recalled, unverified)',
    confidence: 'medium',
  },
  {
    id: 'hamstring-quadriceps',
    name: 'Hamstring to quadriceps',
    numerator: 'hamstring-strength',
    denominator: 'quadriceps-strength',
    limit: null,
    source: 'isokinetic cut-offs do not apply to hand-held values',
    confidence: 'low',
  },
];
