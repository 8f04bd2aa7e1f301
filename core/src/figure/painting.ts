import { at as point, outline } from './hull.ts';
import type { Camera } from './camera.ts';
import type { Body } from './skeleton.ts';
import type { Tone } from './tones.ts';
import type { Vec } from './vector.ts';

/** Something drawn in one piece: an outline that is filled, or a line. */
export interface Stroke {
  readonly d: string;
  readonly fill?: Tone;
  readonly line?: Tone;
  readonly width?: number;
}

/** A piece of kit, or of the body: what is drawn, and how near it is. */
export interface Piece {
  readonly name: string;
  readonly near: number;
  readonly strokes: readonly Stroke[];
}

/** What is needed to draw kit. */
export interface Drawing {
  readonly body: Body;
  readonly camera: Camera;
  /** Units of the picture for one hundredth of the body's height. */
  readonly scale: number;
  readonly put: (p: Vec) => { x: number; y: number; near: number };
}

/** The mean; 0 of none. */
export const mean = (values: readonly number[]) =>
  values.reduce((sum, v) => sum + v, 0) / Math.max(1, values.length);
/** A closed outline through points of the picture. */
export const polygon = (points: readonly { x: number; y: number }[]) =>
  `M${points.map(({ x, y }) => point(x, y)).join('L')}z`;

/** A place of the body or a point in the room. */
export function spot({ body }: Pick<Drawing, 'body'>, where: string | readonly number[]): Vec {
  if (typeof where !== 'string') return where as unknown as Vec;
  const site = body.sites[where];
  if (!site) throw new Error(`no place of the body is called "${where}"`);
  return site.at;
}

/** The faces of a block that the camera sees, the top lighter. */
export function block(
  drawing: Drawing,
  [x, y, z]: Vec,
  [w, h, d]: Vec,
  tone: Tone = 'kit',
  side: Tone = 'kitSide',
): Stroke[] {
  const corner = (i: number, j: number, k: number) =>
    drawing.put([x + (i * w) / 2, y + j * h, z + (k * d) / 2]);
  const faces: (readonly [Vec, readonly (readonly [number, number, number])[], Tone])[] = [
    [
      [0, 1, 0],
      [
        [-1, 1, -1],
        [1, 1, -1],
        [1, 1, 1],
        [-1, 1, 1],
      ],
      tone,
    ],
    [
      [1, 0, 0],
      [
        [1, 0, -1],
        [1, 1, -1],
        [1, 1, 1],
        [1, 0, 1],
      ],
      side,
    ],
    [
      [-1, 0, 0],
      [
        [-1, 0, -1],
        [-1, 1, -1],
        [-1, 1, 1],
        [-1, 0, 1],
      ],
      side,
    ],
    [
      [0, 0, 1],
      [
        [-1, 0, 1],
        [1, 0, 1],
        [1, 1, 1],
        [-1, 1, 1],
      ],
      side,
    ],
    [
      [0, 0, -1],
      [
        [-1, 0, -1],
        [1, 0, -1],
        [1, 1, -1],
        [-1, 1, -1],
      ],
      side,
    ],
  ];
  const origin = drawing.camera.see([0, 0, 0]).near;
  return faces
    .filter(([normal]) => drawing.camera.see(normal).near - origin > 0.03)
    .map(([, corners, fill]) => ({
      d: polygon(corners.map((c) => corner(...c))),
      fill,
      line: 'kitLine',
      width: 0.7,
    }));
}

/** Four legs under a block. */
export function legs(drawing: Drawing, [x, y, z]: Vec, [w, h, d]: Vec): Stroke[] {
  const line = (i: number, k: number) => {
    const a = drawing.put([x + (i * (w - 3)) / 2, y + h - 2, z + (k * (d - 3)) / 2]);
    const b = drawing.put([x + (i * (w - 3)) / 2, y, z + (k * (d - 3)) / 2]);
    return `M${point(a.x, a.y)}L${point(b.x, b.y)}`;
  };
  return [
    {
      d: [
        [-1, -1],
        [-1, 1],
        [1, -1],
        [1, 1],
      ]
        .map(([i = 1, k = 1]) => line(i, k))
        .join(''),
      line: 'kitLine',
      width: 1.6,
    },
  ];
}

/** A rounded bar between two points. */
export function rod({ put, scale }: Drawing, a: Vec, b: Vec, radius: number, fill: Tone): Stroke {
  const [p, q] = [put(a), put(b)];
  const r = radius * scale;
  return {
    d: outline([
      { ...p, r },
      { ...q, r },
    ]),
    fill,
    line: 'kitLine',
    width: 0.6,
  };
}
/** A round thing. */
export function disc({ put, scale }: Drawing, at: Vec, radius: number, fill: Tone): Stroke {
  return { d: outline([{ ...put(at), r: radius * scale }]), fill, line: 'kitLine', width: 1.4 };
}
/** A line through points. */
export function cord({ put }: Drawing, points: readonly Vec[], line: Tone, width: number): Stroke {
  return {
    d: `M${points
      .map((p) => {
        const q = put(p);
        return point(q.x, q.y);
      })
      .join('L')}`,
    line,
    width,
  };
}
