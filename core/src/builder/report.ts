import type { Mode, RoutineItem, Side } from '../domain/index.ts';
import { itemSeconds, routineSeconds } from '../dose/index.ts';
import { schoolOption, sharpeningTests } from '../findings/index.ts';
import type { SharpeningTest } from '../findings/index.ts';
import type { Barrier, Reason } from '../reasons/index.ts';
import type { Phase } from '../reference/index.ts';
import { binds, YOUTH_AGE } from '../safety/index.ts';
import type { Block, DayRule } from '../safety/index.ts';
import { handlingOf, optionReasons, servesOf } from './explain.ts';
import { orderItems } from './order.ts';
import type { Infeasible } from './pins.ts';
import type { Prepared } from './prepared.ts';
import type { SolvedPlan } from './solvePlan.ts';
import { unservedBy } from './unserved.ts';
import type { Unserved } from './unserved.ts';

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

/** The routine or why there is none, with everything that is left unserved and worth a warning. */
export interface BuildReport {
  readonly routine: BuiltRoutine | null;
  /** Weights came from tasks and injuries alone: nothing has been screened. */
  readonly general: boolean;
  /** The three tests that would sharpen a general routine most; empty otherwise. */
  readonly sharpen: readonly SharpeningTest[];
  /** Open findings, and what else wants a drill today, without one. */
  readonly unserved: readonly Unserved[];
  /** Seconds left when less than 85 % of the time is used, and what holds the routine back. */
  readonly unused: { readonly seconds: number; readonly because: readonly Reason[] } | null;
  /** What holds today because it hurts. */
  readonly dayRules: readonly DayRule[];
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

/** Below this share of the time a routine says what holds it back. */
const ENOUGH_USED = 0.85;

/** Time that stays, and what holds the routine back; null when the time is used. */
function unusedOf(
  prepared: Prepared,
  items: readonly BuiltItem[],
  totalSeconds: number,
): BuildReport['unused'] {
  const { problem, options, safety } = prepared;
  if (totalSeconds >= ENOUGH_USED * problem.seconds) return null;
  const kept = new Map<Barrier, number>();
  for (const { rule } of options.ineligible.values()) kept.set(rule, (kept.get(rule) ?? 0) + 1);
  const most = (rules: readonly Barrier[]) =>
    rules.filter((rule) => (kept.get(rule) ?? 0) > 0).sort((a, b) => (kept.get(b) ?? 0) - (kept.get(a) ?? 0));
  const sore = safety.dayRules.find(binds);
  return {
    seconds: problem.seconds - totalSeconds,
    because: [
      ...(items.length >= problem.maxDrills
        ? [{ rule: 'no-more-drills', maxDrills: problem.maxDrills } as const]
        : []),
      ...(sore ? [{ rule: 'held-by-pain', region: sore.region } as const] : []),
      ...most(['level', 'kit', 'precaution-exclude', 'protocol', 'position', 'space', 'school', 'focus'])
        .slice(0, 2)
        .map((because): Reason => ({ rule: 'held-by', because, drills: kept.get(because) ?? 0 })),
    ],
  };
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
  const tendon = schoolOption(prepared.reference, prepared.standing.schools, 'tendon-isometrics');
  if (tendon === 'trial' && items.some((item) => item.reasons.some((r) => r.rule === 'dose-tendon-hold')))
    warnings.push({ rule: 'tendon-trial' });
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
    unserved: unservedBy(prepared, routine.items),
    unused: unusedOf(prepared, routine.items, routine.totalSeconds),
    dayRules: prepared.safety.dayRules,
    warnings: warningsOf(prepared, routine.items),
    infeasible: null,
    blocked: prepared.report.blocked,
  };
}
