export { buildRoutine } from './build.ts';
export type { BuildHooks } from './build.ts';
export { prepareBuild } from './prepared.ts';
export type { Prepared } from './prepared.ts';
export { reportOf } from './report.ts';
export type { BuildReport, BuiltItem, BuiltRoutine } from './report.ts';
export { warmingWanted, warms } from './bands.ts';
export { longestDrillSeconds } from './options.ts';
export { benefitCurve, stopsPaying } from './benefitCurve.ts';
export type { CurvePoint } from './benefitCurve.ts';
export { explainItems } from './explain.ts';
export { choicesShown } from './choices.ts';
export type { Choice, ChoiceShown } from './choices.ts';
export { nearestAction } from './dayActions.ts';
export { elementsAsked } from './elementsAsked.ts';
export type { AskedElement } from './elementsAsked.ts';
export { unservedBy } from './unserved.ts';
export type { Unserved } from './unserved.ts';
export type { ItemExplanation } from './explain.ts';
export { createHighsSolver } from './highsSolver.ts';
export { greedyPlan, guidedSearch, localSearch } from './localSearch.ts';
export type { MipModel, MipSolver } from './mip.ts';
export type { Option } from './options.ts';
export { orderCost, orderedItems, orderItems } from './order.ts';
export type { OrderCost } from './order.ts';
export type { Infeasible } from './pins.ts';
export type { PlanDiff } from './planDiff.ts';
export { benefitAmong, benefitOf, completeAround, sideBySide } from './around.ts';
export type { Completed, SideBySide } from './around.ts';
export { heldToday, nearestAllowed } from './nearestAllowed.ts';
export type { Held } from './nearestAllowed.ts';
export { createPlanModel } from './planModel.ts';
export { brokenLimit, planSeconds, planValue } from './problem.ts';
export type { Problem } from './problem.ts';
export { chooseStructure } from './structures.ts';
export { fitLines } from './fitLines.ts';
export type { FittedLines } from './fitLines.ts';
export { hardRuleOf, openSidesOf, softRuleOf } from './rules.ts';
export { BUILDER, FATIGUE_CAP } from './settings.ts';
export { solvePlan } from './solvePlan.ts';
export type { SolvedPlan } from './solvePlan.ts';
export { SWAP_REASONS, swapsFor } from './swaps.ts';
export type { Swap, SwapReason } from './swaps.ts';
export { VARIANTS, variantRequest } from './variants.ts';
export type { Variant } from './variants.ts';
export { refitChanges } from './refit.ts';
export type { RefitChange } from './refit.ts';
export { changedRequest, whatIf } from './whatIf.ts';
export type { RequestChange, WhatIf } from './whatIf.ts';
export {
  minutesUntilIn,
  nearestMisses,
  relaxationOf,
  whyNotBound,
  whyNotExact,
  whyNotRange,
} from './whyNot.ts';
export type { Relaxation, WhyNot } from './whyNot.ts';
export { isPreparing } from './rules.ts';
