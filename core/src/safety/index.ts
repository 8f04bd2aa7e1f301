export { boneStressOpen, emergencyOpen, isBlocked, openBlocks } from './redFlags.ts';
export { answerHolding, gateTopics, regionsInPlay, seasonEnd, topicsDue, topicsDueFor } from './gate.ts';
export type { GateTopic, RegionInPlay } from './gate.ts';
export type { Block } from './redFlags.ts';
export { covers, protocolGates, testAllowed, PROTOCOL_MONTHS } from './protocols.ts';
export { activePrecautions, precautionsOfDrill } from './precautions.ts';
export type { ActivePrecaution } from './precautions.ts';
export { drillSafety, routineSafetyFaults, safetyState, touchedRegions, YOUTH_AGE } from './drillSafety.ts';
export type { DrillSafety, Forbidden, SafetyFault, SafetyState } from './drillSafety.ts';
