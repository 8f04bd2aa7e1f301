export { isShort, measuredBetween } from './short.ts';
export { findingsForTasks, judgeFindings } from './judge.ts';
export type { Judged } from './judge.ts';
export { proposeBattery, BATTERY_SECONDS } from './battery.ts';
export type { Battery, BatteryTest, Offering } from './battery.ts';
export { compareDates } from './compare.ts';
export { SEEN_SEVERITY } from './judgements.ts';
export { painPatterns, PAIN_PATTERNS } from './painPatterns.ts';
export type { PainPattern, PatternHit } from './painPatterns.ts';
export { sharpeningTests } from './sharpen.ts';
export type { SharpeningTest } from './sharpen.ts';
export { sidesOfTest } from './worth.ts';
export { judgeNeed, severityOf, stateOf } from './evidence.ts';
export { needConfidence } from './confidence.ts';
export { isApart } from './disagree.ts';
export { isBeyondNorm, needsOfSide } from './needs.ts';
export { estimateAll, offeredTests } from './capacities.ts';
export type { TestSide } from './capacities.ts';
export { painLimits, schoolOption } from './schools.ts';
export { recentlyInjured, taskAsksFor } from './priority.ts';
export { compareArcs, rotationArc } from './rotationArc.ts';
export type { RotationArcs } from './rotationArc.ts';
export { FINDING_SETTINGS, PAIN_LIMITS, GROWING_AGE, MOST_PAIN } from './settings.ts';
export { testSideKey } from './visits.ts';
export type {
  AsymmetryRow,
  Capacity,
  Change,
  Evidence,
  Finding,
  FindingsReport,
  FindingState,
  Hint,
  NeedKind,
  RatioRow,
  Rescreen,
} from './types.ts';
