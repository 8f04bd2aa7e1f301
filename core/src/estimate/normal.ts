/**
 * Standard normal distribution function Φ(z).
 * Marsaglia's series inside |z| < 6.5 ("Evaluating the Normal Distribution", J Stat Softw 2004), exact to double
 * precision there; beyond it the tail is below 1e-10 and 0 or 1 is returned.
 */
export function normalCdf(z: number): number {
  if (Number.isNaN(z)) return Number.NaN;
  if (z <= -6.5) return 0;
  if (z >= 6.5) return 1;
  let sum = z;
  let term = z;
  let previous = 0;
  for (let k = 3; sum !== previous && k < 400; k += 2) {
    previous = sum;
    term *= (z * z) / k;
    sum += term;
  }
  return 0.5 + sum * Math.exp(-0.5 * z * z - 0.9189385332046727);
}
