import { longestDrillSeconds, warmingWanted, warms } from '@yonder/core/builder';
import type { BuildRequest, RoutineItem, Section } from '@yonder/core/domain';
import { routineTimeline } from '@yonder/core/dose';
import type { Segment } from '@yonder/core/dose';
import { isLine, PAUSE } from '@yonder/core/reference';
import type { Drill, Reference } from '@yonder/core/reference';

/** A point of the ground: seconds from the start, and height from 0 to 1. */
interface GroundPoint {
  readonly at: number;
  readonly height: number;
}

/** One drill as it is done, a summit of the way: from its set-up to its last set. */
interface Summit {
  readonly item: number;
  readonly start: number;
  readonly end: number;
  readonly height: number;
}

/** A part of the session under its name. */
interface Ground {
  readonly id: string;
  readonly name: string;
  readonly start: number;
  readonly end: number;
}

/** A session as a way up a ridge, all in seconds from the start; heights from 0 to 1 go by the drill's own intensity. */
export interface WayUp {
  readonly total: number;
  /** Seconds there are. */
  readonly room: number;
  readonly segments: readonly (Segment & { readonly warms: boolean })[];
  readonly ground: readonly GroundPoint[];
  readonly summits: readonly Summit[];
  readonly parts: readonly Ground[];
  /** Warming before activity: wanted, there, and when enough is reached (null = never). */
  readonly warm: { readonly wanted: number; readonly has: number; readonly reached: number | null } | null;
  /** Drills that take longer than one drill should, with the seconds beyond. */
  readonly long: readonly { readonly summit: Summit; readonly over: number }[];
  /** The longest that one drill should take. */
  readonly longest: number;
}

/** Where the heights of the three intensity classes begin; inside a class demand raises a little. */
export const HEIGHT = { low: 0.3, moderate: 0.58, high: 0.86 } as const;
const BY_DEMAND = 0.014;
/** How far the ground falls where nothing is done: between drills, and between sets. */
const COL = 0.12;
const DIP = 0.16;
/** Where a rest lies: a saddle between summits. */
const REST = 0.16;

function heightOf(drill: Drill): number {
  if (drill.id === PAUSE) return REST;
  return HEIGHT[drill.intensityClass] + BY_DEMAND * Math.max(0, drill.demandIndex - 1);
}

function summitsOf(segments: readonly Segment[], heights: readonly number[]): Summit[] {
  const summits: Summit[] = [];
  for (const { item, kind, start, seconds } of segments) {
    if (kind === 'changeover' || kind === 'floor-change') continue;
    const last = summits.at(-1);
    const end = start + seconds;
    if (last?.item === item && Math.abs(last.end - start) < 1e-6)
      summits[summits.length - 1] = { ...last, end };
    else summits.push({ item, start, end, height: heights[item] ?? 0 });
  }
  return summits;
}

/** The ground under the way: level where work is done, lower at rest, lowest on the way to the next drill. */
function groundOf(segments: readonly Segment[], heights: readonly number[], total: number): GroundPoint[] {
  const points: GroundPoint[] = [{ at: 0, height: COL }];
  for (const { kind, item, start, seconds } of segments) {
    const height = heights[item] ?? 0;
    const edge = Math.min(3, seconds / 3);
    if (kind === 'work') points.push({ at: start + edge, height }, { at: start + seconds - edge, height });
    else if (kind === 'changeover' || kind === 'floor-change')
      points.push({ at: start + seconds / 2, height: COL });
    else if (kind !== 'setup') points.push({ at: start + seconds / 2, height: height - DIP });
  }
  return [...points, { at: total, height: COL }];
}

/** What is laid out: lines in their order, with the names of the parts they stand in. */
interface Laid {
  readonly structure: string;
  readonly sections: readonly Section[];
  readonly items: readonly RoutineItem[];
}

/** Lays a routine out as a way up a ridge. Parts come with their own names, or those of the structure in force. */
export function wayUp(
  reference: Reference,
  { structure, sections, items }: Laid,
  mode: BuildRequest['mode'],
  minutes: number,
): WayUp {
  const drills = items.flatMap((item) => reference.drills.get(item.drill) ?? []);
  const heights = drills.map(heightOf);
  const timeline = routineTimeline(reference, items);
  const warming = drills.map(
    (d) => !isLine(d.id) && warms({ category: d.category, temperature: d.raisesTemperature }),
  );
  const segments = timeline.map((s) => ({
    ...s,
    warms: s.kind !== 'changeover' && (warming[s.item] ?? false),
  }));
  const last = segments.at(-1);
  const total = last ? last.start + last.seconds : 0;
  const summits = summitsOf(segments, heights);
  const named = [...sections, ...(reference.structures.get(structure)?.phases ?? [])];
  const parts: Ground[] = [];
  for (const { item, start, end } of summits) {
    const id = items[item]?.phase ?? '';
    const before = parts.at(-1);
    if (before?.id === id) parts[parts.length - 1] = { ...before, end };
    else {
      const name = named.find((phase) => phase.id === id)?.name ?? (id ? id.replaceAll('-', ' ') : 'by hand');
      parts.push({ id, name, start: before ? before.end : start, end });
    }
  }
  let has = 0;
  let reached: number | null = null;
  const wanted = warmingWanted(minutes * 60);
  for (const { start, end } of summits.filter(({ item }) => warming[item])) {
    if (reached === null && has + (end - start) >= wanted) reached = start + (wanted - has);
    has += end - start;
  }
  const longest = longestDrillSeconds(mode, minutes);
  return {
    total,
    room: minutes * 60,
    segments,
    ground: groundOf(segments, heights, total),
    summits,
    parts,
    warm: mode === 'prepare' ? { wanted, has, reached } : null,
    long: summits.flatMap((summit) => {
      if (isLine(items[summit.item]?.drill ?? '')) return [];
      const over = summit.end - summit.start - longest;
      return over > 0.5 ? [{ summit, over }] : [];
    }),
    longest,
  };
}
