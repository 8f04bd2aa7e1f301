import { describe, expect, it } from 'vitest';
import { bundledReference } from '../reference/bundled.ts';
import { caseSchema, resultSchema } from '../schemas/index.ts';
import { ankleResults, caseOf, item, stiffAnkle, TODAY } from '../testing/cases.ts';
import { caseFaults, caseWarnings, jsonPath, renewedCase, resultFaults, schemaFaults } from './index.ts';

const faultsOf = (input: Parameters<typeof caseOf>[0]) =>
  caseFaults(bundledReference, caseOf(input)).map((f) => `${f.path}: ${f.message}`);
const screening = (...results: object[]) => ({
  screenings: [{ date: '2027-02-27', results: results as never }],
});

describe('a sound case', () => {
  it('has no faults', () => {
    expect(caseFaults(bundledReference, stiffAnkle())).toEqual([]);
  });
  it('is warned of fewer trials than the test asks for, nothing more', () => {
    const input = caseOf(screening({ test: 'wblt-distance', side: 'left', trials: [7, 7.2] }));
    expect(caseFaults(bundledReference, input)).toEqual([]);
    expect(caseWarnings(bundledReference, input)).toEqual([
      { path: '$.screenings[0].results[0].trials', message: '2 of 3 trials' },
    ]);
  });
});

describe('faults of results', () => {
  it('raw readings are kept up to their limit and not beyond', () => {
    const raw = (length: number) =>
      resultSchema.safeParse({
        test: 'wblt-distance',
        side: 'left',
        trials: [7],
        raw: { trace: 'x'.repeat(length - '{"trace":""}'.length) },
      }).success;
    expect([raw(20_000), raw(20_001)]).toEqual([true, false]);
  });

  it.each([
    [
      { test: 'wblt-distance', side: 'central', trials: [7] },
      '$.screenings[0].results[0].side: wblt-distance is per side: use left or right',
    ],
    [
      { test: 'front-plank-hold', side: 'left', trials: [60] },
      '$.screenings[0].results[0].side: front-plank-hold is central: use side "central"',
    ],
    [
      { test: 'wblt-distance', side: 'left', grade: 2 },
      '$.screenings[0].results[0].grade: wblt-distance is measured in cm; give trials',
    ],
    [{ test: 'wblt-distance', side: 'left' }, '$.screenings[0].results[0]: no value; give trials'],
    [{ test: 'step-down-quality', side: 'left' }, '$.screenings[0].results[0]: no value; give a grade'],
    [
      { test: 'step-down-quality', side: 'left', grade: 5 },
      '$.screenings[0].results[0].grade: 5 is outside 0 to 3 grade-0-3',
    ],
    [
      { test: 'step-down-quality', side: 'left', grade: 3, faults: [{ id: 'knee-in', mark: 'clear' }] },
      '$.screenings[0].results[0].grade: 3 does not follow from the marked faults; the rule gives 1',
    ],
    [
      { test: 'step-down-quality', side: 'left', faults: [{ id: 'moon-step', mark: 'clear' }] },
      '$.screenings[0].results[0].faults[0].id: unknown fault "moon-step" of step-down-quality',
    ],
    [
      {
        test: 'active-straight-leg-raise',
        side: 'left',
        grade: 0,
        faults: [{ id: 'rib-flare', mark: 'clear' }],
      },
      '$.screenings[0].results[0].grade: 0 is below 1, the least that the clear faults allow',
    ],
    [
      { test: 'moon-walk', side: 'left', trials: [1] },
      '$.screenings[0].results[0].test: unknown test "moon-walk"; use an id of the reference',
    ],
  ])('%o', (result, message) => {
    expect(faultsOf(screening(result))).toEqual([message]);
  });
  it('the same test, side and day twice', () => {
    const [first] = ankleResults();
    expect(faultsOf(screening(first ?? {}, first ?? {}))[0]).toMatch(
      /^\$\.screenings\[0\]\.results\[1\]: same test, side and day as \$\.screenings\[0\]\.results\[0\]/,
    );
  });
  it('of a single result start at the result itself', () => {
    expect(resultFaults(bundledReference, { test: 'wblt-distance', side: 'left', trials: [7, 99] })).toEqual([
      { path: '$.trials[1]', message: '99 cm is outside -5 to 25 cm' },
    ]);
  });
});

describe('faults against the calendar and the reference', () => {
  it.each([
    [
      { screenings: [{ date: '2027-03-02', results: [] }] },
      '$.screenings[0].date: 2027-03-02 is after today, 2027-03-01',
    ],
    [{ athlete: { birthDate: '2027-04-01' } }, '$.athlete.birthDate: 2027-04-01 is after today, 2027-03-01'],
    [
      { athlete: { injuries: [{ region: 'knee', side: 'left', date: '2027-06-01', operated: false }] } },
      '$.athlete.injuries[0].date: 2027-06-01 is after today, 2027-03-01',
    ],
    [
      {
        athlete: {
          precautions: [
            { id: 'no-impact', since: '2027-02-01', until: '2027-01-01', clearance: null, ended: null },
          ],
        },
      },
      '$.athlete.precautions[0].until: review date 2027-01-01 is before 2027-02-01',
    ],
    [
      { athlete: { placements: [{ ladder: 'calf-strength', side: 'left', drill: 'cat-camel' }] } },
      '$.athlete.placements[0].drill: "cat-camel" is not in ladder "calf-strength"',
    ],
    [
      { schools: { 'static-stretch-before': 'always' } },
      '$.schools.static-stretch-before: unknown option "always"; one of avoid, short-then-dynamic, last-step',
    ],
    [
      { overrides: { needs: [{ test: 'wblt-distance', side: 'left', value: 90 }], reference: [] } },
      '$.overrides.needs[0].value: 90 is outside -5 to 25 cm',
    ],
    [
      { overrides: { needs: [], reference: [{ test: 'wblt-distance', path: 'sem', value: 0 }] } },
      '$.overrides.reference[0].value: must be above 0',
    ],
    [
      { request: { structure: 'moon-phase' } },
      '$.request.structure: unknown structure "moon-phase"; use an id of the reference',
    ],
    [
      { request: { pins: ['moon-walk'] } },
      '$.request.pins[0]: unknown drill "moon-walk"; use an id of the reference',
    ],
    [
      {
        overrides: {
          reference: [{ test: 'wblt-distance', path: 'demand', task: 'double-poling', value: 11 }],
        },
      },
      '$.overrides.reference[0].task: no task "double-poling" asks for wblt-distance',
    ],
    [
      { overrides: { reference: [{ test: 'wblt-distance', path: 'deficitBelow', value: 300 }] } },
      '$.overrides.reference[0].value: 300 is outside -5 to 25 cm',
    ],
    [
      { overrides: { tasks: [{ id: 'own', name: 'Own', demands: [{ test: 'wblt-distance', value: 90 }] }] } },
      '$.overrides.tasks[0].demands[0].value: 90 is outside -5 to 25 cm',
    ],
    [
      {
        judgements: [
          {
            restriction: 'ankle-dorsiflexion-limit',
            side: 'left',
            verdict: 'dismissed',
            by: 'R. Halloran',
            date: '2027-02-01',
          },
        ],
      },
      '$.judgements[0].reason: a finding is set aside with a reason',
    ],
  ])('%o', (input, message) => {
    expect(faultsOf(input as never)).toEqual([message]);
  });
  it('unknown kit lists what there is', () => {
    expect(faultsOf({ request: { kit: ['trampoline'] } as never })[0]).toMatch(
      /unknown kit "trampoline"; one of .*wall/,
    );
  });
  it('set-up values must be steps of the drill, amounts in its measure', () => {
    const items = [
      item('knee-to-wall-rock', { measure: 'seconds', setup: { 'foot-wall-distance': 7, colour: 'teal' } }),
    ];
    expect(faultsOf({ routine: { issued: '2027-02-01', mode: 'prepare', items } })).toEqual([
      '$.routine.items[0].measure: knee-to-wall-rock is dosed in reps',
      '$.routine.items[0].setup.foot-wall-distance: "7" is not one of 2, 4, 6, 8, 10, 12, 14',
      '$.routine.items[0].setup.colour: unknown set-up variable of knee-to-wall-rock',
    ]);
  });
});

describe('faults of shape', () => {
  it('name unknown keys at their own path', () => {
    const parsed = caseSchema.safeParse({
      format: 'yonder-ridge-case/1',
      today: '2027-03-01',
      athlete: { birthDate: '2000-01-01', shoe: 42 },
    });
    expect(parsed.success ? [] : schemaFaults(parsed.error.issues)).toEqual([
      { path: '$.athlete.shoe', message: 'unknown key; remove it' },
    ]);
  });
  it('paths read like JSONPath', () => {
    expect(jsonPath(['screenings', 0, 'results', 12, 'side'])).toBe('$.screenings[0].results[12].side');
    expect(jsonPath([])).toBe('$');
  });
  it('only format, today and the birth date are required', () => {
    const least = caseSchema.parse({
      format: 'yonder-ridge-case/1',
      today: '2027-03-01',
      athlete: { birthDate: '2000-01-01' },
    });
    expect(least).toMatchObject({
      screenings: [],
      routine: null,
      request: { mode: 'prepare', kit: [] },
      schools: {},
    });
  });
});

describe('faults of a dose', () => {
  const routine = (...items: ReturnType<typeof item>[]) => ({
    routine: { issued: '2027-02-01', mode: 'build' as const, items },
  });
  const a = { id: 'a', rounds: 2 };
  it.each([
    [
      'a torn circuit',
      [item('cat-camel', { circuit: a }), item('dead-bug'), item('glute-bridge', { circuit: a })],
      '$.routine.items[2].circuit: items of circuit "a" must follow one another',
    ],
    [
      'rounds that differ',
      [item('cat-camel', { circuit: a }), item('dead-bug', { circuit: { id: 'a', rounds: 3 } })],
      '$.routine.items[1].circuit: differs from what the item before says of the same circuit',
    ],
    [
      'breaths of a timed hold',
      [item('forearm-plank', { measure: 'hold-seconds', holdBreaths: 4 })],
      '$.routine.items[0].holdBreaths: breaths are counted per repetition; this drill is not dosed in repetitions',
    ],
    [
      'a tempo in words',
      [item('cat-camel', { tempo: 'slow' })],
      '$.routine.items[0].tempo: "slow" is not a tempo; write seconds such as 3-1-1',
    ],
  ])('%s', (_what, items, fault) => {
    expect(faultsOf(routine(...items))).toEqual([fault]);
  });
  it('none for a sound circuit with breaths, both ways round', () => {
    const first = item('short-foot-seated', { circuit: a, holdBreaths: 3, bothWays: true, tempo: '3-1-1' });
    expect(faultsOf(routine(first, item('cat-camel', { circuit: a })))).toEqual([]);
  });
});

describe('faults of a request', () => {
  it.each([
    [{ pattern: 'somersault' }, '$.request.pattern'],
    [{ prefer: ['moon-walk'] }, '$.request.prefer[0]'],
    [{ pins: ['moon-walk'] }, '$.request.pins[0]'],
    [{ kit: ['moon-boots'] }, '$.request.kit[0]'],
    [{ excludePositions: ['floating'] }, '$.request.excludePositions[0]'],
    [{ structure: 'marathon' }, '$.request.structure'],
  ])('%o', (request, path) => {
    const faults = caseFaults(bundledReference, caseOf({ request: request as never }));
    expect(faults.map((f) => f.path)).toEqual([path]);
  });
});

describe('a case in ids of before', () => {
  it('is mapped to those of today, and says so', () => {
    const old = caseOf({
      athlete: {
        placements: [
          {
            ladder: 'raise-lane',
            drill: 'high-knee-skip',
            side: 'both',
            verdict: 'fine',
            by: null,
            date: null,
          },
        ],
      },
      routine: {
        issued: TODAY,
        mode: 'restore',
        items: [item('toe-on-wall-stretch', { measure: 'hold-seconds', setup: { 'foot-wall-distance': 6 } })],
      },
    });
    expect(caseFaults(bundledReference, old).length).toBeGreaterThan(0);
    const { input, mapped } = renewedCase(bundledReference, old);
    expect(caseFaults(bundledReference, input)).toEqual([]);
    expect(input.athlete.placements[0]?.ladder).toBe('raise-skip');
    expect(mapped.map(({ path }) => path)).toEqual([
      '$.athlete.placements[0].ladder',
      expect.stringMatching(/setup.*foot-wall-distance/),
    ]);
    expect(renewedCase(bundledReference, input).mapped).toEqual([]);
  });
});
