import type { Barrier } from '../reasons/index.ts';
import type { Prepared } from './prepared.ts';
import { localSearch } from './localSearch.ts';
import type { MipSolver } from './mip.ts';
import type { Option } from './options.ts';
import { planDiff } from './planDiff.ts';
import type { PlanDiff } from './planDiff.ts';
import { createPlanModel } from './planModel.ts';
import { brokenLimit, planValue } from './problem.ts';
import type { Problem } from './problem.ts';
import { BUILDER } from './settings.ts';
import { solvePlan } from './solvePlan.ts';
import type { SolvedPlan } from './solvePlan.ts';

/**
 * Why a drill is not in the plan. `forbidden`: the rule. `costs`: what taking it in would lose, as shares of the
 * plan's benefit between `atLeast` and `atMost` (null = not worked out yet), and what it would displace.
 * `clashes`: it cannot stand beside what is pinned.
 */
export type WhyNot =
  | { readonly kind: 'in-plan' }
  | { readonly kind: 'forbidden'; readonly rule: Barrier; readonly about: string }
  | {
      readonly kind: 'costs';
      readonly atLeast: number;
      readonly atMost: number | null;
      readonly exact: boolean;
      readonly displaces: PlanDiff | null;
    }
  | { readonly kind: 'clashes' };

/** The linear relaxation of a problem, solved once for any number of questions about it. */
export interface Relaxation {
  readonly objective: number;
  /** What one unit of each option would lose at least, as a number at most 0; 0 for options the relaxation uses. */
  readonly reducedCosts: readonly number[];
}

/** Solves the relaxation; null when the solver could not. */
export function relaxationOf(problem: Problem, solver: MipSolver): Relaxation | null {
  const plan = createPlanModel(problem);
  const solved = solver.solve(plan.model, { relativeGap: 0, nodeLimit: 0, relaxed: true });
  if (solved.status !== 'optimal') return null;
  return {
    objective: solved.objective,
    reducedCosts: plan.optionColumn.map((column) =>
      (solved.values[column] ?? 0) > 1e-7 ? 0 : -Math.abs(solved.reducedCosts[column] ?? 0),
    ),
  };
}

function withPin(problem: Problem, drill: string): Problem {
  return problem.pins.includes(drill) ? problem : { ...problem, pins: [...problem.pins, drill] };
}

function shareOfBenefit(plan: SolvedPlan, loss: number): number {
  return Math.max(0, loss) / Math.max(plan.benefit, 1e-3);
}

/** The rule or the plan itself, when no solving is needed; null otherwise. */
function withoutSolving(prepared: Prepared, plan: SolvedPlan, drill: string): WhyNot | null {
  if (plan.chosen.some((option) => option.drill === drill)) return { kind: 'in-plan' };
  if (prepared.problem.options.some((option) => option.drill === drill)) return null;
  const rule = prepared.options.ineligible.get(drill) ?? { rule: 'serves-nothing' as const, about: drill };
  return { kind: 'forbidden', ...rule };
}

/**
 * A lower bound on the loss at once: the relaxation with the drill forced in is worth at most its objective plus the
 * best reduced cost of the drill's options, so the plan loses at least the rest.
 */
export function whyNotBound(
  prepared: Prepared,
  plan: SolvedPlan,
  relaxation: Relaxation,
  drill: string,
): WhyNot {
  const known = withoutSolving(prepared, plan, drill);
  if (known) return known;
  const best = prepared.problem.options.reduce(
    (most, option, i) => (option.drill === drill ? Math.max(most, relaxation.reducedCosts[i] ?? 0) : most),
    -Infinity,
  );
  const atLeast = shareOfBenefit(plan, plan.objective - (relaxation.objective + best));
  return { kind: 'costs', atLeast, atMost: null, exact: false, displaces: null };
}

function better(problem: Problem, a: readonly Option[] | null, b: readonly Option[] | null) {
  if (!b || brokenLimit(problem, b) !== null) return a;
  return !a || planValue(problem, b).objective > planValue(problem, a).objective ? b : a;
}

/** The plan at hand with one option of the drill put in and, until it fits, the least valuable taken out. */
function squeezedIn(problem: Problem, plan: SolvedPlan, drill: string): readonly Option[] | null {
  let best: readonly Option[] | null = null;
  for (const option of problem.options.filter((o) => o.drill === drill)) {
    let rest = plan.chosen.filter((other) => other.ladder !== option.ladder);
    while (brokenLimit(problem, [...rest, option]) !== null) {
      const free = rest.filter((other) => !problem.pins.includes(other.drill));
      if (free.length === 0) break;
      const worth = (gone: Option) => {
        const kept = rest.filter((other) => other !== gone);
        return planValue(problem, [...kept, option]).objective;
      };
      const least = free.reduce((a, b) => (worth(b) > worth(a) ? b : a));
      rest = rest.filter((other) => other !== least);
    }
    best = better(problem, best, [...rest, option]);
  }
  return best;
}

/** Rounds of search that a range may take: enough to find the usual swap, few enough for ten in a blink. */
const RANGE_ROUNDS = 20;

/** Lower and upper bound of the loss, and a plan with the drill in it to show what it would displace. */
export function whyNotRange(
  prepared: Prepared,
  plan: SolvedPlan,
  relaxation: Relaxation,
  drill: string,
): WhyNot {
  const bound = whyNotBound(prepared, plan, relaxation, drill);
  if (bound.kind !== 'costs') return bound;
  const forced = withPin(prepared.problem, drill);
  const with_ = better(forced, squeezedIn(forced, plan, drill), localSearch(forced, RANGE_ROUNDS));
  if (!with_) return { kind: 'clashes' };
  const atMost = shareOfBenefit(plan, plan.objective - planValue(forced, with_).objective);
  return { ...bound, atMost: Math.max(atMost, bound.atLeast), displaces: planDiff(plan.chosen, with_) };
}

/** The loss proven by solving with the drill in: exact up to the builder's gap. */
export function whyNotExact(prepared: Prepared, plan: SolvedPlan, solver: MipSolver, drill: string): WhyNot {
  const known = withoutSolving(prepared, plan, drill);
  if (known) return known;
  const solved = solvePlan(withPin(prepared.problem, drill), solver);
  if (!solved) return { kind: 'clashes' };
  const atMost = shareOfBenefit(plan, plan.objective - solved.objective);
  const atLeast = Math.min(atMost, shareOfBenefit(plan, plan.objective - solved.bound));
  return {
    kind: 'costs',
    atLeast,
    atMost,
    exact: atMost - atLeast <= BUILDER.relativeGap + 1e-9,
    displaces: planDiff(plan.chosen, solved.chosen),
  };
}

/**
 * Drills that are not in a plan and come nearest to it: those that may be used by the benefit of their best option,
 * then those a rule keeps out by what they would serve.
 */
export function nearestMisses(prepared: Prepared, plan: SolvedPlan, count: number): string[] {
  const chosen = new Set(plan.chosen.map((option) => option.drill));
  const usable = new Map<string, number>();
  for (const { drill, benefit } of prepared.problem.options) {
    if (chosen.has(drill) || benefit.length === 0) continue;
    const worth = benefit.reduce((sum, b) => sum + b.value, 0);
    usable.set(drill, Math.max(worth, usable.get(drill) ?? 0));
  }
  const kept = prepared.reference.data.drills.flatMap((drill): [string, number][] => {
    if (!prepared.options.ineligible.has(drill.id) || drill.archived) return [];
    const worth = prepared.weights.reduce((sum, { restriction, weight }) => {
      const match = drill.serves.find((s) => s.restriction === restriction)?.match ?? 0;
      return sum + (match >= BUILDER.coverMatch ? match * weight : 0);
    }, 0);
    return worth > 0 ? [[drill.id, worth]] : [];
  });
  const ranked = (list: readonly [string, number][]) =>
    [...list].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1)).map(([id]) => id);
  return [...ranked([...usable]), ...ranked(kept)].slice(0, count);
}

/** Extra minutes that are tried, in order, to see when a drill comes in by itself. */
const MORE_MINUTES = [1, 2, 3, 5, 8, 12] as const;

/** The least of a few extra minutes with which the drill is chosen freely; null when none of them is enough. */
export function minutesUntilIn(prepared: Prepared, solver: MipSolver, drill: string): number | null {
  for (const extra of MORE_MINUTES) {
    const longer = { ...prepared.problem, seconds: prepared.problem.seconds + extra * 60 };
    if (solvePlan(longer, solver)?.chosen.some((option) => option.drill === drill)) return extra;
  }
  return null;
}
