import type { Segment } from '../dose/index.ts';

/** Where a run stands: the segment and the seconds into it; segments that were skipped count as not done. */
export interface Position {
  readonly segment: number;
  readonly elapsed: number;
  readonly skipped: readonly number[];
}

/** Before anything was played. */
export const AT_THE_START: Position = { segment: 0, elapsed: 0, skipped: [] };

/** Moves on by `seconds`, over as many segments as they cover. At the end the segment index equals their number. */
export function advance(segments: readonly Segment[], position: Position, seconds: number): Position {
  let { segment } = position;
  let elapsed = position.elapsed + seconds;
  for (let current = segments[segment]; current && elapsed >= current.seconds; current = segments[segment]) {
    elapsed -= current.seconds;
    segment += 1;
    while (position.skipped.includes(segment)) segment += 1; // later rounds of a drill that was stopped
  }
  return { ...position, segment, elapsed: segment >= segments.length ? 0 : elapsed };
}

/** Leaves out these segments as well; it goes on with the first one from here that is not left out. */
function without(segments: readonly Segment[], position: Position, rest: readonly number[]): Position {
  const skipped = [...new Set([...position.skipped, ...rest])];
  const gone = new Set(skipped);
  let { segment } = position;
  while (segment < segments.length && gone.has(segment)) segment += 1;
  return { segment, elapsed: segment === position.segment ? position.elapsed : 0, skipped };
}

/** Leaves the present segment undone and goes to the next. */
export function skip(segments: readonly Segment[], position: Position): Position {
  return position.segment < segments.length ? without(segments, position, [position.segment]) : position;
}

/** Back to the start of this segment, or to the one before when it has hardly begun. */
export function back(segments: readonly Segment[], position: Position): Position {
  const target = position.elapsed > 2 ? position.segment : Math.max(0, position.segment - 1);
  return backTo(position, Math.min(target, segments.length));
}

/** Back to a segment: what was left out from there on is done after all. */
export function backTo(position: Position, segment: number): Position {
  const skipped = position.skipped.filter((s) => s < segment || s > position.segment);
  return { segment, elapsed: 0, skipped };
}

/** Leaves out what is left of a line, in later rounds of a circuit as well; without one of the present drill's. */
export function skipItem(
  segments: readonly Segment[],
  position: Position,
  item = segments[position.segment]?.item,
): Position {
  const rest = segments.flatMap((s, index) => (index >= position.segment && s.item === item ? [index] : []));
  return without(segments, position, rest);
}

/** Leaves out all that is left. */
export function skipRest(segments: readonly Segment[], position: Position): Position {
  return without(
    segments,
    position,
    segments.flatMap((_, index) => (index >= position.segment ? [index] : [])),
  );
}

/** Seconds left of the whole session. */
export function secondsLeft(segments: readonly Segment[], position: Position): number {
  const rest = segments.reduce(
    (sum, segment, index) =>
      index < position.segment || position.skipped.includes(index) ? sum : sum + segment.seconds,
    0,
  );
  return Math.max(0, rest - position.elapsed);
}

/** The repetition under way, from 1, of a work segment. */
export function repetition(segment: Segment, elapsed: number): number {
  if (!segment.secondsPerRep || !segment.amount) return 1;
  return Math.min(segment.amount, Math.floor(elapsed / segment.secondsPerRep + 1e-9) + 1);
}
