import { closeUpNumbers } from './closeUp.ts';
import { FRAME_NAMES } from './frame.ts';
import { jointsOf } from './joints.ts';
import { bodyAt } from './pose.ts';
import { kitWay } from './schema.ts';
import type { Kit, Mark, SolvedFigure } from './schema.ts';
import { NUMBERS, RANGE, sitesOf } from './skeleton.ts';

/** Something that a picture from outside says and nobody can draw: where in it, and what would be right. */
export interface PictureFault {
  readonly path: readonly (string | number)[];
  readonly message: string;
}

const HANDS = ['fistL', 'fistR'];
/** The places by which the hands that hold something are known: a fist of the whole body, the grip of a hand seen close. */
const handsIn = (rig: SolvedFigure['rig'], { side }: Kit): string[] =>
  (side === 'both' ? ['L', 'R'] : [side ?? 'L']).map((one) => `${rig === 'hands' ? 'grip' : 'fist'}${one}`);

function placeOfMark(mark: Mark): { readonly key: string; readonly name: string } | null {
  for (const key of ['move', 'push', 'spin', 'hold', 'breath', 'gaze', 'shut', 'tint', 'at'])
    if (key in mark) return { key, name: String((mark as Record<string, unknown>)[key]) };
  return null;
}

/** What is wrong with a picture that somebody sends; empty where it can be drawn and moved. */
export function pictureFaults(figure: SolvedFigure): PictureFault[] {
  const faults: PictureFault[] = [];
  const { rig, poses, between, shown, kit, marks, frame } = figure;
  const names = rig === 'body' ? NUMBERS : closeUpNumbers(rig);
  const settings = new Map(
    jointsOf({ rig, sides: ['L', 'R'] }).flatMap((j) => j.settings.map((s) => [s.place, s])),
  );
  const rangeOf = (i: number) => (rig === 'body' ? RANGE[i] : settings.get(i)?.range) ?? [-400, 400];
  const pose = (values: readonly number[], path: readonly (string | number)[]) => {
    if (values.length !== names.length)
      faults.push({ path, message: `${names.length} numbers, not ${values.length}` });
    values.forEach((value, i) => {
      const [low, high] = rangeOf(i);
      if (value < low - 0.1 || value > high + 0.1)
        faults.push({ path: [...path, i], message: `${names[i] ?? i} goes from ${low} to ${high}` });
    });
  };
  poses.forEach((one, key) => pose(one, ['poses', key]));
  between.forEach((way, i) => way.forEach((one, k) => pose(one, ['between', i, k])));
  if (between.length !== poses.length - 1)
    faults.push({
      path: ['between'],
      message: `one way from each position to the next: ${poses.length - 1}`,
    });
  if (shown >= poses.length) faults.push({ path: ['shown'], message: `one of ${poses.length} positions` });
  if (new Set(figure.sides).size !== figure.sides.length)
    faults.push({ path: ['sides'], message: 'each side once' });
  if (faults.length > 0) return faults;
  const known = new Set(Object.keys(bodyAt(figure, poses[0] ?? []).sites));
  const need = (name: string, path: readonly (string | number)[]) => {
    if (!known.has(name)) faults.push({ path, message: `no place is called "${name}"` });
  };
  kit.forEach((one, i) => {
    if (typeof one.at === 'string') need(one.at, ['kit', i, 'at']);
    const way = kitWay(one);
    if (way === 'strung' && (one.through?.length ?? 0) < 2)
      faults.push({ path: ['kit', i, 'through'], message: 'from one place to another' });
    for (const place of way === 'held' ? handsIn(rig, one) : one.type === 'rings' ? HANDS : [])
      need(place, ['kit', i, 'side']);
    one.through?.forEach((where, k) => typeof where === 'string' && need(where, ['kit', i, 'through', k]));
  });
  marks.forEach((mark, i) => {
    const at = placeOfMark(mark);
    if (at) need(at.name, ['marks', i, at.key]);
  });
  frame.forEach((name, i) => {
    if (FRAME_NAMES.includes(name)) return;
    try {
      for (const site of known.has(name) ? [name] : sitesOf(name)) need(site, ['frame', i]);
    } catch {
      need(name, ['frame', i]);
    }
  });
  return faults;
}
