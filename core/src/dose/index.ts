export {
  hasCadence,
  itemSeconds,
  secondsPerRep,
  sideDoses,
  sidesDone,
  tempoSeconds,
  workSeconds,
} from './seconds.ts';
export type { DosedItem } from './seconds.ts';
export { routineSeconds, routineTime, routineTimeline } from './timeline.ts';
export type { RoutineTime, Segment, SegmentKind } from './timeline.ts';
export { inTurn, roundsOf, visits, workInRounds } from './circuits.ts';
export {
  allowedSets,
  allowedShare,
  dosedByDefault,
  dosedItem,
  freshMaximum,
  indexCapacities,
  roundAmount,
  setsFor,
  isTendonHold,
} from './doseOf.ts';
export type { DoseContext } from './doseOf.ts';
export { failureDistance } from './failure.ts';
export type { FailureDistance } from './failure.ts';
export { loadsOnce, regionLoads, weeklyLoads } from './load.ts';
export { STATIC_SECONDS, stretchCapSeconds } from './stretchCap.ts';
export { isFloor, POSITIONS_ON_THE_FLOOR, TIMING } from './settings.ts';
