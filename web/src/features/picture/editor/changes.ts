import { joined, jointsOf, kitWay, withNumbers } from '@yonder/core/figure';
import type { Kit, Mark, SolvedFigure } from '@yonder/core/figure';
import { MARK_WORDS } from './words.ts';

/** Most positions, pieces of kit and marks that a picture has. */
export const MOST = { poses: 4, kit: 8, marks: 8 } as const;

/** The figure with one position replaced. */
export function withPose(figure: SolvedFigure, key: number, pose: readonly number[]): SolvedFigure {
  return joined({ ...figure, poses: figure.poses.map((one, i) => (i === key ? [...pose] : one)) });
}

/** The figure with one number of a position set; of a limb, on the other side too where both are meant. */
export function withSetting(
  figure: SolvedFigure,
  key: number,
  place: number,
  value: number,
  both: boolean,
): SolvedFigure {
  const twin = both ? twinOf(figure, place) : null;
  const set = new Map([[place, value], ...(twin === null ? [] : [[twin, value] as const])]);
  const pose = figure.poses[key] ?? [];
  const next =
    figure.rig === 'body' ? withNumbers(pose, figure.kit, set) : pose.map((one, i) => set.get(i) ?? one);
  return withPose(figure, key, next);
}

/** Where the same number of the other side stands; null where it has none. */
function twinOf(figure: SolvedFigure, place: number): number | null {
  const joints = jointsOf({ rig: figure.rig, sides: ['L', 'R'] });
  for (const { site, settings } of joints) {
    const at = settings.findIndex((one) => one.place === place);
    if (at < 0) continue;
    const other = site.replace(/[LR]$/, (side) => (side === 'L' ? 'R' : 'L'));
    if (other === site) return null;
    return joints.find((one) => one.site === other)?.settings[at]?.place ?? null;
  }
  return null;
}

/** The figure with a copy of a position behind it. */
export function withCopy(figure: SolvedFigure, key: number): SolvedFigure {
  const pose = figure.poses[key];
  if (!pose || figure.poses.length >= MOST.poses) return figure;
  return joined({ ...figure, poses: figure.poses.toSpliced(key + 1, 0, [...pose]), shown: key + 1 });
}

/** The figure without a position; one stays. */
export function withoutPose(figure: SolvedFigure, key: number): SolvedFigure {
  if (figure.poses.length < 2) return figure;
  const poses = figure.poses.toSpliced(key, 1);
  const shown = Math.min(poses.length - 1, figure.shown > key ? figure.shown - 1 : figure.shown);
  return joined({ ...figure, poses, shown });
}

/** The figure with other kit; positions stay, the ways between them are worked out anew. */
export const withKit = (figure: SolvedFigure, kit: Kit[]): SolvedFigure => joined({ ...figure, kit });

/** A piece of kit as it is put in at first: before the body, in the left hand, or between two places. */
export function newKit(type: Kit['type']): Kit {
  const way = kitWay({ type });
  if (way === 'held') return { type, side: 'L' };
  if (way === 'strung') {
    const through: NonNullable<Kit['through']> =
      type === 'loop' ? ['kneeL', 'kneeR'] : type === 'dowel' ? ['fistL', 'fistR'] : ['fistL', [50, 40, 0]];
    return { type, through };
  }
  if (type === 'wall') return { type, at: [34, 0, 0], face: 'front' };
  if (type === 'sensor') return { type, at: 'midShinL' };
  if (type === 'bar' || type === 'edge') return { type, at: [4, 126, 0] };
  return { type, at: [30, 0, 0] };
}

/** Ways an arrow of a push goes, in words, as it is put in at first. */
export const PUSHES: Readonly<Record<string, readonly [number, number, number]>> = {
  up: [0, 14, 0],
  down: [0, -14, 0],
  forwards: [14, 0, 0],
  back: [-14, 0, 0],
  'to the left': [0, 0, -14],
  'to the right': [0, 0, 14],
};

/** Which of those ways an arrow goes, whatever its length; said so where it goes slantwise. */
export function wayOfPush(to: readonly number[]): string {
  const length = Math.hypot(...to) || 1;
  const along = (way: readonly number[]) =>
    way.reduce((sum, v, i) => sum + v * (to[i] ?? 0), 0) / 14 / length;
  return Object.keys(PUSHES).find((name) => along(PUSHES[name] ?? []) > 0.999) ?? 'slantwise';
}

/** Marks that can be put on a figure: a hand or foot seen close has no eyes. */
export const markKinds = ({ rig }: SolvedFigure): string[] =>
  Object.keys(MARK_WORDS).filter((kind) => rig === 'body' || (kind !== 'gaze' && kind !== 'shut'));

/** A mark at a place, as it is put in at first: of a push, the way it goes as well; closed eyes are at the head. */
export const newMark = (kind: string, place: string): Mark =>
  ({
    [kind]: kind === 'shut' ? 'head' : place,
    ...(kind === 'push' ? { to: [...(PUSHES['up'] ?? [])] } : {}),
  }) as Mark;

/** Where a figure works, for a mark that is put in: the limb marked first, of a close-up its hand or foot. */
export function placeOfWork({ rig, sides, accent }: SolvedFigure): string {
  if (rig !== 'body') return `${rig === 'hands' ? 'wrist' : 'ankle'}${sides[0] ?? 'L'}`;
  const [, limb, side = ''] = /^(arm|leg)([LR])$/.exec(accent[0] ?? '') ?? [];
  return limb ? `${limb === 'arm' ? 'fist' : 'knee'}${side}` : 'chest';
}
