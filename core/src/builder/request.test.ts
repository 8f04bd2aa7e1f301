import { describe, expect, it } from 'vitest';
import type { Case } from '../domain/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { kitWordsOf, patternTag } from '../reference/index.ts';
import { caseOf, entry, result, stiffAnkle, placement } from '../testing/cases.ts';
import { buildCase, drillOf, preparedOf } from '../testing/prepared.ts';
import { testSolver } from '../testing/solver.ts';
import { refitChanges, swapsFor, variantRequest } from './index.ts';
import type { BuildReport } from './index.ts';
import { eachOf } from '../testing/eachOf.ts';

const solver = await testSolver();
const build = (input: Case): BuildReport => buildCase(bundledReference, input, solver);
const withRequest = (input: Case, request: Partial<Case['request']>): Case => ({
  ...input,
  request: { ...input.request, ...request },
});
const drillsOf = (report: BuildReport) => report.routine?.items.map((item) => item.drill) ?? [];

describe('the action of the day', () => {
  const fellRunner = stiffAnkle({
    request: {
      minutes: 14,
      structure: 'six-step-ramp',
      maxDrills: 10,
      kit: ['wall', 'long-band'],
    } as Case['request'],
  });
  it.each(['squat', 'overhead', 'run', 'paddle'])(
    'the ramp builds towards a %s: its last steps rehearse it',
    (pattern) => {
      const report = build(withRequest(fellRunner, { pattern }));
      const late =
        report.routine?.items.filter((item) => item.phase === 'pattern' || item.phase === 'primer') ?? [];
      const tags = late.map((item) => patternTag(bundledReference, drillOf(item.drill), pattern));
      expect(Math.max(...tags)).toBeGreaterThanOrEqual(0.6);
      expect(report.routine?.items.flatMap((item) => item.reasons.map((r) => r.rule))).toContain('rehearses');
    },
  );
  it('its demands decide which reserves matter: 11 cm of ankle range are enough for a hand support, not for a deep squat', () => {
    const input = caseOf({
      screenings: [
        {
          date: '2027-02-27',
          results: [result('wblt-angle', 'left', 36), result('wblt-angle', 'right', 36)],
        },
      ],
      request: { kit: ['wall'], structure: 'six-step-ramp', minutes: 15 } as unknown as Case['request'],
    });
    const weight = (pattern: string) =>
      preparedOf(withRequest(input, { pattern })).weights.find(
        (w) => w.restriction === 'ankle-dorsiflexion-limit',
      )?.weight ?? 0;
    expect(weight('squat')).toBeGreaterThan(0.5);
    expect(weight('push')).toBeLessThan(weight('squat') * 0.7);
  });
  it('a serious restriction stays wanted even when today’s action does not ask for it', () => {
    const report = build(withRequest(fellRunner, { pattern: 'push' }));
    expect(report.routine?.items.flatMap((i) => i.serves.map((s) => s.restriction))).toContain(
      'ankle-dorsiflexion-limit',
    );
  });
  it('never mobilises a range that has reserve for what follows', () => {
    const enough = caseOf({
      screenings: [
        {
          date: '2027-02-27',
          results: [result('wblt-angle', 'left', 48), result('wblt-angle', 'right', 48)],
        },
      ],
      request: {
        kit: ['wall'],
        minutes: 15,
        structure: 'six-step-ramp',
        pattern: 'squat',
      } as unknown as Case['request'],
    });
    for (const id of eachOf(drillsOf(build(enough)))) {
      const drill = drillOf(id);
      const forRange = drill.serves.some(
        (s) => s.restriction === 'ankle-dorsiflexion-limit' && s.match >= 0.4,
      );
      expect(drill.category === 'mobilise' && forRange).toBe(false);
    }
  });
});

describe('without any screening', () => {
  it('is general and names the three tests that would sharpen it most, asked for by the tasks', () => {
    const report = build(
      caseOf({
        athlete: { tasks: [{ id: 'kayak-high-brace', lead: 'either' }] },
        request: { minutes: 10 } as Case['request'],
      }),
    );
    expect(report.general).toBe(true);
    expect(report.sharpen).toHaveLength(3);
    const asked = bundledReference.demands.get('kayak-high-brace')?.demands.map((d) => d.test) ?? [];
    for (const { test } of eachOf(report.sharpen)) expect(asked).toContain(test);
    expect(build(stiffAnkle()).sharpen).toEqual([]);
  });
});

describe('a busy week', () => {
  const busy = (over: Partial<Case> = {}): Case =>
    stiffAnkle({
      ...over,
      athlete: {
        loadLimits: [{ region: 'ankle-foot', perWeek: 10 }],
        placements: [placement('calf-strength', 'single-leg-heel-raise-step')],
      },
      diary: [{ date: '2027-02-28', entries: [entry('single-leg-heel-raise', { amounts: [60, 60] })] }],
      request: { mode: 'build', minutes: 20, kit: ['wall', 'step'] } as unknown as Case['request'],
    });
  const conditioning = (report: BuildReport) =>
    drillsOf(report)
      .map(drillOf)
      .filter(
        (d) =>
          d.category === 'strengthen' &&
          d.intensityClass !== 'low' &&
          d.loadRegions.some((l) => l.region === 'ankle-foot'),
      );
  it('holds extra conditioning of the region back near the limit, and says so', () => {
    const report = build(busy());
    expect(conditioning(report)).toEqual([]);
    expect(report.warnings).toContainEqual(
      expect.objectContaining({ rule: 'load-near-limit', region: 'ankle-foot', limit: 10, held: true }),
    );
  });
  it('keeps it where the school says so, still showing the count', () => {
    const report = build(busy({ schools: { 'conditioning-near-limit': 'keep' } }));
    expect(conditioning(report).length).toBeGreaterThan(0);
    expect(report.warnings).toContainEqual(expect.objectContaining({ rule: 'load-near-limit', held: false }));
  });
});

describe('uneven sides', () => {
  it('both short, the left more, no room for a set more on both: the left gets it', () => {
    const input = caseOf({
      athlete: { tasks: [{ id: 'fell-running-descent', lead: 'either' }] },
      screenings: [
        {
          date: '2027-02-27',
          results: [result('wblt-distance', 'left', 5.5), result('wblt-distance', 'right', 8)],
        },
      ],
      request: {
        mode: 'build',
        minutes: 2.5,
        maxDrills: 1,
        kit: ['wall'],
        pins: ['knee-to-wall-rock'],
      } as unknown as Case['request'],
    });
    const uneven = build(input).routine?.items.filter((item) => item.perSide) ?? [];
    expect(uneven.length).toBeGreaterThan(0);
    for (const { perSide, reasons } of eachOf(uneven)) {
      expect((perSide?.left.sets ?? 0) - (perSide?.right.sets ?? 0)).toBe(1);
      expect(reasons).toContainEqual({ rule: 'extra-set', side: 'left' });
    }
  });
  it('someone new to training gets no more sets than the lower half', () => {
    const sets = (trainingYears: number) =>
      Math.max(
        ...(build(
          stiffAnkle({
            athlete: { trainingYears },
            request: {
              mode: 'build',
              minutes: 25,
              kit: ['wall', 'step', 'long-band'],
            } as unknown as Case['request'],
          }),
        ).routine?.items.map((i) => i.sets) ?? [0]),
      );
    expect(sets(0.5)).toBeLessThanOrEqual(3);
    expect(sets(0.5)).toBeLessThanOrEqual(sets(6));
  });
});

describe('what is not covered', () => {
  it('says what would be needed: the nearest drill and the rule that keeps it out', () => {
    const noRoom = stiffAnkle({
      request: {
        kit: [],
        excludePositions: ['standing', 'half-kneeling', 'seated', 'quadruped', 'single-leg-standing'],
      } as unknown as Case['request'],
    });
    const missed = build(noRoom).unserved.find((u) => u.restriction === 'ankle-dorsiflexion-limit');
    expect(missed?.because).toMatchObject({ rule: 'no-drill-allowed' });
    const why = missed?.because;
    if (why?.rule !== 'no-drill-allowed') throw new Error('no drill is named');
    expect(['kit', 'position']).toContain(why.because);
    expect(bundledReference.drills.get(why.drill)?.serves.map((s) => s.restriction)).toContain(
      'ankle-dorsiflexion-limit',
    );
  });
});

describe('versions derived by one press', () => {
  const input = stiffAnkle({
    request: { minutes: 15, maxDrills: 9, kit: ['wall', 'long-band', 'step'] } as unknown as Case['request'],
  });
  const full = build(input);
  const derive = (variant: Parameters<typeof variantRequest>[1]) =>
    build({ ...input, request: variantRequest(input.request, variant, drillsOf(full)) });
  it('short: at most five minutes, solved anew, still for the worst shortfall', () => {
    const short = derive('short');
    expect(short.routine?.totalSeconds).toBeLessThanOrEqual(300);
    expect(short.routine?.items.flatMap((i) => i.serves.map((s) => s.restriction))).toContain(
      'ankle-dorsiflexion-limit',
    );
    expect(drillsOf(short).some((id) => drillsOf(full).includes(id))).toBe(true);
  });
  it('rapid ready: three minutes, upright, no kit', () => {
    const rapid = derive('rapid-ready').routine;
    expect(rapid?.totalSeconds).toBeLessThanOrEqual(180);
    for (const { drill } of eachOf(rapid?.items ?? [])) {
      expect(kitWordsOf(drillOf(drill))).toEqual([]);
      expect(['standing', 'single-leg-standing', 'moving', 'hanging']).toContain(drillOf(drill).position);
    }
  });
  it('no kit, and nothing lying', () => {
    expect(drillsOf(derive('no-kit')).flatMap((id) => kitWordsOf(drillOf(id)))).toEqual([]);
    for (const id of eachOf(drillsOf(derive('no-lying'))))
      expect(['supine', 'prone', 'side-lying']).not.toContain(drillOf(id).position);
  });
});

describe('a template', () => {
  it('is fitted to kit and precautions: what fits is kept, the rest is left out with its rule', () => {
    const from = ['knee-to-wall-rock', 'band-ankle-four-way', 'drop-rebound-jump'].map((drill) => ({
      drill,
    }));
    const input = stiffAnkle({
      athlete: { precautions: [{ id: 'no-impact', until: null, clearance: null, ended: null }] },
      request: {
        minutes: 12,
        kit: ['wall', 'box'],
        prefer: from.map((f) => f.drill),
      } as unknown as Case['request'],
    });
    const report = build(input);
    const changes = refitChanges(preparedOf(input), from, report);
    const of = (drill: string) => changes.find((c) => c.drill === drill);
    expect(of('knee-to-wall-rock')?.what).toMatch(/kept|level/);
    expect(of('band-ankle-four-way')).toMatchObject({
      what: 'left-out',
      why: { because: 'kit', about: 'long-band' },
    });
    expect(of('drop-rebound-jump')).toMatchObject({
      what: 'left-out',
      why: { because: 'precaution-exclude', about: 'no-impact' },
    });
    expect(changes.filter((c) => c.what === 'added').length).toBeGreaterThan(0);
  });
});

describe('swaps for a reason', () => {
  const input = stiffAnkle({
    request: {
      mode: 'build',
      minutes: 20,
      kit: ['wall', 'step', 'long-band', 'mini-band'],
    } as unknown as Case['request'],
  });
  const items = build(input).routine?.items ?? [];
  const worked = preparedOf(input).weights.filter(({ from }) => from === 'finding');
  const index = items.findIndex(
    ({ drill, serves }) =>
      kitWordsOf(drillOf(drill)).length > 0 &&
      serves.some((s) => worked.some((one) => one.restriction === s.restriction)),
  );
  const old = drillOf(items[index]?.drill ?? '');
  const swaps = (reason: Parameters<typeof swapsFor>[3]) => swapsFor(preparedOf(input), items, index, reason);
  it('without its kit, out of its position, or from another ladder', () => {
    expect(swaps('no-kit').length).toBeGreaterThan(0);
    for (const swap of eachOf(swaps('no-kit')))
      expect(kitWordsOf(drillOf(swap.drill)).some((kit) => kitWordsOf(old).includes(kit))).toBe(false);
    for (const swap of eachOf(swaps('position'))) expect(drillOf(swap.drill).position).not.toBe(old.position);
    for (const swap of eachOf(swaps('dislikes'))) expect(drillOf(swap.drill).ladder).not.toBe(old.ladder);
  });
  it('when it hurts: never faster, never more loaded, ranked by how much of the job stays', () => {
    const found = swaps('hurts');
    expect(found.length).toBeGreaterThan(0);
    for (const swap of eachOf(found)) {
      expect(drillOf(swap.drill).contraction).not.toBe('ballistic');
      expect(swap.demandChange).toBeLessThanOrEqual(0);
    }
    expect(found.map((s) => s.keeps)).toEqual(found.map((s) => s.keeps).sort((a, b) => b - a));
  });
  it('says what is lost: the share of each weighted restriction that the new drill serves less', () => {
    const all = swaps(null).flatMap(({ drill, lost }) => lost.map((one) => ({ drill, ...one })));
    for (const { drill, restriction, share } of eachOf(all)) {
      const match = (id: string) => drillOf(id).serves.find((s) => s.restriction === restriction)?.match ?? 0;
      const was = match(old.id);
      const is = match(drill) >= 0.4 ? match(drill) : 0;
      expect(share).toBeCloseTo(1 - is / was, 6);
    }
  });
});
