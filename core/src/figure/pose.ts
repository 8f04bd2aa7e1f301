import { closeUpOf } from './closeUp.ts';
import type { SolvedFigure } from './schema.ts';
import { bodyOf } from './skeleton.ts';
import type { Body, Pose } from './skeleton.ts';

/** A pose a share of the way from one to another. */
export function poseBetween(a: Pose, b: Pose, share: number): Pose {
  return a.map((value, i) => value + ((b[i] ?? value) - value) * share);
}

/** The body, hands or feet of a figure in a pose. */
export function bodyAt({ rig, sides }: Pick<SolvedFigure, 'rig' | 'sides'>, pose: Pose): Body {
  return rig === 'body' ? bodyOf(pose) : closeUpOf(rig, pose, sides);
}
