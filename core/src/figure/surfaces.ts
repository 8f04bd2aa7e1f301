import type { Kit } from './schema.ts';
import type { Site } from './skeleton.ts';
import { dot, less } from './vector.ts';
import type { Vec } from './vector.ts';

/** A plane that places lie on: a point of it and the direction away from it. */
export interface Surface {
  readonly at: Vec;
  readonly away: Vec;
}

/** How far a place is from lying on a surface, in u; below nothing it is through it. */
export const gapOf = ({ at, radius }: Site, surface: Surface): number =>
  dot(less(at, surface.at), surface.away) - radius;

/** How high each kind is where nothing is said, in hundredths of the body's height. */
const HEIGHT: Readonly<Record<string, number>> = {
  box: 24,
  step: 11,
  bench: 25,
  chair: 26,
  table: 42,
  couch: 34,
  mat: 1.2,
};
/** Size of a piece of kit along x, up and along z. */
export function sizeOf({ type, size }: Kit): Vec {
  const height = HEIGHT[type] ?? 10;
  return (
    size ??
    (type === 'bench'
      ? [22, height, 60]
      : type === 'step'
        ? [24, height, 36]
        : type === 'mat'
          ? [100, 1.2, 36]
          : [24, height, 30])
  );
}

/** Where a piece of kit stands; the origin where that follows the body. */
export const placeOf = ({ at }: Kit): Vec => (Array.isArray(at) ? (at as unknown as Vec) : [0, 0, 0]);

const WALL: Readonly<Record<string, Vec>> = {
  front: [-1, 0, 0],
  back: [1, 0, 0],
  right: [0, 0, -1],
  left: [0, 0, 1],
};

/** Radius of a foam roller. */
export const ROLLER = 4.3;

/** The surfaces of a figure by name: the floor, walls, tops. */
export function surfacesOf(kit: readonly Kit[]): ReadonlyMap<string, Surface> {
  const all = new Map<string, Surface>([['floor', { at: [0, 0, 0], away: [0, 1, 0] }]]);
  for (const one of kit) {
    const name = one.name ?? one.type;
    const at = placeOf(one);
    if (one.type === 'wall') all.set(name, { at, away: WALL[one.face ?? 'front'] as Vec });
    else if (one.type === 'roller')
      all.set(name, { at: [at[0], 2 * (one.radius ?? ROLLER), at[2]], away: [0, 1, 0] });
    else if (one.type in HEIGHT)
      all.set(name, { at: [at[0], at[1] + sizeOf(one)[1], at[2]], away: [0, 1, 0] });
  }
  return all;
}

/** How far beyond the edge of a box its top still holds, in u. */
const EDGE = 4;

/** Is a point over a piece of kit whose top is a surface, or before a wall? The floor is everywhere. */
export function within(kit: readonly Kit[], surface: string, [x, , z]: Vec): boolean {
  const one = kit.find((piece) => (piece.name ?? piece.type) === surface);
  if (!one || one.type === 'wall') return true;
  const [at, size] = [placeOf(one), sizeOf(one)];
  return Math.abs(x - at[0]) <= size[0] / 2 + EDGE && Math.abs(z - at[2]) <= size[2] / 2 + EDGE;
}
