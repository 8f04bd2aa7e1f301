import { at as point, figure as amount, outline } from './hull.ts';
import { spot } from './painting.ts';
import type { Drawing, Stroke } from './painting.ts';
import { bodyAt, poseBetween } from './pose.ts';
import type { Mark, SolvedFigure } from './schema.ts';
import type { Pose } from './skeleton.ts';
import { add } from './vector.ts';
import type { Vec } from './vector.ts';

interface Flat {
  readonly x: number;
  readonly y: number;
}
/** Something drawn over the figure. */
export interface MarkStroke extends Stroke {
  /** Lets what is behind through. */
  readonly faint?: boolean;
}

/** An arrow along points, with its head at the end, at the start too where it goes both ways, and a bar where it stops short. */
function arrow(
  points: readonly Flat[],
  width: number,
  { both = false, stop = false }: { both?: boolean | undefined; stop?: boolean | undefined } = {},
): MarkStroke[] {
  const head = (tip: Flat, from: Flat) => {
    const length = Math.hypot(tip.x - from.x, tip.y - from.y) || 1;
    const [ux, uy] = [(tip.x - from.x) / length, (tip.y - from.y) / length];
    const s = width * 3;
    const base = { x: tip.x - ux * s, y: tip.y - uy * s };
    const wing = (k: number) => point(base.x - uy * s * 0.62 * k, base.y + ux * s * 0.62 * k);
    return `M${point(tip.x + ux * s * 0.3, tip.y + uy * s * 0.3)}L${wing(1)}L${wing(-1)}z`;
  };
  const bar = (tip: Flat, from: Flat) => {
    const length = Math.hypot(tip.x - from.x, tip.y - from.y) || 1;
    const [ux, uy] = [((tip.x - from.x) / length) * width, ((tip.y - from.y) / length) * width];
    const end = (k: number) => point(tip.x + ux * 2.4 - uy * 3.4 * k, tip.y + uy * 2.4 + ux * 3.4 * k);
    return `M${end(1)}L${end(-1)}`;
  };
  const [first, second] = points;
  const last = points.at(-1);
  const before = points.at(-2);
  if (!first || !second || !last || !before) return [];
  const line = `M${points.map(({ x, y }) => point(x, y)).join('L')}`;
  return [
    { d: line + (stop ? bar(last, before) : ''), line: 'paper', width: width * 2.6 },
    { d: line + (stop ? bar(last, before) : ''), line: 'mark', width },
    { d: head(last, before) + (both ? head(first, second) : ''), fill: 'mark' },
  ];
}

/** The way of a place from the first key to the one shown, beside the limb rather than on it. */
function wayOf(
  drawing: Drawing,
  solved: SolvedFigure,
  { move, off }: Extract<Mark, { move: string }>,
): Flat[] {
  const keys = solved.poses.slice(0, Math.max(2, solved.shown + 1));
  if (keys.length < 2) return [];
  const steps = 6 * (keys.length - 1);
  const path = Array.from({ length: steps + 1 }, (_, i) => {
    const t = (i / steps) * (keys.length - 1);
    const k = Math.min(keys.length - 2, Math.floor(t));
    const pose = poseBetween(keys[k] as Pose, keys[k + 1] as Pose, t - k);
    return drawing.put(spot({ body: bodyAt(solved, pose) }, move));
  });
  const centre = drawing.put(
    spot(drawing, solved.rig === 'body' ? 'belly' : (Object.keys(drawing.body.sites)[0] ?? '')),
  );
  const middle = path[Math.floor(path.length / 2)] as Flat;
  const far = Math.hypot(middle.x - centre.x, middle.y - centre.y) || 1;
  const by = off ? 0 : 6.5 * drawing.scale;
  const [dx, dy] = [(off?.[0] ?? 0) * drawing.scale, (off?.[1] ?? 0) * drawing.scale];
  return path.map(({ x, y }) => ({
    x: x + (by * (middle.x - centre.x)) / far + dx,
    y: y + (by * (middle.y - centre.y)) / far + dy,
  }));
}

/** A letter A, which is written with the foot. */
function letterA(cx: number, cy: number, r: number, width: number): MarkStroke {
  const d = `M${point(cx - r, cy + r)}L${point(cx, cy - r)}L${point(cx + r, cy + r)}M${point(cx - r * 0.55, cy + r * 0.3)}h${amount(r * 1.1)}`;
  return { d, line: 'mark', width };
}

/** Points along a curve through the points given (Catmull–Rom, four to each piece). */
function rounded(through: readonly Flat[]): Flat[] {
  if (through.length < 3) return [...through];
  return through.slice(0, -1).flatMap((b, i) => {
    const [a, c] = [through[i - 1] ?? b, through[i + 1] ?? b];
    const d = through[i + 2] ?? c;
    const along = (p: number, q: number, r: number, s: number, t: number) =>
      0.5 * (2 * q + (r - p) * t + (2 * p - 5 * q + 4 * r - s) * t * t + (3 * q - p - 3 * r + s) * t ** 3);
    const steps = i === through.length - 2 ? [0, 0.25, 0.5, 0.75, 1] : [0, 0.25, 0.5, 0.75];
    return steps.map((t) => ({ x: along(a.x, b.x, c.x, d.x, t), y: along(a.y, b.y, c.y, d.y, t) }));
  });
}

/** The points an arrow runs along, on the picture; null where the mark is no arrow. */
export function arrowOf(drawing: Drawing, solved: SolvedFigure, mark: Mark): Flat[] | null {
  const { put, scale: s } = drawing;
  if ('move' in mark) return wayOf(drawing, solved, mark);
  if ('path' in mark) return rounded(mark.path.map((p) => put(p as unknown as Vec)));
  if ('push' in mark) {
    const [dx, dy] = mark.off ?? [0, 0];
    const from = spot(drawing, mark.push);
    return [put(from), put(add(from, mark.to as Vec))].map(({ x, y }) => ({
      x: x + dx * s,
      y: y + dy * s,
    }));
  }
  if ('spin' in mark) {
    const { x, y } = put(spot(drawing, mark.spin));
    const r = (mark.radius ?? 8) * s;
    const turn = mark.back ? -1 : 1;
    return Array.from({ length: 15 }, (_, i) => {
      const a = ((-150 + i * 18.5) * Math.PI) / 180;
      return { x: x + turn * r * Math.cos(a), y: y + r * 0.55 * Math.sin(a) };
    });
  }
  return null;
}

/** What a mark looks like on the picture. */
export function markStrokes(drawing: Drawing, solved: SolvedFigure, mark: Mark, width: number): MarkStroke[] {
  const { put, scale: s } = drawing;
  const spotOf = (name: string, off?: readonly [number, number]): Flat => {
    const { x, y } = put(spot(drawing, name));
    return { x: x + (off?.[0] ?? 0) * s, y: y + (off?.[1] ?? 0) * s };
  };
  const along = arrowOf(drawing, solved, mark);
  if (along)
    return arrow(along, width, {
      both: 'both' in mark && mark.both,
      stop: 'stop' in mark && mark.stop,
    });
  if ('gaze' in mark) {
    if (!('brow' in drawing.body.sites)) return [];
    const [from, to] = [put(spot(drawing, 'brow')), put(spot(drawing, mark.gaze))];
    const at = (t: number) => point(from.x + (to.x - from.x) * t, from.y + (to.y - from.y) * t);
    const dashes = Array.from({ length: 6 }, (_, i) => `M${at(0.08 + i * 0.145)}L${at(0.16 + i * 0.145)}`);
    return [
      { d: dashes.join(''), line: 'paper', width: width * 2 },
      { d: dashes.join(''), line: 'mark', width: width * 0.8 },
    ];
  }
  if ('hold' in mark) {
    const { x, y } = spotOf(mark.hold, mark.off ?? [0, -12]);
    const r = width * 3.4;
    const bar = (k: number) => `M${point(x + k * r * 0.34, y - r * 0.42)}v${amount(r * 0.84)}`;
    return [
      { d: outline([{ x, y, r }]), fill: 'paper', line: 'mark', width: width * 0.8 },
      { d: bar(-1) + bar(1), line: 'mark', width: width * 1.1 },
    ];
  }
  if ('shut' in mark) {
    // A lid with its lashes: the eyes are closed.
    const { x, y } = spotOf(mark.shut, mark.off ?? [13, 0]);
    const w = width * 3.6;
    const lash = (k: number) =>
      `M${point(x + k * w * 0.7, y + w * (0.5 - 0.3 * k * k))}l${point(k * w * 0.24, w * 0.36)}`;
    const lid = `M${point(x - w, y)}q${point(w, w)} ${point(2 * w, 0)}`;
    return [{ d: lid + [-0.9, 0, 0.9].map(lash).join(''), line: 'mark', width }];
  }
  if ('breath' in mark) {
    const { x, y } = spotOf(mark.breath, mark.off);
    return [5, 8.5].map((r) => ({
      d: `M${point(x - r * s, y - 9 * s)}q${point(r * s, -r * 0.9 * s)} ${point(2 * r * s, 0)}`,
      line: 'mark',
      width,
    }));
  }
  if ('say' in mark) {
    const { x, y } = spotOf(mark.at, mark.off);
    return [letterA(x, y, 5 * s, width)];
  }
  if (!('tint' in mark)) return [];
  const { x, y } = spotOf(mark.tint);
  return [{ d: outline([{ x, y, r: (mark.radius ?? 5) * s }]), fill: 'glow', faint: true }];
}
