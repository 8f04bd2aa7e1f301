import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { libraryCase } from '../../bench/cases.ts';
import type { Case } from '../domain/index.ts';
import { routineSeconds, routineTimeline } from '../dose/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { createReference, patternTag } from '../reference/index.ts';
import type { Reference } from '../reference/index.ts';
import { loadOn } from '../reference/index.ts';
import { routineSafetyFaults } from '../safety/index.ts';
import { randomLibrary } from '../testing/randomLibrary.ts';
import { testSolver } from '../testing/solver.ts';
import { BUILDER, greedyPlan, isPreparing, planValue, solvePlan } from './index.ts';
import { buildCase, prepareCase } from '../testing/prepared.ts';
import { forAll } from '../testing/forAll.ts';

const solver = await testSolver();

/** A made-up library with an athlete who has precautions, pins and bans in it. */
const drawn = fc.record({
  seed: fc.integer({ min: 1, max: 5000 }),
  minutes: fc.integer({ min: 3, max: 25 }),
  count: fc.integer({ min: 30, max: 160 }),
  precautions: fc.subarray(
    [
      'no-impact',
      'no-kneeling-pressure',
      'pregnancy-prone',
      'bone-stress-suspected',
      'generalised-hypermobility',
    ],
    { maxLength: 2 },
  ),
  pins: fc.uniqueArray(fc.nat(29), { maxLength: 3 }),
  pattern: fc.constantFrom(null, 'squat', 'run', 'climb'),
});

type Drawn = typeof drawn extends fc.Arbitrary<infer T> ? T : never;

/** Built inside the property, so that a counterexample prints as a few numbers instead of a whole library. */
function libraryAndCase({ seed, minutes, count, precautions, pins, pattern }: Drawn) {
  const library = randomLibrary(bundledReference, seed, count);
  const base = libraryCase(library, seed, minutes);
  const input: Case = {
    ...base,
    athlete: {
      ...base.athlete,
      precautions: precautions.map((id) => ({ id, until: null, clearance: null, ended: null })),
    },
    request: {
      ...base.request,
      pattern,
      pins: pins
        .map((n) => `drill-${String(n).padStart(3, '0')}`)
        .filter((id) => !base.request.bans.includes(id)),
    },
  };
  return { library, input };
}

const forAllLibraries = (check: (library: Reference, input: Case) => void, numRuns = 12) =>
  forAll(
    fc.property(drawn, (d) => {
      const { library, input } = libraryAndCase(d);
      check(library, input);
    }),
    numRuns,
  );

describe('building on any library', () => {
  it('never uses a forbidden or banned drill, goes over the minutes, or takes two working rungs of one ladder', () => {
    forAllLibraries((library, input) => {
      const { routine } = buildCase(library, input, solver);
      if (!routine) return;
      const drills = routine.items.map((item) => library.drills.get(item.drill));
      expect(routineSafetyFaults(library, routine.items, input.athlete, input.today)).toEqual([]);
      for (const drill of drills) {
        expect(input.request.bans).not.toContain(drill?.id);
        expect(drill?.equipment.filter((kit) => !input.request.kit.includes(kit))).toEqual([]);
      }
      expect(routine.totalSeconds).toBeLessThanOrEqual((input.request.minutes ?? 0) * 60);
      expect(routine.items.length).toBeLessThanOrEqual(input.request.maxDrills ?? 0);
      const working = drills.filter((drill) => drill && !isPreparing(library, drill));
      if (input.request.mode !== 'build')
        expect(new Set(working.map((drill) => drill?.ladder)).size).toBe(working.length);
      expect(new Set(drills.map((drill) => drill?.id)).size).toBe(drills.length);
    });
  });

  it('keeps every pin, or names the rules that clash', () => {
    let explained = 0;
    forAllLibraries((library, input) => {
      const report = buildCase(library, input, solver);
      const used = report.routine?.items.map((item) => item.drill) ?? [];
      if (report.routine) expect(used).toEqual(expect.arrayContaining(input.request.pins));
      else {
        explained += 1;
        expect(report.infeasible?.length).toBeGreaterThan(0);
        expect(report.infeasible?.every((clash) => clash.rules.length >= 2 && clash.about.length > 0)).toBe(
          true,
        );
      }
    });
    expect(explained).toBeGreaterThan(0);
  });

  it('is never worse than greedy, and proves its gap', () => {
    forAllLibraries((library, input) => {
      const { problem } = prepareCase(library, input);
      const greedy = greedyPlan(problem);
      const plan = solvePlan(problem, solver);
      if (!greedy || !plan) return;
      expect(plan.objective).toBeGreaterThanOrEqual(planValue(problem, greedy).objective - 1e-9);
      expect(plan.gap).toBeLessThanOrEqual(BUILDER.relativeGap);
    });
  });

  it('more minutes never leave more wishes for a drill open', () => {
    forAllLibraries((library, input) => {
      const structure = prepareCase(library, input).chosen.structure.id;
      const open = (minutes: number) => {
        const { problem } = prepareCase(library, {
          ...input,
          request: { ...input.request, structure, minutes, maxDrills: 8 },
        });
        const plan = solvePlan(problem, solver);
        const covered = new Set(plan?.chosen.flatMap(({ benefit }) => benefit.map(({ need }) => need)));
        return plan && problem.weights.filter(({ wanted }, need) => wanted && !covered.has(need)).length;
      };
      const few = open(input.request.minutes ?? 5);
      const more = open((input.request.minutes ?? 5) + 4);
      if (few === null || more === null) return;
      expect(more).toBeLessThanOrEqual(few);
    }, 8);
  });

  it('loads nothing hard where it hurts, nothing at all above the stop limit, whatever the method; exposure closes nothing', () => {
    const sore = { region: 'knee', side: 'left', aspect: 'front', feel: 'ache', when: 'movement' } as const;
    forAllLibraries((library, input) => {
      for (const nrs of [4, 7]) {
        const pains = [{ ...sore, nrs, since: '2027-02-20', ended: null }];
        const schools = { 'modify-around-or-restore': nrs === 4 ? 'restore' : 'modify' };
        const request = { ...input.request, pins: [] };
        const { routine } = buildCase(
          library,
          { ...input, request, schools, athlete: { ...input.athlete, pains } },
          solver,
        );
        for (const { drill: id, side } of routine?.items ?? []) {
          const drill = library.drills.get(id);
          if (!drill || side === 'right') continue;
          if (nrs === 7) expect(loadOn(drill, 'knee'), id).toBeLessThan(0.3);
          else if (drill.loadClass === 'impact' || drill.contraction === 'ballistic')
            expect(loadOn(drill, 'knee'), id).toBeLessThan(0.5);
        }
      }
      const closed = (athlete: Case['athlete']) =>
        [...prepareCase(library, { ...input, athlete }).options.ineligible].flatMap(([id, { rule }]) =>
          rule === 'level' ? [id] : [],
        );
      const exposure = [{ action: 'run', perWeek: 3, effort: 'hard' as const }];
      const before = closed(input.athlete);
      for (const id of closed({ ...input.athlete, exposure })) expect(before).toContain(id);
    }, 12);
  });

  it('holds no filler from where neither a finding nor what follows asks for it', () => {
    forAllLibraries((library, input) => {
      const { rules } = prepareCase(library, input);
      for (const { drill: id, serves } of buildCase(library, input, solver).routine?.items ?? []) {
        const drill = library.drills.get(id);
        if (!drill || serves.length > 0 || drill.category === 'raise' || input.request.pins.includes(id))
          continue;
        const asked =
          drill.regions.primary.some((r) => r === 'whole-body' || rules.regions.has(r)) ||
          rules.actions.some((action) => patternTag(library, drill, action) >= 0.6);
        expect(asked, id).toBe(true);
      }
    }, 15);
  });

  it('gives the same routine for the same input, in whatever order the library lists its drills', () => {
    forAllLibraries((library, input) => {
      const shuffled = createReference({ ...library.data, drills: [...library.data.drills].reverse() });
      expect(buildCase(shuffled, input, solver)).toEqual(buildCase(library, input, solver));
    }, 12);
  });

  it('lasts exactly as long as a second-by-second play of its timeline', () => {
    forAllLibraries((library, input) => {
      const items = buildCase(library, input, solver).routine?.items ?? [];
      let clock = 0;
      for (const segment of routineTimeline(library, items)) clock += Math.round(segment.seconds * 1000);
      expect(clock / 1000).toBeCloseTo(routineSeconds(library, items), 6);
    }, 20);
  });
});
