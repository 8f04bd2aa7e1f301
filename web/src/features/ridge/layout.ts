import type { Region, Side } from '@yonder/core/domain';
import { REGIONS } from '@yonder/core/domain';
import type { Capacity, FindingsReport } from '@yonder/core/findings';
import { reserveOf } from '@yonder/core/measure';
import type { Reference } from '@yonder/core/reference';

/** One test and side in the picture; x and y in px. */
export interface RidgePoint {
  readonly capacity: Capacity;
  readonly margin: number;
  readonly x: number;
  readonly y: number;
  /** Ends of the bar of ±1.645 sd, or null for grades and pain. */
  readonly bar: readonly [number, number] | null;
  /** y of the screening before, or null. */
  readonly before: number | null;
}

export interface RidgeGroup {
  readonly region: Region;
  readonly x: number;
  readonly width: number;
  readonly screened: boolean;
}

export interface RidgeLayout {
  readonly groups: readonly RidgeGroup[];
  readonly lines: Readonly<Record<Side, readonly RidgePoint[]>>;
  readonly yOf: (margin: number) => number;
  readonly ticks: readonly number[];
  readonly plot: {
    readonly left: number;
    readonly right: number;
    readonly top: number;
    readonly bottom: number;
  };
}

/** Half width of the mist band in margins: 1.645/2.77, where one fresh result cannot decide. */
export const MIST = 0.6;
const BAR_Z = 1.645;
/** Widest a region in fog gets, and the most that fog may take of the width in all. */
const FOG = { width: 52, share: 0.5 };
const PLOT = { left: 44, right: 14, top: 14, bottom: 40 };

function marginsOf(capacity: Capacity): { margin: number; half: number | null } {
  const margin = capacity.margin ?? 0;
  const half = capacity.sd === null ? null : (BAR_Z * capacity.sd) / capacity.mdc95;
  return { margin, half };
}

function scale(capacities: readonly Capacity[]): { low: number; high: number } {
  const margins = capacities.flatMap((c) => {
    const { margin, half } = marginsOf(c);
    return [margin - (half ?? 0), margin + (half ?? 0)];
  });
  const low = Math.min(-2.2, ...margins) - 0.25;
  const high = Math.max(2.2, ...margins) + 0.25;
  return { low: Math.max(-4.5, low), high: Math.min(4.5, high) };
}

/** The margin at an earlier visit, against today's need: the newest up to `day`, or the last but one. */
function marginBefore(reference: Reference, capacity: Capacity, day: string | null): number | null {
  const test = reference.tests.get(capacity.test);
  const earlier = capacity.history.slice(0, -1);
  const before = day === null ? earlier.at(-1) : earlier.findLast((visit) => visit.date <= day);
  if (!test || !before || capacity.need === null || capacity.margin === null || capacity.reserve === null)
    return null;
  const unit = capacity.reserve === 0 ? capacity.mdc95 : capacity.reserve / capacity.margin;
  return reserveOf(test, before.mean, capacity.need) / (unit || capacity.mdc95);
}

/**
 * Places the ridge: along x the chain from toes to fingertips, a group per region with its tests, fog for regions not
 * screened; along y the margin. Sizes in px. The fainter ridge behind is that of `compareDay`, or of the screening before.
 */
export function layoutRidge(
  reference: Reference,
  report: FindingsReport,
  width: number,
  height: number,
  compareDay: string | null = null,
): RidgeLayout {
  const drawn = report.capacities.filter((c) => c.margin !== null);
  const { low, high } = scale(drawn);
  const bottom = height - PLOT.bottom;
  const yOf = (margin: number) => {
    const clipped = Math.min(high, Math.max(low, margin));
    return PLOT.top + ((high - clipped) / (high - low)) * (bottom - PLOT.top);
  };
  const testsOf = (region: Region) => [
    ...new Set(drawn.filter((c) => c.region === region).map((c) => c.test)),
  ];
  const counts = REGIONS.map((region) => testsOf(region).length);
  const shown = REGIONS.filter((region, i) => region !== 'whole-body' || (counts[i] ?? 0) > 0);
  const fog = shown.filter((region) => testsOf(region).length === 0).length;
  const gap = 8;
  const available = Math.max(1, width - PLOT.left - PLOT.right - (shown.length - 1) * gap);
  const parts = shown.reduce(
    (sum, region) => sum + (testsOf(region).length > 0 ? testsOf(region).length + 0.7 : 0),
    0,
  );
  const fogWidth =
    parts > 0
      ? Math.min(FOG.width, (available * FOG.share) / Math.max(1, fog))
      : available / Math.max(1, fog);
  const share = parts > 0 ? (available - fog * fogWidth) / parts : 0;

  let x = PLOT.left;
  const groups: RidgeGroup[] = [];
  const lines: Record<Side, RidgePoint[]> = { left: [], right: [], central: [] };
  for (const region of shown) {
    const tests = testsOf(region);
    const groupWidth = tests.length > 0 ? (tests.length + 0.7) * share : fogWidth;
    groups.push({ region, x, width: groupWidth, screened: tests.length > 0 });
    tests.forEach((test, index) => {
      const at = x + ((index + 0.85) / (tests.length + 0.7)) * groupWidth;
      for (const capacity of drawn.filter((c) => c.test === test)) {
        const { margin, half } = marginsOf(capacity);
        const before = marginBefore(reference, capacity, compareDay);
        lines[capacity.side].push({
          capacity,
          margin,
          x: at,
          y: yOf(margin),
          bar: half === null ? null : [yOf(margin - half), yOf(margin + half)],
          before: before === null ? null : yOf(before),
        });
      }
    });
    x += groupWidth + gap;
  }
  const ticks = Array.from({ length: 9 }, (_, i) => i - 4).filter((t) => t >= low && t <= high);
  return {
    groups,
    lines,
    yOf,
    ticks,
    plot: { left: PLOT.left, right: width - PLOT.right, top: PLOT.top, bottom },
  };
}

/** A smooth line through points that never overshoots them: flat at each point, eased between. */
export function ridgePath(points: readonly { x: number; y: number }[]): string {
  const [first, ...rest] = points;
  if (!first) return '';
  let from = first;
  return rest.reduce(
    (path, to) => {
      const middle = (from.x + to.x) / 2;
      const next = `${path} C${middle.toFixed(1)} ${from.y.toFixed(1)} ${middle.toFixed(1)} ${to.y.toFixed(1)} ${to.x.toFixed(1)} ${to.y.toFixed(1)}`;
      from = to;
      return next;
    },
    `M${first.x.toFixed(1)} ${first.y.toFixed(1)}`,
  );
}

/** Runs of neighbouring regions: the line breaks where there is fog. */
export function unbroken(points: readonly RidgePoint[], groups: readonly RidgeGroup[]): RidgePoint[][] {
  const runs: RidgePoint[][] = [];
  let lastGroup = -2;
  for (const point of [...points].sort((a, b) => a.x - b.x)) {
    const group = groups.findIndex((g) => g.region === point.capacity.region);
    if (group > lastGroup + 1 || runs.length === 0) runs.push([]);
    runs.at(-1)?.push(point);
    lastGroup = group;
  }
  return runs;
}
