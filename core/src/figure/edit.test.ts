import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bundledFigures, figureOf } from './bundled.ts';
import {
  bodyAt,
  bodyOf,
  cameraOf,
  drawFigure,
  drawnTo,
  handlesOf,
  heldSites,
  joined,
  jointsOf,
  mirroredFigure,
  pictureFaults,
  poseAt,
  pulled,
  reached,
  solvedFigureSchema,
  standingFigure,
  withNumbers,
} from './index.ts';
import type { Kit, SolvedFigure } from './index.ts';
import { NUMBERS, RANGE } from './skeleton.ts';
import { less, size } from './vector.ts';
import type { Vec } from './vector.ts';
import { forAll } from '../testing/forAll.ts';
import { eachOf } from '../testing/eachOf.ts';

const standing = standingFigure();
const pose = standing.poses[0] ?? [];
const ids = Object.keys(bundledFigures.drills);
const anyFigure = fc.constantFrom(...ids).map((id) => figureOf(id) as SolvedFigure);
const apart = (a: Vec | undefined, b: Vec | undefined) => size(less(a ?? [99, 0, 0], b ?? [0, 99, 0]));
const number = (name: string) => NUMBERS.indexOf(name);

describe('a figure turned round', () => {
  it('has every place where the other side had it, and is itself again when turned twice', () => {
    forAll(
      fc.property(anyFigure, (figure) => {
        const other = mirroredFigure(figure);
        figure.poses.forEach((one, key) => {
          const [here, there] = [bodyAt(figure, one).sites, bodyAt(other, other.poses[key] ?? []).sites];
          for (const [name, { at }] of Object.entries(here)) {
            const twin = name.replace(/[LR]$/, (s) => (s === 'L' ? 'R' : 'L'));
            expect(apart(there[twin]?.at, [at[0], at[1], -at[2]]), name).toBeLessThan(0.01);
          }
        });
        expect(mirroredFigure(other)).toEqual(figure);
      }),
      40,
    );
  });
});

describe('a hand or foot seen close, drawn by hand', () => {
  const closeUps = ids.map((id) => figureOf(id) as SolvedFigure).filter(({ rig }) => rig !== 'body');
  const drawn = fc.constantFrom(...closeUps).chain((figure) =>
    fc.record({
      figure: fc.constant(figure),
      handle: fc.constantFrom(...handlesOf(figure)),
      by: fc.tuple(fc.integer({ min: -6, max: 6 }), fc.integer({ min: -6, max: 6 })),
    }),
  );
  it('comes nearer to where it is drawn, or stays, within its ranges and without the other side', () => {
    forAll(
      fc.property(drawn, ({ figure, handle: { site }, by }) => {
        const from = figure.poses[figure.shown] ?? [];
        const start = bodyAt(figure, from).sites[site]?.at as Vec;
        const to = drawnTo(figure, start, ...by);
        const next = reached(figure, from, site, to);
        expect(apart(bodyAt(figure, next).sites[site]?.at, to)).toBeLessThanOrEqual(apart(start, to) + 0.25);
        expect(pictureFaults(joined({ ...figure, poses: [next], shown: 0 }))).toEqual([]);
        const other = from.map((_, i) => i).filter((i) => i < from.length / 2 === site.endsWith('R'));
        for (const i of other) expect(next[i]).toBe(from[i]);
      }),
      200,
    );
  });
  it('goes where a finger, a toe or the whole hand can go', () => {
    const hand = closeUps.find(({ rig }) => rig === 'hands') as SolvedFigure;
    const foot = closeUps.find(({ rig }) => rig === 'feet') as SolvedFigure;
    for (const [figure, stem, by] of [
      [hand, 'wrist', [4, -3]],
      [foot, 'ankle', [-3, 2]],
    ] as const) {
      const site = `${stem}${figure.sides[0]}`;
      const to = drawnTo(figure, bodyAt(figure, figure.poses[0] ?? []).sites[site]?.at as Vec, by[0], by[1]);
      const next = reached(figure, figure.poses[0] ?? [], site, to);
      expect(apart(bodyAt(figure, next).sites[site]?.at, to)).toBeLessThan(0.2);
    }
    const toe = `toe1${foot.sides[0]}`;
    const low = bodyAt(foot, foot.poses[0] ?? []).sites[toe]?.at as Vec;
    const raised = bodyAt(foot, reached(foot, foot.poses[0] ?? [], toe, [low[0], low[1] + 3, low[2]])).sites;
    expect((raised[toe]?.at[1] ?? 0) - low[1]).toBeGreaterThan(1);
  });
  it('is taken hold of only by places that it has, each of one of its joints', () => {
    for (const figure of [...closeUps.slice(0, 6), standing])
      for (const { site, joint, name } of eachOf(handlesOf(figure))) {
        expect(bodyAt(figure, figure.poses[0] ?? []).sites[site], site).toBeDefined();
        expect(jointsOf(figure).some((one) => one.site === joint)).toBe(true);
        expect(name).not.toBe('');
      }
  });
});

describe('a joint drawn by hand', () => {
  it('comes to where it is drawn while the feet stand where they stood', () => {
    const before = bodyOf(pose).sites;
    const target: Vec = [30, 85, -20];
    const body = bodyOf(pulled(pose, [], 'wristL', target, 30).pose).sites;
    expect(apart(body['wristL']?.at, target)).toBeLessThan(2);
    for (const site of ['heelL', 'heelR', 'ballInR'])
      expect(apart(body[site]?.at, before[site]?.at)).toBeLessThan(0.5);
  });
  it('snaps onto the floor, a wall or a top that it is drawn near, and nowhere else', () => {
    const step: Kit = { type: 'step', at: [24, 0, -5] };
    const low = pulled(pose, [step], 'ankleL', [24, 17, -5], 30);
    expect(low.snapped).toBe('step');
    expect(heldSites(bodyOf(low.pose), [step]).get('heelL')).toBe('step');
    expect(pulled(pose, [step], 'ankleL', [24, 34, -5], 30).snapped).toBeNull();
    const wall: Kit = { type: 'wall', at: [38, 0, 0], face: 'front' };
    expect(pulled(pose, [wall], 'wristR', [34, 80, 12], 30).snapped).toBe('wall');
  });
  it('who stands lies on the floor with both feet and with nothing else, whatever is beside', () => {
    const feet = ['heelL', 'heelR', 'ballInL', 'ballInR', 'ballOutL', 'ballOutR'];
    const box: Kit = { type: 'box', at: [40, 0, 0], size: [20, 3.2, 30] };
    for (const kit of [[], [box]]) {
      const held = heldSites(bodyOf(pose), kit);
      expect([...held.keys()].filter((name) => !name.startsWith('toes')).sort()).toEqual([...feet].sort());
      expect(new Set(held.values())).toEqual(new Set(['floor']));
    }
    // Under the feet it is the box that they lie on, as long as its top is as high as the floor is.
    const under = { ...box, at: [4, -3.2, 0] as [number, number, number] };
    expect(new Set(heldSites(bodyOf(pose), [under]).values())).toEqual(new Set(['box']));
    expect(pictureFaults(standing)).toEqual([]);
    expect(mirroredFigure(standing).poses[0]?.map((v) => Math.round(v))).toEqual(
      pose.map((v) => Math.round(v)),
    );
  });
  it('never leaves the range of a joint, wherever it is drawn', () => {
    const far = fc.integer({ min: -120, max: 160 });
    const spot: fc.Arbitrary<Vec> = fc.tuple(far, far, far);
    const site = fc.constantFrom('wristL', 'ankleR', 'kneeL', 'elbowR', 'head', 'pelvis', 'chest');
    forAll(
      fc.property(site, spot, (name, target) => {
        pulled(pose, [], name, target, 4).pose.forEach((value, i) => {
          expect(Number.isFinite(value)).toBe(true);
          expect(value).toBeGreaterThanOrEqual((RANGE[i]?.[0] ?? 0) - 0.1);
          expect(value).toBeLessThanOrEqual((RANGE[i]?.[1] ?? 0) + 0.1);
        });
      }),
      25,
    );
  });
  it('a number that is set bends the rest: knees that bend lower the hips over standing feet', () => {
    const both = new Map([
      [number('kneeL'), 60],
      [number('kneeR'), 60],
    ]);
    const bent = withNumbers(pose, [], both);
    const [before, after] = [bodyOf(pose).sites, bodyOf(bent).sites];
    expect(bent[number('kneeL')]).toBeGreaterThan(50);
    expect(after['pelvis']?.at[1] ?? 99).toBeLessThan((before['pelvis']?.at[1] ?? 0) - 3);
    expect(apart(after['heelL']?.at, before['heelL']?.at)).toBeLessThan(0.6);
    expect(withNumbers(pose, [], new Map([[number('kneeL'), 400]]))[number('kneeL')]).toBeLessThanOrEqual(
      158,
    );
  });
  it('keeps what stands in two positions where it is on the way between them', () => {
    const low = pulled(pose, [], 'pelvis', [-8, 34, 0], 30).pose;
    const figure = joined({ ...standing, poses: [pose, low], shown: 1 });
    const moves = [{ from: 0, to: 1, seconds: 2 }];
    for (const t of [0, 0.5, 1, 1.5, 2]) {
      const { sites } = bodyOf(poseAt(figure, moves, t));
      expect(apart(sites['heelL']?.at, bodyOf(pose).sites['heelL']?.at)).toBeLessThan(1);
    }
  });
  it('goes where the pointer goes in the picture, whichever way it is looked at', () => {
    forAll(
      fc.property(fc.integer({ min: -180, max: 180 }), fc.integer({ min: -60, max: 60 }), (az, el) => {
        const { see } = cameraOf({ az, el });
        const from: Vec = [3, 80, -9];
        const [here, there] = [see(from), see(drawnTo({ ...standing, view: { az, el } }, from, 12, 5))];
        expect(there.x - here.x).toBeCloseTo(12, 6);
        expect(there.y - here.y).toBeCloseTo(-5, 6);
        expect(there.near - here.near).toBeCloseTo(0, 6);
      }),
      30,
    );
  });
  it('every number of a figure can be set somewhere, by a name', () => {
    for (const rig of ['body', 'hands', 'feet'] as const) {
      const places = jointsOf({ rig, sides: ['L', 'R'] }).flatMap(({ settings }) => settings);
      expect(new Set(places.map(({ place }) => place)).size).toBe(places.length);
      if (rig === 'body') expect(places).toHaveLength(NUMBERS.length);
      for (const { label } of eachOf(places)) expect(label).toMatch(/^[A-Z][a-z, ]+$/);
    }
  });
});

describe('a picture from outside', () => {
  const good = figureOf('split-squat') as SolvedFigure;
  const paths = (over: object) => pictureFaults({ ...good, ...over }).map(({ path }) => path.join('.'));
  it('is refused where it cannot be drawn, with the place and what would be right', () => {
    expect(paths({})).toEqual([]);
    expect(paths({ poses: [[1, 2]], between: [] })).toContain('poses.0');
    expect(paths({ between: [[], [], []] })).toEqual(['between']);
    expect(paths({ marks: [{ hold: 'tail' }] })).toEqual(['marks.0.hold']);
    expect(paths({ kit: [{ type: 'band', through: ['kneeL', 'moon'] }] })).toEqual(['kit.0.through.1']);
    expect(paths({ frame: ['__proto__'] })).toEqual(['frame.0']);
    expect(paths({ poses: [(good.poses[0] ?? []).map(() => 300)], between: [], shown: 0 })[0]).toBe(
      'poses.0.4',
    );
  });
  it('as all that ship can, and as nobody else can whatever is changed in it: accepted is drawn', () => {
    for (const id of eachOf(ids)) expect(pictureFaults(figureOf(id) as SolvedFigure), id).toEqual([]);
    const junk = fc.oneof(
      fc.constantFrom('kneeL', 'hand', '', 'constructor', null, [], {}, -1, 0, 3, 1e9, NaN),
      fc.constantFrom(
        { type: 'dowel' },
        { type: 'tape' },
        { type: 'loop', through: ['kneeL'] },
        { say: 'A' },
      ),
    );
    forAll(
      fc.property(anyFigure, fc.nat(), fc.nat(), junk, (figure, field, at, value) => {
        const copy = structuredClone(figure) as unknown as Record<string, unknown>;
        const name = Object.keys(copy)[field % Object.keys(copy).length] ?? '';
        const list = copy[name];
        if (Array.isArray(list)) list[at % (list.length + 1)] = value;
        else copy[name] = value;
        const parsed = solvedFigureSchema.safeParse(copy);
        if (!parsed.success || pictureFaults(parsed.data).length > 0) return;
        for (const small of [true, false])
          expect(JSON.stringify(drawFigure(parsed.data, { small }))).not.toMatch(/NaN|Infinity|null/);
      }),
      300,
    );
  });
});
