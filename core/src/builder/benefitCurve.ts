import type { Prepared } from './prepared.ts';
import type { MipSolver } from './mip.ts';
import type { Option } from './options.ts';
import { planSeconds, planValue } from './problem.ts';
import { solvePlan } from './solvePlan.ts';

/** What a number of minutes buys: benefit of the best plan found, no more than `bound`, and what it holds. */
export interface CurvePoint {
  readonly minutes: number;
  readonly benefit: number;
  readonly objective: number;
  readonly gap: number;
  readonly drills: number;
  readonly seconds: number;
}

/** The first minutes after which one more adds less than this share of everything that can be had (editable). */
const PAYS_SHARE = 0.02;

/**
 * The best plan for each number of minutes (ascending), for the structure and all other limits as they stand. A plan
 * that fits fewer minutes fits more, so the curve never falls. Told each point as it is found; stops when asked to.
 */
export function benefitCurve(
  prepared: Prepared,
  solver: MipSolver,
  minutes: readonly number[],
  hooks: { readonly onPoint?: (point: CurvePoint) => void; readonly isCancelled?: () => boolean } = {},
): CurvePoint[] {
  const points: CurvePoint[] = [];
  let best: readonly Option[] = [];
  for (const m of [...minutes].sort((a, b) => a - b)) {
    if (hooks.isCancelled?.()) break;
    const problem = { ...prepared.problem, seconds: Math.floor(m * 60) };
    const plan = solvePlan(problem, solver);
    if (!plan) continue; // the pins do not fit this few minutes
    const carried = best.length > 0 ? planValue(problem, best) : null;
    const keeps = carried !== null && carried.objective > plan.objective;
    if (!keeps) best = plan.chosen;
    const { benefit, objective } = planValue(problem, best);
    const point: CurvePoint = {
      minutes: m,
      benefit,
      objective,
      gap: Math.max(0, plan.bound - objective) / Math.max(benefit, 1e-3),
      drills: best.length,
      seconds: planSeconds(problem, best),
    };
    points.push(point);
    hooks.onPoint?.(point);
  }
  return points;
}

/** The minutes from which more time stops paying; null while every further minute still does. */
export function stopsPaying(points: readonly CurvePoint[]): number | null {
  const most = Math.max(0, ...points.map((point) => point.benefit));
  const least = Math.min(most, ...points.map((point) => point.benefit));
  const span = most - least;
  if (span <= 0) return points[0]?.minutes ?? null;
  for (const [i, point] of points.entries()) {
    const rest = points.slice(i + 1);
    if (rest.length === 0) return null;
    const pays = rest.some(
      (later) => (later.benefit - point.benefit) / (later.minutes - point.minutes) > PAYS_SHARE * span,
    );
    if (!pays) return point.minutes;
  }
  return null;
}
