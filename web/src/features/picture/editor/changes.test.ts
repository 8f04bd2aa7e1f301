import {
  bodyOf,
  cameraOf,
  KIT_KINDS,
  pictureFaults,
  solvedFigureSchema,
  standingFigure,
} from '@yonder/core/figure';
import type { SolvedFigure } from '@yonder/core/figure';
import { figureOf } from '@yonder/core/figure/bundled';
import { describe, expect, it } from 'vitest';
import { newKit, newMark, withCopy, withKit, withoutPose, withPose, withSetting } from './changes.ts';
import { kitDrawn, kitHandles } from './kitHandles.ts';
import { KIT_WORDS, MARK_WORDS, PLACE_WORDS, placeWord } from './words.ts';

const standing = standingFigure();
const sound = (figure: SolvedFigure) => {
  expect(solvedFigureSchema.safeParse(figure).success).toBe(true);
  expect(pictureFaults(figure)).toEqual([]);
};

describe('what is changed in a picture', () => {
  it('positions are copied up to four and removed down to one, and what stands for the drill stays with them', () => {
    let figure = withCopy(standing, 0);
    expect([figure.poses.length, figure.shown, figure.between.length]).toEqual([2, 1, 1]);
    for (let i = 0; i < 5; i += 1) figure = withCopy(figure, figure.poses.length - 1);
    expect([figure.poses.length, figure.between.length]).toEqual([4, 3]);
    sound(figure);
    figure = withoutPose({ ...figure, shown: 3 }, 0);
    expect([figure.poses.length, figure.shown]).toEqual([3, 2]);
    for (let i = 0; i < 5; i += 1) figure = withoutPose(figure, 0);
    expect([figure.poses.length, figure.shown]).toEqual([1, 0]);
    sound(figure);
  });
  it('a number of one side, or of both alike, within its range, in the body and in a hand seen close', () => {
    const knee = (side: 'L' | 'R', figure: SolvedFigure) => {
      const { sites } = bodyOf(figure.poses[0] ?? []);
      return (sites[`hip${side}`]?.at[1] ?? 0) - (sites[`ankle${side}`]?.at[1] ?? 0);
    };
    const place = 15 + 13; // the left knee
    const one = withSetting(standing, 0, place, 70, false);
    const two = withSetting(standing, 0, place, 70, true);
    expect(knee('R', one)).toBeGreaterThan(knee('L', one));
    expect(Math.abs(knee('R', two) - knee('L', two))).toBeLessThan(1.5);
    sound(two);
    const fist = figureOf('hand-pump-and-shake') ?? figureOf('finger-extension-active');
    if (fist) sound(withSetting(fist, 0, 0, 5, true));
  });
  it('every kind of kit and of mark, as it is put in, is something that can be drawn, and has a word', () => {
    for (const type of KIT_KINDS) {
      sound(withKit(standing, [newKit(type)]));
      expect(KIT_WORDS[type]).toBeTruthy();
    }
    for (const kind of Object.keys(MARK_WORDS))
      for (const [place] of PLACE_WORDS) sound({ ...standing, marks: [newMark(kind, place)] });
  });
  it('a pose that is put in works out the way to its neighbours anew', () => {
    const two = withCopy(standing, 0);
    const low = (two.poses[1] ?? []).map((value, i) => (i === 1 ? value - 20 : value));
    expect(withPose(two, 1, low).poses[1]).toEqual(low);
    sound(withPose(two, 1, two.poses[0] ?? []));
  });
});

it('a place has its words, also one that is in no list', () => {
  expect(['kneeL', 'upperBack', 'footInL', 'sideOfHipR', 'seat'].map(placeWord)).toEqual([
    'left knee',
    'upper back',
    'left foot in',
    'right side of hip',
    'seat',
  ]);
});

describe('kit that is drawn in the picture', () => {
  const side: SolvedFigure = { ...standing, view: { az: 90, el: 0 } };
  const high: SolvedFigure = { ...standing, view: { az: 0, el: 50 } };
  const drawnBy = (figure: SolvedFigure, by: readonly [number, number]) => {
    const [handle] = kitHandles(figure);
    if (!handle) throw new Error('nothing to take hold of');
    return kitDrawn(figure, handle, by)[0];
  };
  it('is taken hold of where it stands and by its ends in the room, not where a hand or the body has it', () => {
    const kit = [newKit('box'), newKit('dumbbell'), newKit('band'), newKit('dowel'), newKit('sensor')];
    expect(kitHandles({ ...standing, kit }).map(({ name }) => name)).toEqual([
      'box, where it stands',
      'band, end 2',
    ]);
  });
  it('stays on the floor, and goes away from us only where it is looked down on', () => {
    const box = { type: 'box' as const, at: [30, 0, 0] as [number, number, number] };
    // From the left what is drawn to the left goes forwards.
    expect(drawnBy({ ...side, kit: [box] }, [-12, 20])?.at).toEqual([42, 0, 0]);
    const away = drawnBy({ ...high, kit: [box] }, [0, 10])?.at as number[];
    expect(away[1]).toBe(0);
    expect(away[0]).toBeLessThan(20);
    // And by just so much as it was drawn in the picture.
    const seen = (x: number) => cameraOf(high.view).see([x, 0, 0]).y;
    expect(seen(30) - seen(away[0] ?? 0)).toBeCloseTo(10, 0);
  });
  it('that hangs or is strung goes up as well, in halves, and never out of the room', () => {
    expect(drawnBy({ ...side, kit: [{ type: 'bar', at: [4, 126, 0] }] }, [0, 5.3])?.at).toEqual([
      4, 131.5, 0,
    ]);
    expect(drawnBy({ ...side, kit: [newKit('band')] }, [0, -400])?.through).toEqual(['fistL', [50, -300, 0]]);
    for (const kind of KIT_KINDS) {
      const figure = { ...high, kit: [newKit(kind)] };
      for (const handle of kitHandles(figure)) sound(withKit(figure, kitDrawn(figure, handle, [999, -999])));
    }
  });
});
