export { boneStressOpen, emergencyOpen, isBlocked, openBlocks, redFlagQuestions } from './redFlags.ts';
export type { Block } from './redFlags.ts';
export { protocolGates, testAllowed, PROTOCOL_MONTHS } from './protocols.ts';
export { activePrecautions, precautionsOfDrill } from './precautions.ts';
export type { ActivePrecaution } from './precautions.ts';
export { drillSafety, routineSafetyFaults, safetyState, touchedRegions, YOUTH_AGE } from './drillSafety.ts';
export type { DrillSafety, Forbidden, SafetyFault, SafetyState } from './drillSafety.ts';
