import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Case } from '../domain/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { safetyState } from '../safety/index.ts';
import { arbitraryCase, mirrored } from '../testing/arbitraries.ts';
import { caseOf, result, stiffAnkle, TODAY } from '../testing/cases.ts';
import { estimateAll, isShort, judgeNeed, measuredBetween, painLimits, rotationArc } from './index.ts';
import type { Finding, FindingsReport } from './index.ts';
import { judgeCase, standingOf } from '../testing/prepared.ts';
import { forAll } from '../testing/forAll.ts';
import { eachOf } from '../testing/eachOf.ts';

const judge = (input: Case) => judgeCase(bundledReference, input);
const find = (report: FindingsReport, restriction: string, side: string): Finding | undefined =>
  report.findings.find((f) => f.restriction === restriction && f.side === side);

describe('the worked ankle', () => {
  const report = judge(stiffAnkle());
  it('is short on the left with the figures a hand calculation gives', () => {
    const finding = find(report, 'ankle-dorsiflexion-limit', 'left');
    const floor = finding?.evidence.find((row) => row.needSource.kind === 'floor');
    expect(floor?.estimate).toBeCloseTo(7.1, 9);
    expect(floor?.reserve).toBeCloseTo(-1.9, 9);
    expect(floor?.margin).toBeCloseTo(-1.9 / 1.66, 9);
    expect(floor?.severity).toBeCloseTo(1.9 / 1.66 / 2, 9);
    // SD two days after the visit: √(0.6² + 0.2²·2/7); Φ(1.9 / 0.6094) = 0.9991.
    expect(floor?.pShort).toBeCloseTo(0.9991, 3);
    expect(finding?.state).toBe('short');
  });
  it('stands left before right where both are equally short', () => {
    const both = judge(
      caseOf({
        screenings: [
          {
            date: TODAY,
            results: [result('wblt-distance', 'right', 3, 3, 3), result('wblt-distance', 'left', 3, 3, 3)],
          },
        ],
      }),
    ).findings.filter((f) => f.restriction === 'ankle-dorsiflexion-limit');
    expect(both.map((f) => f.side)).toEqual(['left', 'right']);
  });
  it('has enough on the right, and says the difference counts', () => {
    expect(find(report, 'ankle-dorsiflexion-limit', 'right')?.state).toBe('enough');
    expect(report.asymmetries).toContainEqual(
      expect.objectContaining({ test: 'wblt-distance', weaker: 'left', state: 'counts' }),
    );
  });
  it('ranks by priority and gives every factor', () => {
    const priorities = report.findings.map((f) => f.priority);
    expect(priorities).toEqual([...priorities].sort((a, b) => b - a));
    for (const { priority, factors } of eachOf(report.findings)) {
      expect(priority).toBeCloseTo(Math.min(1, factors.severity * factors.relevance * factors.injury), 12);
    }
  });
});

describe('a result taken in pain', () => {
  const limited = (test: string, value: number, nrs?: number) => {
    const taken = {
      ...result(test, 'left', value, value, value),
      ...(nrs === undefined ? {} : { pain: { nrs } }),
    };
    const { capacities } = judge(caseOf({ screenings: [{ date: TODAY, results: [taken] }] }));
    return capacities.find((c) => c.test === test)?.painLimited;
  };
  it('is limited by it above what is fine; a test of pain itself never is', () => {
    expect(limited('wblt-distance', 7)).toBe(false);
    expect(limited('wblt-distance', 7, 2)).toBe(false);
    expect(limited('wblt-distance', 7, 3)).toBe(true);
    const pain = bundledReference.data.tests.find(
      (test) => test.unit === 'nrs-0-10' && test.sides !== 'central',
    );
    expect(limited(pain?.id ?? '', 6, 6)).toBe(false);
  });
});

describe('pain limits', () => {
  const limits = (age: number, own: { fine: number; stop: number } | null = null) =>
    painLimits(bundledReference, { schools: { 'pain-limit': '2-5' }, painLimits: own }, age);
  it('are the school’s from eighteen on, and never above 0 and 3 before', () => {
    expect(limits(18)).toEqual({ fine: 2, stop: 5 });
    expect(limits(17)).toEqual({ fine: 0, stop: 3 });
  });
  it('of a practice’s own hold, and may be tighter for the growing as well', () => {
    expect(limits(30, { fine: 1, stop: 2 })).toEqual({ fine: 1, stop: 2 });
    expect(limits(30, { fine: 10, stop: 10 })).toEqual({ fine: 4, stop: 6 });
    expect(limits(15, { fine: 1, stop: 2 })).toEqual({ fine: 0, stop: 2 });
  });
});

describe('a test worked out from others', () => {
  const reach = (part: string, value: number, nrs?: number) => ({
    ...result(`reach-balance-${part}`, 'left', value, value, value),
    ...(nrs === undefined ? {} : { pain: { nrs } }),
  });
  const composite = (results: ReturnType<typeof reach>[], date = TODAY) =>
    judge(caseOf({ screenings: [{ date, results }] })).capacities.find(
      (c) => c.test === 'reach-balance-composite',
    );
  const all = [reach('anterior', 60), reach('posteromedial', 96, 1), reach('posterolateral', 90, 3)];
  it('is the mean of its parts, with the error of a mean of three and the worst of their pains', () => {
    const found = composite(all);
    expect(found?.estimate).toBeCloseTo((60 + 96 + 90) / 3, 9);
    expect(found?.sd).toBeCloseTo(Math.sqrt(3 * 2.6 ** 2) / 3, 6);
    expect(found?.painLimited).toBe(true);
    expect(
      composite([reach('anterior', 60), reach('posteromedial', 96), reach('posterolateral', 90)])
        ?.painLimited,
    ).toBe(false);
  });
  it('is not there before every part was measured on that side', () => {
    expect(composite(all.slice(0, 2))).toBeUndefined();
    expect(
      composite([...all.slice(0, 2), { ...reach('posterolateral', 90), side: 'right' as const }]),
    ).toBeUndefined();
  });
  it('changes with visits that hold every part', () => {
    const before = [reach('anterior', 54), reach('posteromedial', 90), reach('posterolateral', 84)];
    const report = judge(
      caseOf({
        screenings: [
          { date: '2027-01-10', results: before },
          { date: '2027-02-01', results: before.slice(0, 1) },
          { date: TODAY, results: all },
        ],
      }),
    );
    expect(report.changes.find((c) => c.test === 'reach-balance-composite')).toMatchObject({
      side: 'left',
      difference: 6,
    });
  });
});

describe('an injury of the region', () => {
  const factor = (
    side: 'left' | 'right' | 'central',
    date: string,
    region = 'ankle-foot' as 'ankle-foot' | 'knee',
  ) => {
    const injuries = [{ region, side, date, operated: false }];
    return find(judge(stiffAnkle({ athlete: { injuries } })), 'ankle-dorsiflexion-limit', 'left')?.factors
      .injury;
  };
  it.each([
    ['left', '2027-02-01', 1.25],
    ['central', '2027-02-01', 1.25],
    ['right', '2027-02-01', 1],
    ['left', '2025-03-01', 1.25], // 24 months ago today
    ['left', '2025-02-28', 1],
  ] as const)('%s, of %s, counts × %s on the left', (side, date, expected) => {
    expect(factor(side, date)).toBe(expected);
  });
  it('counts for its own region alone', () => {
    expect(factor('left', '2027-02-01', 'knee')).toBe(1);
  });
});

describe('worked numbers of the formula sheet', () => {
  it.each([
    // Front-rack catch: 37.5° of shin angle against 40° cannot be told apart; the wrist at 79° against 88° is short.
    ['wblt-angle', 37.5, 40, -2.5, false],
    ['wrist-extension-range', 79, 88, -9, true],
    // Rowing catch allows 25°: where less is better 34° is 9° short.
    ['active-knee-extension', 34, 25, -9, true],
  ])('%s: %f against %f is a reserve of %f', (id, value, need, reserve, beyondError) => {
    const test = bundledReference.tests.get(id);
    if (!test) throw new Error(id);
    const judged = judgeNeed(test, value, test.sem.value, need);
    expect(judged.reserve).toBeCloseTo(reserve, 10);
    expect(Math.abs(judged.reserve) >= test.mdc95.value).toBe(beyondError);
  });
  it('rotation arcs of 154° and 158° differ by less than their own error, 10.8°', () => {
    const input = caseOf({
      screenings: [
        {
          date: '2027-02-27',
          results: [
            result('shoulder-ir-range', 'right', 42),
            result('shoulder-er-range', 'right', 112),
            result('shoulder-ir-range', 'left', 60),
            result('shoulder-er-range', 'left', 98),
          ],
        },
      ],
      athlete: { tasks: [{ id: 'overhead-throw', lead: 'right' }] },
    });
    const estimates = estimateAll(
      bundledReference,
      standingOf(input),
      safetyState(bundledReference, input.athlete, input.today),
    );
    expect(rotationArc(estimates, 'right')?.arc).toBeCloseTo(154, 9);
    expect(rotationArc(estimates, 'left')?.arc).toBeCloseTo(158, 9);
    expect(rotationArc(estimates, 'right')?.mdc95).toBeCloseTo(10.8, 1);
    // By arc, the throwing shoulder's low internal rotation does not count; with the school "stretch" it does.
    const internal = (schools: Record<string, string>) =>
      find(judge({ ...input, schools }), 'shoulder-internal-rotation-limit', 'right');
    expect(internal({})).toBeUndefined();
    expect(internal({ 'throwing-shoulder-range': 'stretch' })).toBeDefined();
  });
});

describe('differences between sides', () => {
  it('beyond the limit but inside the error: possible, repeat, and no restriction', () => {
    const input = caseOf({
      screenings: [
        {
          date: '2027-02-27',
          results: [result('wblt-distance', 'left', 11), result('wblt-distance', 'right', 12.6)],
        },
      ],
    });
    expect(judge(input).asymmetries[0]).toMatchObject({ state: 'possible-repeat' });
    expect(find(judge(input), 'ankle-dorsiflexion-limit', 'left')?.severity).toBe(0);
    const eager = judge({ ...input, schools: { 'flag-inside-error': 'threshold' } });
    expect(find(eager, 'ankle-dorsiflexion-limit', 'left')?.severity).toBeGreaterThan(0);
  });
  it('on a side that meets its own need severity stops at 0.3 and the state at likely short', () => {
    const input = caseOf({
      screenings: [
        {
          date: '2027-02-27',
          results: [result('wblt-distance', 'left', 10), result('wblt-distance', 'right', 17)],
        },
      ],
    });
    const finding = find(judge(input), 'ankle-dorsiflexion-limit', 'left');
    expect(finding).toMatchObject({ severity: 0.3, state: 'likely-short', symmetryOnly: true });
  });
});

describe('needs', () => {
  it('an override replaces task and floor', () => {
    const input = stiffAnkle({
      overrides: { needs: [{ test: 'wblt-distance', side: 'left', value: 6 }], reference: [] },
    });
    const own = find(judge(input), 'ankle-dorsiflexion-limit', 'left')?.evidence.filter(
      (row) => row.needSource.kind !== 'symmetry',
    );
    expect(own?.map((row) => row.needSource.kind)).toEqual(['override']);
  });
  it('the lead side alone is asked where a task says lead', () => {
    const results = [result('hip-flexion-range', 'left', 118), result('hip-flexion-range', 'right', 118)];
    const input = caseOf({
      athlete: { tasks: [{ id: 'climbing-high-step', lead: 'left' }] },
      screenings: [{ date: '2027-02-27', results }],
    });
    const kinds = (side: string) =>
      find(judge(input), 'hip-flexion-limit', side)?.evidence.map((row) => row.needSource.kind);
    expect(kinds('left')).toContain('task');
    expect(kinds('right')).not.toContain('task');
  });
  it('floors in newtons scale with body mass, and without it are shown but not used', () => {
    const results = [result('grip-strength', 'left', 240), result('grip-strength', 'right', 240)];
    const heavy = caseOf({ athlete: { bodyMassKg: 90 }, screenings: [{ date: '2027-02-27', results }] });
    expect(judge(heavy).capacities[0]?.need).toBeCloseTo((250 * 90) / 75, 9);
    const unknown = caseOf({ athlete: { bodyMassKg: null }, screenings: [{ date: '2027-02-27', results }] });
    expect(judge(unknown).capacities[0]).toMatchObject({ need: null, unusedNeed: 250 });
  });
  const YOUNG = {
    birthDate: '2012-06-01',
    tasks: [{ id: 'fell-running-descent', lead: 'either' as const }],
  };
  it('under sixteen no adult floor or demand is used, and each row says what it would be', () => {
    const report = judge(stiffAnkle({ athlete: YOUNG }));
    const kinds = report.findings.flatMap((f) => f.evidence.map((row) => row.needSource.kind));
    expect(new Set(kinds)).toEqual(new Set(['symmetry']));
    expect(report.capacities.length).toBe(6);
    const shin = report.capacities.find((c) => c.test === 'wblt-distance' && c.side === 'left');
    expect(shin).toMatchObject({ need: null, adultNeed: 9 });
  });
  it('under sixteen the other side speaks at most half, uncapped by needs it does not have, and says why', () => {
    const left = find(judge(stiffAnkle({ athlete: YOUNG })), 'ankle-dorsiflexion-limit', 'left');
    expect(left?.severity).toBe(0.5);
    expect(left?.evidence[0]).toMatchObject({ capped: false, state: 'short' });
    expect(left?.reasons).toContainEqual({ rule: 'youth-figures', age: 16 });
  });
  it('under sixteen a real loss since the last visit speaks; an adult is held against needs alone', () => {
    const visits = (first: number, second: number) => [
      { date: '2026-11-01', results: [result('heel-raise-reps', 'left', first)] },
      { date: '2027-02-01', results: [result('heel-raise-reps', 'left', second)] },
    ];
    const lost = judge(caseOf({ athlete: YOUNG, screenings: visits(24, 12) }));
    expect(lost.findings.map((f) => f.evidence[0]?.needSource.kind)).toContain('trend');
    expect(Math.max(...lost.findings.map((f) => f.severity))).toBeLessThanOrEqual(0.5);
    expect(judge(caseOf({ athlete: YOUNG, screenings: visits(24, 23) })).findings).toEqual([]);
    expect(judge(caseOf({ athlete: YOUNG, screenings: visits(12, 24) })).findings).toEqual([]);
    const adult = judge(caseOf({ screenings: visits(40, 28) }));
    expect(adult.findings.flatMap((f) => f.evidence.map((r) => r.needSource.kind))).not.toContain('trend');
  });
});

describe('what is said to have changed', () => {
  const SHIN = { restriction: 'ankle-dorsiflexion-limit', side: 'left' } as const;
  it('was measured on that side in between; the day itself and the other side do not count', () => {
    const day = (date: string, side: 'left' | 'right') => ({
      date,
      results: [result('wblt-distance', side, 7)],
    });
    const between = (visits: ReturnType<typeof day>[]) =>
      measuredBetween(bundledReference, visits, SHIN, '2027-01-01', '2027-02-01');
    expect(between([day('2027-01-02', 'left')])).toBe(true);
    expect(between([day('2027-02-01', 'left')])).toBe(true);
    expect(between([day('2027-01-01', 'left'), day('2027-02-02', 'left')])).toBe(false);
    expect(between([day('2027-01-15', 'right')])).toBe(false);
    expect(between([{ date: '2027-01-15', results: [result('heel-raise-reps', 'left', 20)] }])).toBe(false);
  });
  it('counts as short only what is likely and was not set aside', () => {
    expect(isShort({ priority: 0.4, state: 'likely-short' })).toBe(true);
    expect(isShort({ priority: 0, state: 'short' })).toBe(false);
    expect(isShort({ priority: 0.4, state: 'within-error' })).toBe(false);
  });
});

describe('safety of what is shown', () => {
  const flag = (id: string, over: object = {}) => ({
    id,
    answer: true,
    region: null,
    side: null,
    clearance: null,
    ...over,
  });
  it('an emergency sign hides all findings until a named clinician lifts it', () => {
    const open = judge(stiffAnkle({ athlete: { redFlags: [flag('gen-chest')] } }));
    expect(open.findings).toEqual([]);
    expect(open.blocked).toEqual([expect.objectContaining({ region: 'all', level: 'E' })]);
    const clearance = { by: 'R. Halloran', date: '2027-02-28', scope: 'full training' };
    expect(
      judge(stiffAnkle({ athlete: { redFlags: [flag('gen-chest', { clearance })] } })).findings.length,
    ).toBeGreaterThan(0);
  });
  it('after an operation only ticked tests of that side are shown', () => {
    const injuries = [
      { region: 'ankle-foot' as const, side: 'left' as const, date: '2026-10-01', operated: true },
    ];
    const shown = (tests: string[]) =>
      judge(
        stiffAnkle({
          athlete: {
            injuries,
            protocols: [
              { region: 'ankle-foot', side: 'left', by: 'Dr V. Ness', date: '2026-10-05', drills: [], tests },
            ],
          },
        }),
      )
        .capacities.filter((c) => c.region === 'ankle-foot' && c.side === 'left')
        .map((c) => c.test);
    expect(shown([])).toEqual([]);
    expect(shown(['wblt-distance'])).toEqual(['wblt-distance']);
  });
});

describe('one muscle against its opposite', () => {
  const strengths = (adductor: number) =>
    judge(
      caseOf({
        screenings: [
          {
            date: TODAY,
            results: [
              result('hip-adduction-strength', 'left', adductor, adductor, adductor),
              result('hip-abduction-strength', 'left', 3, 3, 3),
            ],
          },
        ],
      }),
    );
  it('explains with its own error where it is clearly below its limit, and never ranks', () => {
    const report = strengths(1.5);
    const [row] = report.ratios;
    // SD of the ratio 0.5 by first order: 0.5 · √((0.18 / 1.5)² + (0.16 / 3)²).
    const sd = 0.5 * Math.sqrt((0.18 / 1.5) ** 2 + (0.16 / 3) ** 2);
    expect(row).toMatchObject({ id: 'adductor-abductor', side: 'left', state: 'below', limit: 0.8 });
    expect((row?.high95 ?? 0) - (row?.value ?? 0)).toBeCloseTo(1.96 * sd, 6);
    const evidence = report.findings.flatMap((f) => f.evidence).find((e) => e.needSource.kind === 'ratio');
    expect(evidence?.mdc95).toBeCloseTo(1.96 * Math.SQRT2 * sd, 6);
    expect(evidence?.margin).toBeCloseTo((0.5 - 0.8) / (1.96 * Math.SQRT2 * sd), 6);
    expect(evidence?.severity).toBe(0);
  });
  it.each([
    [2.2, 'within-error'],
    [2.43, 'enough'],
  ])('adductors of %f against 3 are %s', (adductor, state) => {
    expect(strengths(adductor).ratios[0]?.state).toBe(state);
  });
});

describe('the side a difference is judged on, under the school of the involved side', () => {
  const sides = (...injured: ('left' | 'right' | 'central')[]) =>
    judge(
      stiffAnkle({
        schools: { 'symmetry-denominator': 'involved-uninvolved' },
        athlete: {
          birthDate: '2012-05-02', // nothing but the other side speaks
          injuries: injured.map((side) => ({
            region: 'ankle-foot' as const,
            side,
            date: '2024-01-10',
            operated: false,
          })),
        },
        screenings: [
          {
            date: TODAY,
            results: [result('heel-raise-reps', 'left', 12), result('heel-raise-reps', 'right', 28)],
          },
        ],
      }),
    )
      .findings.flatMap((f) => f.evidence)
      .filter((e) => e.test === 'heel-raise-reps' && e.needSource.kind === 'symmetry').length;
  it('is the injured one alone; injured on both, in the middle or nowhere, the weaker one', () => {
    expect(sides('left')).toBeGreaterThan(0);
    expect(sides('right')).toBe(0);
    for (const injured of [[], ['left', 'right'], ['central']] as const)
      expect(sides(...injured)).toBe(sides('left'));
  });
});

describe('hints', () => {
  it('a central test only hints at a per-side restriction', () => {
    const input = caseOf({
      screenings: [
        { date: '2027-02-27', results: [{ test: 'overhead-squat-quality', side: 'central', grade: 0 }] },
      ],
    });
    const report = judge(input);
    expect(report.findings.some((f) => f.restriction === 'ankle-dorsiflexion-limit')).toBe(false);
    expect(report.hints).toContainEqual(
      expect.objectContaining({
        restriction: 'ankle-dorsiflexion-limit',
        because: 'central-test',
        severity: 0,
      }),
    );
  });
  it('a marked fault hints at what to measure next', () => {
    const input = caseOf({
      screenings: [
        {
          date: '2027-02-27',
          results: [
            { test: 'foot-intrinsic-hold', side: 'left', faults: [{ id: 'outer-edge', mark: 'slight' }] },
          ],
        },
      ],
    });
    expect(judge(input).hints).toContainEqual(
      expect.objectContaining({
        restriction: 'ankle-evertor-strength-deficit',
        side: 'left',
        fault: 'outer-edge',
        severity: 0,
      }),
    );
  });
  it.each([
    [TODAY, 1],
    ['2027-03-02', 0],
  ])('a visit of %s gives %i hints today', (date, count) => {
    const marked = {
      test: 'foot-intrinsic-hold',
      side: 'left' as const,
      faults: [{ id: 'outer-edge', mark: 'slight' as const }],
    };
    const hints = judge(caseOf({ screenings: [{ date, results: [marked] }] })).hints;
    expect(hints.filter((hint) => hint.because === 'fault')).toHaveLength(count);
  });
});

describe('properties over all tests', () => {
  const severities = (report: FindingsReport, side: string) =>
    new Map(report.findings.filter((f) => f.side === side).map((f) => [f.restriction, f.severity]));

  it('a worse result never lowers a severity of its side', () => {
    forAll(
      fc.property(arbitraryCase(false), fc.nat(), fc.integer({ min: 1, max: 8 }), (input, pick, steps) => {
        const results = input.screenings[0]?.results ?? [];
        const target = results[pick % results.length];
        const test = target && bundledReference.tests.get(target.test);
        if (!target?.trials || !test) return;
        const worse = test.better === 'lower' ? steps : -steps;
        const value = Math.min(
          test.plausible.max,
          Math.max(test.plausible.min, (target.trials[0] ?? 0) + worse),
        );
        const changed = {
          ...input,
          screenings: [
            {
              date: '2027-02-20',
              results: results.map((r) => (r === target ? { ...r, trials: [value] } : r)),
            },
          ],
        };
        const before = severities(judge(input), target.side);
        const after = severities(judge(changed), target.side);
        for (const [restriction, severity] of before) {
          expect(
            after.get(restriction) ?? 0,
            `${target.test} ${target.side} → ${restriction}`,
          ).toBeGreaterThanOrEqual(severity - 1e-9);
        }
      }),
      300,
    );
  });

  it('swapping the sides of the input swaps the output', () => {
    const flip = (side: string) => (side === 'left' ? 'right' : side === 'right' ? 'left' : side);
    const figures = (report: FindingsReport, turn: (side: string) => string) =>
      report.findings
        .map((f) =>
          [f.restriction, turn(f.side), f.severity, f.priority, f.margin, f.pShort, f.state].join('|'),
        )
        .sort();
    forAll(
      fc.property(arbitraryCase(false), (input) => {
        expect(figures(judge(mirrored(input)), flip)).toEqual(figures(judge(input), (side) => side));
      }),
      200,
    );
  });

  it('widening the error never makes a difference between sides or dates count', () => {
    forAll(
      fc.property(arbitraryCase(false), fc.integer({ min: 11, max: 40 }), (input, tenths) => {
        const wider = {
          ...input,
          overrides: {
            ...input.overrides,
            reference: bundledReference.data.tests.map((test) => ({
              test: test.id,
              path: 'sem' as const,
              value: (test.sem.value * tenths) / 10,
            })),
          },
        };
        const counting = (report: FindingsReport) =>
          report.asymmetries.filter((row) => row.state === 'counts').map((row) => row.test);
        expect(counting(judge(input))).toEqual(expect.arrayContaining(counting(judge(wider))));
      }),
      100,
    );
  });
});
