import type { Case, Mode, RoutineItem, Side } from '../domain/index.ts';
import { indexCapacities, itemSeconds, routineSeconds } from '../dose/index.ts';
import type { DoseContext } from '../dose/index.ts';
import { judgeFindings, schoolOption, sharpeningTests } from '../findings/index.ts';
import type { FindingsReport, Reason, SharpeningTest } from '../findings/index.ts';
import { practiceReference } from '../reference/index.ts';
import type { Phase, Reference } from '../reference/index.ts';
import { safetyState, YOUTH_AGE } from '../safety/index.ts';
import type { Block } from '../safety/index.ts';
import { dayPattern, findingsForToday } from './dayPattern.ts';
import { handlingOf, optionReasons, servesOf } from './explain.ts';
import type { MipSolver } from './mip.ts';
import { regionsNearLimit } from './nearLimit.ts';
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
  /** Severity-weighted benefit with diminishing returns, without costs. */
  readonly benefit: number;
  readonly objective: number;
  readonly bound: number;
  readonly gap: number;
}

export interface BuildReport {
  readonly routine: BuiltRoutine | null;
  /** Weights came from tasks and injuries alone: nothing has been screened. */
  readonly general: boolean;
  /** The three tests that would sharpen a general routine most; empty otherwise. */
  readonly sharpen: readonly SharpeningTest[];
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
  const day = dayPattern(bundled, reference, input);
  const rules: RuleContext = {
    reference,
    input,
    safety,
    report,
    today: findingsForToday(report, day),
    nearLimit: regionsNearLimit(reference, input),
    levels: { reference, input, capacities },
  };
  const stretchOption = schoolOption(reference, input.schools, 'static-stretch-before');
  const { mode, pins, fatigueCap } = input.request;
  const dose: DoseContext = {
    reference,
    today: input.today,
    age: safety.age,
    trainingYears: input.athlete.trainingYears,
    mode,
    capacities,
    stretchCapSeconds: stretchCap(mode, stretchOption),
  };
  const chosen = chooseStructure(reference, input);
  const { weights, general } = restrictionWeights(reference, input, report, safety.age, day);
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

/** Rules by how easily they could be met: what is missing first, what protects people last. */
const EASE_OF_RULE: readonly string[] = [
  'kit',
  'position',
  'ban',
  'disliked',
  'structure-phase',
  'timing',
  'mode',
  'needs-partner',
  'load-near-limit',
  'level',
  'school',
];

/** What would be needed for a restriction that no drill may serve today: the rule on its best and nearest drill. */
function neededFor(prepared: Prepared, restriction: string): Reason {
  const ease = (rule: string) => {
    const place = EASE_OF_RULE.indexOf(rule);
    return place < 0 ? EASE_OF_RULE.length : place;
  };
  const kept = prepared.reference.data.drills.flatMap((drill) => {
    const match = drill.serves.find((s) => s.restriction === restriction)?.match ?? 0;
    const rule = match >= BUILDER.coverMatch ? prepared.options.ineligible.get(drill.id) : undefined;
    return rule ? [{ drill: drill.id, match, ...rule }] : [];
  });
  const [nearest] = kept.sort(
    (a, b) => ease(a.rule) - ease(b.rule) || b.match - a.match || (a.drill < b.drill ? -1 : 1),
  );
  if (!nearest) return { rule: 'no-drill-known', restriction };
  const { rule: because, about, drill } = nearest;
  const drills = kept.filter((other) => other.rule === because && other.about === about).length;
  return { rule: 'no-drill-allowed', because, about, drill, drills };
}

function uncoveredOf(prepared: Prepared, plan: SolvedPlan | null): BuildReport['uncovered'] {
  return prepared.weights.flatMap((weighted, need) => {
    if (weighted.priority < BUILDER.coverWanted) return [];
    if (plan?.chosen.some((option) => option.benefit.some((b) => b.need === need))) return [];
    const why: Reason = prepared.problem.coverWanted.includes(need)
      ? { rule: 'no-room', minutes: prepared.chosen.minutes, maxDrills: prepared.problem.maxDrills }
      : neededFor(prepared, weighted.restriction);
    return [{ restriction: weighted.restriction, side: weighted.side, weight: weighted.priority, why }];
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
  for (const [region, { load, limit }] of prepared.rules.nearLimit) {
    const school = schoolOption(prepared.reference, prepared.input.schools, 'conditioning-near-limit');
    warnings.push({ rule: 'load-near-limit', region, load, limit, held: school === 'hold-back' });
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

/** The three tests that would sharpen a general routine most. */
const SHARPENING_TESTS = 3;

function sharpenOf(prepared: Prepared): readonly SharpeningTest[] {
  if (!prepared.general) return [];
  return sharpeningTests(prepared.reference, prepared.input, prepared.report, SHARPENING_TESTS);
}

function routineOf(prepared: Prepared, plan: SolvedPlan): BuiltRoutine {
  const items = builtItems(prepared, plan);
  return {
    mode: prepared.input.request.mode,
    structure: prepared.chosen.structure.id,
    items,
    totalSeconds: routineSeconds(prepared.reference, items),
    benefit: plan.benefit,
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
    sharpen: sharpenOf(prepared),
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
    sharpen: sharpenOf(prepared),
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
