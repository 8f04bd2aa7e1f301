import type { Standing, Side } from '../domain/index.ts';
import type { Visit } from '../estimate/index.ts';
import { countedTrials, isContinuous, resultSd, resultValue } from '../measure/index.ts';
import type { Reference } from '../reference/index.ts';

/** Key of one test and side. */
export function testSideKey(test: string, side: Side): string {
  return `${test}/${side}`;
}

/** Visits per test and side up to `today`, sorted by date. Results without a value are left out. */
export function collectVisits(
  reference: Reference,
  input: Standing,
): Map<string, { test: string; side: Side; visits: Visit[] }> {
  const byKey = new Map<string, { test: string; side: Side; visits: Visit[] }>();
  const screenings = [...input.screenings]
    .filter((screening) => screening.date <= input.today)
    .sort((a, b) => (a.date < b.date ? -1 : a.date > b.date ? 1 : 0));
  for (const screening of screenings) {
    for (const result of screening.results) {
      const test = reference.tests.get(result.test);
      const value = test ? resultValue(test, result) : null;
      if (!test || value === null) continue;
      const key = testSideKey(test.id, result.side);
      const entry = byKey.get(key) ?? { test: test.id, side: result.side, visits: [] };
      const trials = countedTrials(result);
      const sd = isContinuous(test) && trials.length > 1 ? { sd: resultSd(test, trials) } : {};
      entry.visits.push({ date: screening.date, value, pain: result.pain?.nrs ?? null, ...sd });
      byKey.set(key, entry);
    }
  }
  return byKey;
}
