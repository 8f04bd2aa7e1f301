import { VIEWS } from './camera.ts';
import type { FigureSource, SolvedFigure } from './schema.ts';
import { closeUpPose } from './closeUp.ts';
import { solveFigure } from './solve.ts';
import type { Solved } from './solve.ts';

/** A close-up is drawn as it is written. */
function asWritten(rig: 'hands' | 'feet', { set, keys }: FigureSource): Solved {
  const poses: number[][] = [];
  let before = closeUpPose(rig, null, set);
  for (const key of keys) {
    before = closeUpPose(rig, before, key.set);
    poses.push(before);
  }
  return {
    poses,
    between: keys.slice(1).map(() => []),
  };
}

/** A figure as it ships. */
export function finished(source: FigureSource): SolvedFigure {
  const { rig } = source;
  const solved = rig === 'body' ? solveFigure(source) : asWritten(rig, source);
  const view = typeof source.view === 'string' ? VIEWS[source.view] : (source.view ?? VIEWS['side']);
  if (!view) throw new Error(`no view is called "${String(source.view)}"`);
  const shown = source.shown ?? solved.poses.length - 1;
  if (!solved.poses[shown]) throw new Error(`there is no key ${shown} to stand for it`);
  const frame = source.frame ?? 'full';
  return {
    rig,
    sides: source.sides,
    poses: solved.poses.map((pose) => [...pose]),
    between: solved.between.map((way) => way.map((pose) => [...pose])),
    shown,
    ghost: source.ghost ?? true,
    view,
    frame: typeof frame === 'string' ? [frame] : frame,
    accent: source.accent ?? [],
    kit: source.kit ?? [],
    marks: source.marks ?? [],
    z: source.z ?? {},
  };
}
