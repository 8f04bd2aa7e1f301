import { describe, expect, it } from 'vitest';
import { libraryCase } from '../../bench/cases.ts';
import type { Case } from '../domain/index.ts';
import { assessCase } from '../assess/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { stiffAnkle } from '../testing/cases.ts';
import { buildCase, prepareCase, preparedOf } from '../testing/prepared.ts';
import { randomLibrary } from '../testing/randomLibrary.ts';
import { testSolver } from '../testing/solver.ts';
import {
  benefitCurve,
  changedRequest,
  minutesUntilIn,
  relaxationOf,
  solvePlan,
  stopsPaying,
  whatIf,
  whyNotBound,
  whyNotExact,
  whyNotRange,
} from './index.ts';
import type { CurvePoint, Prepared, Relaxation, SolvedPlan } from './index.ts';
import { eachOf } from '../testing/eachOf.ts';

const solver = await testSolver();

function solved(prepared: Prepared): { plan: SolvedPlan; relaxation: Relaxation } {
  const plan = solvePlan(prepared.problem, solver);
  const relaxation = relaxationOf(prepared.problem, solver);
  if (!plan || !relaxation) throw new Error('not solved');
  return { plan, relaxation };
}

describe('why not this drill', () => {
  it('names the rule where one forbids it, and says so when it is in', () => {
    const prepared = preparedOf(
      stiffAnkle({ request: { bans: ['ankle-circles'] } as unknown as Case['request'] }),
    );
    const { plan, relaxation } = solved(prepared);
    const ask = (drill: string) => whyNotRange(prepared, plan, relaxation, drill);
    expect(ask('ankle-circles')).toEqual({ kind: 'forbidden', rule: 'ban', about: 'ankle-circles' });
    expect(ask('band-ankle-four-way')).toEqual({ kind: 'forbidden', rule: 'kit', about: 'long-band' });
    expect(ask(plan.chosen[0]?.drill ?? '')).toEqual({ kind: 'in-plan' });
  });

  it('bounds what it would cost, and the exact answer lies between the bounds', () => {
    let asked = 0;
    for (let seed = 1; seed <= 2; seed += 1) {
      const library = randomLibrary(bundledReference, seed, 120);
      const prepared = prepareCase(library, libraryCase(library, seed, 12));
      const { plan, relaxation } = solved(prepared);
      const others = [...new Set(prepared.problem.options.map((option) => option.drill))]
        .filter((drill) => !plan.chosen.some((option) => option.drill === drill))
        .slice(0, 5);
      for (const drill of eachOf(others)) {
        const bound = whyNotBound(prepared, plan, relaxation, drill);
        const range = whyNotRange(prepared, plan, relaxation, drill);
        const exact = whyNotExact(prepared, plan, solver, drill);
        if (exact.kind === 'clashes') continue;
        if (bound.kind !== 'costs' || range.kind !== 'costs' || exact.kind !== 'costs')
          throw new Error(drill);
        asked += 1;
        expect(exact.exact).toBe(true);
        expect(bound.atLeast).toBeLessThanOrEqual((exact.atMost ?? 0) + 1e-6);
        expect(range.atMost ?? 0).toBeGreaterThanOrEqual(exact.atLeast - 1e-6);
        expect(range.displaces?.in).toContain(drill);
        expect(exact.displaces?.in).toContain(drill);
      }
    }
    expect(asked).toBeGreaterThan(5);
  });

  it('says from how many minutes on it would be chosen freely', () => {
    const prepared = preparedOf(
      stiffAnkle({
        request: { minutes: 5, maxDrills: 10, structure: 'two-block-general-to-specific' } as Case['request'],
      }),
    );
    const { plan } = solved(prepared);
    const longer = solvePlan({ ...prepared.problem, seconds: prepared.problem.seconds + 180 }, solver);
    const extra = longer?.chosen.find((o) => !plan.chosen.some((p) => p.drill === o.drill))?.drill ?? '';
    const minutes = minutesUntilIn(prepared, solver, extra);
    expect(minutes).toBeGreaterThan(0);
    expect(minutes).toBeLessThanOrEqual(3);
  });
});

describe('what if', () => {
  const input = stiffAnkle({ request: { minutes: 6 } as Case['request'] });
  const assessment = assessCase(bundledReference, input);
  const now = buildCase(bundledReference, input, solver);
  it('three more minutes are worth something in the same structure', () => {
    const longer = whatIf(assessment, input.request, now, { minutes: 3 }, solver);
    expect(longer.request.minutes).toBe(9);
    expect(longer.report.routine?.structure).toBe(now.routine?.structure);
    expect(longer.gain).toBeGreaterThan(0);
  });
  it('a band more can only help, nothing on the floor can only cost', () => {
    const band = whatIf(assessment, input.request, now, { addKit: ['long-band'] }, solver);
    expect(band.gain ?? -1).toBeGreaterThanOrEqual(-0.006);
    const standing = whatIf(assessment, input.request, now, { noFloor: true }, solver);
    expect(standing.gain ?? 1).toBeLessThanOrEqual(0.006);
    for (const { drill } of eachOf(standing.report.routine?.items ?? []))
      expect(['supine', 'prone', 'side-lying', 'quadruped', 'tall-kneeling']).not.toContain(
        bundledReference.drills.get(drill)?.position,
      );
  });
  it('changes nothing it was not asked to', () => {
    expect(changedRequest(input.request, 6, {})).toEqual(input.request);
    expect(
      changedRequest({ ...input.request, kit: ['wall', 'step'] }, 6, { removeKit: ['step'] }).kit,
    ).toEqual(['wall']);
  });
});

describe('benefit against minutes', () => {
  it('never falls, and every point keeps to its minutes', () => {
    const seen: CurvePoint[] = [];
    const points = benefitCurve(preparedOf(stiffAnkle()), solver, [12, 4, 8, 20, 16], {
      onPoint: (p) => seen.push(p),
    });
    expect(points.map((p) => p.minutes)).toEqual([4, 8, 12, 16, 20]);
    expect(seen).toEqual(points);
    for (const [i, point] of eachOf(points.entries())) {
      expect(point.seconds).toBeLessThanOrEqual(point.minutes * 60);
      expect(point.objective).toBeGreaterThanOrEqual((points[i - 1]?.objective ?? -Infinity) - 1e-9);
    }
  });
  it('stops when it is cancelled', () => {
    let found = 0;
    const hooks = { onPoint: () => (found += 1), isCancelled: () => found >= 2 };
    expect(benefitCurve(preparedOf(stiffAnkle()), solver, [4, 6, 8, 10], hooks)).toHaveLength(2);
  });
  it('more time stops paying where a further minute adds under a fiftieth of all there is to have', () => {
    const point = (minutes: number, objective: number) => ({
      minutes,
      objective,
      benefit: objective,
      gap: 0,
      drills: 1,
      seconds: 1,
    });
    expect(stopsPaying([point(5, 0), point(10, 0.8), point(15, 0.99), point(20, 1)])).toBe(15);
    expect(stopsPaying([point(5, 0), point(10, 0.5), point(15, 1)])).toBeNull();
    expect(stopsPaying([point(5, 1), point(10, 1)])).toBe(5);
  });
});
