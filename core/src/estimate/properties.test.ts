import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays } from '../domain/index.ts';
import {
  aggregateTrials,
  isContinuous,
  isPlausible,
  limitExceeded,
  reserveOf,
  symmetryIndex,
  symmetryNeed,
} from '../measure/index.ts';

import { bundledReference } from '../reference/bundled.ts';
import type { Test } from '../reference/index.ts';
import { estimateSide, realChange, RESCREEN, rescreenDue } from './index.ts';
import { forAll } from '../testing/forAll.ts';

const measured = bundledReference.data.tests.filter((test) => !test.derivedFrom && isContinuous(test));
const anyTest = fc.constantFrom(...measured);
const START = '2026-01-05';

/** A value of the test on a grid of a thousandth of its plausible range. */
const valueOf = (test: Test) =>
  fc
    .integer({ min: 0, max: 1000 })
    .map((k) => test.plausible.min + ((test.plausible.max - test.plausible.min) * k) / 1000);

/** Visits of one side, sorted, at most four weeks apart so that no gap starts the trend anew. */
const visitsOf = (test: Test, most = 6) =>
  fc
    .array(fc.record({ gap: fc.integer({ min: 1, max: 28 }), value: valueOf(test) }), {
      minLength: 1,
      maxLength: most,
    })
    .map((steps) => {
      let day = 0;
      return steps.map(({ gap, value }) => ({ date: addDays(START, (day += gap)), value, pain: null }));
    });

const withVisits = anyTest.chain((test) => fc.record({ test: fc.constant(test), visits: visitsOf(test) }));

function estimated(test: Test, visits: { date: string; value: number; pain: null }[], today: string) {
  const estimate = estimateSide(test, visits, [], today);
  if (!estimate) throw new Error(`${test.id}: no estimate from ${visits.length} visits`);
  return estimate;
}

describe('an estimate of any continuous test', () => {
  it('lies within what was measured, and is never less sure than one visit alone', () => {
    forAll(
      fc.property(withVisits, ({ test, visits }) => {
        const last = visits.at(-1)?.date ?? START;
        const { mean, sd } = estimated(test, visits, last);
        const values = visits.map((v) => v.value);
        expect(mean).toBeGreaterThanOrEqual(Math.min(...values) - 1e-9);
        expect(mean).toBeLessThanOrEqual(Math.max(...values) + 1e-9);
        expect(sd).toBeGreaterThan(0);
        expect(sd ?? Infinity).toBeLessThanOrEqual(test.sem.value + 1e-9);
      }),
    );
  });

  it('keeps its mean and only grows less sure while nobody measures', () => {
    forAll(
      fc.property(withVisits, fc.integer({ min: 1, max: 300 }), ({ test, visits }, days) => {
        const last = visits.at(-1)?.date ?? START;
        const fresh = estimated(test, visits, last);
        const later = estimated(test, visits, addDays(last, days));
        expect(later.mean).toBe(fresh.mean);
        // FORMULAS 16: the variance grows by q² for each week.
        const grown = (fresh.sd ?? 0) ** 2 + (test.processSdPerWeek.value ** 2 * days) / 7;
        expect((later.sd ?? 0) ** 2).toBeCloseTo(grown, 8);
      }),
    );
  });

  it('moves with its measurements: shifting every visit shifts the mean and nothing else', () => {
    forAll(
      fc.property(withVisits, fc.integer({ min: -50, max: 50 }), ({ test, visits }, shift) => {
        const last = visits.at(-1)?.date ?? START;
        const plain = estimated(test, visits, last);
        const moved = estimated(
          test,
          visits.map((v) => ({ ...v, value: v.value + shift })),
          last,
        );
        expect(moved.mean).toBeCloseTo(plain.mean + shift, 6);
        expect(moved.sd).toBeCloseTo(plain.sd ?? NaN, 10);
      }),
    );
  });
});

describe('a rescreen date', () => {
  it('is between 14 and 120 days after the last visit, and never earlier for a clearer call', () => {
    const drawn = anyTest.chain((test) =>
      fc.record({
        test: fc.constant(test),
        visits: visitsOf(test, 3),
        near: fc.integer({ min: 0, max: 60 }),
        further: fc.integer({ min: 0, max: 60 }),
        short: fc.boolean(),
      }),
    );
    forAll(
      fc.property(drawn, ({ test, visits, near, further, short }) => {
        const last = visits.at(-1)?.date ?? START;
        const estimate = estimated(test, visits, last);
        const reserve = (tenths: number) => ((short ? -1 : 1) * tenths * test.sem.value) / 10;
        const close = rescreenDue(test, estimate, reserve(near));
        const clear = rescreenDue(test, estimate, reserve(near + further));
        for (const { due } of [close, clear]) {
          expect(due >= addDays(last, RESCREEN.minDays)).toBe(true);
          expect(due <= addDays(last, RESCREEN.maxDays)).toBe(true);
        }
        expect(clear.due >= close.due).toBe(true);
      }),
    );
  });
});

describe('a change between two visits', () => {
  const pair = anyTest.chain((test) =>
    fc.record({ test: fc.constant(test), a: valueOf(test), b: valueOf(test) }),
  );
  it('counts the same forwards and backwards, with the sign turned', () => {
    forAll(
      fc.property(pair, ({ test, a, b }) => {
        const there = realChange(test, a, b);
        const back = realChange(test, b, a);
        expect(back.real).toBe(there.real);
        expect(back.difference).toBeCloseTo(-there.difference, 9);
      }),
    );
  });
  it('is never real within the smallest real change, always from it on', () => {
    forAll(
      fc.property(anyTest, fc.integer({ min: 0, max: 300 }), (test, percent) => {
        fc.pre(percent !== 100);
        const from = test.reference.low;
        const { real } = realChange(test, from, from + (test.mdc95.value * percent) / 100);
        expect(real === 'yes').toBe(percent > 100);
      }),
    );
  });
});

describe('trials and sides', () => {
  const trials = anyTest.chain((test) =>
    fc.record({ test: fc.constant(test), values: fc.array(valueOf(test), { minLength: 1, maxLength: 5 }) }),
  );
  it('the result of a visit does not depend on the order of its trials and lies among them', () => {
    forAll(
      fc.property(trials, ({ test, values }) => {
        const result = aggregateTrials(test, values);
        expect(aggregateTrials(test, [...values].reverse())).toBeCloseTo(result, 9);
        expect(result).toBeGreaterThanOrEqual(Math.min(...values) - 1e-9);
        expect(result).toBeLessThanOrEqual(Math.max(...values) + 1e-9);
        expect(isPlausible(test, Math.min(...values))).toBe(true);
      }),
    );
  });
  it('the best trial is never behind another', () => {
    forAll(
      fc.property(trials, ({ test, values }) => {
        fc.pre(test.trials.aggregate === 'best');
        const best = aggregateTrials(test, values);
        for (const value of values) expect(reserveOf(test, best, value)).toBeGreaterThanOrEqual(0);
      }),
    );
  });
  it('the symmetry index is at most 100, the same either way round, and free of the unit', () => {
    const positive = fc.integer({ min: 1, max: 5000 }).map((k) => k / 10);
    forAll(
      fc.property(positive, positive, positive, (a, b, unit) => {
        const index = symmetryIndex(a, b);
        expect(index).toBeLessThanOrEqual(100);
        expect(symmetryIndex(b, a)).toBe(index);
        expect(symmetryIndex(a * unit, b * unit)).toBeCloseTo(index, 8);
      }),
    );
  });
  it('a weaker side that reaches its need keeps a percentage limit; one clearly below it does not', () => {
    const better = fc.constantFrom('higher' as const, 'lower' as const);
    forAll(
      fc.property(
        fc.integer({ min: 10, max: 900 }),
        fc.integer({ min: 70, max: 98 }),
        better,
        (strong, threshold, way) => {
          const limit = { kind: 'lsi-percent' as const, threshold };
          const need = symmetryNeed(strong, limit, way);
          expect(limitExceeded(strong, need, limit)).toBe(false);
          expect(limitExceeded(strong, way === 'lower' ? need * 1.02 : need * 0.98, limit)).toBe(true);
        },
      ),
    );
  });
});
