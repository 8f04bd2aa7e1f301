import { describe, expect, it } from 'vitest';
import { bundledReference } from '../reference/bundled.ts';
import { caseOf, item as line } from '../testing/cases.ts';
import { eachOf } from '../testing/eachOf.ts';
import { buildCase, drillOf, preparedOf } from '../testing/prepared.ts';
import { testSolver } from '../testing/solver.ts';
import { FIT, fitOf } from '../readiness/index.ts';
import { elementsAsked, softRuleOf } from './index.ts';

const solver = await testSolver();
const walkIn = (pattern: string | null, minutes: number, over: object = {}) =>
  caseOf({
    athlete: { trainingYears: 4 },
    request: { mode: 'prepare', minutes, pattern, kit: ['wall', 'mat', 'mini-band', 'long-band'] } as never,
    ...over,
  });

describe('a session of its own, and an end', () => {
  const enough = ['left', 'right'].flatMap((side) => [
    { test: 'wblt-distance', side, trials: [13] },
    { test: 'heel-raise-reps', side, trials: [32] },
  ]);
  const screened = { screenings: [{ date: '2027-02-25', results: enough }] };
  const tasks = [{ id: 'uphill-running' }];
  const session = (mode: string, minutes: number, over: object) => {
    const request = { mode, minutes, kit: ['wall', 'mat', 'step', 'long-band'] };
    const input = caseOf({ athlete: { trainingYears: 4, tasks }, request, ...over } as never);
    const { routine, unserved } = buildCase(bundledReference, input, solver);
    const seconds = (category: string) =>
      (routine?.items ?? [])
        .filter(({ drill }) => drillOf(drill).category === category)
        .reduce((sum, one) => sum + one.seconds, 0);
    return { routine, unserved, seconds };
  };
  it.each([
    ['never screened', {}],
    ['with enough of everything', screened],
    ['without a sport', { athlete: { trainingYears: 4 } }],
  ])('after activity comes down, calms and lets go for somebody %s', (_, over) => {
    const { routine, seconds } = session('restore', 15, over);
    const ladders = (routine?.items ?? []).map(({ drill }) => drillOf(drill).ladder);
    expect(ladders[0]).toMatch(/^cool-down-/);
    expect(ladders).toContain('calming-reset');
    expect(seconds('stretch')).toBeGreaterThan(200);
    expect(routine?.totalSeconds).toBeGreaterThanOrEqual(0.85 * 900);
  });
  it('what is short has its end to itself: what was measured and is enough is not stretched', () => {
    const short = { test: 'hip-extension-range', side: 'left', trials: [-2] };
    const { routine } = session('restore', 12, {
      screenings: [{ date: '2027-02-25', results: [...enough, short] }],
    });
    const drills = (routine?.items ?? []).map(({ drill }) => drill);
    expect(drills).toContain('half-kneeling-hip-flexor-stretch');
    expect(drills).not.toContain('wall-calf-stretch-bent');
  });
  it.each([
    ['never screened', {}],
    ['with enough of everything', screened],
    ['without a sport', { athlete: { trainingYears: 4 } }],
    [
      'whose shoulder is named',
      { request: { mode: 'build', minutes: 25, kit: ['long-band'], focus: ['shoulder'] } },
    ],
  ])('of its own trains strength and warms for somebody %s', (_, over) => {
    const { routine, seconds } = session('build', 25, over);
    expect(seconds('strengthen')).toBeGreaterThan(300);
    expect(seconds('raise')).toBeGreaterThanOrEqual(90);
    expect(routine?.totalSeconds).toBeGreaterThanOrEqual(0.85 * 1500);
  });
});

describe('what follows', () => {
  it.each([
    ['run', 5],
    ['run', 12],
    ['kick', 8],
    ['push', 12],
    ['throw', 12],
    ['squat', 8],
    ['climb', 12],
    [null, 5],
    [null, 12],
  ] as const)(
    'of somebody never screened is mostly answered: %s, %d min, warming and rehearsing always',
    (pattern, minutes) => {
      const input = walkIn(pattern, minutes);
      const items = buildCase(bundledReference, input, solver).routine?.items ?? [];
      const asked = elementsAsked(preparedOf(input), items);
      expect(asked.length).toBeGreaterThan(2);
      const answered = asked.filter(({ by }) => by.length > 0);
      expect(answered.length / asked.length).toBeGreaterThanOrEqual(0.5);
      const parts = answered.map(({ element }) => bundledReference.elements.get(element)?.part);
      expect(parts).toEqual(expect.arrayContaining(['warm', 'rehearse']));
      for (const one of eachOf(asked)) expect(one.because === null, one.element).toBe(one.by.length > 0);
    },
  );
  it('is answered by place, wholly or in part, and where nothing does the reason is the rule that bound', () => {
    const prepared = preparedOf(walkIn('run', 12));
    const of = (drills: string[], element: string, phase?: string) =>
      elementsAsked(
        prepared,
        drills.map((drill) => line(drill, { phase: phase ?? 'specific-prehab', sets: 1, amount: 1 })),
      ).find((one) => one.element === element);
    const calf = drillOf('double-leg-heel-raise').id;
    expect(of(['cat-camel', calf], 'run-calf-foot')).toMatchObject({ by: [1], inPart: false, because: null });
    expect(of(['short-foot-seated'], 'run-calf-foot')).toMatchObject({ by: [0], inPart: true });
    // Nothing says "no room" of an empty draft; a full one says what it is full of.
    expect(of([], 'run-calf-foot')).toMatchObject({ by: [], because: { rule: 'room-left' } });
    const calves = prepared.rules.elements.find(({ element }) => element.id === 'run-calf-foot')?.element;
    const others = (phase?: string) => [
      ...new Map(
        prepared.problem.options
          .filter(({ item, drill }) =>
            !calves || fitOf(calves, drillOf(drill)) === 0 ? !phase || item.phase === phase : false,
          )
          .map(({ ladder, drill }) => [ladder, drill]),
      ).values(),
    ];
    expect(
      of(others('specific-prehab').slice(0, 4), 'run-calf-foot', 'specific-prehab')?.because,
    ).toMatchObject({
      rule: 'no-room',
      bound: 'phase',
    });
    expect(of(others().slice(0, 9), 'run-calf-foot')?.because).toMatchObject({
      rule: 'no-room',
      bound: 'drills',
      maxDrills: 9,
    });
    // Four drills of three minutes are all the time there is, whatever part they stand in.
    const long = others()
      .slice(0, 4)
      .map((drill) => line(drill, { sets: 3, amount: 60, measure: 'seconds', restSeconds: 0 }));
    const full = elementsAsked(prepared, long).find((one) => one.element === 'run-calf-foot');
    expect(full?.because).toMatchObject({ rule: 'no-room', bound: 'time', minutes: 12 });
    // On no lane, and with nothing in hand.
    const bare = walkIn('run', 12, { request: { mode: 'prepare', minutes: 12, pattern: 'run', kit: [] } });
    const held = elementsAsked(preparedOf(bare), []);
    for (const { because } of eachOf(held))
      expect(['room-left', 'no-drill-allowed']).toContain(because?.rule);
  });
  it('of a child holds games of feet and none of what gives way to them; an adult and a pin may have it', () => {
    const born = (birthYear: number) =>
      walkIn('land', 12, { athlete: { birthDate: `${birthYear}-03-01`, trainingYears: 4 } });
    const gone = new Set(bundledReference.data.readiness.youth.exclude);
    const plank = drillOf('forearm-plank');
    const [child, adult] = [preparedOf(born(2016)), preparedOf(born(2000))];
    expect(child.options.options.filter(({ drill }) => gone.has(drill))).toEqual([]);
    expect(child.options.ineligible.get(plank.id)?.rule).toBe('games-instead');
    expect(softRuleOf(adult, plank)).toBeNull();
    const items = buildCase(bundledReference, born(2016), solver).routine?.items ?? [];
    // Games raise, or steer and land: at least half of the time.
    const feet = child.rules.elements.map(({ element }) => element);
    const plays = ({ drill }: { drill: string }) =>
      drillOf(drill).category === 'raise' ||
      feet.some((e) => ['steer', 'absorb'].includes(e.part) && fitOf(e, drillOf(drill)) >= FIT.good);
    const seconds = (of: typeof items) => of.reduce((sum, one) => sum + one.seconds, 0);
    expect(seconds(items.filter(plays))).toBeGreaterThanOrEqual(seconds(items) / 2);
    const pinned = born(2016);
    const named = preparedOf({ ...pinned, request: { ...pinned.request, pins: [plank.id] } });
    expect(named.options.options.some(({ drill }) => drill === plank.id)).toBe(true);
  });
  it('stands beside what was found: every finding has its drill, and most of what is asked for as well', () => {
    const short = walkIn('run', 12, {
      screenings: [{ date: '2027-02-25', results: [{ test: 'wblt-angle', side: 'left', trials: [28] }] }],
    });
    const seen = walkIn('run', 12, {
      judgements: [
        {
          restriction: 'hip-extension-limit',
          side: 'left',
          verdict: 'seen',
          degree: 'clear',
          by: 'R. Halloran',
          date: '2027-02-27',
        },
      ],
    });
    for (const [input, restriction] of [
      [short, 'ankle-dorsiflexion-limit'],
      [seen, 'hip-extension-limit'],
    ] as const) {
      const items = buildCase(bundledReference, input, solver).routine?.items ?? [];
      expect(items.flatMap(({ serves }) => serves)).toContainEqual(
        expect.objectContaining({ restriction, side: 'left' }),
      );
      const asked = elementsAsked(preparedOf(input), items);
      expect(asked.filter(({ by }) => by.length > 0).length / asked.length).toBeGreaterThan(0.6);
    }
  });
  it('of a joint that hurts above the limit is nothing, on the other side neither', () => {
    const pains = [
      { region: 'shoulder', side: 'right', aspect: 'front', feel: 'sharp', when: 'movement', nrs: 7 },
    ].map((one) => ({ ...one, since: '2027-02-20' }));
    const injuries = [{ region: 'shoulder', side: 'right', date: '2025-11-01' }];
    for (const mode of ['prepare', 'build', 'restore']) {
      const request = { mode, minutes: 12, pattern: mode === 'prepare' ? 'run' : null, kit: ['long-band'] };
      const asked = (hurting: object) =>
        preparedOf(walkIn('run', 12, { athlete: { trainingYears: 4, injuries, ...hurting }, request }))
          .rules.elements.filter(({ of }) => of === 'joint')
          .flatMap(({ element }) => element.regions);
      expect(asked({}), mode).toContain('shoulder');
      expect(asked({ pains }), mode).not.toContain('shoulder');
    }
  });
  it('is not pushed out by an old injury, which is looked after beside it', () => {
    const parts = (region: string, minutes: number) => {
      const injuries = [{ region, side: 'left', date: '2025-09-10' }];
      const input = walkIn('kick', minutes, { athlete: { trainingYears: 4, injuries } });
      const items = buildCase(bundledReference, input, solver).routine?.items ?? [];
      return elementsAsked(preparedOf(input), items).flatMap(({ element, of, by }) =>
        by.length > 0 ? [of === 'joint' ? 'joint' : bundledReference.elements.get(element)?.part] : [],
      );
    };
    for (const region of ['shoulder', 'elbow', 'ankle-foot', 'knee'])
      for (const minutes of [8, 15])
        expect(parts(region, minutes), `${region}, ${minutes} min`).toEqual(
          expect.arrayContaining(['warm', 'rehearse', 'joint']),
        );
  });
});
