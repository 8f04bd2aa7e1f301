export { isOrdinal, isPainTest, isContinuous, betterOf, reserveOf } from './scale.ts';
export {
  aggregateTrials,
  coefficientOfVariation,
  countedTrials,
  gradeFromFaults,
  isPlausible,
  ratingFloor,
  resultSd,
  resultValue,
  trialSpread,
} from './trials.ts';
export type { TrialSpread } from './trials.ts';
export { forcePerMass, normalisedReach, torquePerMass, NEWTON_REFERENCE_MASS_KG } from './normalise.ts';
export { limitExceeded, lowerSide, symmetryIndex, symmetryNeed } from './symmetry.ts';
export { ratioWithError, RATIO_RULES } from './ratios.ts';
export type { RatioRule } from './ratios.ts';
export { compareRaters } from './raters.ts';
export type { RaterComparison } from './raters.ts';
