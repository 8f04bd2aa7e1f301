import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { result, stiffAnkle } from '../testing/cases.ts';
import { drillOf, preparedOf } from '../testing/prepared.ts';
import { item } from '../testing/cases.ts';
import type { Case, Mode, RoutineItem } from '../domain/index.ts';
import { failureDistance, setsFor } from './index.ts';
import { forAll } from '../testing/forAll.ts';

const drill = drillOf('single-leg-heel-raise');
const heelRaises = (mode: Mode, left: number, right: number): Case =>
  stiffAnkle({
    screenings: [
      {
        date: '2027-02-27',
        results: [result('heel-raise-reps', 'left', left), result('heel-raise-reps', 'right', right)],
      },
    ],
    request: { mode } as Case['request'],
  });
const distance = (mode: Mode, left: number, right: number, over: Partial<RoutineItem>) =>
  failureDistance(preparedOf(heelRaises(mode, left, right)).dose, drill, item(drill.id, over));

describe('how far a set stays from failure', () => {
  it('12 of 20 possible raises use 60 % and leave 8; half is meant before activity, 75 % in build', () => {
    expect(distance('prepare', 20, 30, { side: 'left', amount: 12 })).toMatchObject({
      share: 0.6,
      left: 8,
      allowed: 0.5,
      tooClose: true,
    });
    const build = distance('build', 20, 30, { side: 'left', amount: 12 });
    expect(build.tooClose).toBe(false);
    expect(build.allowed).toBeCloseTo(0.75, 9);
  });
  it('goes by the side that is nearest to failure', () => {
    expect(distance('build', 14, 40, { side: 'both', amount: 10 }).share).toBeCloseTo(10 / 14, 9);
    const own = { left: { sets: 1, amount: 6 }, right: { sets: 2, amount: 30 } };
    expect(distance('build', 14, 40, { side: 'both', perSide: own }).share).toBeCloseTo(30 / 40, 9);
  });
  it('a single raise possible counts, none at all is no maximum', () => {
    expect(distance('build', 1, 30, { side: 'left', amount: 1 })).toMatchObject({ share: 1, left: 0 });
    expect(distance('build', 0, 30, { side: 'left', amount: 1 })).toMatchObject({ share: null, left: null });
  });
  it('without a tested maximum knows only the drill’s own range', () => {
    const none = preparedOf(stiffAnkle({ screenings: [] })).dose;
    const at = (amount: number) => failureDistance(none, drill, item(drill.id, { amount }));
    expect(at(drill.dose.amount.max)).toMatchObject({ share: null, left: null, tooClose: false });
    expect(at(drill.dose.amount.max + 1).tooClose).toBe(true);
    expect(at(5).effortCue.length).toBeGreaterThan(5);
    // One side beyond the range is enough.
    const { max } = drill.dose.amount;
    const perSide = { left: { sets: 1, amount: 6 }, right: { sets: 1, amount: max + 1 } };
    expect(failureDistance(none, drill, item(drill.id, { side: 'both', perSide })).tooClose).toBe(true);
  });
  it('a bigger amount is never further from failure, a bigger maximum never nearer', () => {
    const figures = fc.tuple(
      fc.integer({ min: 5, max: 30 }),
      fc.integer({ min: 8, max: 45 }),
      fc.integer({ min: 1, max: 6 }),
    );
    forAll(
      fc.property(figures, ([amount, maximum, more]) => {
        const share = (a: number, m: number) =>
          distance('build', m, m, { side: 'left', amount: a }).share ?? 0;
        expect(share(amount + more, maximum)).toBeGreaterThan(share(amount, maximum));
        expect(share(amount, maximum + more)).toBeLessThan(share(amount, maximum));
      }),
      8,
    );
  });
});

describe('sets to choose from', () => {
  const sets = (mode: Mode, trainingYears: number) =>
    setsFor(
      preparedOf(stiffAnkle({ athlete: { trainingYears }, request: { mode } as Case['request'] })).dose,
      drillOf('slow-curl'),
    );
  it('of a build are the lower half in the first year of training, else all', () => {
    expect(sets('build', 0.5).length).toBe(Math.ceil(sets('build', 3).length / 2));
    expect(sets('build', 0.5)[0]).toBe(sets('build', 3)[0]);
    expect(sets('build', 1)).toEqual(sets('build', 3));
    expect(sets('build', 0.99)).toEqual(sets('build', 0.5));
  });
  it('of a preparation are the same for everybody: it stays far from failure anyway', () => {
    expect(sets('prepare', 0)).toEqual(sets('prepare', 9));
  });
});
