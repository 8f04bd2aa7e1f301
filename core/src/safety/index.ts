export { boneStressOpen, emergencyOpen, isBlocked, openBlocks } from './redFlags.ts';
export { answerHolding, gateTopics, regionsInPlay, seasonEnd, topicsDue, topicsDueFor } from './gate.ts';
export type { GateTopic, RegionInPlay } from './gate.ts';
export type { Block } from './redFlags.ts';
export { covers, protocolGates, testAllowed, PROTOCOL_MONTHS } from './protocols.ts';
export { activePrecautions } from './active.ts';
export type { ActivePrecaution } from './active.ts';
export { precautionsOfDrill } from './precautions.ts';
export { beyondLimits, mostSets, withinLimits } from './limits.ts';
export type { BeyondLimit } from './limits.ts';
export { bearsOn, involves, lastInjury } from './injuries.ts';
export {
  closedFor,
  drillSafety,
  routineSafetyFaults,
  safetyState,
  touchedRegions,
  YOUTH_AGE,
} from './drillSafety.ts';
export type { DrillSafety, Forbidden, SafetyFault, SafetyItem, SafetyState } from './drillSafety.ts';
export { soreness } from './soreness.ts';
export type { Soreness, SoreRecord, SoreSource } from './soreness.ts';
export { AMBER_SETS, binds, dayRules, isGraded, works } from './dayRules.ts';
export type { DayRule, DayStance, PainBand } from './dayRules.ts';
