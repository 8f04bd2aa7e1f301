export { itemSeconds, secondsPerRep, sidesDone, tempoSeconds, workSeconds } from './seconds.ts';
export type { DosedItem } from './seconds.ts';
export { routineSeconds, routineTimeline } from './timeline.ts';
export type { Segment, SegmentKind } from './timeline.ts';
export {
  allowedSets,
  allowedShare,
  dosedItem,
  freshMaximum,
  indexCapacities,
  roundAmount,
} from './doseOf.ts';
export type { DoseContext } from './doseOf.ts';
export { doseTestOf } from './doseSource.ts';
export { isFloor, TIMING } from './settings.ts';
