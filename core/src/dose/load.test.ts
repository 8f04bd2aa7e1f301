import { describe, expect, it } from 'vitest';
import { bundledReference } from '../reference/bundled.ts';
import { caseOf, entry, item } from '../testing/cases.ts';
import { regionLoads, weeklyLoads } from './index.ts';
import { standingOf } from '../testing/prepared.ts';

const load = (date: string, over: Parameters<typeof entry>[1] = {}, drill = 'single-leg-pogo') =>
  regionLoads(bundledReference, standingOf(caseOf({ diary: [{ date, entries: [entry(drill, over)] }] }))).get(
    'ankle-foot',
  ) ?? 0;

describe('load-minutes of a region in seven days', () => {
  it('single-leg pogo, 2 × 10 contacts a side: 80 s × 1.6 × 1 ÷ 60 = 2.13 (FORMULAS 15)', () => {
    expect(load('2027-02-28', { amounts: [10, 10] })).toBeCloseTo(2.13, 2);
  });
  it('a drill without sides counts once, done the other way round as well twice', () => {
    const once = load('2027-02-28', { amounts: [10] }, 'drop-rebound-jump');
    expect(once).toBeGreaterThan(0);
    expect(load('2027-02-28', { amounts: [10], side: 'left' }, 'drop-rebound-jump')).toBe(once);
    expect(load('2027-02-28', { amounts: [10], bothWays: true }, 'drop-rebound-jump')).toBeCloseTo(
      2 * once,
      9,
    );
  });
  it('counts a region by how much of the load is on it', () => {
    // 10 lifts of 4 s, half of the load on the ankle, at the factor of a low class.
    const factor = bundledReference.data.doseModes.intensityClassFactor.find(
      (f) => f.class === 'low',
    )?.factor;
    const lift = load('2027-02-28', { amounts: [10] }, 'toe-lift-and-spread');
    expect(lift).toBeCloseTo((10 * 4 * (factor ?? NaN) * 0.5) / 60, 9);
  });
  it('one side is half of both', () => {
    expect(load('2027-02-28', { amounts: [10, 10], side: 'left' })).toBeCloseTo(2.13 / 2, 2);
  });
  it('counts the last seven days and nothing before, after, or not done', () => {
    expect(load('2027-02-23', { amounts: [10] })).toBeGreaterThan(0);
    expect(load('2027-02-22', { amounts: [10] })).toBe(0);
    expect(load('2027-03-02', { amounts: [10] })).toBe(0);
    expect(load('2027-02-28', { done: 'none' })).toBe(0);
  });
  it('without noted amounts takes the usual dose, half of it for a part', () => {
    expect(load('2027-02-28', { done: 'part' })).toBeCloseTo(load('2027-02-28') / 2, 9);
  });
});

describe('load-minutes of a week as planned', () => {
  const planned = (...items: Parameters<typeof weeklyLoads>[1]) =>
    weeklyLoads(bundledReference, items).get('ankle-foot') ?? 0;
  const pogo = item('single-leg-pogo', { measure: 'contacts', sets: 2, amount: 10 });
  const times = bundledReference.drills.get('single-leg-pogo')?.dose.timesPerWeek.min ?? NaN;

  it('single-leg pogo, 2 × 10 contacts a side, as often as it is meant at least: 2.13 each time', () => {
    expect(planned(pogo)).toBeCloseTo((80 * 1.6 * times) / 60, 9);
  });
  it('counts a group of drills once a round', () => {
    const circuit = { id: 'a', rounds: 3 };
    expect(planned({ ...pogo, circuit }, { ...pogo, circuit })).toBeCloseTo(6 * planned(pogo), 9);
  });
  it('adds up over items, and an unknown drill adds nothing', () => {
    expect(planned(pogo, pogo)).toBeCloseTo(2 * planned(pogo), 9);
    expect(planned(pogo, item('no-such-drill'))).toBe(planned(pogo));
    expect(planned()).toBe(0);
  });
});
