import { outline } from './hull.ts';
import { block, cord, disc, legs, polygon, rod, spot } from './painting.ts';
import type { Drawing, Piece, Stroke } from './painting.ts';
import type { Kit } from './schema.ts';
import { placeOf, ROLLER, sizeOf } from './surfaces.ts';
import { add, less, times, unit } from './vector.ts';
import type { Vec } from './vector.ts';

/** How a piece of kit by itself is drawn: how near it is, and its strokes. */
type Standing = (
  drawing: Drawing,
  kit: Kit,
  at: Vec,
  size: Vec,
) => { readonly near: number; readonly strokes: readonly Stroke[] };

const centreNear = (drawing: Drawing, at: Vec, size: Vec) =>
  drawing.put([at[0], at[1] + size[1] / 2, at[2]]).near;
/** Under everything: what lies on the floor. */
const LOW = -900;

/** Both ends of what lies across, or along where it is turned to the left. */
function endsOf(kit: Kit, [x, y, z]: Vec, half: number): [Vec, Vec] {
  return kit.face === 'left'
    ? [
        [x - half, y, z],
        [x + half, y, z],
      ]
    : [
        [x, y, z - half],
        [x, y, z + half],
      ];
}

const solid: Standing = (drawing, _kit, at, size) => ({
  near: centreNear(drawing, at, size),
  strokes: block(drawing, at, size),
});

/** A top on four legs; a chair has a back too. */
const legged: Standing = (drawing, { type }, at, size) => {
  const top: Vec = [at[0], at[1] + size[1] - 3, at[2]];
  const back: Stroke[] =
    type === 'chair' ? block(drawing, [at[0] - size[0] / 2, at[1] + size[1], at[2]], [1.6, 22, size[2]]) : [];
  return {
    near: centreNear(drawing, at, size) - 6,
    strokes: [...legs(drawing, at, size), ...back, ...block(drawing, top, [size[0], 3, size[2]])],
  };
};

const slope: Standing = (drawing, _kit, at, [w, h, d]) => {
  const p = (x: number, y: number, z: number) => drawing.put([at[0] + x, at[1] + y, at[2] + z]);
  const face = (points: Parameters<typeof polygon>[0]): Stroke => ({
    d: polygon(points),
    fill: 'kit',
    line: 'kitLine',
    width: 0.7,
  });
  return {
    near: LOW,
    strokes: [
      face([p(-w / 2, 0, d / 2), p(w / 2, h, d / 2), p(w / 2, 0, d / 2)]),
      face([p(-w / 2, 0, d / 2), p(w / 2, h, d / 2), p(w / 2, h, -d / 2), p(-w / 2, 0, -d / 2)]),
    ],
  };
};

const roller: Standing = (drawing, kit, at) => {
  const r = kit.radius ?? ROLLER;
  const half = (kit.size?.[2] ?? 34) / 2;
  const along: Vec = kit.face === 'front' ? [half, 0, 0] : [0, 0, half];
  const centre: Vec = [at[0], at[1] + r, at[2]];
  const ends = [less(centre, along), add(centre, along)].sort(
    (p, q) => drawing.put(p).near - drawing.put(q).near,
  );
  return {
    near: drawing.put(centre).near - 4,
    strokes: [
      rod(drawing, ends[0] as Vec, ends[1] as Vec, r, 'kitSide'),
      disc(drawing, ends[1] as Vec, r, 'kit'),
      disc(drawing, ends[1] as Vec, r * 0.4, 'kitSide'),
    ],
  };
};

const cone: Standing = (drawing, _kit, at) => {
  const p = drawing.put(at);
  const [top, r] = [drawing.put([at[0], at[1] + 11, at[2]]), drawing.scale];
  const d = outline([
    { ...top, r: 0.9 * r },
    { x: p.x - 3.6 * r, y: p.y, r: 0.5 * r },
    { x: p.x + 3.6 * r, y: p.y, r: 0.5 * r },
  ]);
  return { near: p.near, strokes: [{ d, fill: 'kitSide', line: 'kitLine', width: 0.7 }] };
};

/** A ladder of lines on the floor: so long, so many fields, so wide. */
const floorLadder: Standing = (drawing, { size }, at) => {
  const [w, n] = [size?.[0] ?? 100, size?.[1] ?? 4];
  const half = (size?.[2] ?? 26) / 2;
  const rule = (a: Vec, b: Vec) => cord(drawing, [a, b], 'kitLine', 1.4);
  const rungs = Array.from({ length: n + 1 }, (_, i) => at[0] - w / 2 + (w * i) / n).map((x) =>
    rule([x, 0, at[2] - half], [x, 0, at[2] + half]),
  );
  const rails = [-half, half].map((z) => rule([at[0] - w / 2, 0, at[2] + z], [at[0] + w / 2, 0, at[2] + z]));
  return { near: LOW, strokes: [...rungs, ...rails] };
};

const rings: Standing = (drawing, _kit, at) => ({
  near: drawing.put(at).near,
  strokes: (['fistL', 'fistR'] as const).flatMap((hand) => {
    const p = spot(drawing, hand);
    return [
      cord(drawing, [p, [at[0], at[1], p[2]]], 'kitLine', 1.4),
      { ...disc(drawing, p, 2.8, 'paper'), line: 'kitLine' as const, width: 1.8 },
    ];
  }),
});

const dowel: Standing = (drawing, { through, radius }) => {
  const [a, b] = (through ?? []).map((where) => spot(drawing, where)) as [Vec, Vec];
  const more = times(unit(less(b, a)), radius ?? 12);
  return {
    near: drawing.put(a).near + 2,
    strokes: [rod(drawing, less(a, more), add(b, more), 0.8, 'kitLine')],
  };
};

const hurdle: Standing = (drawing, kit, at) => {
  const up: Vec = [0, kit.size?.[1] ?? 12, 0];
  const [a, b] = endsOf(kit, [at[0], 0, at[2]], 15);
  return {
    near: drawing.put(at).near,
    strokes: [cord(drawing, [a, add(a, up), add(b, up), b], 'kitLine', 2)],
  };
};

/** A stationary bike: flywheel, frame, saddle, handlebar; its cranks turn about `at`. */
const bike: Standing = (drawing, _kit, at) => {
  const p = (x: number, y: number): Vec => [at[0] + x, at[1] + y, at[2]];
  return {
    near: drawing.put(at).near,
    strokes: [
      disc(drawing, p(26, -1), 13, 'kit'),
      disc(drawing, p(26, -1), 2, 'kitSide'),
      cord(drawing, [p(-26, -16), p(40, -16)], 'kitLine', 2.6),
      cord(drawing, [p(0, 0), p(-12, 30)], 'kitLine', 2.6),
      cord(drawing, [p(0, 0), p(26, -1), p(22, 40)], 'kitLine', 2.6),
      cord(drawing, [p(0, 0), p(0, -16)], 'kitLine', 2.6),
      cord(drawing, [p(22, 40), p(30, 44)], 'kitLine', 2.6),
      rod(drawing, p(-18, 31), p(-6, 31), 1.8, 'kitSide'),
    ],
  };
};

const towel: Standing = (drawing, { size }, at) => ({
  near: drawing.put(at).near - 3,
  strokes: block(drawing, at, size ?? [12, 1.4, 9]),
});

const STANDING: Partial<Record<Kit['type'], Standing>> = {
  box: solid,
  step: solid,
  mat: (drawing, _kit, at, size) => ({ near: LOW, strokes: block(drawing, at, size, 'kit', 'kitSide') }),
  bench: legged,
  couch: legged,
  table: legged,
  chair: legged,
  slope,
  sensor: (drawing, { radius }, at) => ({
    near: 2e3,
    strokes: [{ ...disc(drawing, at, radius ?? 2.6, 'glow'), line: 'mark', width: 1.4 }],
  }),
  roller,
  ball: (drawing, { radius }, at) => ({
    near: drawing.put(at).near + 1,
    strokes: [disc(drawing, at, radius ?? 3, 'kit')],
  }),
  bar: (drawing, kit, at) => ({
    near: drawing.put(at).near,
    strokes: [rod(drawing, ...endsOf(kit, at, (kit.size?.[2] ?? 60) / 2), 1, 'metal')],
  }),
  edge: (drawing, _kit, at, size) => ({
    near: drawing.put(at).near - 5,
    strokes: block(drawing, at, [4, 4, size[2]]),
  }),
  dowel,
  cone,
  hurdle,
  ladder: floorLadder,
  line: (drawing, kit, at) => ({
    near: LOW,
    strokes: [cord(drawing, endsOf(kit, at, 30), 'kitLine', 2)],
  }),
  towel,
  slider: towel,
  rings,
  bike,
};

/** Kit by itself: what stands or lies in the room. */
export function standingPiece(drawing: Drawing, kit: Kit): Piece {
  const at = typeof kit.at === 'string' ? spot(drawing, kit.at) : placeOf(kit);
  const drawn = STANDING[kit.type]?.(drawing, kit, at, sizeOf(kit));
  return { name: kit.name ?? kit.type, near: 0, strokes: [], ...drawn };
}
