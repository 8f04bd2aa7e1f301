import type { z } from 'zod';
import type * as schema from './schema.ts';

export type ReferenceData = z.infer<typeof schema.referenceDataSchema>;
export type RegionEntry = z.infer<typeof schema.regionEntrySchema>;
export type Restriction = z.infer<typeof schema.restrictionSchema>;
export type Test = z.infer<typeof schema.testSchema>;
export type Demand = z.infer<typeof schema.demandSchema>;
export type Drill = z.infer<typeof schema.drillSchema>;
export type EntryCriterion = z.infer<typeof schema.entryCriterionSchema>;
export type SetupVariable = z.infer<typeof schema.setupVariableSchema>;
export type Ladder = z.infer<typeof schema.ladderSchema>;
export type Pattern = z.infer<typeof schema.patternSchema>;
export type OwnDrill = z.infer<typeof schema.ownDrillSchema>;
export type { HandlingLimits } from './schema.ts';
/** A kind of precaution. */
export type Precaution = z.infer<typeof schema.precautionEntrySchema>;
export type RedFlag = z.infer<typeof schema.redFlagSchema>;
export type Structure = z.infer<typeof schema.structureSchema>;
export type Phase = z.infer<typeof schema.phaseSchema>;
export type School = z.infer<typeof schema.schoolSchema>;
export type DoseCell = z.infer<typeof schema.doseCellSchema>;
export type Category = z.infer<typeof schema.categorySchema>;
/** The position a drill is done in. */
export type Position = Drill['position'];

/** One thing that an action, a task or a joint asks a routine to hold. */
export type ReadinessElement = z.infer<typeof schema.readinessElementSchema>;
