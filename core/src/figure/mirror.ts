import { closeUpNumbers } from './closeUp.ts';
import type { Kit, Mark, SolvedFigure } from './schema.ts';
import { NUMBERS } from './skeleton.ts';

/** "kneeL" is "kneeR" on the other side; what has no side stays. */
const other = (name: string): string => name.replace(/([LR])(?=$|\.)/, (side) => (side === 'L' ? 'R' : 'L'));
/** Numbers that point to the other side when everything is turned round. */
const TURNED = /^(?:root\.(?:z|yaw|roll)|(?:spine|chest|neck)\.(?:side|turn))$|^(?:z|yaw|roll)[LR]$/;

function mirroredPose(names: readonly string[], pose: readonly number[]): number[] {
  return names.map((name) => {
    const value = pose[names.indexOf(other(name))] ?? 0;
    return TURNED.test(name) && value !== 0 ? -value : value;
  });
}

type Place = string | readonly [number, number, number];
const place = <T extends Place>(where: T): T =>
  (typeof where === 'string' ? other(where) : [where[0], where[1], -where[2] || 0]) as T;

function mirroredKit(kit: Kit): Kit {
  const { at, through, side, face } = kit;
  return {
    ...kit,
    ...(at === undefined ? {} : { at: place(at) }),
    ...(through ? { through: through.map(place) } : {}),
    ...(side === 'L' || side === 'R' ? { side: side === 'L' ? 'R' : 'L' } : {}),
    ...(kit.type === 'wall' && (face === 'left' || face === 'right')
      ? { face: face === 'left' ? ('right' as const) : ('left' as const) }
      : {}),
  };
}

function mirroredMark(whole: Mark): Mark {
  const mark: Mark =
    'off' in whole && whole.off ? { ...whole, off: [-whole.off[0] || 0, whole.off[1]] } : whole;
  if ('gaze' in mark) return { gaze: other(mark.gaze) };
  if ('move' in mark) return { ...mark, move: other(mark.move) };
  if ('push' in mark) return { ...mark, push: other(mark.push), to: place(mark.to) };
  if ('spin' in mark) return { ...mark, spin: other(mark.spin) };
  if ('hold' in mark) return { ...mark, hold: other(mark.hold) };
  if ('breath' in mark) return { ...mark, breath: other(mark.breath) };
  if ('shut' in mark) return { ...mark, shut: other(mark.shut) };
  if ('tint' in mark) return { ...mark, tint: other(mark.tint) };
  if ('path' in mark) return { path: mark.path.map(place) };
  return { ...mark, at: other(mark.at) };
}

/** The figure with its sides exchanged, looked at from the other side. */
export function mirroredFigure(figure: SolvedFigure): SolvedFigure {
  const names = figure.rig === 'body' ? NUMBERS : closeUpNumbers(figure.rig);
  return {
    ...figure,
    sides: figure.sides.map((side) => (side === 'L' ? 'R' : 'L')),
    poses: figure.poses.map((pose) => mirroredPose(names, pose)),
    between: figure.between.map((way) => way.map((pose) => mirroredPose(names, pose))),
    view: { ...figure.view, az: -figure.view.az || 0 },
    frame: figure.frame.map(other),
    accent: figure.accent.map((part) => other(part) as typeof part),
    kit: figure.kit.map(mirroredKit),
    marks: figure.marks.map(mirroredMark),
    z: Object.fromEntries(Object.entries(figure.z).map(([name, by]) => [other(name), by])),
  };
}
