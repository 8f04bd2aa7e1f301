export { createReference, issuedReference, practiceReference } from './createReference.ts';
export { MDC95_PER_SEM } from './figures.ts';
export { isLine, isOwnWords, lineOf, OWN_WORDS, ownWordsId, PAUSE } from './lines.ts';
export type { OwnMeasure } from './lines.ts';
export { demandIndexOf } from './drillFigures.ts';
export { COVER_MATCH, coversRestriction, reachesSide } from './serves.ts';
export { inheritedTraits, looserTraits, sourceOf } from './inherited.ts';
export { handlingAsksFor, handlingForbids } from './handling.ts';
export { hangs, jolts, kneels, kneelsOn, loadOn, onFeet, regionsWorked } from './loads.ts';
export { requiredPrecautions } from './requiredPrecautions.ts';
export { HARDER_BY, ladderSteps } from './ladderSteps.ts';
export type { HarderBy, LadderStep } from './ladderSteps.ts';
export { patternTag, rehearsalTag } from './patterns.ts';
export { doseTestOf } from './doseTest.ts';
export { kitText, kitUsed, kitWordsOf, missingKit } from './kit.ts';
export type { PracticeFigures, Reference } from './createReference.ts';
export type {
  Category,
  Demand,
  DoseCell,
  Drill,
  EntryCriterion,
  Ladder,
  OwnDrill,
  Pattern,
  Phase,
  Position,
  HandlingLimits,
  Precaution,
  ReadinessElement,
  RedFlag,
  ReferenceData,
  RegionEntry,
  Restriction,
  School,
  SetupVariable,
  Structure,
  Test,
} from './types.ts';
