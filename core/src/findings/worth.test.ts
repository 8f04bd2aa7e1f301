import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Case } from '../domain/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import type { Test } from '../reference/index.ts';
import { safetyState, YOUTH_AGE } from '../safety/index.ts';
import { arbitraryCase } from '../testing/arbitraries.ts';
import { caseOf, stiffAnkle } from '../testing/cases.ts';
import { offeredTests } from './index.ts';
import { CHANGE_MINUTES, testWorths } from './worth.ts';
import { judgeCase, standingOf } from '../testing/prepared.ts';
import { forAll } from '../testing/forAll.ts';

const testOf = (id: string) => bundledReference.tests.get(id) as Test;
const worthOf = (input: Case, id: string) =>
  testWorths(
    bundledReference,
    standingOf(input),
    [testOf(id)],
    judgeCase(bundledReference, input).capacities,
  )[0]?.worth ?? 0;
const lunge = (left: number, right: number) => ({
  date: '2027-03-01',
  results: [
    { test: 'wblt-distance', side: 'left' as const, trials: [left] },
    { test: 'wblt-distance', side: 'right' as const, trials: [right] },
  ],
});

describe('what a test would tell', () => {
  it('is most at a coin’s toss, little when clear, and follows the worked figures', () => {
    // Nobody has done it and no task asks: p = 0.15, openness 4 · 0.15 · 0.85 = 0.51, relevance 0.7.
    expect(worthOf(caseOf(), 'wblt-distance')).toBeCloseTo(0.51 * 0.7, 10);
    // A task asks: openness 1, relevance 1; injured there within two years: 1.25.
    const asked = { tasks: [{ id: 'fell-running-descent', lead: 'either' as const }] };
    expect(worthOf(caseOf({ athlete: asked }), 'wblt-distance')).toBeCloseTo(1, 10);
    const injury = {
      region: 'ankle-foot' as const,
      side: 'left' as const,
      date: '2026-09-01',
      operated: false,
    };
    expect(worthOf(caseOf({ athlete: { ...asked, injuries: [injury] } }), 'wblt-distance')).toBeCloseTo(
      1.25,
      10,
    );
    const clear = worthOf(stiffAnkle({ screenings: [lunge(3, 20)] }), 'wblt-distance');
    const open = worthOf(stiffAnkle({ screenings: [lunge(9, 9)] }), 'wblt-distance');
    expect(clear).toBeLessThan(0.01);
    expect(open).toBeGreaterThan(0.9);
  });

  it('grows while nobody measures, until it is done again', () => {
    const input = stiffAnkle({ screenings: [lunge(11, 11)] });
    const days = ['2027-03-01', '2027-05-01', '2027-09-01', '2028-02-01'];
    const worths = days.map((today) => worthOf({ ...input, today }, 'wblt-distance'));
    expect(worths).toEqual([...worths].sort((a, b) => a - b));
    expect(worths.at(-1)).toBeGreaterThan((worths[0] ?? 0) + 0.1);
  });
});

describe('the next test', () => {
  it('is the one that tells most per minute of all that may be done', () => {
    forAll(
      fc.property(arbitraryCase(true), (input) => {
        const report = judgeCase(bundledReference, input);
        const safety = safetyState(bundledReference, input.athlete, input.today);
        const offered = offeredTests(bundledReference, safety, YOUTH_AGE);
        const rates = testWorths(bundledReference, standingOf(input), offered, report.capacities).map(
          (w) => ({
            id: w.test.id,
            rate: w.worth / w.minutes,
          }),
        );
        const best = Math.max(0, ...rates.map((r) => r.rate));
        if (report.nextTest === null)
          expect(best === 0 || report.blocked.some((b) => b.level === 'E')).toBe(true);
        else {
          const own = rates.find((r) => r.id === report.nextTest?.test)?.rate ?? -1;
          expect(own).toBeGreaterThanOrEqual(best - 1e-9);
        }
      }),
      60,
    );
  });

  it('counts the minutes of both sides and what any test costs besides', () => {
    const [row] = testWorths(bundledReference, standingOf(caseOf()), [testOf('wblt-distance')], []);
    expect(row?.minutes).toBeCloseTo(testOf('wblt-distance').timeSeconds / 60 + CHANGE_MINUTES, 10);
  });
});
