import { describe, expect, it } from 'vitest';
import { assessCase } from '../assess/index.ts';
import type { Occasion, RoutineItem, Weekday } from '../domain/index.ts';
import { weeklyLoads } from '../dose/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { caseOf, item } from '../testing/cases.ts';
import { weekOf } from './index.ts';

const raise = item('single-leg-heel-raise', { sets: 3, amount: 12 });
const hard = bundledReference.data.drills.find(
  (drill) =>
    drill.intensityClass === 'high' &&
    drill.loadRegions.some((l) => l.region === 'ankle-foot' && l.weight >= 0.5),
);
const hop = item(hard?.id ?? '', { sets: 3, amount: 10, measure: hard?.dose.measure ?? 'reps' });
const routine = (occasion: Occasion, items: RoutineItem[], perWeek?: number) => ({
  issued: '2027-02-01',
  mode: 'prepare',
  occasion,
  items,
  ...(perWeek === undefined ? {} : { perWeek }),
});
const weekWith = (routines: object[], days: [Occasion, Weekday[]][] = [], athlete: object = {}) => {
  const [first, ...others] = routines;
  const input = caseOf({ athlete, routine: first, others } as never);
  return weekOf(bundledReference, assessCase(bundledReference, input).standing, new Map(days));
};

describe('the week of an athlete', () => {
  it('adds up all occasions per region, each as often as it is meant, against the limit', () => {
    const once = weeklyLoads(bundledReference, [raise], 1).get('ankle-foot') ?? 0;
    const limit = { loadLimits: [{ region: 'ankle-foot', perWeek: 4 }] };
    const { loads } = weekWith([routine('at-home', [raise], 3), routine('travel', [raise], 2)], [], limit);
    const ankle = loads.find(({ region }) => region === 'ankle-foot');
    expect(ankle?.minutes).toBeCloseTo(5 * once, 6);
    expect(ankle?.limit).toBe(4);
    expect(ankle?.parts.map(({ occasion }) => occasion)).toEqual(['at-home', 'travel']);
  });
  it('says hard work of a region the evening before something hard of it, over the end of the week as well', () => {
    const routines = [routine('on-its-own', [hop]), routine('before-competition', [hop])];
    const clashes = (days: [Occasion, Weekday[]][]) => weekWith(routines, days).clashes;
    const sunday: [Occasion, Weekday[]][] = [
      ['on-its-own', ['sun']],
      ['before-competition', ['mon']],
    ];
    expect(clashes(sunday)).toContainEqual({
      region: 'ankle-foot',
      day: 'sun',
      occasion: 'on-its-own',
      next: 'before-competition',
    });
    expect(
      clashes([
        ['on-its-own', ['tue']],
        ['before-competition', ['sat']],
      ]),
    ).toEqual([]);
  });
});
