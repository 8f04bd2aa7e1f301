import type { Case, Mode, RoutineItem, Side } from '../domain/index.ts';
import { indexCapacities, itemSeconds, routineSeconds } from '../dose/index.ts';
import type { DoseContext } from '../dose/index.ts';
import { judgeFindings, schoolOption } from '../findings/index.ts';
import type { FindingsReport, Reason } from '../findings/index.ts';
import { practiceReference } from '../reference/index.ts';
import type { Phase, Reference } from '../reference/index.ts';
import { safetyState, YOUTH_AGE } from '../safety/index.ts';
import type { Block } from '../safety/index.ts';
import { handlingOf, optionReasons, servesOf } from './explain.ts';
import type { MipSolver } from './mip.ts';
import { createOptions } from './options.ts';
import type { OptionSet } from './options.ts';
import { orderItems } from './order.ts';
import { clashingPins, forbiddenPins } from './pins.ts';
import type { Infeasible } from './pins.ts';
import { createProblem } from './problem.ts';
import type { Problem } from './problem.ts';
import type { RuleContext } from './rules.ts';
import { BUILDER, FATIGUE_CAP } from './settings.ts';
import { solvePlan } from './solvePlan.ts';
import type { SolvedPlan, SolveHooks } from './solvePlan.ts';
import { chooseStructure } from './structures.ts';
import type { ChosenStructure } from './structures.ts';
import { restrictionWeights } from './weights.ts';
import type { WeightedRestriction } from './weights.ts';

/** An item of a built routine: dose, exact seconds, what it serves and why it is in. */
export interface BuiltItem extends RoutineItem {
  readonly seconds: number;
  readonly serves: readonly { restriction: string; side: Side; match: number }[];
  readonly reasons: readonly Reason[];
}

export interface BuiltRoutine {
  readonly mode: Mode;
  readonly structure: string;
  readonly items: readonly BuiltItem[];
  readonly totalSeconds: number;
  readonly objective: number;
  readonly bound: number;
  readonly gap: number;
}

export interface BuildReport {
  readonly routine: BuiltRoutine | null;
  /** Weights came from tasks and injuries alone: nothing has been screened. */
  readonly general: boolean;
  readonly uncovered: readonly { restriction: string; side: Side; weight: number; why: Reason }[];
  readonly warnings: readonly Reason[];
  readonly infeasible: readonly Infeasible[] | null;
  readonly blocked: readonly Block[];
}

/** Everything prepared for one solve; also what swaps and "why not" work on. */
export interface Prepared {
  readonly reference: Reference;
  readonly input: Case;
  readonly report: FindingsReport;
  readonly rules: RuleContext;
  readonly dose: DoseContext;
  readonly chosen: ChosenStructure;
  readonly weights: readonly WeightedRestriction[];
  readonly general: boolean;
  readonly options: OptionSet;
  readonly problem: Problem;
}

function stretchCap(mode: Mode, option: string): number | null {
  if (mode !== 'prepare') return null;
  if (option === 'last-step') return 20;
  return option === 'short-then-dynamic' ? 30 : null;
}

function maxDrills(input: Case, structure: ChosenStructure): number {
  const { request } = input;
  if (request.maxDrills !== null) return request.maxDrills;
  const own = structure.structure.totalDrills.max;
  return request.mode === 'prepare' ? Math.min(own, BUILDER.defaultMaxDrillsPrepare) : own;
}

/** Works out findings, weights, options and limits of a case, ready to be solved. */
export function prepareBuild(bundled: Reference, input: Case, known?: FindingsReport): Prepared {
  const reference = practiceReference(bundled, input.overrides);
  const report = known ?? judgeFindings(bundled, input);
  const safety = safetyState(reference, input.athlete, input.today);
  const capacities = indexCapacities(report.capacities);
  const rules: RuleContext = { reference, input, safety, report, levels: { reference, input, capacities } };
  const stretchOption = schoolOption(reference, input.schools, 'static-stretch-before');
  const { mode, pins, fatigueCap } = input.request;
  const dose: DoseContext = {
    reference,
    today: input.today,
    age: safety.age,
    mode,
    capacities,
    stretchCapSeconds: stretchCap(mode, stretchOption),
  };
  const chosen = chooseStructure(reference, input);
  const { weights, general } = restrictionWeights(reference, input, report, safety.age);
  const options = createOptions(rules, dose, chosen.phases, weights);
  const problem = createProblem({
    options: options.options,
    weights,
    phases: chosen.phases,
    minutes: chosen.minutes,
    maxDrills: maxDrills(input, chosen),
    fatigueCap: fatigueCap ?? FATIGUE_CAP[mode],
    mode,
    stretchOption,
    pins: [...new Set(pins)],
  });
  return { reference, input, report, rules, dose, chosen, weights, general, options, problem };
}

function builtItems(prepared: Prepared, plan: SolvedPlan): BuiltItem[] {
  const orderable = plan.chosen.flatMap((option) => {
    const drill = prepared.reference.drills.get(option.drill);
    return drill ? [{ option, phase: option.phase, drill }] : [];
  });
  return orderItems(orderable).map(({ option, drill }) => ({
    ...option.item,
    seconds: itemSeconds(drill, option.item),
    serves: servesOf(prepared, option),
    reasons: optionReasons(prepared, option),
  }));
}

/** The rule that keeps out most drills for a restriction, when none could be chosen for it. */
function commonestRule(prepared: Prepared, restriction: string): Reason {
  const counts = new Map<string, number>();
  for (const drill of prepared.reference.data.drills) {
    if (!drill.serves.some((s) => s.restriction === restriction && s.match >= BUILDER.coverMatch)) continue;
    const rule = prepared.options.ineligible.get(drill.id);
    if (rule) counts.set(`${rule.rule}|${rule.about}`, (counts.get(`${rule.rule}|${rule.about}`) ?? 0) + 1);
  }
  const [top] = [...counts.entries()].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1));
  const [rule = 'no-drill', about = ''] = top?.[0].split('|') ?? [];
  return { rule: 'no-drill-allowed', because: rule, about, drills: top?.[1] ?? 0 };
}

function uncoveredOf(prepared: Prepared, plan: SolvedPlan | null): BuildReport['uncovered'] {
  return prepared.weights.flatMap((weighted, need) => {
    if (weighted.weight < BUILDER.coverWanted) return [];
    if (plan?.chosen.some((option) => option.benefit.some((b) => b.need === need))) return [];
    const why: Reason = prepared.problem.coverWanted.includes(need)
      ? { rule: 'no-room', minutes: prepared.chosen.minutes, maxDrills: prepared.problem.maxDrills }
      : commonestRule(prepared, weighted.restriction);
    return [{ restriction: weighted.restriction, side: weighted.side, weight: weighted.weight, why }];
  });
}

function phaseWarnings(prepared: Prepared, items: readonly BuiltItem[]): Reason[] {
  const total = items.reduce((sum, item) => sum + item.seconds, 0);
  return prepared.chosen.phases.flatMap((phase: Phase): Reason[] => {
    const own = items.filter((item) => item.phase === phase.id);
    const share = total > 0 ? own.reduce((sum, item) => sum + item.seconds, 0) / total : 0;
    const warnings: Reason[] = [];
    if (own.length < phase.minDrills) {
      warnings.push({
        rule: 'phase-below-minimum',
        phase: phase.name,
        drills: own.length,
        minimum: phase.minDrills,
      });
    } else if (phase.shareOfTime > 0 && Math.abs(share - phase.shareOfTime) > 0.2) {
      warnings.push({ rule: 'phase-share', phase: phase.name, share, wanted: phase.shareOfTime });
    }
    return warnings;
  });
}

function warningsOf(prepared: Prepared, items: readonly BuiltItem[]): Reason[] {
  const warnings: Reason[] = [];
  if (prepared.general) warnings.push({ rule: 'general-routine' });
  for (const precaution of prepared.rules.safety.precautions) {
    if (precaution.reviewDue) {
      warnings.push({ rule: 'precaution-review-due', precaution: precaution.id, until: precaution.until });
    }
  }
  for (const item of items) {
    const confirm = item.reasons.find((reason) => reason.confirm === true);
    if (confirm) warnings.push({ rule: 'confirm-level', drill: item.drill });
  }
  if (prepared.rules.safety.age < YOUTH_AGE)
    warnings.push({ rule: 'youth-limits', age: prepared.rules.safety.age });
  return [
    ...warnings,
    ...items.flatMap((item) => handlingOf(prepared, item.drill)),
    ...phaseWarnings(prepared, items),
  ];
}

function routineOf(prepared: Prepared, plan: SolvedPlan): BuiltRoutine {
  const items = builtItems(prepared, plan);
  return {
    mode: prepared.input.request.mode,
    structure: prepared.chosen.structure.id,
    items,
    totalSeconds: routineSeconds(prepared.reference, items),
    objective: plan.objective,
    bound: plan.bound,
    gap: plan.gap,
  };
}

/** Turns a solved (or interim) plan into the report that is shown. */
export function reportOf(prepared: Prepared, plan: SolvedPlan): BuildReport {
  const routine = routineOf(prepared, plan);
  return {
    routine,
    general: prepared.general,
    uncovered: uncoveredOf(prepared, plan),
    warnings: warningsOf(prepared, routine.items),
    infeasible: null,
    blocked: prepared.report.blocked,
  };
}

export interface BuildHooks {
  /** Interim reports while the solve goes on. */
  readonly onReport?: (report: BuildReport, stage: SolvedPlan['stage']) => void;
  readonly isCancelled?: SolveHooks['isCancelled'];
}

/**
 * Builds the routine of a case: the most severity-weighted benefit within minutes, number of drills, fatigue, kit,
 * phases, ladders, precautions, school, pins and bans. No routine while a sign blocks everything, or when the pins
 * cannot be kept; the report says why.
 */
export function buildRoutine(
  bundled: Reference,
  input: Case,
  solver: MipSolver,
  hooks: BuildHooks = {},
  known?: FindingsReport,
): BuildReport {
  const prepared = prepareBuild(bundled, input, known);
  const none = (infeasible: readonly Infeasible[] | null): BuildReport => ({
    routine: null,
    general: prepared.general,
    uncovered: uncoveredOf(prepared, null),
    warnings: [],
    infeasible,
    blocked: prepared.report.blocked,
  });
  if (prepared.report.blocked.some((block) => block.region === 'all'))
    return { ...none(null), uncovered: [] };
  const forbidden = forbiddenPins(prepared.problem.pins, prepared.options);
  if (forbidden.length > 0) return none(forbidden);
  const { onReport } = hooks;
  const plan = solvePlan(prepared.problem, solver, {
    ...(onReport ? { onAnswer: (interim) => onReport(reportOf(prepared, interim), interim.stage) } : {}),
    ...(hooks.isCancelled ? { isCancelled: hooks.isCancelled } : {}),
  });
  return plan ? reportOf(prepared, plan) : none(clashingPins(prepared.problem, solver));
}
