import type { Standing } from '../domain/index.ts';
import type { Reference, Test } from '../reference/index.ts';
import type { Capacity } from './types.ts';
import type { Reason } from '../reasons/index.ts';
import { testWorths } from './worth.ts';

/**
 * The single test most likely to change a decision per minute: openness of "short or not" on its sides × relevance
 * ÷ minutes. Null when nothing may be tested. Ties go to the smaller id.
 */
export function nextTest(
  reference: Reference,
  input: Standing,
  offered: readonly Test[],
  capacities: readonly Capacity[],
): { test: string; why: readonly Reason[] } | null {
  const byId = [...offered].sort((a, b) => (a.id < b.id ? -1 : 1));
  let best: { test: string; rate: number; why: readonly Reason[] } | null = null;
  for (const { test, worth, minutes, why } of testWorths(reference, input, byId, capacities)) {
    const rate = worth / minutes;
    if (!best || rate > best.rate + 1e-12) best = { test: test.id, rate, why };
  }
  return best && best.rate > 0 ? { test: best.test, why: best.why } : null;
}
