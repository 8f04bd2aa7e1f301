import { guidedSearch, localSearch } from './localSearch.ts';
import type { MipSolver, SolveResult } from './mip.ts';
import type { Option } from './options.ts';
import { createPlanModel } from './planModel.ts';
import type { PlanModel } from './planModel.ts';
import { brokenLimit, planValue } from './problem.ts';
import type { Problem } from './problem.ts';
import { BUILDER } from './settings.ts';

/** The best plan found, its bound and how it was reached. */
export interface SolvedPlan {
  readonly chosen: readonly Option[];
  readonly benefit: number;
  readonly objective: number;
  /** No plan can be better than this. */
  readonly bound: number;
  /** (bound − objective) ÷ benefit, a fraction: 0.004 means proven within 0.4 %. */
  readonly gap: number;
  readonly stage: 'search' | 'relaxation' | 'proof';
}

/** Gap from which a search guided by the relaxation is worth its time before the proof. */
const WORTH_GUIDING = 0.02;

/** What a caller wants to hear while a plan is solved. */
export interface SolveHooks {
  /** Called with each better answer and each better bound. */
  readonly onAnswer?: (plan: SolvedPlan) => void;
  /** Asked between stages; true stops with the answer so far. */
  readonly isCancelled?: () => boolean;
}

function answer(
  problem: Problem,
  chosen: readonly Option[],
  bound: number,
  stage: SolvedPlan['stage'],
): SolvedPlan {
  const { benefit, objective } = planValue(problem, chosen);
  const ceiling = Math.max(bound, objective);
  const gap = Math.max(0, ceiling - objective) / Math.max(benefit, 1e-3);
  return { chosen, benefit, objective, bound: ceiling, gap: gap < 1e-7 ? 0 : gap, stage };
}

/**
 * Fixes at zero every option whose reduced cost shows that using it cannot beat the plan at hand. Sign: at the lower
 * bound of a maximisation, the reduced cost is what one unit of the option would lose at least.
 */
function fixByReducedCost(plan: PlanModel, relaxed: SolveResult, incumbent: number): number {
  let fixed = 0;
  for (const column of plan.optionColumn) {
    const value = relaxed.values[column] ?? 0;
    const loss = Math.abs(relaxed.reducedCosts[column] ?? 0);
    if (value < 1e-7 && relaxed.objective - loss < incumbent - 1e-6) {
      plan.model.upper[column] = 0;
      fixed += 1;
    }
  }
  return fixed;
}

function better(problem: Problem, a: readonly Option[] | null, b: readonly Option[]): readonly Option[] {
  if (brokenLimit(problem, b) !== null) return a ?? [];
  if (!a) return b;
  return planValue(problem, b).objective > planValue(problem, a).objective + 1e-9 ? b : a;
}

/**
 * Staged solve: local search, one linear relaxation for the bound, then (unless already proven within the gap) the
 * mixed-integer model started from the plan at hand. Deterministic: rounds and nodes are limited, never time.
 * Null when no plan keeps every pin.
 */
export function solvePlan(problem: Problem, solver: MipSolver, hooks: SolveHooks = {}): SolvedPlan | null {
  let best: readonly Option[] | null = localSearch(problem, undefined, (plan) =>
    hooks.onAnswer?.(answer(problem, plan, Infinity, 'search')),
  );
  const plan = createPlanModel(problem);
  if (best) hooks.onAnswer?.(answer(problem, best, Infinity, 'search'));
  const relaxed = solver.solve(plan.model, { relativeGap: 0, nodeLimit: 0, relaxed: true });
  if (relaxed.status === 'infeasible') return best ? answer(problem, best, Infinity, 'search') : null;
  let bound = relaxed.status === 'optimal' ? relaxed.objective : Infinity;
  if (best) {
    let current = answer(problem, best, bound, 'relaxation');
    hooks.onAnswer?.(current);
    if (current.gap <= BUILDER.relativeGap || hooks.isCancelled?.()) return current;
    const pull = plan.optionColumn.map((column) => relaxed.values[column] ?? 0);
    if (relaxed.status === 'optimal' && current.gap > WORTH_GUIDING) best = guidedSearch(problem, best, pull);
    current = answer(problem, best, bound, 'relaxation');
    if (current.gap <= BUILDER.relativeGap || hooks.isCancelled?.()) return current;
    hooks.onAnswer?.(current);
    if (relaxed.status === 'optimal') fixByReducedCost(plan, relaxed, current.objective);
  }
  const solved = solver.solve(plan.model, {
    relativeGap: relativeGapFor(problem, best, bound),
    nodeLimit: BUILDER.nodeLimit,
    ...(best ? { start: plan.pointOf(best) } : {}),
    onProgress: ({ bound: proven }) => {
      if (best) hooks.onAnswer?.(answer(problem, best, Math.min(bound, proven), 'proof'));
    },
  });
  if (solved.status === 'infeasible') return best ? answer(problem, best, bound, 'proof') : null;
  if (solved.values.length > 0) best = better(problem, best, plan.chosenOf(solved.values));
  if (!best) return null;
  bound = Math.min(bound, Math.max(solved.bound, planValue(problem, best).objective));
  const result = answer(problem, best, bound, 'proof');
  hooks.onAnswer?.(result);
  return result;
}

/** HiGHS measures its gap on the objective; ours is on benefit, so penalties must not make it loose. */
function relativeGapFor(problem: Problem, best: readonly Option[] | null, bound: number): number {
  if (!best) return BUILDER.relativeGap;
  const { benefit, objective } = planValue(problem, best);
  const size = Math.max(Math.abs(objective), Number.isFinite(bound) ? Math.abs(bound) : 0, 1e-6);
  return Math.min(BUILDER.relativeGap, (BUILDER.relativeGap * Math.max(benefit, 1e-3)) / size);
}
