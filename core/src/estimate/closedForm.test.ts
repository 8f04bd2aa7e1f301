import { describe, expect, it } from 'vitest';
import { dayNumber } from '../domain/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import type { Test } from '../reference/index.ts';
import { estimateSide, normalCdf } from './index.ts';

type Visit = { date: string; value: number };

/** Solves C·x = b for a small symmetric matrix by Gaussian elimination. */
function solve(matrix: number[][], right: number[]): number[] {
  const rows = matrix.map((row, i) => [...row, right[i] as number]);
  const n = rows.length;
  for (let i = 0; i < n; i += 1) {
    for (let k = i + 1; k < n; k += 1) {
      const factor = (rows[k]?.[i] ?? 0) / (rows[i]?.[i] ?? 1);
      for (let j = i; j <= n; j += 1)
        (rows[k] as number[])[j] = (rows[k]?.[j] ?? 0) - factor * (rows[i]?.[j] ?? 0);
    }
  }
  const x = Array.from({ length: n }, () => 0);
  for (let i = n - 1; i >= 0; i -= 1) {
    const rest = x.reduce((sum, v, j) => (j > i ? sum + v * (rows[i]?.[j] ?? 0) : sum), 0);
    x[i] = ((rows[i]?.[n] ?? 0) - rest) / (rows[i]?.[i] ?? 1);
  }
  return x;
}

/**
 * The estimate at the last visit, worked out the other way round: each result is today's capacity minus what it wandered
 * since, plus its own error. Generalised least squares over that covariance, with nothing known beforehand.
 */
function leastSquares(test: Test, visits: readonly Visit[]): { mean: number; sd: number } {
  const sem = test.sem.value;
  const q = test.processSdPerWeek.value;
  const last = dayNumber(visits.at(-1)?.date ?? '');
  const weeks = visits.map((v) => (last - dayNumber(v.date)) / 7);
  const covariance = weeks.map((a, i) =>
    weeks.map((b, j) => q ** 2 * Math.min(a, b) + (i === j ? sem ** 2 : 0)),
  );
  const weights = solve(
    covariance,
    visits.map(() => 1),
  );
  const precision = weights.reduce((sum, w) => sum + w, 0);
  const mean = visits.reduce((sum, v, i) => sum + (weights[i] ?? 0) * v.value, 0) / precision;
  return { mean, sd: Math.sqrt(1 / precision) };
}

const HISTORIES: readonly (readonly [string, readonly Visit[]])[] = [
  [
    'wblt-angle',
    [
      { date: '2027-01-04', value: 36 },
      { date: '2027-02-01', value: 40.5 },
    ],
  ],
  [
    'wblt-distance',
    [
      { date: '2026-11-02', value: 6.1 },
      { date: '2026-12-14', value: 7.4 },
      { date: '2027-02-20', value: 7.0 },
    ],
  ],
  [
    'heel-raise-reps',
    [
      { date: '2026-08-01', value: 14 },
      { date: '2026-10-15', value: 19 },
      { date: '2026-12-24', value: 25 },
      { date: '2027-02-27', value: 23 },
    ],
  ],
];

describe.each(HISTORIES)('%s over dated visits', (id, visits) => {
  const test = bundledReference.tests.get(id) as Test;
  const own = visits.map((v) => ({ ...v, pain: null }));
  const expected = leastSquares(test, visits);
  const at = (today: string) => estimateSide(test, own, [], today);

  it('agrees with least squares over all visits at once, to 1e-6', () => {
    const estimate = at(visits.at(-1)?.date ?? '');
    expect(Math.abs((estimate?.mean ?? 0) - expected.mean)).toBeLessThan(1e-6);
    expect(Math.abs((estimate?.sd ?? 0) - expected.sd)).toBeLessThan(1e-6);
  });

  it('keeps its mean later, and its interval widens by the wandering since', () => {
    const today = '2027-05-01';
    const later = at(today);
    const weeks = (dayNumber(today) - dayNumber(visits.at(-1)?.date ?? '')) / 7;
    const sd = Math.sqrt(expected.sd ** 2 + test.processSdPerWeek.value ** 2 * weeks);
    const interval = [-1.645, 1.645].map((z) => (later?.mean ?? 0) + z * (later?.sd ?? 0));
    expect(Math.abs((interval[0] ?? 0) - (expected.mean - 1.645 * sd))).toBeLessThan(1e-6);
    expect(Math.abs((interval[1] ?? 0) - (expected.mean + 1.645 * sd))).toBeLessThan(1e-6);
    // Nine in ten: what the bar of the picture shows.
    expect(normalCdf(1.645) - normalCdf(-1.645)).toBeCloseTo(0.9, 3);
  });
});
