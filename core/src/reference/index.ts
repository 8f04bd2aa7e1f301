export { createReference, practiceReference, MDC95_PER_SEM } from './createReference.ts';
export type { PracticeFigures, Reference } from './createReference.ts';
export type {
  Category,
  Demand,
  DoseCell,
  Drill,
  EntryCriterion,
  Ladder,
  Phase,
  Position,
  Precaution,
  RedFlag,
  ReferenceData,
  RegionEntry,
  Restriction,
  School,
  SetupVariable,
  Structure,
  Test,
} from './types.ts';
