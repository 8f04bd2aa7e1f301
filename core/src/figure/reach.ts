import { closeUpNumbers, closeUpOf } from './closeUp.ts';
import type { CloseUp } from './closeUp.ts';
import { jointsOf } from './joints.ts';
import type { SolvedFigure } from './schema.ts';
import type { Pose } from './skeleton.ts';
import { dot, less, size } from './vector.ts';
import type { Vec } from './vector.ts';

/** A place by which a figure is taken hold of, and the joint whose numbers it belongs to. */
export interface Handle {
  readonly site: string;
  readonly name: string;
  readonly joint: string;
}

/** Places of a hand or foot seen close that can be drawn, what they are called, and which numbers follow. */
const REACHING: Readonly<
  Record<CloseUp, readonly (readonly [site: string, name: string, ...numbers: string[]])[]>
> = {
  hands: [
    ['wrist', 'wrist', 'x', 'y', 'z'],
    ['foreEnd', 'forearm', 'yaw', 'pitch'],
    ['knuckles', 'knuckles', 'flex', 'uln'],
    ['middleTip', 'fingers', 'mcp', 'pip'],
    ['indexTip', 'index finger', 'index'],
    ['littleTip', 'little finger', 'little'],
    ['thumbTip', 'thumb', 'thumb', 'oppose', 'thumbFlex'],
  ],
  feet: [
    ['ankle', 'ankle', 'x', 'y', 'z'],
    ['heel', 'heel', 'yaw', 'pitch'],
    ['shin', 'shin', 'lean'],
    ['instep', 'arch', 'arch'],
    ['toe1', 'big toe', 'big'],
    ['toe3', 'other toes', 'toes'],
  ],
};
const SIDE = { L: 'Left', R: 'Right' } as const;

/** The places by which a figure is taken hold of: the joints of the body, the parts of a hand or foot seen close. */
export function handlesOf({ rig, sides }: Pick<SolvedFigure, 'rig' | 'sides'>): readonly Handle[] {
  if (rig === 'body') return jointsOf({ rig, sides }).map(({ site, name }) => ({ site, name, joint: site }));
  return sides.flatMap((side) =>
    REACHING[rig].map(([site, name]) => ({
      site: `${site}${side}`,
      name: `${SIDE[side]} ${name}`,
      joint: `${rig === 'hands' ? 'wrist' : 'ankle'}${side}`,
    })),
  );
}

/** How far a number is tried, and how far it goes in one round, as shares of its range. */
const [TRIED, STRIDE] = [0.0025, 0.16];

/**
 * The numbers of a hand or foot seen close with a place drawn towards a point, each within its range: one number after the
 * other goes where it brings the place nearest (coordinate descent on the distance).
 */
export function reached(
  { rig, sides }: SolvedFigure,
  pose: Pose,
  site: string,
  target: Vec,
  rounds = 24,
): number[] {
  if (rig === 'body') return [...pose];
  const [, , ...numbers] = REACHING[rig].find(([stem]) => stem === site.slice(0, -1)) ?? ['', ''];
  const names = closeUpNumbers(rig);
  const places = numbers.map((name) => names.indexOf(`${name}${site.slice(-1)}`));
  const ranges = new Map(
    jointsOf({ rig, sides }).flatMap(({ settings }) => settings.map(({ place, range }) => [place, range])),
  );
  const next = [...pose];
  const at = () => closeUpOf(rig, next, sides).sites[site]?.at ?? target;
  const left = () => size(less(target, at()));
  for (let round = 0; round < rounds; round += 1)
    for (const place of places) {
      const [low, high] = ranges.get(place) ?? [-90, 90];
      const [was, from, far] = [next[place] ?? 0, at(), left()];
      const tried = (high - low) * TRIED;
      next[place] = was + tried;
      const way = less(at(), from);
      const slope = dot(way, way);
      const stride = (high - low) * STRIDE;
      let by = slope < 1e-9 ? 0 : (dot(less(target, from), way) / slope) * tried;
      by = Math.max(-stride, Math.min(stride, by));
      // As far as it brings it nearer: where it turns, half the way may be the better one.
      do {
        next[place] = Math.min(high, Math.max(low, was + by));
        by /= 2;
      } while (left() > far && Math.abs(by) > tried / 8);
      if (left() > far) next[place] = was;
    }
  return next.map((value) => Math.round(value * 10) / 10);
}
