import { cameraOf } from './camera.ts';
import { arrowOf } from './marks.ts';
import { spot } from './painting.ts';
import type { Drawing } from './painting.ts';
import type { Mark, SolvedFigure } from './schema.ts';
import { sitesOf } from './skeleton.ts';
import type { Body } from './skeleton.ts';

/** Which places have to be in the picture, by the name of the frame. */
const FRAMES: Readonly<Record<string, readonly string[]>> = {
  upper: ['head', 'hip', 'elbow', 'wrist', 'fingertips'],
  lower: ['hip', 'knee', 'ankle', 'heel', 'toes'],
};
/** Frames by name; in a frame whatever else is called is a place. */
export const FRAME_NAMES: readonly string[] = ['full', ...Object.keys(FRAMES)];
/** Least size of a picture, in hundredths of the body's height: a hand is not blown up beyond that. */
const LEAST = { body: 34, hands: 17, feet: 17 } as const;
/** How much kit reaches round the place where it stands. */
const REACH: Readonly<Record<string, number>> = { box: 10, bench: 10, table: 10, chair: 10, bike: 16 };

/** The square of the room, as the camera sees it, that the picture shows. */
export interface Box {
  readonly x: number;
  readonly y: number;
  readonly side: number;
}

interface Seen {
  readonly x: number;
  readonly y: number;
  readonly r: number;
}
/** What a mark needs of the picture beside the body. */
function reachOf(drawing: Drawing, solved: SolvedFigure, mark: Mark, whole: boolean): Seen[] {
  const along = arrowOf(drawing, solved, mark);
  if (along) return along.map(({ x, y }) => ({ x, y, r: whole ? 3 : 1.5 }));
  const beside = (name: string, [dx, dy]: readonly [number, number], r: number): Seen[] => {
    const { x, y } = drawing.put(spot(drawing, name));
    return [{ x: x + dx, y: y + dy, r }];
  };
  if ('breath' in mark) {
    const [dx, dy] = mark.off ?? [0, 0];
    return beside(mark.breath, [dx, dy - 14], 4);
  }
  if ('shut' in mark) return beside(mark.shut, mark.off ?? [13, 0], 5);
  if ('hold' in mark) return beside(mark.hold, mark.off ?? [0, -12], solved.rig === 'body' ? 5 : 2.6);
  if ('say' in mark) return beside(mark.at, mark.off ?? [0, 0], 6);
  return [];
}

/** The square that holds what has to be seen in every key, or only in the one that is shown. */
export function boxOf(solved: SolvedFigure, bodies: readonly Body[], standing = false): Box {
  const camera = cameraOf(solved.view);
  const whole = solved.frame[0] === 'full';
  const seen: Seen[] = [];
  bodies.forEach((body, key) => {
    if (standing && key !== solved.shown) return;
    const names = whole
      ? Object.keys(body.sites).filter((name) => !/^(?:foreEnd|shin[LR])/.test(name))
      : solved.frame.flatMap((name) =>
          (FRAMES[name] ?? [name]).flatMap((one) => (one in body.sites ? [one] : sitesOf(one))),
        );
    for (const name of names) {
      const site = body.sites[name];
      if (site) seen.push({ ...camera.see(site.at), r: site.radius });
    }
    if (!whole || solved.rig !== 'body') return;
    for (const { type, at, through, keys } of solved.kit) {
      if (type === 'wall' || type === 'mat' || (keys && !keys.includes(key))) continue;
      const spots = [...(at && typeof at !== 'string' ? [at] : []), ...(through ?? [])];
      if (type === 'helper' && Array.isArray(at)) spots.push([at[0] ?? 0, 92, at[2] ?? 0]);
      for (const where of spots) seen.push({ ...camera.see(spot({ body }, where)), r: REACH[type] ?? 3 });
    }
  });
  for (const mark of solved.marks) {
    const shown = bodies[solved.shown];
    if (shown) seen.push(...reachOf({ body: shown, camera, scale: 1, put: camera.see }, solved, mark, whole));
  }
  const [left, right] = [
    Math.min(...seen.map(({ x, r }) => x - r)),
    Math.max(...seen.map(({ x, r }) => x + r)),
  ];
  const [top, bottom] = [
    Math.min(...seen.map(({ y, r }) => y - r)),
    Math.max(...seen.map(({ y, r }) => y + r)),
  ];
  const air = solved.rig !== 'body' ? 4 : whole ? 0 : 10;
  const side = Math.max(right - left, bottom - top, LEAST[solved.rig]) + air;
  return { x: (left + right) / 2 - side / 2, y: (top + bottom) / 2 - side / 2, side };
}
