import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { arbitraryCase } from '../testing/arbitraries.ts';
import { forAll } from '../testing/forAll.ts';
import { caseOf, stiffAnkle } from '../testing/cases.ts';
import { buildCase, preparedOf } from '../testing/prepared.ts';
import { bundledReference } from '../reference/bundled.ts';
import { testSolver } from '../testing/solver.ts';
import { bandCost } from './bands.ts';
import { BUILDER } from './index.ts';
import type { Option } from './index.ts';

const solver = await testSolver();
const bandsFor = (minutes: number, mode: 'prepare' | 'build' = 'prepare') =>
  preparedOf(stiffAnkle({ request: { minutes, mode } })).problem.bands;
const named = (bands: ReturnType<typeof bandsFor>, id: string) => bands.find((band) => band.id === id);
const [any] = preparedOf(stiffAnkle()).problem.options;
const optionLike = (over: Partial<Option>): Option => ({ ...(any as Option), ...over });

describe('a wish', () => {
  it('costs nothing between its ends, and each unit outside what it says', () => {
    const band = { id: 'x', least: 10, most: 20, weight: () => 1, under: 2, over: 3 };
    expect([0, 9, 10, 15, 20, 21, 30].map((sum) => bandCost(band, sum))).toEqual([20, 2, 0, 0, 0, 3, 30]);
  });
  it('for an easy start counts drills of the first phase alone, up to the demand that is easy for the athlete', () => {
    // Four years of training: up to 5 is easy.
    const easy = named(bandsFor(10), 'easy-start');
    const weight = (phase: number, demand: number) => easy?.weight(optionLike({ phase, demand }));
    expect([weight(0, 4), weight(0, 5), weight(0, 6), weight(1, 1)]).toEqual([1, 1, 0, 0]);
    expect([easy?.least, easy?.under]).toEqual([1, BUILDER.wishCost]);
  });
  it('for two blocks of warming begins at exactly fifteen minutes, and for preparations alone', () => {
    expect([14, 15, 16].map((minutes) => named(bandsFor(minutes), 'warm-blocks')?.least)).toEqual([
      undefined,
      2,
      2,
    ]);
    expect(named(bandsFor(20, 'build'), 'warm-blocks')).toBeUndefined();
    const blocks = named(bandsFor(15), 'warm-blocks');
    const counts = (['raise', 'mobilise'] as const).map((category) =>
      blocks?.weight(optionLike({ category })),
    );
    expect(counts).toEqual([1, 0]);
  });
  it('for warming asks 15 % of the time, at most four minutes, and counts seconds that warm', () => {
    expect([10, 20, 30].map((minutes) => named(bandsFor(minutes), 'warm')?.least)).toEqual([90, 180, 240]);
    const warm = named(bandsFor(10), 'warm');
    const seconds = (over: Partial<Option>) => warm?.weight(optionLike({ seconds: 50, ...over }));
    expect(seconds({ category: 'raise', temperature: 0 })).toBe(50);
    expect(seconds({ category: 'neuromuscular', temperature: 2 })).toBe(50);
    expect(seconds({ category: 'neuromuscular', temperature: 1 })).toBe(0);
    expect(seconds({ category: 'mobilise', temperature: 3 })).toBe(0);
  });
  it('for warming by what follows asks a sixth of the time, and of a runner nearly half, running counted too', () => {
    const exposure = [{ action: 'run', perWeek: 5, effort: 'hard' as const }];
    const bands = (minutes: number, pattern: string) =>
      preparedOf(caseOf({ athlete: { exposure }, request: { minutes, pattern, space: 'lane' } as never }))
        .problem.bands;
    const least = (pattern: string) =>
      [3, 10, 15, 30].map((minutes) => Math.round(named(bands(minutes, pattern), 'warmth')?.least ?? 0));
    expect(least('throw')).toEqual([45, 100, 150, 180]);
    expect(least('run')).toEqual([81, 270, 300, 300]);
    const seconds = (pattern: string, over: Partial<Option>) =>
      named(bands(10, pattern), 'warmth')?.weight(optionLike({ seconds: 50, rehearses: null, ...over }));
    expect([0.5, 0.6, 1].map((warmth) => seconds('throw', { warmth }))).toEqual([0, 30, 50]);
    expect(seconds('throw', { warmth: 0, rehearses: 'throw' })).toBe(0);
    expect(seconds('run', { warmth: 0, rehearses: 'run' })).toBe(50);
    // An easy run and a faster one, from ten minutes on.
    const blocks = (minutes: number, pattern: string) => named(bands(minutes, pattern), 'run-blocks')?.least;
    expect([blocks(9, 'run'), blocks(10, 'run'), blocks(10, 'throw')]).toEqual([undefined, 2, undefined]);
  });
  it('for each element of what follows costs the more the more it matters, and is met as far as a drill fits', () => {
    const { problem, rules } = preparedOf(caseOf({ request: { minutes: 12, pattern: 'throw' } as never }));
    const bands = problem.bands.filter(({ id }) => id.startsWith('element:'));
    expect(bands.length).toBeGreaterThan(4);
    expect(bands.length).toBeLessThanOrEqual(rules.elements.length);
    const costs = bands.map(({ under }) => under);
    expect(costs.slice(0, 2)).toEqual([30, 30]);
    expect(costs).toEqual([...costs].sort((a, b) => b - a));
    const need = Number(bands[0]?.id.split(':')[1]);
    const met = (match: number) => bands[0]?.weight(optionLike({ benefit: [{ need, value: 1, match }] }));
    expect([0.4, 0.69, 0.7, 1].map(met)).toEqual([0.4, 0.69, 1, 1]);
  });
  it('to cover a finding is worth more than everything else of a plan together', () => {
    forAll(
      fc.property(arbitraryCase(false), (input) => {
        const { problem } = preparedOf(input);
        const covers = problem.bands.filter(({ id }) => id.startsWith('cover:'));
        const others = problem.bands
          .filter(({ id }) => !id.startsWith('cover:'))
          .reduce((sum, { under, least }) => sum + under * least, 0);
        const most = problem.weights.reduce((sum, { weight }) => sum + weight, 0);
        for (const band of covers) expect(band.under * band.least).toBeGreaterThan(others + most);
      }),
      30,
    );
  });
});

describe('ways to include a drill', () => {
  const value = (option: Option) => option.benefit.reduce((sum, one) => sum + one.value, 0);
  const forTime = (option: Option) => option.filler || option.category === 'raise';
  /** Takes no longer, tires no more and gives at least as much of everything. */
  const asGood = (a: Option, b: Option) =>
    (forTime(b) ? a.seconds === b.seconds : a.seconds <= b.seconds) &&
    a.fatigue <= b.fatigue &&
    a.contacts <= b.contacts &&
    a.staticSeconds <= b.staticSeconds &&
    a.tie >= b.tie &&
    b.benefit.every((x) => a.benefit.some((y) => y.need === x.need && y.value >= x.value));
  it('are offered once: none that another of the same drill and phase makes pointless', () => {
    forAll(
      fc.property(arbitraryCase(false), (input) => {
        const { options } = preparedOf(input).problem;
        for (const [place, b] of options.entries())
          for (const [other, a] of options.entries()) {
            if (place === other || a.drill !== b.drill || a.phase !== b.phase) continue;
            if (asGood(a, b)) expect([a.item, value(a)], b.drill).not.toEqual([b.item, value(b)]);
            if (asGood(a, b) && value(a) > value(b)) expect.fail(`${b.drill} is pointless`);
          }
      }),
      12,
    );
  });
});

describe('a routine that leaves its structure', () => {
  it('says which phase has too few drills, and which takes over a fifth more or less than meant', () => {
    forAll(
      fc.property(arbitraryCase(false), (input) => {
        const { phases } = preparedOf(input).chosen;
        const { routine, warnings } = buildCase(bundledReference, input, solver);
        const items = routine?.items ?? [];
        const all = items.reduce((sum, { seconds }) => sum + seconds, 0);
        const expected = phases.flatMap(({ id, name, minDrills, shareOfTime }) => {
          const own = items.filter(({ phase }) => phase === id);
          if (own.length < minDrills) return [`${name}: ${own.length} of ${minDrills}`];
          const share = own.reduce((sum, { seconds }) => sum + seconds, 0) / Math.max(1, all);
          const off = shareOfTime > 0 && Math.abs(share - shareOfTime) > 0.2;
          return off ? [`${name}: ${share.toFixed(3)}`] : [];
        });
        const said = warnings.flatMap((warning) => {
          if (warning.rule === 'phase-below-minimum')
            return [`${warning.phase}: ${warning.drills} of ${warning.minimum}`];
          return warning.rule === 'phase-share' ? [`${warning.phase}: ${warning.share.toFixed(3)}`] : [];
        });
        if (routine) expect(said).toEqual(expected);
      }),
      12,
    );
  });
});
