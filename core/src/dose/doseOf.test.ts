import { describe, expect, it } from 'vitest';
import type { Case, Mode } from '../domain/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { caseOf, result } from '../testing/cases.ts';
import {
  allowedSets,
  dosedItem,
  freshMaximum,
  indexCapacities,
  roundAmount,
  isTendonHold,
  stretchCapSeconds,
} from './index.ts';
import type { DoseContext } from './index.ts';
import type { Drill } from '../reference/index.ts';
import { judgeCase } from '../testing/prepared.ts';
import { eachOf } from '../testing/eachOf.ts';

const drillOf = (id: string) => {
  const drill = bundledReference.drills.get(id);
  if (!drill) throw new Error(id);
  return drill;
};
const context = (mode: Mode, input: Case = caseOf(), age = 25): DoseContext => ({
  reference: bundledReference,
  today: input.today,
  age,
  mode,
  capacities: indexCapacities(judgeCase(bundledReference, input).capacities),
  trainingYears: 4,
  stretchCapSeconds: null,
  tendonHolds: new Set<string>(),
  fine: 3,
  precautions: [],
  amber: new Set<never>(),
});
const screened = (date: string, left: number, right: number, pain = 0) =>
  caseOf({
    screenings: [
      {
        date,
        results: [
          { ...result('side-bridge-hold', 'left', left), pain: { nrs: pain } },
          result('side-bridge-hold', 'right', right),
        ],
      },
    ],
  });
const amount = (mode: Mode, input: Case, side: 'left' | 'right' | 'both', age = 25) =>
  dosedItem(context(mode, input, age), drillOf('side-plank'), side, 1, null).item.amount;

describe('dose from a tested maximum', () => {
  const input = screened('2027-02-27', 60, 90);
  it('takes the top of the share in prepare and the middle in build, rounded down to 5 s, own side', () => {
    // stabilise: prepare 0.3–0.5, build 0.5–0.7.
    // 0.5 × 60 = 30, but no hold beyond 20 s before activity.
    expect(amount('prepare', input, 'left')).toBe(20);
    expect(amount('build', input, 'left')).toBe(35);
    expect(amount('build', input, 'right')).toBe(45); // 0.6 × 90 = 54, clamped to the drill's 45
    expect(amount('build', input, 'both')).toBe(35);
  });
  it('for both sides takes the worse one, and none while one side is not measured', () => {
    const measured = (...sides: ('left' | 'right')[]) =>
      caseOf({
        screenings: [
          {
            date: '2027-02-27',
            results: sides.map((side) => result('side-bridge-hold', side, side === 'left' ? 60 : 90)),
          },
        ],
      });
    const of = (input: Case, side: 'left' | 'right' | 'both') =>
      freshMaximum(context('build', input), drillOf('side-plank'), side)?.value ?? null;
    expect(of(measured('left', 'right'), 'both')).toBe(60);
    expect(of(measured('left'), 'both')).toBeNull();
    expect(of(measured('left'), 'left')).toBe(60);
    expect(of(measured('left'), 'right')).toBeNull();
  });
  it('is fresh for 120 days and not a day longer', () => {
    const of = (date: string) =>
      freshMaximum(context('build', screened(date, 60, 90)), drillOf('side-plank'), 'left');
    expect(of('2026-11-01')).not.toBeNull();
    expect(of('2026-10-31')).toBeNull();
  });
  it('does not take an old one, nor one taken in pain', () => {
    expect(
      freshMaximum(context('build', screened('2026-10-01', 60, 90)), drillOf('side-plank'), 'left'),
    ).toBeNull();
    expect(
      freshMaximum(context('build', screened('2027-02-27', 60, 90, 4)), drillOf('side-plank'), 'left'),
    ).toBeNull();
    expect(
      freshMaximum(context('build', screened('2027-02-27', 60, 90, 1)), drillOf('side-plank'), 'left'),
    ).toMatchObject({
      test: 'side-bridge-hold',
      value: 60,
    });
  });
  it('stays in the lower half of the range while growing', () => {
    expect(amount('build', screened('2027-02-27', 200, 200), 'left', 17)).toBe(30);
  });
});

describe('dose without one', () => {
  it('is the usual amount in build, the lower half in prepare, and the lower half while growing', () => {
    const { min, max, default: usual } = drillOf('side-plank').dose.amount;
    expect(amount('build', caseOf(), 'both')).toBe(usual);
    expect(amount('prepare', caseOf(), 'both')).toBe(roundAmount('hold-seconds', min + (max - min) / 4));
    expect(amount('build', caseOf(), 'both', 15)).toBeLessThanOrEqual((min + max) / 2);
  });
  it('stays within the drill’s range for every drill, mode and age', () => {
    for (const mode of ['prepare', 'build', 'restore'] as const) {
      for (const age of [14, 30]) {
        const day = context(mode, caseOf(), age);
        for (const drill of eachOf(bundledReference.data.drills)) {
          const { item, fits } = dosedItem(day, drill, 'both', 1, null);
          if (!fits) continue; // its least is too long a hold before activity: not offered
          expect(item.amount, `${drill.id} ${mode}`).toBeGreaterThanOrEqual(drill.dose.amount.min);
          expect(item.amount, `${drill.id} ${mode}`).toBeLessThanOrEqual(drill.dose.amount.max);
        }
      }
    }
  });
  it.each([
    ['prepare', 'short-then-dynamic', 30],
    ['prepare', 'last-step', 20],
    ['prepare', 'avoid', null],
    ['build', 'last-step', null],
    ['restore', 'short-then-dynamic', null],
  ] as const)('in %s the school “%s” caps static stretches at %s s a side', (mode, option, seconds) => {
    expect(stretchCapSeconds(mode, option)).toBe(seconds);
  });
  it('a static stretch before activity is capped by the school, even below the drill’s range', () => {
    const capped = { ...context('prepare'), stretchCapSeconds: 20 };
    expect(dosedItem(capped, drillOf('wall-calf-stretch-straight'), 'both', 1, null).item.amount).toBe(20);
  });
});

describe('whether a dose can be had at all', () => {
  const dose = (given: DoseContext, id: string) => dosedItem(given, drillOf(id), 'left', 1, null);
  it('a hold whose least is just what is allowed before activity can; a second longer cannot', () => {
    const least = (min: number) => {
      const plank = drillOf('side-plank');
      const drill = { ...plank, dose: { ...plank.dose, amount: { ...plank.dose.amount, min } } };
      return dosedItem(context('prepare'), drill, 'left', 1, null);
    };
    expect(least(20)).toMatchObject({ item: { amount: 20 }, fits: true });
    expect(least(21).fits).toBe(false);
  });
  it('least 15 s of a maximum of 20 s is beyond the share: the easier rung is due, and where there is none it stays', () => {
    const weak = context('build', screened('2027-02-27', 20, 20));
    const plank = drillOf('side-plank');
    expect(plank.easeTo).not.toBeNull();
    expect(dose(weak, plank.id).fits).toBe(false);
    expect(dosedItem(weak, { ...plank, easeTo: null }, 'left', 1, null).fits).toBe(true);
    const weaker = context('build', screened('2027-02-27', 14, 14));
    expect(dosedItem(weaker, { ...plank, easeTo: null }, 'left', 1, null).fits).toBe(false);
  });
  it('where a region is watched the least is given, and can be had', () => {
    const watched: DoseContext = { ...context('build'), amber: new Set(['lumbopelvic'] as const) };
    expect(dose(watched, 'side-plank')).toMatchObject({ item: { amount: 15 }, fits: true });
  });
  it('whoever is 18 is grown: 17 years old gets the lower half, 18 the usual', () => {
    const { min, default: usual } = drillOf('side-plank').dose.amount;
    expect(amount('build', caseOf(), 'left', 18)).toBe(usual);
    expect(amount('build', caseOf(), 'left', 17)).toBeLessThan(usual);
    expect(amount('build', caseOf(), 'left', 17)).toBeGreaterThanOrEqual(min);
  });
});

describe('sets and rest', () => {
  it('are what mode and drill both allow', () => {
    expect(allowedSets(bundledReference, drillOf('single-leg-balance'), 'prepare')).toEqual([1, 2]);
    expect(allowedSets(bundledReference, drillOf('single-leg-balance'), 'build')).toEqual([2, 3]);
  });
  it('the drill’s own minimum wins where they do not meet', () => {
    const needy = bundledReference.data.drills.find(
      (d) => d.dose.sets.min > 1 && d.category === 'strengthen',
    );
    if (!needy) throw new Error('no drill with two sets at least');
    expect(allowedSets(bundledReference, needy, 'prepare')).toEqual([needy.dose.sets.min]);
  });
  it('rest is the drill’s, within the mode’s limits', () => {
    const { item } = dosedItem(context('build'), drillOf('single-leg-heel-raise'), 'both', 2, null);
    expect(item.restSeconds).toBe(60);
  });
});

describe('a long hold for a tendon that hurts', () => {
  const sore = { ...context('build'), tendonHolds: new Set(['calf-load-irritability']) };
  const hold = {
    ...drillOf('single-leg-balance'),
    contraction: 'isometric-hold',
    serves: [{ restriction: 'calf-load-irritability', match: 0.4 }],
  } as unknown as Drill;
  const like = (over: object) => isTendonHold(sore, { ...hold, ...over } as Drill);
  it('is held still, counted in seconds, and serves what hurts at a cover match', () => {
    expect(like({})).toBe(true);
    expect(like({ dose: { ...hold.dose, measure: 'reps' } })).toBe(false);
    expect(like({ contraction: 'concentric-eccentric' })).toBe(false);
    expect(like({ serves: [{ restriction: 'calf-load-irritability', match: 0.39 }] })).toBe(false);
    expect(like({ serves: [{ restriction: 'ankle-dorsiflexion-limit', match: 1 }] })).toBe(false);
  });
});
