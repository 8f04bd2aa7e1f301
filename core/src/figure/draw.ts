import { bodyPieces, silhouette } from './bodyPieces.ts';
import { cameraOf } from './camera.ts';
import { boxOf } from './frame.ts';
import { figure as amount, outline } from './hull.ts';
import { kitPieces } from './kitShapes.ts';
import type { Drawing } from './painting.ts';
import { markStrokes } from './marks.ts';
import type { MarkStroke } from './marks.ts';
import { bodyAt } from './pose.ts';
import type { SolvedFigure } from './schema.ts';
import type { Body, Pose } from './skeleton.ts';
import type { Tone } from './tones.ts';
import type { Vec } from './vector.ts';

/** Something drawn: an outline that is filled or a line, in a tone. */
export type Shape = MarkStroke;

/** A picture of so many units on each side, ready for any painter. */
export interface Picture {
  readonly size: number;
  readonly shapes: readonly Shape[];
  /** Which side works, as a letter, for paper without colour. */
  readonly letters: readonly { readonly x: number; readonly y: number; readonly text: string }[];
}

/** How a figure is drawn. */
export interface DrawOptions {
  /** The pose in place of the key that is shown, as while it moves. */
  readonly pose?: Pose | undefined;
  /** Small: no start pose behind, stronger marks; as large as what is shown lets it be where no pose is given. */
  readonly small?: boolean;
  /** The other side works: everything is turned round. */
  readonly mirrored?: boolean;
  /** Without marks: while it moves it says itself how. */
  readonly plain?: boolean;
  /** Framed as this one would be: so that the picture stays where it is while something in it is moved. */
  readonly framedAs?: SolvedFigure | undefined;
  /** A letter says which side works, too. */
  readonly letters?: boolean;
}

/** Units of a picture on each side. */
export const PICTURE = 240;
const MARGIN = 10;

/** The floor under what is near it. */
function floorOf(drawing: Drawing, bodies: readonly Body[]): Shape[] {
  const low = bodies.flatMap(({ sites }) => Object.values(sites).filter(({ at }) => at[1] < 16));
  if (low.length === 0) return [];
  const xs = low.map(({ at }) => at[0]);
  const zs = low.map(({ at }) => at[2]);
  const [x0, x1, z0, z1] = [
    Math.min(...xs) - 6,
    Math.max(...xs) + 6,
    Math.min(...zs) - 7,
    Math.max(...zs) + 7,
  ];
  const corners: Vec[] = [
    [x0, 0, z0],
    [x1, 0, z0],
    [x1, 0, z1],
    [x0, 0, z1],
  ];
  return [
    {
      d: outline(corners.map((corner) => ({ ...drawing.put(corner), r: 1.6 * drawing.scale }))),
      fill: 'floor',
    },
  ];
}

const OTHER: Partial<Record<Tone, Tone>> = {
  left: 'right',
  right: 'left',
  leftFar: 'rightFar',
  rightFar: 'leftFar',
};
function otherSide(shape: Shape): Shape {
  const fill = shape.fill && OTHER[shape.fill];
  return fill ? { ...shape, fill } : shape;
}

/** The key that a pose is nearest to: kit is there or not by keys. */
function nearestKey({ poses }: SolvedFigure, pose: Pose): number {
  const far = (other: Pose) => pose.reduce((sum, v, i) => sum + Math.abs(v - (other[i] ?? 0)), 0);
  return poses.reduce((best, one, i) => (far(one) < far(poses[best] ?? []) ? i : best), 0);
}

/** "L" or "R" in a corner where one side works, for paper without colour. */
function lettersOf({ accent }: SolvedFigure, mirrored: boolean): Picture['letters'] {
  const sides = new Set(accent.flatMap((part) => /[LR]$/.exec(part) ?? []));
  if (sides.size !== 1) return [];
  return [{ x: 16, y: PICTURE - 10, text: sides.has('L') !== mirrored ? 'L' : 'R' }];
}

/** How the room lies in the picture of a figure, whatever pose is drawn in it. */
export interface Layout {
  /** Units of the picture for one hundredth of the body's height. */
  readonly scale: number;
  readonly put: (p: Vec) => { readonly x: number; readonly y: number; readonly near: number };
}

/** The layout of a figure's picture: it holds every key, or only the one shown where nothing moves and nothing stands behind. */
export function layoutOf(solved: SolvedFigure, mirrored = false, standing = false): Layout {
  const box = boxOf(
    solved,
    solved.poses.map((pose) => bodyAt(solved, pose)),
    standing,
  );
  const scale = (PICTURE - 2 * MARGIN) / box.side;
  const camera = cameraOf(solved.view);
  const put = (p: Vec) => {
    const { x, y, near } = camera.see(p);
    const across = MARGIN + (x - box.x) * scale;
    return { x: mirrored ? PICTURE - across : across, y: MARGIN + (y - box.y) * scale, near };
  };
  return { scale, put };
}

/** Draws a figure: floor, the start behind, kit and body from far to near, the marks above. */
export function drawFigure(solved: SolvedFigure, options: DrawOptions = {}): Picture {
  const { pose: moving, small = false, mirrored = false, plain = false } = options;
  const bodies = solved.poses.map((pose) => bodyAt(solved, pose));
  const standing = small && moving === undefined;
  const { scale, put } = layoutOf(options.framedAs ?? solved, mirrored, standing);
  const camera = cameraOf(solved.view);
  const pose = moving ?? solved.poses[solved.shown] ?? [];
  const key = moving ? nearestKey(solved, moving) : solved.shown;
  const drawing: Drawing = { body: bodyAt(solved, pose), camera, scale, put };
  const shapes: Shape[] = solved.rig === 'hands' ? [] : floorOf(drawing, standing ? [drawing.body] : bodies);
  const [start] = solved.poses;
  if (solved.ghost && !small && !plain && solved.shown > 0 && start && bodies[0])
    shapes.push({ d: silhouette({ ...drawing, body: bodies[0] }, solved, start), fill: 'ghost' });
  const pieces = [...bodyPieces(drawing, solved, pose), ...kitPieces(drawing, solved.kit, key)];
  shapes.push(...pieces.sort((a, b) => a.near - b.near).flatMap(({ strokes }) => strokes));
  if (!plain)
    for (const mark of solved.marks) shapes.push(...markStrokes(drawing, solved, mark, small ? 4.4 : 2.9));
  return {
    size: PICTURE,
    shapes: mirrored ? shapes.map(otherSide) : shapes,
    letters: options.letters ? lettersOf(solved, mirrored) : [],
  };
}

/** What is inside a picture's document, as text; colours by tone. */
export function markupOf({ shapes, letters }: Picture, colours: Readonly<Record<Tone, string>>): string {
  const tags = shapes.map(({ d, fill, line, width, faint }) => {
    const stroke = line
      ? ` stroke="${colours[line]}" stroke-width="${amount(width ?? 1)}" stroke-linejoin="round" stroke-linecap="round"`
      : '';
    return `<path d="${d}" fill="${fill ? colours[fill] : 'none'}"${stroke}${faint ? ' opacity=".55"' : ''}/>`;
  });
  const words = letters.map(
    ({ x, y, text }) =>
      `<text x="${amount(x)}" y="${amount(y)}" font-size="28" font-weight="bold" text-anchor="middle" fill="${colours.mark}">${text}</text>`,
  );
  return tags.join('') + words.join('');
}

/** A picture as a document of its own; colours by tone. */
export function svgOf(picture: Picture, colours: Readonly<Record<Tone, string>>): string {
  const { size } = picture;
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${size} ${size}">${markupOf(picture, colours)}</svg>`;
}
