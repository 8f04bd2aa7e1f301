import { bodyAt, poseBetween } from './pose.ts';
import type { SolvedFigure } from './schema.ts';
import { centreOfMass } from './skeleton.ts';
import type { Pose } from './skeleton.ts';

/** One part of a repetition: from a key to a key, or staying in one, for so many seconds. */
export interface Move {
  readonly from: number;
  readonly to: number;
  readonly seconds: number;
}

/** How a drill is done, as far as its picture moves by it. */
export interface Rhythm {
  /** Down, stay, up in seconds: "3-1-1"; null where nothing is said. */
  readonly tempo: string | null;
  /** Seconds that one repetition takes, at least. */
  readonly secondsPerRep: number | null;
  /** Seconds that the end is held. */
  readonly holdSeconds: number | null;
}

/** Seconds that a movement takes from key to key where nothing is said. */
const EACH_WAY = 1.2;
/** Quick drills are shown slower than they are done, so that one can see how. */
const SLOWEST_PER_SECOND = 0.45;

/** How high the body is in a key: lowering goes where that falls. */
function height(figure: SolvedFigure, key: number): number {
  const body = bodyAt(figure, figure.poses[key] ?? []);
  return figure.rig === 'body'
    ? centreOfMass(body)[1]
    : Object.values(body.sites).reduce((sum, { at }) => sum + at[1], 0);
}

/** One repetition of a figure's keys, out and back; nothing where it does not move. */
export function movesOf(
  figure: SolvedFigure,
  { tempo, secondsPerRep, holdSeconds }: Rhythm,
): readonly Move[] {
  const last = figure.poses.length - 1;
  if (last < 1) return [];
  const [down, stay, up] = (tempo ?? '').split('-').map(Number);
  const hold = holdSeconds ?? (tempo && Number.isFinite(stay) ? (stay ?? 0) : 0);
  const moving = Math.max(0, (secondsPerRep ?? 0) - hold);
  const plain = Math.max(SLOWEST_PER_SECOND, moving > 0 ? moving / 2 : EACH_WAY);
  const lowers = height(figure, last) < height(figure, 0);
  const [out, back] =
    down !== undefined && up !== undefined && Number.isFinite(down + up)
      ? lowers
        ? [down, up]
        : [up, down]
      : [plain, plain];
  const ways = (from: number, to: number, seconds: number): Move[] => {
    const steps = Math.abs(to - from);
    const each = Math.max(SLOWEST_PER_SECOND, seconds) / steps;
    const sign = Math.sign(to - from);
    return Array.from({ length: steps }, (_, i) => ({
      from: from + i * sign,
      to: from + (i + 1) * sign,
      seconds: each,
    }));
  };
  return [
    ...ways(0, last, out),
    ...(hold > 0 ? [{ from: last, to: last, seconds: hold }] : []),
    ...ways(last, 0, back),
  ];
}

const eased = (t: number) => (t < 0.5 ? 4 * t ** 3 : 1 - (-2 * t + 2) ** 3 / 2);

/** The pose a share of the way from one key to the next, over the poses between them. */
function onTheWay(figure: SolvedFigure, from: number, to: number, share: number): Pose {
  const [a, b] = from <= to ? [from, to] : [to, from];
  const along = from <= to ? share : 1 - share;
  const stops = [figure.poses[a] ?? [], ...(figure.between[a] ?? []), figure.poses[b] ?? []];
  const at = along * (stops.length - 1);
  const i = Math.min(stops.length - 2, Math.floor(at));
  return poseBetween(stops[i] ?? [], stops[i + 1] ?? [], at - i);
}

/** Seconds of one repetition. */
export const cycleSeconds = (moves: readonly Move[]): number =>
  moves.reduce((sum, { seconds }) => sum + seconds, 0);

/** The pose at a second of the repetitions. */
export function poseAt(figure: SolvedFigure, moves: readonly Move[], seconds: number): Pose {
  const cycle = cycleSeconds(moves);
  if (cycle === 0) return figure.poses[figure.shown] ?? [];
  let left = ((seconds % cycle) + cycle) % cycle;
  for (const { from, to, seconds: takes } of moves) {
    if (left <= takes)
      return from === to ? (figure.poses[from] ?? []) : onTheWay(figure, from, to, eased(left / takes));
    left -= takes;
  }
  return figure.poses[0] ?? [];
}
