import { circlesOf, pathOf } from './circles.ts';
import { standingPiece } from './furniture.ts';
import { at as point } from './hull.ts';
import { block, cord, disc, mean, rod, spot } from './painting.ts';
import type { Drawing, Piece, Stroke } from './painting.ts';
import type { Kit } from './schema.ts';
import { ARM, FACE, HEAD, LEG, TRUNK } from './shapes.ts';
import { bodyOf, poseOf } from './skeleton.ts';
import { placeOf } from './surfaces.ts';
import type { Tone } from './tones.ts';
import { aboutX, aboutY, aboutZ, add, less, times, turned, turns, unit } from './vector.ts';
import type { Turn, Vec } from './vector.ts';

/** Where what a hand holds is, and how it is turned: along x of the grip. */
function gripOf({ body }: Drawing, side: 'L' | 'R'): { at: Vec; turn: Turn } {
  const palm = body.bones[`palm${side}`];
  const out = side === 'L' ? -1 : 1;
  // Across the palm of a hand seen close; what is held there lies along the knuckles.
  if (palm)
    return {
      at: add(palm.at, turned(palm.turn, [5.6, -2, 0])),
      turn: turns(palm.turn, turns(aboutY(90 * out), aboutZ(0))),
    };
  const hand = body.bones[`hand${side}`];
  if (!hand) throw new Error('no hand');
  return { at: add(hand.at, turned(hand.turn, [0.4, -5.6, side === 'L' ? 1.8 : -1.8])), turn: hand.turn };
}

function held(drawing: Drawing, kit: Kit, side: 'L' | 'R'): Piece {
  const { at, turn } = gripOf(drawing, side);
  const tilt = turns(turn, turns(aboutZ(kit.lean ?? 0), aboutX(0)));
  const along = (x: number, y = 0, z = 0): Vec => add(at, turned(tilt, [x, y, z]));
  const strokes: Stroke[] = [];
  if (kit.type === 'dumbbell') {
    strokes.push(rod(drawing, along(-4.5), along(4.5), 0.9, 'metal'));
    for (const x of [-4.4, 4.4]) strokes.push(rod(drawing, along(x - 0.8), along(x + 0.8), 2.6, 'metal'));
  } else if (kit.type === 'bottle') {
    strokes.push(
      rod(drawing, along(-2), along(3.4), 2.1, 'kit'),
      rod(drawing, along(5.4), along(6.6), 0.9, 'kitSide'),
    );
  } else if (kit.type === 'kettlebell') {
    const down = add(at, [0, -5.4, 0]);
    strokes.push(
      cord(
        drawing,
        [add(at, [2, -2.6, 0]), add(at, [1.4, 0, 0]), add(at, [-1.4, 0, 0]), add(at, [-2, -2.6, 0])],
        'metal',
        3,
      ),
    );
    strokes.push(disc(drawing, down, 4.2, 'metal'));
  } else if (kit.type === 'racket') {
    strokes.push(rod(drawing, along(-2), along(12), 0.7, 'kitLine'));
    const head = along(18);
    strokes.push({ ...disc(drawing, head, 6.4, 'kit') });
  } else if (kit.type === 'gear') {
    strokes.push(rod(drawing, along(-4), along(26), 0.8, 'kitLine'));
  } else if (kit.type === 'ball') {
    const r = kit.radius ?? 3;
    const hand = drawing.body.bones[`hand${side}`];
    const centre = hand
      ? add(hand.at, turned(hand.turn, [0.5, -5.6, (side === 'L' ? 1 : -1) * (r + 0.6)]))
      : at;
    strokes.push(disc(drawing, centre, r, 'kit'));
  }
  return { name: kit.name ?? kit.type, near: drawing.put(at).near + 2, strokes };
}

function wall(drawing: Drawing, kit: Kit): Piece {
  const [x, , z] = placeOf(kit);
  const face = kit.face ?? 'front';
  const height = kit.size?.[1] ?? 108;
  const half = (kit.size?.[2] ?? 60) / 2;
  const thick = 2.4;
  const across = face === 'front' || face === 'back';
  const sign = face === 'front' || face === 'right' ? 1 : -1;
  const size: Vec = across ? [thick, height, half * 2] : [half * 2, height, thick];
  const centre: Vec = across ? [x + (sign * thick) / 2, 0, z] : [x, 0, z + (sign * thick) / 2];
  const strokes = block(drawing, centre, size, 'wall', 'wall');
  const away =
    drawing.camera.see(across ? [sign, 0, 0] : [0, 0, sign]).near - drawing.camera.see([0, 0, 0]).near;
  // A wall between the camera and the body is only hinted at by its edge.
  const shown =
    away > 0.35
      ? [
          {
            ...strokes[0],
            d: strokes.map(({ d }) => d).join(''),
            fill: undefined,
            line: 'kitLine',
            width: 0.8,
          } as Stroke,
        ]
      : strokes;
  return { name: kit.name ?? 'wall', near: away > 0.35 ? 1e3 : -1e3, strokes: shown };
}

function banded(drawing: Drawing, kit: Kit): Piece {
  const points = (kit.through ?? []).map((where) => spot(drawing, where));
  const tone: Tone = kit.type === 'rope' || kit.type === 'strap' ? 'kitLine' : 'band';
  const near = mean(points.map((p) => drawing.put(p).near));
  const strokes: Stroke[] = [cord(drawing, points, tone, kit.type === 'rope' ? 1.6 : 2.8)];
  (kit.through ?? []).forEach((where, i) => {
    if (typeof where !== 'string')
      strokes.push({ ...disc(drawing, points[i] as Vec, 1.4, 'paper'), line: tone, width: 1.6 });
  });
  return { name: kit.name ?? kit.type, near: near + 3, strokes };
}

/** A tape measure: a line with a stroke at each end. */
function tape(drawing: Drawing, kit: Kit): Piece {
  const [a, b] = (kit.through ?? []).map((where) => spot(drawing, where)) as [Vec, Vec];
  const [p, q] = [drawing.put(a), drawing.put(b)];
  const length = Math.hypot(q.x - p.x, q.y - p.y) || 1;
  const [nx, ny] = [(-(q.y - p.y) / length) * 5, ((q.x - p.x) / length) * 5];
  const end = ({ x, y }: { x: number; y: number }) => `M${point(x - nx, y - ny)}L${point(x + nx, y + ny)}`;
  const d = `M${point(p.x, p.y)}L${point(q.x, q.y)}${end(p)}${end(q)}`;
  return {
    name: kit.name ?? 'tape',
    near: 2e3,
    strokes: [
      { d, line: 'paper', width: 5 },
      { d, line: 'glow', width: 2.6 },
    ],
  };
}

/** A loop round two limbs: a flat ring between two places. */
function loop(drawing: Drawing, kit: Kit): Piece {
  const [a, b] = (kit.through ?? []).map((where) => spot(drawing, where)) as [Vec, Vec];
  const out = times(unit(less(b, a)), kit.radius ?? 4);
  const [p, q] = [less(a, out), add(b, out)];
  const down: Vec = [0, 1.1, 0];
  const strokes = [
    cord(drawing, [add(p, down), add(q, down)], 'band', 1.5),
    cord(drawing, [less(p, down), less(q, down)], 'band', 1.5),
  ];
  return { name: kit.name ?? 'loop', near: drawing.put(a).near + 8, strokes };
}

const HELPING = {
  'root.y': 53,
  'arm.flex': 62,
  elbow: 40,
  'arm.abd': 8,
  'hipL.flex': 14,
  'hipR.flex': -10,
  'neck.flex': 14,
  'chest.flex': 8,
};
const KNEELING = {
  'root.y': 24,
  'root.pitch': -30,
  'hip.flex': 70,
  knee: 112,
  'ankle.df': -54,
  'arm.flex': 66,
  elbow: 10,
  'chest.flex': 20,
  'neck.flex': 10,
};

/** Somebody who helps, throws or calls: a quiet silhouette that faces along or against x. */
function helper({ camera, scale, put }: Drawing, kit: Kit): Piece {
  const at = placeOf(kit);
  const set = {
    ...(kit.name === 'kneeling' ? KNEELING : HELPING),
    'root.x': at[0],
    'root.z': at[2],
    'root.yaw': kit.face === 'front' ? 180 : 0,
  };
  const placing = { body: bodyOf(poseOf(set)), scale, put };
  const limbs = [ARM.upper, ARM.fore, ARM.hand, LEG.thigh, LEG.shank, LEG.foot];
  const d = pathOf([
    ...[TRUNK, HEAD, FACE].flatMap((part) => circlesOf(placing, part, '')),
    ...(['L', 'R'] as const).flatMap((side) => limbs.flatMap((part) => circlesOf(placing, part, side))),
  ]);
  return { name: 'helper', near: camera.see(at).near - 20, strokes: [{ d, fill: 'helper' }] };
}

/** Kit that is drawn from the body's places, or as large as the room; whatever else stands in it. */
const SPECIAL: Partial<Record<Kit['type'], (drawing: Drawing, kit: Kit) => Piece>> = {
  loop,
  tape,
  wall,
  helper,
  band: banded,
  strap: banded,
  rope: banded,
};

/** Every piece of kit of a figure that is there in a key, drawn. */
export function kitPieces(drawing: Drawing, kit: readonly Kit[], key: number): Piece[] {
  return kit
    .filter(({ keys }) => keys === undefined || keys.includes(key))
    .flatMap((one) => {
      if (!one.side) return [(SPECIAL[one.type] ?? standingPiece)(drawing, one)];
      const sides = one.side === 'both' ? (['L', 'R'] as const) : ([one.side] as const);
      return sides.map((side) => held(drawing, one, side));
    });
}
