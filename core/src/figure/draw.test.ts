import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bundledReference } from '../reference/bundled.ts';
import type { Drill } from '../reference/index.ts';
import { bundledFigures, figureOf } from './bundled.ts';
import { fieldFaults } from './fields.ts';
import {
  bodyAt,
  cameraOf,
  cycleSeconds,
  drawFigure,
  faultsOf,
  finished,
  KIT_KINDS,
  kitWay,
  layoutOf,
  mirroredFigure,
  movesOf,
  ownSide,
  PICTURE,
  poseAt,
  standingBody,
  standingFigure,
  turnedFor,
  VIEWS,
  wholeFigure,
} from './index.ts';
import type { Kit, SolvedFigure, WrittenFigure } from './index.ts';
import { less, size } from './vector.ts';
import { forAll } from '../testing/forAll.ts';
import { eachOf } from '../testing/eachOf.ts';

const standing = standingFigure();
const ids = Object.keys(bundledFigures.drills);
const anyFigure = fc.constantFrom(...ids).map((id) => figureOf(id) as SolvedFigure);
const figure = (id: string) => figureOf(id) as SolvedFigure;
const drill = (id: string) => bundledReference.drills.get(id) as Drill;
const numbersOf = (d: string) => [...d.matchAll(/-?\d+(?:\.\d+)?/g)].map(([n]) => Number(n));

describe('the camera', () => {
  it('shows what is on the right at the left of who stands before it, and at the right of who stands behind', () => {
    const across = (view: string) => {
      const camera = cameraOf(VIEWS[view] as { az: number; el: number });
      return camera.see([0, 0, 10]).x - camera.see([0, 0, 0]).x;
    };
    expect(across('front')).toBeLessThan(-9);
    expect(across('back')).toBeGreaterThan(9);
  });
  it('keeps lengths that lie in its picture, whichever way it looks', () => {
    forAll(
      fc.property(fc.integer({ min: -180, max: 180 }), fc.integer({ min: -80, max: 80 }), (az, el) => {
        const { right, up, see } = cameraOf({ az, el });
        expect(size(right)).toBeCloseTo(1, 9);
        expect(size(up)).toBeCloseTo(1, 9);
        const [from, to] = [see([0, 0, 0]), see([7 * up[0], 7 * up[1], 7 * up[2]])];
        expect(
          [to.x - from.x, to.y - from.y, to.near - from.near].map((v) => Math.round(v * 1e6) / 1e6 + 0),
        ).toEqual([0, -7, 0]);
      }),
      40,
    );
  });
});

describe('a drawing', () => {
  it('holds the whole body in its square in every key, and a part where only that is meant', () => {
    forAll(
      fc.property(anyFigure, (one) => {
        const { put } = layoutOf(one);
        if (one.frame[0] !== 'full') return;
        for (const pose of one.poses)
          for (const [name, { at }] of Object.entries(bodyAt(one, pose).sites)) {
            if (/^(?:foreEnd|shin)/.test(name)) continue;
            const { x, y } = put(at);
            for (const value of [x, y]) {
              expect(value, name).toBeGreaterThan(-1);
              expect(value, name).toBeLessThan(PICTURE + 1);
            }
          }
      }),
      60,
    );
  });
  it('has every kind of kit in it, in the keys in which it is there', () => {
    const bare = drawFigure(standing).shapes.length;
    const through: Kit['through'] = ['fistL', 'fistR'];
    for (const type of KIT_KINDS) {
      const strung = ['band', 'loop', 'rope', 'strap', 'tape', 'dowel'].includes(type);
      const inHand = ['dumbbell', 'kettlebell', 'bottle', 'racket', 'gear'].includes(type);
      const kit: Kit = { type, ...(strung ? { through } : inHand ? { side: 'both' } : { at: [20, 0, 4] }) };
      const drawn = drawFigure({ ...standing, kit: [kit] });
      expect(drawn.shapes.length, type).toBeGreaterThan(bare);
      for (const { d } of eachOf(drawn.shapes)) expect(numbersOf(d).every(Number.isFinite), type).toBe(true);
      const gone = drawFigure({ ...standing, kit: [{ ...kit, keys: [3] }] });
      expect(gone.shapes.length, type).toBe(bare);
    }
  });
  it('paints a limb that works in the colour of its side, pale where it is the far one', () => {
    const side = { ...standing, view: { az: 90, el: 4 } };
    const tones = (one: SolvedFigure) => new Set(drawFigure(one).shapes.flatMap(({ fill }) => fill ?? []));
    expect(tones({ ...side, accent: ['legL'] })).toContain('left');
    expect(tones({ ...side, accent: ['legR'] })).toContain('rightFar');
    expect(tones({ ...side, accent: ['trunk'] })).toContain('trunk');
    expect([...tones(side)].some((tone) => /^(?:left|right)/.test(tone))).toBe(false);
  });
  it('says with a letter which side works, the other one where it is turned round, none where both do', () => {
    const letter = (one: SolvedFigure, mirrored: boolean) =>
      drawFigure(one, { letters: true, mirrored }).letters.map(({ text }) => text);
    const leg: SolvedFigure = { ...standing, accent: ['legL'] };
    expect(letter(leg, false)).toEqual(['L']);
    expect(letter(leg, true)).toEqual(['R']);
    expect(letter({ ...standing, accent: ['legL', 'legR'] }, false)).toEqual([]);
    expect(letter(standing, false)).toEqual([]);
  });
  it('leaves the start and the marks out while it moves, and draws them stronger where it is small', () => {
    const squat = figure('bodyweight-squat');
    const count = (options: object) =>
      drawFigure(squat, options).shapes.filter(({ fill }) => fill === 'ghost').length;
    expect([count({}), count({ plain: true }), count({ small: true })]).toEqual([1, 0, 0]);
    const width = (small: boolean) =>
      Math.max(
        ...drawFigure(squat, { small }).shapes.flatMap(({ line, width: w }) =>
          line === 'mark' ? (w ?? 0) : 0,
        ),
      );
    expect(width(true)).toBeGreaterThan(width(false));
  });
});

describe('a mark', () => {
  const bare = drawFigure(standing).shapes.length;
  const marked = (mark: object, over: object = {}) =>
    drawFigure({ ...standing, ...over, marks: [mark as SolvedFigure['marks'][0]] }).shapes.slice(bare);
  it('of every kind is drawn over the figure', () => {
    for (const mark of [
      { push: 'kneeL', to: [0, 12, 0] },
      { spin: 'head' },
      { hold: 'chest' },
      { breath: 'chest' },
      { gaze: 'fistL' },
      { shut: 'head' },
      { tint: 'calfL' },
      { say: 'A', at: 'toesL' },
      {
        path: [
          [0, 0, 0],
          [30, 0, 0],
        ],
      },
    ])
      expect(marked(mark).length, JSON.stringify(mark)).toBeGreaterThan(0);
  });
  it('stays inside the picture, however far its arrow goes', () => {
    for (const mark of [
      { push: 'kneeL', to: [60, 0, 0] },
      {
        path: [
          [90, 2, 0],
          [120, 30, 0],
          [150, 2, 0],
        ],
      },
      { move: 'kneeL' },
    ])
      for (const one of [standing, { ...figure('bodyweight-squat'), frame: ['head', 'kneeL'] }]) {
        const { shapes } = drawFigure({ ...one, marks: [mark as SolvedFigure['marks'][0]] });
        const lines = shapes.filter(({ line }) => line === 'mark').flatMap(({ d }) => numbersOf(d));
        // Who stands in one position goes nowhere: there is no way of the knee to draw.
        if (one === standing && 'move' in mark) {
          expect(lines).toEqual([]);
          continue;
        }
        for (const n of eachOf(lines)) expect(n).toBeGreaterThanOrEqual(0);
        for (const n of eachOf(lines)) expect(n).toBeLessThanOrEqual(PICTURE);
      }
  });
  it('that stops short ends at a bar', () => {
    const strokes = (stop: boolean) =>
      marked({ push: 'kneeL', to: [12, 0, 0], stop })[1]?.d.match(/M/g)?.length;
    expect([strokes(false), strokes(true)]).toEqual([1, 2]);
  });
  it('goes to the other side with the figure, on its own side of what it marks', () => {
    const [mark] = mirroredFigure({
      ...standing,
      marks: [{ push: 'kneeL', to: [0, 0, 9], off: [4, -2] }],
    }).marks;
    expect(mark).toEqual({ push: 'kneeR', to: [0, 0, -9], off: [-4, -2] });
  });
  it('along a way needs a way: in one position nothing goes anywhere', () => {
    expect(marked({ move: 'kneeL' })).toEqual([]);
    const squat = figure('bodyweight-squat');
    const way = drawFigure({ ...squat, marks: [{ move: 'kneeL' }] }).shapes.length;
    expect(way).toBeGreaterThan(drawFigure({ ...squat, marks: [] }).shapes.length);
  });
  it('of a push points where it pushes, and both ways where it goes to and fro', () => {
    const heads = (both: boolean) =>
      marked({ push: 'kneeL', to: [0, 12, 0], both })
        .at(-1)
        ?.d.match(/M/g)?.length;
    expect([heads(false), heads(true)]).toEqual([1, 2]);
    const tip = numbersOf(marked({ push: 'kneeL', to: [0, 12, 0] }).at(-1)?.d ?? '');
    const { y } = layoutOf(standing).put(
      bodyAt(standing, standing.poses[0] ?? []).sites['kneeL']?.at ?? [0, 0, 0],
    );
    expect(tip[1]).toBeLessThan(y);
  });
});

describe('kit', () => {
  it('that is held, strung or standing is told by its kind, and in a hand by its side', () => {
    expect(
      (['dumbbell', 'band', 'box', 'dowel', 'wall', 'gear'] as const).map((type) => kitWay({ type })),
    ).toEqual(['held', 'strung', 'standing', 'strung', 'standing', 'held']);
    expect(kitWay({ type: 'ball', side: 'L' })).toBe('held');
  });
  it('turned round is in the other hand and at the other side', () => {
    const kit: Kit[] = [
      { type: 'dumbbell', side: 'L' },
      { type: 'box', at: [20, 0, -12] },
      { type: 'wall', at: [0, 0, -20], face: 'left' },
      { type: 'band', through: ['fistL', [10, 20, 30]] },
    ];
    expect(mirroredFigure({ ...standing, kit }).kit).toEqual([
      { type: 'dumbbell', side: 'R' },
      { type: 'box', at: [20, 0, 12] },
      { type: 'wall', at: [0, 0, 20], face: 'right' },
      { type: 'band', through: ['fistR', [10, 20, -30]] },
    ]);
  });
  it('that is moved in a picture does not move the rest of it', () => {
    const [near, far] = [40, 90].map((x): SolvedFigure => ({
      ...standing,
      kit: [{ type: 'box', at: [x, 0, 0] }],
    }));
    if (!near || !far) throw new Error('no kit');
    const body = (shapes: readonly { d: string; fill?: string | undefined }[]) =>
      shapes.filter(({ fill }) => fill === 'trunk' || fill === 'body').map(({ d }) => d);
    expect(body(drawFigure(far).shapes)).not.toEqual(body(drawFigure(near).shapes));
    expect(body(drawFigure(far, { framedAs: near }).shapes)).toEqual(body(drawFigure(near).shapes));
    expect(drawFigure(far, { framedAs: near }).shapes).not.toEqual(drawFigure(near).shapes);
  });
  it('between us and the body is only hinted at: a wall in front hides nobody', () => {
    const wall: Kit = { type: 'wall', at: [30, 0, 0], face: 'front' };
    const filled = (az: number) =>
      drawFigure({ ...standing, kit: [wall], view: { az, el: 4 } }).shapes.some(
        ({ fill }) => fill === 'wall',
      );
    expect([filled(0), filled(180)]).toEqual([false, true]);
  });
});

describe('sides', () => {
  it('a figure is turned round for the side that it is not drawn with, and for no other reason', () => {
    forAll(
      fc.property(anyFigure, (one) => {
        const own = ownSide(one);
        expect(turnedFor(one, own)).toBe(false);
        expect(turnedFor(one, own === 'left' ? 'right' : 'left')).toBe(true);
        for (const side of ['both', 'central', undefined]) expect(turnedFor(one, side)).toBe(false);
      }),
      8,
    );
  });
  it('of who stands seen from behind are where they are, each region at its height', () => {
    const { joints, shapes } = standingBody(40, 6, 2.4);
    expect(shapes.length).toBeGreaterThan(8);
    const height = (region: keyof typeof joints) => joints[region]?.left[1] ?? NaN;
    for (const { left, right } of eachOf(Object.values(joints))) {
      expect(left[0]).toBeLessThan(right[0]);
      expect(left[1]).toBeCloseTo(right[1], 0);
    }
    const down = (['shoulder', 'thoracic', 'elbow', 'hip-groin', 'knee', 'ankle-foot'] as const).map(height);
    expect(down).toEqual([...down].sort((a, b) => a - b));
  });
});

describe('a movement', () => {
  it('never jumps: in a thousandth of a second nothing goes further than it can', () => {
    forAll(
      fc.property(anyFigure, fc.integer({ min: 1, max: 12 }), (one, secondsPerRep) => {
        const moves = movesOf(one, { tempo: null, secondsPerRep, holdSeconds: null });
        if (moves.length === 0) {
          expect(one.poses).toHaveLength(1);
          return;
        }
        // What is continuous goes a thousandth of a second's way at most, also where one way ends and the next begins.
        const ends = moves.map((_, i) => cycleSeconds(moves.slice(0, i)));
        for (const t of [...ends, ...Array.from({ length: 60 }, (__, i) => (i * cycleSeconds(moves)) / 60)]) {
          const [before, now] = [t - 0.0005, t + 0.0005].map(
            (at) => bodyAt(one, poseAt(one, moves, Math.max(0, at))).sites,
          );
          for (const [name, { at }] of Object.entries(now ?? {}))
            expect(size(less(at, before?.[name]?.at ?? at)), `${name} at ${t}`).toBeLessThan(2.5);
        }
      }),
      30,
    );
  });
  it('goes through every key and back, whatever the tempo is called', () => {
    const three: SolvedFigure = {
      ...standing,
      poses: [0, 1, 2].map(() => standing.poses[0] ?? []),
      between: [[], []],
    };
    for (const tempo of [null, '3-1-2', 'x', '', '2-0-2-0', 'slow']) {
      const moves = movesOf(three, { tempo, secondsPerRep: 6, holdSeconds: null });
      expect(moves.map(({ from, to }) => `${from}${to}`).filter((way) => way[0] !== way[1])).toEqual([
        '01',
        '12',
        '21',
        '10',
      ]);
      expect(moves.every(({ seconds }) => seconds > 0 && Number.isFinite(seconds))).toBe(true);
    }
  });
});

describe('what a picture is held to', () => {
  const kinds = (over: object) => {
    const source = wholeFigure('x', { x: { base: 'stand', ...over } as WrittenFigure });
    return faultsOf(finished(source), source).map(({ kind }) => kind);
  };
  it.each<[string, object, string[]]>([
    ['sound', {}, []],
    ['an angle that is not as meant', { assert: [['hipL', 'kneeL', 'ankleL', 60, 100]] }, ['intent']],
    ['a place that is not where it is meant', { assert: [['wristL', 'above', 'head', 5]] }, ['intent']],
    [
      'a way that it does not go',
      { keys: [{}, { set: { 'armL.flex': 90 } }], assert: [['wristL', 'goes', 'below', 3]] },
      ['intent'],
    ],
    ['a look the other way', { view: 'side', assert: [['faces', 'left']] }, ['intent']],
    ['a side that is not marked', { accent: ['legL'], assert: [['works', 'legR']] }, ['intent']],
    ['two keys that are one', { keys: [{}, {}] }, ['no-motion']],
    ['kit out of reach', { kit: [{ type: 'bench', at: [90, 0, 0] }] }, ['unused-kit']],
    [
      'a foot beside what it stands on',
      {
        kit: [{ type: 'box', at: [60, 0, 0] }],
        off: 'footL',
        on: { box: 'footL' },
        set: { 'hipL.flex': 60, kneeL: 60 },
      },
      ['off-kit'],
    ],
    [
      'a working arm that points at us',
      { view: 'front', accent: ['armL'], set: { 'arm.flex': 90 } },
      ['foreshortened'],
    ],
  ])('%s', (_, over, expected) => {
    expect(kinds(over)).toEqual(expected.length === 0 ? [] : expect.arrayContaining(expected));
    if (expected.length === 0) expect(kinds(over)).toEqual([]);
  });
  it('and to what the library says: lying is not standing, without its kit it is another drill', () => {
    const fields = (shown: string, of: string) =>
      fieldFaults(figure(shown), drill(of)).map(({ field }) => field);
    expect(fields('bodyweight-squat', 'bodyweight-squat')).toEqual([]);
    expect(fields('bodyweight-squat', 'dead-bug')).toContain('position');
    expect(fields('dead-bug', 'bodyweight-squat')).toContain('position');
    expect(fields('bodyweight-squat', 'dead-hang')).toContain('kit');
    expect(fields('dead-bug', 'single-leg-balance')).toContain('position');
  });
});
