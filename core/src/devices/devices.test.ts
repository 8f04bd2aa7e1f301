import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  analyseForce,
  analyseMat,
  angleTrace,
  forceTrace,
  matEvents,
  SAMPLE_HZ,
  steadyAngle,
  tareOf,
} from './index.ts';
import { forAll } from '../testing/forAll.ts';

const HZ = 100;
const flat = (value: number, seconds: number) => Array.from({ length: seconds * HZ }, () => value);
/** Half a second of rest at 5 N, a straight rise within `riseS`, a hold, and rest. */
const pull = (force: number, holdS: number, riseS = 0.3) => [
  ...flat(5, 0.5),
  ...Array.from({ length: riseS * HZ }, (_, i) => 5 + (force * (i + 1)) / (riseS * HZ)),
  ...flat(5 + force, holdS),
  ...flat(5, 1),
];

describe('a force trace', () => {
  it('is read above its own zero: peak, and the mean of the best second', () => {
    expect(tareOf(pull(200, 2), HZ)).toBeCloseTo(5, 10);
    const capture = analyseForce(pull(200, 2), HZ);
    expect(capture?.peak).toBeCloseTo(200, 9);
    expect(capture?.bestSecond).toBeCloseTo(200, 9);
    expect(capture?.artefacts).toEqual([]);
    expect(analyseForce(flat(5, 0.5), HZ)).toBeNull();
  });

  it('a hold let go after half a second is flagged, and its best second is below the peak', () => {
    const capture = analyseForce(pull(200, 0.5), HZ);
    expect(capture?.artefacts).toEqual(['missed-hold']);
    // Half a second of hold, and of the 0.3 s rise the whole: 0.5 + 0.3 × 0.5 and 0.2 s of rest.
    expect(capture?.bestSecond).toBeCloseTo(200 * (0.5 + 0.155), 0);
  });

  it('a jump to the peak within a few hundredths is a jerk; a build-up is not', () => {
    expect(analyseForce(pull(200, 2, 0.03), HZ)?.artefacts).toEqual(['jerk']);
    expect(analyseForce(pull(200, 2, 0.2), HZ)?.artefacts).toEqual([]);
  });

  it('never gives a best second above the peak, and a larger zero takes away exactly that much', () => {
    forAll(
      fc.property(
        fc.integer(),
        fc.integer({ min: 40, max: 600 }),
        fc.integer({ min: 0, max: 20 }),
        (seed, about, more) => {
          const trace = forceTrace(seed, about);
          const a = analyseForce(trace, SAMPLE_HZ, 0);
          const b = analyseForce(trace, SAMPLE_HZ, more);
          expect(a?.bestSecond).toBeLessThanOrEqual(a?.peak ?? 0);
          expect((a?.peak ?? 0) - (b?.peak ?? 0)).toBeCloseTo(more, 6);
          expect((a?.bestSecond ?? 0) - (b?.bestSecond ?? 0)).toBeCloseTo(more, 6);
        },
      ),
    );
  });
});

describe('an angle', () => {
  it('is taken once it holds still away from rest, never while it moves', () => {
    const trace = angleTrace(4, 42);
    expect(steadyAngle(trace.slice(0, 2 * HZ), SAMPLE_HZ)).toBeNull();
    expect(steadyAngle(trace, SAMPLE_HZ)).toBeGreaterThan(40);
    expect(steadyAngle(flat(0.1, 6), SAMPLE_HZ)).toBeNull(); // at rest nothing was measured
  });
});

describe('a contact mat', () => {
  it('gives flights, contacts, their ratio and the height of the mean flight', () => {
    const events = [
      { t: 0, down: true },
      { t: 500, down: false },
      { t: 1000, down: true },
      { t: 1250, down: false },
      { t: 1750, down: true },
    ];
    const capture = analyseMat(events);
    expect(capture).toMatchObject({ hops: 2, flightsMs: [500, 500], contactsMs: [250], reactiveRatio: 2 });
    expect(capture.heightCm).toBeCloseTo(30.656, 3); // 100 · 9.81 · 0.5² ÷ 8
  });

  it('counts only flights that ended, and every hop of the stand-in', () => {
    expect(
      analyseMat([
        { t: 0, down: true },
        { t: 400, down: false },
      ]),
    ).toMatchObject({ hops: 0, heightCm: null });
    expect(analyseMat(matEvents(3, 17)).hops).toBe(17);
  });
});

describe('the stand-ins', () => {
  it('play the same for the same seed, around the value they are given', () => {
    expect(forceTrace(9, 230)).toEqual(forceTrace(9, 230));
    expect(forceTrace(9, 230)).not.toEqual(forceTrace(10, 230));
    const clean = Array.from({ length: 40 }, (_, seed) => analyseForce(forceTrace(seed, 230), SAMPLE_HZ));
    const artefacts = clean.filter((c) => (c?.artefacts.length ?? 0) > 0).length;
    expect(artefacts).toBeGreaterThan(4); // mishaps happen, so that they can be seen
    expect(artefacts).toBeLessThan(24);
    const peaks = clean.filter((c) => c?.artefacts.length === 0).map((c) => c?.peak ?? 0);
    expect(Math.min(...peaks)).toBeGreaterThan(230 * 0.9);
    expect(Math.max(...peaks)).toBeLessThan(230 * 1.12);
  });
});
