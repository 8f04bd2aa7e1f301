import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { assessCase } from '../assess/index.ts';
import type { Assessment } from '../assess/index.ts';
import { buildRoutine } from '../builder/index.ts';
import { todaysCopy } from '../checkin/index.ts';
import { prepareBuild } from '../builder/index.ts';
import type { Case, Region, Side } from '../domain/index.ts';
import { dosedItem } from '../dose/index.ts';
import { levelState } from '../levels/index.ts';
import { decideProgress } from '../progress/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import type { Drill } from '../reference/index.ts';
import { arbitraryCase } from '../testing/arbitraries.ts';
import { caseOf, entry, item, TODAY } from '../testing/cases.ts';
import { eachOf } from '../testing/eachOf.ts';
import { forAll } from '../testing/forAll.ts';
import { testSolver } from '../testing/solver.ts';
import { beyondLimits, drillSafety } from './index.ts';

const drills = bundledReference.data.drills;
const solver = await testSolver();
const REGIONS = bundledReference.data.regions.filter((r) => r.joint).map((r) => r.id);

/** A test on which pain of a region can be told, and a drill that is for it. */
const testOf = (region: Region) =>
  bundledReference.data.tests.find(
    (t) => t.region === region && t.sides === 'per-side' && !t.derivedFrom && t.unit !== 'nrs-0-10',
  );
const drillOf = (region: Region) =>
  drills.find((d) => d.regions.primary[0] === region && d.unilateral && d.loadClass === 'partial') ??
  drills.find((d) => d.regions.primary[0] === region);

const WAYS = ['story', 'story, at rest', 'test', 'check-in', 'check-in, at rest', 'run', 'morning'] as const;
type Way = (typeof WAYS)[number];

/** What is told by one way in, as the case holds it. */
function told(
  way: Way,
  region: Region,
  side: 'left' | 'right',
  nrs: number,
): Parameters<typeof caseOf>[0] | null {
  const pain = { region, side, nrs, since: '2027-02-20', ended: null };
  if (way === 'story') return { athlete: { pains: [{ ...pain, when: 'movement' }] } };
  if (way === 'story, at rest') return { athlete: { pains: [{ ...pain, when: 'rest' }] } };
  if (way.startsWith('check-in'))
    return {
      checkIns: [
        {
          date: TODAY,
          slept: null,
          tension: null,
          news: '',
          minutes: null,
          space: null,
          warmMinutesAgo: null,
          sore: [{ region, side, nrs, ...(way.endsWith('at rest') ? { when: 'rest' as const } : {}) }],
        },
      ],
    };
  if (way === 'test') {
    const test = testOf(region);
    if (!test) return null;
    const trials = [(test.plausible.min + test.plausible.max) / 2];
    const result =
      test.unit.startsWith('grade') || test.unit.startsWith('points') ? { grade: 2 } : { trials };
    return {
      screenings: [{ date: '2027-02-25', results: [{ test: test.id, side, ...result, pain: { nrs } }] }],
    };
  }
  const drill = drillOf(region);
  if (!drill) return null;
  const said = way === 'run' ? { pain: nrs, nextDayPain: null } : { pain: 0, nextDayPain: nrs };
  const on = drill.unilateral ? side : ('both' as const);
  return { diary: [{ date: '2027-02-28', provoked: [], entries: [entry(drill.id, { side: on, ...said })] }] };
}

const written = (drill: Drill, region: Region) =>
  Math.max(0, ...drill.loadRegions.filter((load) => load.region === region).map((load) => load.weight));

/** Is it something that a clinician would not give on this side? Read from the written figures alone. */
function wrong(
  drill: Drill,
  region: Region,
  nrs: number,
  way: Way,
  limits: Assessment['painLimits'],
): boolean {
  const above = nrs > limits.stop || (way.endsWith('at rest') && nrs > limits.fine);
  const load = written(drill, region);
  if (above) return load >= 0.3 || (drill.regions.primary.includes(region) && drill.loadClass !== 'unloaded');
  const hard =
    drill.loadClass === 'impact' ||
    (drill.position === 'hanging' && drill.loadClass === 'full') ||
    drill.contraction === 'ballistic' ||
    drill.intensityClass === 'high';
  return nrs > limits.fine && hard && load >= 0.5;
}
const usesSide = (drill: Drill, used: string, side: Side) =>
  !drill.unilateral || used === 'both' || used === side;

const anyPain = fc.record({
  way: fc.constantFrom(...WAYS),
  region: fc.constantFrom(...REGIONS),
  side: fc.constantFrom('left' as const, 'right' as const),
  nrs: fc.integer({ min: 0, max: 10 }),
});
const EXPOSED = [
  { action: 'run', perWeek: 4, effort: 'hard' as const },
  { action: 'land', perWeek: 3, effort: 'hard' as const },
  { action: 'overhead', perWeek: 3, effort: 'hard' as const },
];
const inputOf = ({
  way,
  region,
  side,
  nrs,
}: {
  way: Way;
  region: Region;
  side: 'left' | 'right';
  nrs: number;
}) => {
  const said = told(way, region, side, nrs);
  if (!said) return null;
  return caseOf({ ...said, athlete: { trainingYears: 6, exposure: EXPOSED, ...said.athlete } });
};

describe('pain of any height, at any place, told by any way in', () => {
  it('leaves nothing on offer that it forbids', () => {
    let closed = 0;
    forAll(
      fc.property(anyPain, (one) => {
        const input = inputOf(one);
        if (!input) return;
        const assessment = assessCase(bundledReference, input);
        const offered = drills.filter((drill) => {
          const { forbidden, sides } = drillSafety(bundledReference, drill, assessment.safety);
          return forbidden.length === 0 && sides[one.side];
        });
        closed += drills.length - offered.length;
        const bad = offered.filter((drill) =>
          wrong(drill, one.region, one.nrs, one.way, assessment.painLimits),
        );
        expect(bad.map(({ id }) => id)).toEqual([]);
      }),
      200,
    );
    expect(closed).toBeGreaterThan(500);
  });
  it('builds, decides and adapts nothing that it forbids', () => {
    forAll(
      fc.property(anyPain, fc.constantFrom('prepare' as const, 'build' as const), (one, mode) => {
        const input = inputOf(one);
        if (!input) return;
        const inForce = [item('goblet-squat'), item('wall-push-up-plus'), item('double-leg-heel-raise')];
        const whole: Case = { ...input, routine: { issued: '2027-02-01', mode, items: inForce } };
        const assessment = assessCase(bundledReference, whole);
        const request = { ...whole.request, mode, minutes: 12, kit: ['wall', 'box', 'kettlebell'] };
        const built = buildRoutine(assessment, request, solver).routine?.items ?? [];
        const harder = decideProgress(assessment).decisions.flatMap(({ decision, next }) =>
          next && /^(advance|change)/.test(decision) ? [next] : [],
        );
        const copy = whole.checkIns[0]
          ? todaysCopy(
              prepareBuild(assessment, request),
              built.map((i, n) => ({ ...i, id: String(n) })),
              whole.checkIns[0],
              new Set(),
            )
          : null;
        const run = copy ? copy.items.filter(({ id }) => !copy.out.has(id)) : [];
        for (const { drill: id, side } of [...built, ...harder, ...run]) {
          const drill = bundledReference.drills.get(id);
          if (!drill || !usesSide(drill, side, one.side)) continue;
          expect(wrong(drill, one.region, one.nrs, one.way, assessment.painLimits), `${id} ${side}`).toBe(
            false,
          );
        }
      }),
      15,
    );
  });
  it('more of it opens no drill and no level', () => {
    forAll(
      fc.property(anyPain, fc.integer({ min: 1, max: 4 }), (one, more) => {
        const [before, after] = [inputOf(one), inputOf({ ...one, nrs: Math.min(10, one.nrs + more) })].map(
          (input) => input && assessCase(bundledReference, input),
        );
        if (!before || !after) return;
        const open = (given: Assessment, drill: Drill, side: 'left' | 'right') => {
          const { forbidden, sides } = drillSafety(bundledReference, drill, given.safety);
          return (
            forbidden.length === 0 &&
            sides[side] &&
            levelState(given, drill, drill.unilateral ? side : 'both').open
          );
        };
        const wider = drills.filter((drill) =>
          (['left', 'right'] as const).some((side) => open(after, drill, side) && !open(before, drill, side)),
        );
        expect(wider.map(({ id }) => id)).toEqual([]);
      }),
      30,
    );
  });
});

describe('what an injury and a precaution do', () => {
  it('a newer injury opens no level', () => {
    forAll(
      fc.property(arbitraryCase(true), fc.constantFrom(...REGIONS), (input, region) => {
        const hurt = { region, side: 'left' as const, date: '2027-02-20', operated: false };
        const later: Case = {
          ...input,
          athlete: { ...input.athlete, injuries: [...input.athlete.injuries, hurt] },
        };
        const [before, after] = [assessCase(bundledReference, input), assessCase(bundledReference, later)];
        const wider = drills.filter(
          (d) => levelState(after, d, 'both').open && !levelState(before, d, 'both').open,
        );
        expect(wider.map(({ id }) => id)).toEqual([]);
      }),
      40,
    );
  });
  it('no drill is dosed beyond what its own warning says, under any precaution', () => {
    for (const precaution of eachOf(bundledReference.data.precautions)) {
      const clearance = { by: 'Dr Halden', date: '2027-02-01', scope: 'as said' };
      const input = caseOf({
        athlete: { precautions: [{ id: precaution.id, until: null, clearance, ended: null }] },
      });
      const { safety, doses } = assessCase(bundledReference, input);
      const offered = drills.filter((d) => drillSafety(bundledReference, d, safety).forbidden.length === 0);
      for (const drill of eachOf(offered)) {
        const { item: dosed } = dosedItem(doses.build, drill, 'both', 1, null);
        expect(
          beyondLimits(bundledReference, drill, dosed, safety.precautions),
          `${precaution.id} ${drill.id}`,
        ).toBeNull();
        const text = drillSafety(bundledReference, drill, safety)
          .handling.map((h) => h.text)
          .join(' ');
        const percent = /[Aa]t most (\d+) %|\(?20-(\d+) %/.exec(text);
        const effort = dosed.setup['effort'];
        if (percent && typeof effort === 'number')
          expect(effort, drill.id).toBeLessThanOrEqual(Number(percent[1] ?? percent[2]));
        const seconds = /[Aa]t most (\d+) s\b/.exec(text);
        if (seconds && drill.dose.measure === 'hold-seconds')
          expect(dosed.amount, drill.id).toBeLessThanOrEqual(Number(seconds[1]));
      }
    }
  });
});
