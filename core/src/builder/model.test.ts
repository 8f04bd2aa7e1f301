import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { routineSeconds } from '../dose/index.ts';
import { kitWordsOf } from '../reference/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { arbitraryCase } from '../testing/arbitraries.ts';
import { caseOf, stiffAnkle } from '../testing/cases.ts';
import { testSolver } from '../testing/solver.ts';
import {
  brokenLimit,
  BUILDER,
  createPlanModel,
  greedyPlan,
  localSearch,
  orderItems,
  planSeconds,
  planValue,
  solvePlan,
} from './index.ts';
import type { MipModel, MipSolver } from './index.ts';
import { prepareCase } from '../testing/prepared.ts';
import { forAll } from '../testing/forAll.ts';

let solver: MipSolver;
beforeAll(async () => {
  solver = await testSolver();
});

/** The rows a point breaks; none for a feasible one. */
function brokenRows(model: MipModel, point: readonly number[]): number[] {
  return model.rows.flatMap((row, index) => {
    const activity = row.entries.reduce((sum, [column, value]) => sum + value * (point[column] ?? 0), 0);
    return activity < row.lower - 1e-6 || activity > row.upper + 1e-6 ? [index] : [];
  });
}

function objective(model: MipModel, point: readonly number[]): number {
  return model.offset + point.reduce((sum, value, column) => sum + value * (model.cost[column] ?? 0), 0);
}

describe('the model says what the plan says', () => {
  it('a plan’s point breaks no row and has the plan’s value', () => {
    forAll(
      fc.property(arbitraryCase(false), (input) => {
        const { problem } = prepareCase(bundledReference, input);
        const plan = localSearch(problem, 10);
        if (!plan) return;
        const { model, pointOf, chosenOf } = createPlanModel(problem);
        const point = pointOf(plan);
        expect(brokenRows(model, point)).toEqual([]);
        expect(objective(model, point)).toBeCloseTo(planValue(problem, plan).objective, 9);
        expect(new Set(chosenOf(point))).toEqual(new Set(plan));
      }),
      25,
    );
  }, 60_000);

  it('the solved plan is feasible by the plain rules, and its minutes are those of the ordered routine', () => {
    forAll(
      fc.property(arbitraryCase(false), (input) => {
        const { problem, reference } = prepareCase(bundledReference, input);
        const plan = solvePlan(problem, solver);
        if (!plan) return;
        expect(brokenLimit(problem, plan.chosen)).toBeNull();
        const ordered = orderItems(
          plan.chosen.flatMap((option) => {
            const drill = reference.drills.get(option.drill);
            return drill ? [{ option, phase: option.phase, drill }] : [];
          }),
        );
        const items = ordered.map(({ option }) => option.item);
        expect(routineSeconds(reference, items)).toBe(planSeconds(problem, plan.chosen));
      }),
      10,
    );
  }, 120_000);

  it('the search never beats the proven bound, and the proof never loses to the search', () => {
    forAll(
      fc.property(arbitraryCase(false), (input) => {
        const { problem } = prepareCase(bundledReference, input);
        const search = localSearch(problem);
        const greedy = greedyPlan(problem);
        const plan = solvePlan(problem, solver);
        if (!search || !plan || !greedy) return;
        const value = (options: typeof search) => planValue(problem, options).objective;
        expect(value(search)).toBeGreaterThanOrEqual(value(greedy) - 1e-9);
        expect(plan.objective).toBeGreaterThanOrEqual(value(search) - 1e-9);
        expect(plan.bound).toBeGreaterThanOrEqual(value(search) - 1e-6);
        // The solver stops by its own gap, measured on the objective; ours is on the benefit and may end a little above.
        expect(plan.gap).toBeLessThanOrEqual(2 * BUILDER.relativeGap);
      }),
      10,
    );
  }, 120_000);

  it('a small case solved by trying every subset gives the same best value', () => {
    const input = stiffAnkle({
      request: { minutes: 4, maxDrills: 3, structure: 'short-minimum', kit: [] } as never,
    });
    const { problem } = prepareCase(bundledReference, input);
    // Enough to enumerate: the options worth most alone.
    const few = [...problem.options]
      .sort((a, b) => planValue(problem, [b]).objective - planValue(problem, [a]).objective)
      .slice(0, 16);
    const small = { ...problem, options: few };
    let best = planValue(small, []).objective;
    const visit = (from: number, chosen: typeof few) => {
      if (brokenLimit(small, chosen) === null) best = Math.max(best, planValue(small, chosen).objective);
      if (chosen.length === 3) return;
      for (let i = from; i < few.length; i += 1) visit(i + 1, [...chosen, few[i] as (typeof few)[0]]);
    };
    visit(0, []);
    const plan = solvePlan(small, solver);
    expect(plan?.objective).toBeLessThanOrEqual(best + 1e-9);
    expect(plan?.bound).toBeGreaterThanOrEqual(best - 1e-6);
    expect(
      (plan?.objective ?? 0) + (plan?.gap ?? 0) * Math.max(plan?.benefit ?? 0, 1e-3),
    ).toBeGreaterThanOrEqual(best - 1e-6);
  });
});

describe('interim answers', () => {
  it('only get better, and their bound only closer', () => {
    const { problem } = prepareCase(bundledReference, stiffAnkle());
    const seen: { objective: number; bound: number }[] = [];
    solvePlan(problem, solver, { onAnswer: ({ objective: o, bound }) => seen.push({ objective: o, bound }) });
    expect(seen.length).toBeGreaterThan(1);
    seen.slice(1).forEach((now, i) => {
      expect(now.objective).toBeGreaterThanOrEqual((seen[i]?.objective ?? 0) - 1e-9);
      expect(now.bound).toBeLessThanOrEqual((seen[i]?.bound ?? Infinity) + 1e-9);
    });
  });
  it('stop when cancelled, with the answer so far', () => {
    const { problem } = prepareCase(bundledReference, stiffAnkle());
    const plan = solvePlan(problem, solver, { isCancelled: () => true });
    expect(plan?.chosen.length).toBeGreaterThan(0);
    expect(plan?.stage).not.toBe('proof');
  });
});

describe('what may be chosen', () => {
  const prepared = prepareCase(bundledReference, stiffAnkle());
  const why = (drill: string) => prepared.options.ineligible.get(drill);

  it.each([
    ['band-ankle-mobilisation', 'kit', 'long-band'],
    ['wall-calf-stretch-straight', 'school', 'static-stretch-before'],
    ['goblet-squat', 'kit', 'dumbbell'],
    ['rear-foot-elevated-split-squat', 'kit', 'bench'],
    ['easy-walk-down', 'timing', 'before-activity'],
  ])('%s is kept out by %s (%s)', (drill, rule, about) => {
    const found = why(drill);
    expect(found?.rule).toBe(rule);
    if (rule !== 'kit' || found?.about === about) expect(found?.about).toBe(about);
  });
  it('bans, excluded positions and helpers keep drills out; a pin lifts the helper but not the position', () => {
    const partner = bundledReference.data.drills.find((d) => d.needsPartner && kitWordsOf(d).length === 0);
    const input = stiffAnkle({
      request: { bans: ['cat-camel'], excludePositions: ['seated'], pins: [partner?.id ?? ''] } as never,
    });
    const { options } = prepareCase(bundledReference, input);
    expect(options.ineligible.get('cat-camel')).toEqual({ rule: 'ban', about: 'cat-camel' });
    expect(options.ineligible.get('calf-hand-release')?.rule).toBe('position');
    expect(options.ineligible.get(partner?.id ?? '')?.rule).not.toBe('needs-partner');
  });
  it('a range with reserve is never mobilised to fill a phase', () => {
    const input = caseOf({
      screenings: [
        {
          date: '2027-02-27',
          results: (['left', 'right'] as const).map((side) => ({
            test: 'wblt-distance',
            side,
            trials: [15],
          })),
        },
      ],
      athlete: { tasks: [{ id: 'uphill-running', lead: 'either' }] },
      request: { mode: 'prepare', minutes: 12, kit: ['wall'] } as never,
    });
    const { options } = prepareCase(bundledReference, input);
    const mobilisers = options.options.filter((o) => o.category === 'mobilise').map((o) => o.drill);
    expect(mobilisers).not.toContain('ankle-circles');
    expect(mobilisers).not.toContain('half-kneeling-ankle-rock');
    expect(mobilisers.length).toBeGreaterThan(0);
  });
  it('symmetry alone brings in no mobilise or stretch drill for that restriction', () => {
    const input = caseOf({
      screenings: [
        {
          date: '2027-02-27',
          results: [
            { test: 'wblt-distance', side: 'left', trials: [10] },
            { test: 'wblt-distance', side: 'right', trials: [17] },
          ],
        },
      ],
      request: { mode: 'prepare', minutes: 12, kit: ['wall'] } as never,
    });
    const { options, weights } = prepareCase(bundledReference, input);
    const of = weights.flatMap(({ from }, need) => (from === 'element' ? [] : [need]));
    const serving = options.options.filter((o) => o.benefit.some(({ need }) => of.includes(need)));
    expect(serving.filter((o) => o.category === 'mobilise' || o.category === 'stretch')).toEqual([]);
  });
});

describe('which structure is proposed', () => {
  const structure = (request: object, schools: Record<string, string> = {}) =>
    prepareCase(bundledReference, caseOf({ request: request as never, schools })).chosen.structure.id;
  it.each([
    [{ mode: 'prepare', minutes: 15 }, {}, 'two-block-general-to-specific'],
    [{ mode: 'prepare', minutes: 5 }, {}, 'short-minimum'],
    [{ mode: 'prepare', minutes: 2 }, {}, 'rapid-ready'],
    [{ mode: 'build', minutes: 20 }, {}, 'single-joint-sequence'],
    [{ mode: 'restore', minutes: 10 }, {}, 'post-activity-recovery'],
    [{ mode: 'prepare', minutes: 15 }, { 'default-structure': 'six-step' }, 'six-step-ramp'],
    [{ mode: 'prepare', minutes: 8 }, { 'default-structure': 'six-step' }, 'two-block-general-to-specific'],
    [{ mode: 'prepare', minutes: 15, structure: 'bottom-up-pairs' }, {}, 'bottom-up-pairs'],
  ])('%o with %o: %s', (request, schools, expected) => {
    expect(structure(request, schools)).toBe(expected);
  });
});

describe('order inside a routine', () => {
  const drill = (id: string, position: string, loadClass: string, equipment: string[] = []) => ({
    phase: 0,
    drill: { id, position, loadClass, equipment, demandIndex: 0 } as never,
  });
  it('gets down once and up once, unloaded before loaded, with few changes of kit', () => {
    const items = [
      drill('a-stand-full', 'standing', 'full'),
      drill('b-floor', 'supine', 'unloaded'),
      drill('c-stand-band', 'standing', 'partial', ['long-band']),
      drill('d-stand-free', 'standing', 'partial'),
      drill('e-stand-band', 'standing', 'partial', ['long-band']),
      drill('f-stand-easy', 'standing', 'unloaded'),
    ];
    const ids = orderItems(items).map((i) => (i.drill as { id: string }).id);
    expect(ids.slice(0, 2)).toEqual(['b-floor', 'f-stand-easy']);
    expect(ids.at(-1)).toBe('a-stand-full');
    // The two with the band stand together.
    expect(Math.abs(ids.indexOf('c-stand-band') - ids.indexOf('e-stand-band'))).toBe(1);
  });
  it('never breaks the order of phases, and does not depend on the order it is given', () => {
    const items = [
      { ...drill('late-easy', 'standing', 'unloaded'), phase: 1 },
      drill('early-hard', 'standing', 'full'),
      drill('early-easy', 'standing', 'unloaded'),
    ];
    const ids = (list: typeof items) => orderItems(list).map((i) => (i.drill as { id: string }).id);
    expect(ids(items)).toEqual(['early-easy', 'early-hard', 'late-easy']);
    expect(ids([...items].reverse())).toEqual(ids(items));
  });
});
