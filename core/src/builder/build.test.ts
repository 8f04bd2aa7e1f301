import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import type { Case } from '../domain/index.ts';
import { routineSeconds } from '../dose/index.ts';
import { missingKit, patternTag } from '../reference/index.ts';
import { drillOf } from '../testing/prepared.ts';
import { bundledReference } from '../reference/bundled.ts';
import { loadOn } from '../reference/index.ts';
import { routineSafetyFaults } from '../safety/index.ts';
import { arbitraryCase } from '../testing/arbitraries.ts';
import { stiffAnkle, placement } from '../testing/cases.ts';
import { testSolver } from '../testing/solver.ts';
import { greedyPlan, isPreparing, planValue, swapsFor } from './index.ts';
import type { BuildReport, MipSolver } from './index.ts';
import { buildCase, prepareCase } from '../testing/prepared.ts';
import { forAll } from '../testing/forAll.ts';
import { eachOf } from '../testing/eachOf.ts';

let solver: MipSolver;
beforeAll(async () => {
  solver = await testSolver();
});
const build = (input: Case): BuildReport => buildCase(bundledReference, input, solver);
const drillsOf = (report: BuildReport) => report.routine?.items.map((item) => item.drill) ?? [];

describe('a built routine', () => {
  it('serves the short side of the stiff ankle within the minutes, proven', () => {
    const { routine, unserved } = build(stiffAnkle());
    expect(routine?.totalSeconds).toBeLessThanOrEqual(600);
    expect(routine?.gap).toBeLessThanOrEqual(0.005);
    expect(unserved).toEqual([]);
    const served = routine?.items.flatMap((item) => item.serves.map((s) => `${s.restriction}/${s.side}`));
    expect(served).toEqual(
      expect.arrayContaining(['ankle-dorsiflexion-limit/left', 'calf-endurance-deficit/left']),
    );
  });

  it('stretches nothing before activity unless the school says so, and then shortly with movement after', () => {
    const categories = (schools: Record<string, string>) =>
      build(stiffAnkle({ schools, request: { minutes: 15, maxDrills: 9 } })).routine?.items.map(
        (item) => bundledReference.drills.get(item.drill)?.category,
      ) ?? [];
    expect(categories({})).not.toContain('stretch');
    const allowed = build(
      stiffAnkle({
        schools: { 'static-stretch-before': 'short-then-dynamic' },
        request: { pins: ['wall-calf-stretch-straight'], minutes: 15 },
      }),
    );
    const items = allowed.routine?.items ?? [];
    const at = items.findIndex((item) => item.drill === 'wall-calf-stretch-straight');
    expect(at).toBeGreaterThanOrEqual(0);
    expect((items[at]?.amount ?? 99) * (items[at]?.sets ?? 9)).toBeLessThanOrEqual(30);
    expect(at).toBeLessThan(items.length - 1);
  });

  it('works without any screening, marked general, from tasks and injuries', () => {
    const report = build(stiffAnkle({ screenings: [] }));
    expect(report.general).toBe(true);
    expect(report.routine?.items.length).toBeGreaterThan(2);
    expect(report.warnings).toContainEqual(expect.objectContaining({ rule: 'general-routine' }));
  });

  it('takes a dose from the tested maximum where there is one: 30 % of 14 calf raises is below the range', () => {
    const report = build(
      stiffAnkle({
        athlete: { placements: [placement('calf-strength', 'single-leg-heel-raise')] },
        request: { mode: 'build', minutes: 20, maxDrills: 8, pins: ['single-leg-heel-raise'] },
      }),
    );
    const raise = report.routine?.items.find((item) => item.drill === 'single-leg-heel-raise');
    const reason = raise?.reasons.find((r) => r.rule === 'dose-from-maximum');
    expect(reason).toMatchObject({ test: 'heel-raise-reps', share: 0.75 });
    // Middle of 0.65–0.85 of 14 raises is 10.5, rounded down.
    expect(raise?.amount).toBe(10);
  });

  it('says which rule forbids a pin, and which two clash', () => {
    const forbidden = build(
      stiffAnkle({
        athlete: { precautions: [{ id: 'acute-ankle-sprain', until: null, clearance: null, ended: null }] },
        request: { pins: ['knee-to-wall-rock'] },
      }),
    );
    expect(forbidden.routine).toBeNull();
    expect(forbidden.infeasible?.[0]?.rules).toEqual(['pin', 'precaution-exclude']);
    const ladder = build(stiffAnkle({ request: { pins: ['wall-shin-raise', 'standing-toe-lift'] } }));
    expect(ladder.infeasible?.[0]?.rules).toEqual(['pin', 'one-per-ladder']);
    const time = build(
      stiffAnkle({ request: { minutes: 1, pins: ['knee-to-wall-rock', 'wall-shin-raise'] } }),
    );
    expect(time.infeasible?.[0]?.rules).toEqual(['pin', 'time']);
  });

  it('offers no routine while a sign blocks everything', () => {
    const redFlags = [{ id: 'gen-chest', answer: true, region: null, side: null, clearance: null }];
    const report = build(stiffAnkle({ athlete: { redFlags } }));
    expect(report.routine).toBeNull();
    expect(report.blocked[0]?.level).toBe('E');
  });

  it('swaps keep the job and the rules', () => {
    const input = stiffAnkle();
    const items = build(input).routine?.items ?? [];
    const index = items.findIndex((item) => item.serves.length > 0);
    const swaps = swapsFor(prepareCase(bundledReference, input), items, index);
    expect(swaps.length).toBeGreaterThan(0);
    const keeps = swaps.map((swap) => swap.keeps);
    expect(keeps).toEqual([...keeps].sort((a, b) => b - a));
    for (const swap of eachOf(swaps)) {
      expect(missingKit(drillOf(swap.drill), ['wall'])).toBeNull();
    }
  });
});

describe('properties of built routines', () => {
  it('hold no forbidden drill, keep within minutes, ladders, count and kit, and beat a greedy plan', () => {
    forAll(
      fc.property(arbitraryCase(true), (input) => {
        const report = build(input);
        const { routine } = report;
        if (!routine) {
          expect(report.blocked.some((b) => b.region === 'all') || report.infeasible !== null).toBe(true);
          return;
        }
        const drills = routine.items.map((item) => bundledReference.drills.get(item.drill));
        expect(routineSafetyFaults(bundledReference, routine.items, input.athlete, input.today)).toEqual([]);
        expect(routine.totalSeconds).toBeLessThanOrEqual((input.request.minutes ?? 0) * 60);
        expect(routine.totalSeconds).toBe(routineSeconds(bundledReference, routine.items));
        const ladders = new Map<string, number[]>();
        for (const drill of drills)
          if (drill)
            ladders.set(drill.ladder, [
              ...(ladders.get(drill.ladder) ?? []),
              isPreparing(bundledReference, drill) ? 0 : 1,
            ]);
        const working = input.request.mode === 'build' ? 2 : 1;
        for (const rungs of ladders.values()) {
          expect(rungs.length).toBeLessThanOrEqual(2);
          expect(rungs.filter((rung) => rung === 1).length).toBeLessThanOrEqual(working);
        }
        expect(drills.every((drill) => drill && missingKit(drill, input.request.kit) === null)).toBe(true);
        const { problem } = prepareCase(bundledReference, input);
        const greedy = greedyPlan(problem);
        if (greedy)
          expect(routine.objective).toBeGreaterThanOrEqual(planValue(problem, greedy).objective - 1e-9);
        expect(routine.bound).toBeGreaterThanOrEqual(routine.objective - 1e-9);
      }),
      10,
    );
  }, 120_000);

  it('are the same for the same input', () => {
    forAll(
      fc.property(arbitraryCase(true), (input) => {
        expect(JSON.stringify(build(input))).toBe(JSON.stringify(build(structuredClone(input))));
      }),
      6,
    );
  }, 120_000);

  it('never serve fewer findings with more minutes', () => {
    forAll(
      fc.property(arbitraryCase(false), (input) => {
        const structure = prepareCase(bundledReference, input).chosen.structure.id;
        const at = (minutes: number) =>
          build({ ...input, request: { ...input.request, structure, minutes } });
        const [short, long] = [at(6), at(12)];
        if (!short.routine || !long.routine) return;
        expect(long.unserved.length).toBeLessThanOrEqual(short.unserved.length);
      }),
      6,
    );
  }, 120_000);

  it('load a region no more once it hurts, and nothing of it above the stop limit', () => {
    const sore = { region: 'knee', side: 'left', aspect: 'front', feel: 'ache', when: 'movement' } as const;
    forAll(
      fc.property(arbitraryCase(false), fc.constantFrom(3, 5, 7), (input, nrs) => {
        const pains = [{ ...sore, nrs, since: '2027-02-20', ended: null }];
        const hurt = { ...input, athlete: { ...input.athlete, pains } };
        const load = (report: BuildReport) =>
          Math.max(
            0,
            ...(report.routine?.items ?? [])
              .filter(({ side }) => side !== 'right')
              .map(({ drill }) => loadOn(drillOf(drill), 'knee')),
          );
        const now = build(hurt);
        if (nrs > 5) expect(load(now)).toBeLessThan(0.3);
        const hard = (now.routine?.items ?? []).filter(({ drill, side }) => {
          const { loadClass, contraction } = drillOf(drill);
          const fast = loadClass === 'impact' || contraction === 'ballistic';
          return side !== 'right' && fast && loadOn(drillOf(drill), 'knee') >= 0.5;
        });
        expect(hard).toEqual([]);
      }),
      10,
    );
  }, 120_000);

  it('hold nothing from where neither a finding nor what follows asks for it', () => {
    forAll(
      fc.property(arbitraryCase(false), (input) => {
        const prepared = prepareCase(bundledReference, input);
        for (const item of build(input).routine?.items ?? []) {
          const drill = drillOf(item.drill);
          const asked =
            drill.category === 'raise' ||
            drill.regions.primary.some((r) => r === 'whole-body' || prepared.rules.regions.has(r)) ||
            item.serves.length > 0 ||
            item.reasons.some(({ rule }) => rule === 'readies') ||
            prepared.rules.actions.some((action) => patternTag(bundledReference, drill, action) >= 0.6);
          expect(asked, item.drill).toBe(true);
        }
      }),
      10,
    );
  }, 120_000);

  it('lose nothing by what is done every week', () => {
    forAll(
      fc.property(arbitraryCase(false), fc.constantFrom('run', 'climb', 'throw'), (input, action) => {
        const exposure = [{ action, perWeek: 3, effort: 'hard' as const }];
        const open = (athlete: Case['athlete']) =>
          new Set(
            [...prepareCase(bundledReference, { ...input, athlete }).options.ineligible].flatMap(
              ([drill, { rule }]) => (rule === 'level' ? [drill] : []),
            ),
          );
        const closed = open(input.athlete);
        for (const drill of open({ ...input.athlete, exposure })) expect(closed).toContain(drill);
      }),
      8,
    );
  }, 120_000);

  it('never start above the start rule without proof or placement', () => {
    const drills = drillsOf(
      build(stiffAnkle({ athlete: { trainingYears: 0 }, request: { minutes: 20, maxDrills: 10 } })),
    );
    for (const id of eachOf(drills))
      expect(bundledReference.drills.get(id)?.demandIndex, id).toBeLessThanOrEqual(3);
  });
});
