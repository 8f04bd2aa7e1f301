import type { Assessment } from '../assess/index.ts';
import type { BuildRequest } from '../domain/index.ts';
import type { MipSolver } from './mip.ts';
import { clashingPins, forbiddenPins } from './pins.ts';
import type { Infeasible } from './pins.ts';
import { prepareBuild } from './prepared.ts';
import { reportOf, sharpenOf } from './report.ts';
import type { BuildReport } from './report.ts';
import { solvePlan } from './solvePlan.ts';
import type { SolvedPlan, SolveHooks } from './solvePlan.ts';
import { unservedBy } from './unserved.ts';

/** What a caller wants to hear while a build goes on. */
export interface BuildHooks {
  /** Interim reports while the solve goes on. */
  readonly onReport?: (report: BuildReport, stage: SolvedPlan['stage']) => void;
  readonly isCancelled?: SolveHooks['isCancelled'];
}

/**
 * Builds a routine for an assessed athlete: the most severity-weighted benefit within minutes, number of drills, fatigue, kit,
 * phases, ladders, precautions, school, pins and bans. No routine while a sign blocks everything, or when the pins
 * cannot be kept; the report says why.
 */
export function buildRoutine(
  assessment: Assessment,
  request: BuildRequest,
  solver: MipSolver,
  hooks: BuildHooks = {},
): BuildReport {
  const prepared = prepareBuild(assessment, request);
  const none = (infeasible: readonly Infeasible[] | null): BuildReport => ({
    routine: null,
    general: prepared.general,
    sharpen: sharpenOf(prepared),
    unserved: unservedBy(prepared, []),
    unused: null,
    dayRules: prepared.safety.dayRules,
    warnings: [],
    infeasible,
    blocked: prepared.report.blocked,
  });
  if (prepared.report.blocked.some((block) => block.region === 'all')) return { ...none(null), unserved: [] };
  const forbidden = forbiddenPins(prepared.problem.pins, prepared.options);
  if (forbidden.length > 0) return none(forbidden);
  const { onReport } = hooks;
  const plan = solvePlan(prepared.problem, solver, {
    ...(onReport ? { onAnswer: (interim) => onReport(reportOf(prepared, interim), interim.stage) } : {}),
    ...(hooks.isCancelled ? { isCancelled: hooks.isCancelled } : {}),
  });
  return plan ? reportOf(prepared, plan) : none(clashingPins(prepared.problem, solver));
}
