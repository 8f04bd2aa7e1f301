import type { Mode, RoutineItem, Side } from '../domain/index.ts';
import { itemSeconds, routineSeconds } from '../dose/index.ts';
import { schoolOption, sharpeningTests } from '../findings/index.ts';
import type { SharpeningTest } from '../findings/index.ts';
import type { Barrier, Reason } from '../reasons/index.ts';
import type { Phase } from '../reference/index.ts';
import { YOUTH_AGE } from '../safety/index.ts';
import type { Block } from '../safety/index.ts';
import { handlingOf, optionReasons, servesOf } from './explain.ts';
import { orderItems } from './order.ts';
import type { Infeasible } from './pins.ts';
import type { Prepared } from './prepared.ts';
import { BUILDER } from './settings.ts';
import type { SolvedPlan } from './solvePlan.ts';

/** An item of a built routine: dose, exact seconds, what it serves and why it is in. */
export interface BuiltItem extends RoutineItem {
  readonly seconds: number;
  readonly serves: readonly { restriction: string; side: Side; match: number }[];
  readonly reasons: readonly Reason[];
}

/** A built routine: items in order, exact seconds, value and proven gap. */
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

/** The routine or why there is none, with everything that was left unserved and worth a warning. */
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
const EASE_OF_RULE: readonly Barrier[] = [
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
  const ease = (rule: Barrier) => {
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

/** What wants covering and has no drill, with why. */
export function uncoveredOf(prepared: Prepared, plan: SolvedPlan | null): BuildReport['uncovered'] {
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
  for (const precaution of prepared.safety.precautions) {
    if (precaution.reviewDue) {
      warnings.push({ rule: 'precaution-review-due', precaution: precaution.id, until: precaution.until });
    }
  }
  for (const [region, { load, limit }] of prepared.rules.nearLimit) {
    const school = schoolOption(prepared.reference, prepared.standing.schools, 'conditioning-near-limit');
    warnings.push({ rule: 'load-near-limit', region, load, limit, held: school === 'hold-back' });
  }
  for (const item of items) {
    const confirm = item.reasons.some((reason) => 'confirm' in reason && reason.confirm);
    if (confirm) warnings.push({ rule: 'confirm-level', drill: item.drill });
  }
  if (prepared.safety.age < YOUTH_AGE) warnings.push({ rule: 'youth-limits', age: prepared.safety.age });
  return [
    ...warnings,
    ...items.flatMap((item) => handlingOf(prepared, item.drill)),
    ...phaseWarnings(prepared, items),
  ];
}

/** The three tests that would sharpen a general routine most. */
const SHARPENING_TESTS = 3;

/** The tests that would sharpen a general routine; empty otherwise. */
export function sharpenOf(prepared: Prepared): readonly SharpeningTest[] {
  if (!prepared.general) return [];
  return sharpeningTests(prepared, SHARPENING_TESTS);
}

function routineOf(prepared: Prepared, plan: SolvedPlan): BuiltRoutine {
  const items = builtItems(prepared, plan);
  return {
    mode: prepared.request.mode,
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
