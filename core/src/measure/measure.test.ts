import { describe, expect, it } from 'vitest';
import { bundledReference } from '../reference/bundled.ts';
import {
  aggregateTrials,
  coefficientOfVariation,
  countedTrials,
  forcePerMass,
  gradeFromFaults,
  limitExceeded,
  normalisedReach,
  ratioWithError,
  resultSd,
  resultValue,
  symmetryIndex,
  symmetryNeed,
  torquePerMass,
  trialSpread,
} from './index.ts';

const testOf = (id: string) => {
  const test = bundledReference.tests.get(id);
  if (!test) throw new Error(`no test ${id}`);
  return test;
};

describe('worked numbers of the formula sheet', () => {
  it('symmetry: 2.40 against 2.70 is 88.9 %, 1.80 s against 2.00 s is 90 %', () => {
    expect(symmetryIndex(2.4, 2.7)).toBeCloseTo(88.9, 1);
    expect(symmetryIndex(1.8, 2.0)).toBeCloseTo(90, 10);
  });

  it('normalisation: reach 62/90, force 182 N at 74 kg, torque at 0.38 m', () => {
    expect(normalisedReach(62, 90)).toBeCloseTo(68.9, 1);
    expect(forcePerMass(182, 74)).toBeCloseTo(2.46, 2);
    expect(torquePerMass(182, 0.38, 74)).toBeCloseTo(0.93, 2);
  });

  it('trial spread: CV 3.7 % passes, CV 13.4 % asks for another trial', () => {
    const strength = testOf('hip-er-strength');
    expect(coefficientOfVariation([182, 196, 190])).toBeCloseTo(3.7, 1);
    expect(coefficientOfVariation([150, 182, 196])).toBeCloseTo(13.4, 1);
    expect(trialSpread(strength, [1.82, 1.96, 1.9]).askAnother).toBe(false);
    expect(trialSpread(strength, [1.5, 1.82, 1.96]).askAnother).toBe(true);
  });

  it('ratios carry the error of both muscles', () => {
    const ratio = ratioWithError({ mean: 2.55, sd: 0.18 }, { mean: 2.6, sd: 0.16 });
    expect(ratio?.value).toBeCloseTo(0.98, 2);
    expect(ratio?.sd).toBeCloseTo(0.98 * Math.hypot(0.18 / 2.55, 0.16 / 2.6), 3);
    expect(ratioWithError({ mean: 0, sd: 1 }, { mean: 1, sd: 1 })).toBeNull();
  });
});

describe('aggregates', () => {
  it('follow the rule of the test: mean, best, worst in its own direction', () => {
    expect(aggregateTrials(testOf('wblt-distance'), [7, 7.2, 7.1])).toBeCloseTo(7.1, 10);
    expect(aggregateTrials(testOf('single-leg-balance-ec'), [3, 4, 3.5])).toBe(4);
    expect(aggregateTrials(testOf('finger-flexion-gap'), [0.5])).toBe(0.5);
    expect(aggregateTrials(testOf('foot-intrinsic-hold'), [3, 1])).toBe(1);
  });

  it('ask for one more, once: three are asked, a fourth is, a fifth is not', () => {
    const lunge = testOf('wblt-distance');
    expect(trialSpread(lunge, [5, 7, 6])).toMatchObject({ askAnother: true, unstable: false });
    expect(trialSpread(lunge, [5, 7, 6, 8])).toMatchObject({ askAnother: false, unstable: true });
  });
  it('that lie far apart carry the larger error: SD of 5, 7, 6, 9 cm is 1.708, over √4 is 0.854', () => {
    const lunge = testOf('wblt-distance'); // SEM 0.6 cm
    expect(resultSd(lunge, [7, 7.2, 7.1])).toBe(0.6);
    expect(resultSd(lunge, [5, 7, 6, 9])).toBeCloseTo(0.8539, 4);
    // Far apart for the limit, yet their mean is surer than the test: the SEM stays.
    expect(resultSd(lunge, [7, 8.3, 7.6])).toBe(0.6);
  });
  it('that were struck out do not count, and stay', () => {
    const result = {
      test: 'wblt-distance',
      side: 'left' as const,
      trials: [7, 12, 7.2],
      struck: [{ trial: 1, reason: 'heel came up' }],
    };
    expect(countedTrials(result)).toEqual([7, 7.2]);
    expect(resultValue(testOf('wblt-distance'), result)).toBeCloseTo(7.1, 9);
    const all = { ...result, struck: [0, 1, 2].map((trial) => ({ trial, reason: 'no' })) };
    expect(resultValue(testOf('wblt-distance'), all)).toBeNull();
  });

  it('exactly at the spread limit is still within it', () => {
    expect(trialSpread(testOf('wblt-distance'), [7, 8.2]).exceeded).toBe(false);
    expect(trialSpread(testOf('wblt-distance'), [7, 8.3]).exceeded).toBe(true);
  });
});

describe('grades from faults', () => {
  const test = testOf('foot-intrinsic-hold');
  const marks = (slight: number, clear: number) => [
    ...Array.from({ length: slight }, () => ({ mark: 'slight' as const })),
    ...Array.from({ length: clear }, () => ({ mark: 'clear' as const })),
  ];
  it.each([
    [0, 0, 3],
    [2, 0, 2],
    [3, 0, 1],
    [0, 1, 1],
  ])('%i slight and %i clear faults give grade %i', (slight, clear, grade) => {
    expect(gradeFromFaults(test, marks(slight, clear))).toBe(grade);
  });
  it('unable is 0 whatever was marked', () => {
    expect(gradeFromFaults(test, marks(0, 0), true)).toBe(0);
  });
});

describe('symmetry limits', () => {
  it('absolute limits count at or above, percentages strictly below', () => {
    expect(limitExceeded(9.5, 11, { kind: 'absolute', threshold: 1.5 })).toBe(true);
    expect(limitExceeded(9, 10, { kind: 'lsi-percent', threshold: 90 })).toBe(false);
    expect(limitExceeded(8.99, 10, { kind: 'lsi-percent', threshold: 90 })).toBe(true);
  });
  it('the need of the weaker side turns round where less is better', () => {
    expect(symmetryNeed(10, { kind: 'absolute', threshold: 1.5 }, 'higher')).toBe(8.5);
    expect(symmetryNeed(10, { kind: 'absolute', threshold: 1.5 }, 'lower')).toBe(11.5);
    expect(symmetryNeed(10, { kind: 'lsi-percent', threshold: 80 }, 'lower')).toBeCloseTo(12.5, 10);
  });
});
