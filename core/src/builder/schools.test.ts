import { beforeAll, describe, expect, it } from 'vitest';
import { painLimits } from '../findings/index.ts';
import { todaysCopy } from '../checkin/index.ts';
import { missingKit } from '../reference/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import type { Case } from '../domain/index.ts';
import { isGraded } from '../safety/index.ts';
import { checkInSchema } from '../schemas/index.ts';
import { caseOf, entry, item, result, stiffAnkle } from '../testing/cases.ts';
import { testSolver } from '../testing/solver.ts';
import { swapsFor } from './index.ts';
import type { MipSolver } from './index.ts';
import { buildCase, judgeCase, prepareCase } from '../testing/prepared.ts';
import { eachOf } from '../testing/eachOf.ts';

let solver: MipSolver;
beforeAll(async () => {
  solver = await testSolver();
});
const categoriesOffered = (schools: Record<string, string>, mode = 'prepare') => {
  const input = stiffAnkle({ schools, request: { mode, minutes: 15, maxDrills: 9 } as never });
  return new Set(prepareCase(bundledReference, input).options.options.map((o) => o.category));
};

describe('a school really changes what the planner does', () => {
  it('static stretching before activity', () => {
    expect(categoriesOffered({}).has('stretch')).toBe(false);
    expect(categoriesOffered({ 'static-stretch-before': 'short-then-dynamic' }).has('stretch')).toBe(true);
    const last = prepareCase(
      bundledReference,
      stiffAnkle({ schools: { 'static-stretch-before': 'last-step' } }),
    );
    expect(last.chosen.phases.at(-1)?.categories).toEqual(['stretch']);
    const seconds = last.options.options.filter((o) => o.category === 'stretch').map((o) => o.staticSeconds);
    expect(Math.max(...seconds)).toBeLessThanOrEqual(20);
  });
  it('strengthening before sport', () => {
    expect(categoriesOffered({}).has('strengthen')).toBe(false);
    const small = prepareCase(
      bundledReference,
      stiffAnkle({
        schools: { 'sequence-before-strength': 'small-dose' },
        request: { kit: ['wall', 'long-band', 'step'] } as never,
      }),
    ).options.options.filter((o) => o.category === 'strengthen');
    for (const option of eachOf(small)) {
      expect(option.item.sets).toBe(1);
      expect(bundledReference.drills.get(option.drill)?.fatigue).toBeLessThanOrEqual(2);
    }
    expect(categoriesOffered({}, 'build').has('strengthen')).toBe(true);
  });
  it('release first or never', () => {
    const six = (schools: Record<string, string>) => {
      const input = stiffAnkle({ schools, request: { structure: 'six-step-ramp', minutes: 15 } as never });
      return prepareCase(bundledReference, input).options.ineligible.get('calf-hand-release')?.rule;
    };
    expect(six({ 'release-first': 'skip' })).toBe('school');
    expect(six({})).not.toBe('school');
  });
  it('isolated activation is worth less under "pattern only"', () => {
    const worth = (schools: Record<string, string>) =>
      prepareCase(bundledReference, stiffAnkle({ schools }))
        .options.options.filter((o) => o.category === 'activate')
        .flatMap((o) => o.benefit)
        .reduce((sum, b) => sum + b.value, 0);
    expect(worth({ 'activation-value': 'pattern-only' })).toBeLessThan(worth({}) * 0.5);
  });
  it('pain limits, and the growing never have looser ones', () => {
    const limits = (school: string, age: number) =>
      painLimits(bundledReference, { schools: { 'pain-limit': school }, painLimits: null }, age);
    expect(limits('2-5', 30)).toMatchObject({ fine: 2, stop: 5 });
    expect(limits('0-3', 30)).toMatchObject({ fine: 0, stop: 3 });
    expect(limits('2-5', 17)).toMatchObject({ fine: 0, stop: 3 });
    expect(limits('none', 17)).toMatchObject({ fine: 0, stop: 0 });
  });
  it('the denominator "involved" judges the injured side alone', () => {
    const input = caseOf({
      athlete: { injuries: [{ region: 'knee', side: 'left', date: '2026-06-01', operated: false }] },
      screenings: [
        {
          date: '2027-02-27',
          results: [result('quadriceps-strength', 'left', 3.4), result('quadriceps-strength', 'right', 2.6)],
        },
      ],
    });
    const symmetric = (schools: Record<string, string>) =>
      judgeCase(bundledReference, { ...input, schools }).findings.some((f) =>
        f.evidence.some((e) => e.needSource.kind === 'symmetry'),
      );
    expect(symmetric({})).toBe(true);
    expect(symmetric({ 'symmetry-denominator': 'involved-uninvolved' })).toBe(false);
  });
});

/** Pain in the front of a knee, since a day. */
const knee = (nrs: number, since: string) => ({
  region: 'knee' as const,
  side: 'left' as const,
  aspect: 'front' as const,
  feel: 'ache' as const,
  when: 'movement' as const,
  nrs,
  since,
  ended: null,
});
const KIT = ['wall', 'step', 'long-band', 'dumbbell', 'foam-roller', 'massage-ball'];
const quads = (left: number, right: number) => [
  result('quadriceps-strength', 'left', left),
  result('quadriceps-strength', 'right', right),
];
/** People for whom one option or another makes a difference, each before activity and in a build. */
const PEOPLE: readonly Partial<Case>[] = [
  stiffAnkle({ athlete: { pains: [knee(4, '2027-02-20')] } }),
  stiffAnkle({
    athlete: { pains: [knee(2, '2026-08-01')], tasks: [{ id: 'trail-running', lead: 'either' }] },
  }),
  stiffAnkle({
    athlete: {
      trainingYears: 8,
      exposure: ['run', 'land', 'cut'].map((action) => ({ action, perWeek: 4, effort: 'hard' as const })),
    },
  }),
  caseOf({
    athlete: { injuries: [{ region: 'knee', side: 'left', date: '2026-06-01', operated: false }] },
    screenings: [{ date: '2027-02-27', results: quads(3.4, 2.6) }],
  }),
  caseOf({
    screenings: [
      {
        date: '2027-02-27',
        results: [result('wblt-distance', 'left', 11), result('wblt-distance', 'right', 12.6)],
      },
    ],
  }),
  caseOf({
    athlete: { dominantHand: 'right', tasks: [{ id: 'overhead-throw', lead: 'right' }] },
    screenings: [
      {
        date: '2027-02-27',
        results: [
          result('shoulder-ir-range', 'right', 40),
          result('shoulder-er-range', 'right', 120),
          result('shoulder-ir-range', 'left', 62),
          result('shoulder-er-range', 'left', 98),
        ],
      },
    ],
  }),
  stiffAnkle({
    athlete: { loadLimits: [{ region: 'ankle-foot', perWeek: 0.5 }] },
    diary: [{ date: '2027-02-27', entries: [entry('single-leg-heel-raise', { amounts: [15, 15, 15] })] }],
  }),
];

const WALK = { ...item('brisk-walk-build', { measure: 'seconds', sets: 1, amount: 150 }), id: 'walk' };
const STILL_WARM = checkInSchema.parse({ date: '2027-03-01', warmMinutesAgo: 10 });

/** Everything of a case that an option may change: what is short, what holds today, and the question to the solver. */
function outcome(person: Partial<Case>, schools: Record<string, string>): string {
  return ['prepare', 'build']
    .flatMap((mode) => {
      const input = { ...(person as Case), schools };
      const request = { ...input.request, mode: mode as 'prepare', minutes: 20, kit: KIT };
      const prepared = prepareCase(bundledReference, { ...input, request });
      const { report, safety, painLimits: limits, problem, chosen } = prepared;
      return JSON.stringify({
        findings: report.findings.map((f) => [f.restriction, f.side, f.severity]),
        rules: safety.dayRules,
        limits,
        phases: chosen.phases,
        options: problem.options.map((o) => [o.drill, o.phase, o.item.sets, o.item.amount, o.benefit]),
        wishes: [...problem.limits, ...problem.bands].map(({ id, most }) => [id, most]),
        today: todaysCopy(prepared, [WALK], STILL_WARM).items.map(({ amount }) => amount),
      });
    })
    .join();
}

describe('no option is there for show', () => {
  const defaults = PEOPLE.map((person) => outcome(person, {}));
  it.each(
    bundledReference.data.schools.flatMap((school) =>
      school.options.filter(({ id }) => id !== school.default).map(({ id }) => [school.id, id] as const),
    ),
  )('%s: %s changes what somebody is given', (school, option) => {
    expect(PEOPLE.some((person, i) => outcome(person, { [school]: option }) !== defaults[i])).toBe(true);
  });
});

describe('a painful position', () => {
  const runner = (nrs: number, since: string, option: string) =>
    stiffAnkle({
      athlete: {
        pains: [knee(nrs, since)],
        tasks: [{ id: 'trail-running', lead: 'either' }],
        trainingYears: 6,
      },
      request: { minutes: 15, maxDrills: null, kit: KIT } as never,
      schools: { 'modify-around-or-restore': option },
    });
  const graded = (input: Case) => {
    const { safety } = prepareCase(bundledReference, input);
    const drills = buildCase(bundledReference, input, solver).routine?.items.map((i) => i.drill) ?? [];
    return drills.filter((id) => {
      const drill = bundledReference.drills.get(id);
      return drill && safety.dayRules.some((rule) => isGraded(bundledReference, rule, drill));
    });
  };
  it('is gone round or gets one graded drill, by the school; by rule only once it is calm and old', () => {
    expect(graded(runner(4, '2027-02-20', 'modify'))).toEqual([]);
    expect(graded(runner(4, '2027-02-20', 'rule-based'))).toEqual([]);
    expect(graded(runner(4, '2027-02-20', 'restore'))).toHaveLength(1);
    expect(graded(runner(2, '2026-08-01', 'rule-based')).length).toBeGreaterThan(0);
    expect(graded(runner(7, '2027-02-20', 'restore'))).toEqual([]);
  });
});

describe('release first', () => {
  it('mobilises nothing that a release serves as well before one of those', () => {
    const input = stiffAnkle({
      schools: { 'release-first': 'first' },
      request: { minutes: 15, maxDrills: null, kit: KIT } as never,
    });
    const items = buildCase(bundledReference, input, solver).routine?.items ?? [];
    const drills = items.flatMap((i) => bundledReference.drills.get(i.drill) ?? []);
    const dorsiflexion = (category: string) =>
      drills.findIndex(
        (d) =>
          d.category === category &&
          d.serves.some((s) => s.restriction === 'ankle-dorsiflexion-limit' && s.match >= 0.4),
      );
    expect(dorsiflexion('release')).toBeGreaterThanOrEqual(0);
    expect(dorsiflexion('mobilise')).toBeGreaterThan(dorsiflexion('release'));
  });
});

describe('one routine', () => {
  it('may go another way than the athlete, judged and built as if that were the athlete’s', () => {
    const schools = { 'static-stretch-before': 'last-step', 'pain-limit': 'none' };
    const own = stiffAnkle({ athlete: { pains: [knee(2, '2027-02-20')] }, schools });
    const once = stiffAnkle({ athlete: { pains: [knee(2, '2027-02-20')] }, request: { schools } as never });
    const built = (input: Case) => buildCase(bundledReference, input, solver);
    expect(built(once).routine).toEqual(built(own).routine);
    expect(built(once).dayRules).toEqual(built(own).dayRules);
    expect(built(once).dayRules[0]?.band).toBe('above');
  });
});

describe('without any screening', () => {
  it('tasks weigh 0.4, an injured region 0.6 on its side', () => {
    const input = caseOf({
      athlete: {
        tasks: [{ id: 'fell-running-descent', lead: 'either' }],
        injuries: [{ region: 'ankle-foot', side: 'left', date: '2026-06-01', operated: false }],
      },
    });
    const { weights, general } = prepareCase(bundledReference, input);
    const weight = (id: string, side: string) =>
      weights.find((w) => w.restriction === id && w.side === side)?.weight;
    expect(general).toBe(true);
    expect(weight('ankle-dorsiflexion-limit', 'left')).toBe(0.6);
    expect(weight('ankle-dorsiflexion-limit', 'right')).toBe(0.4);
    expect(weight('quadriceps-strength-deficit', 'left')).toBe(0.4);
    expect(weight('shoulder-flexion-limit', 'left')).toBeUndefined();
  });
  it('an athlete of whom nothing is known still gets a general preparation', () => {
    const report = buildCase(
      bundledReference,
      caseOf({ request: { mode: 'prepare', minutes: 10 } as never }),
      solver,
    );
    expect(report.routine?.items.length).toBeGreaterThan(2);
    expect(report.routine?.items.every((i) => i.serves.length === 0)).toBe(true);
  });
});

describe('swaps', () => {
  const input = stiffAnkle({ request: { kit: ['wall', 'step', 'long-band'] } as never });
  const prepared = prepareCase(bundledReference, input);
  it('keep to the rules, leave the routine’s other ladders alone and say what is lost', () => {
    const routine = buildCase(bundledReference, input, solver).routine;
    const list = routine?.items ?? [];
    const all = list.flatMap((_, index) => swapsFor(prepared, list, index).map((swap) => ({ index, swap })));
    expect(all.flatMap(({ swap }) => swap.lost).length).toBeGreaterThan(0);
    for (const { index, swap } of eachOf(all)) {
      const drill = bundledReference.drills.get(swap.drill);
      const ladders = list
        .filter((__, i) => i !== index)
        .map((i) => bundledReference.drills.get(i.drill)?.ladder);
      expect(ladders).not.toContain(drill?.ladder);
      expect(drill && missingKit(drill, input.request.kit)).toBeNull();
      expect(drill?.demandIndex).toBeLessThanOrEqual(
        (bundledReference.drills.get(list[index]?.drill ?? '')?.demandIndex ?? 0) + 1,
      );
      const gone = swap.lost.map(
        ({ restriction }) => drill?.serves.find((s) => s.restriction === restriction)?.match ?? 0,
      );
      expect(swap.lost.map(({ share }) => share === 1)).toEqual(gone.map((match) => match < 0.4));
    }
  });
  it('of an index that does not exist are none', () => {
    expect(swapsFor(prepared, [], 0)).toEqual([]);
  });
});
