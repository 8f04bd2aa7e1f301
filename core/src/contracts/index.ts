export { dayQuerySchema, idSchema, PROBLEM_CODES, problemSchema, versionSchema } from './common.ts';
export type { Problem, ProblemCode } from './common.ts';
export { meSchema, signInSchema } from './auth.ts';
export type { Me } from './auth.ts';
export {
  athleteCaseSchema,
  athleteFieldsSchema,
  athleteListSchema,
  athleteSchemaRow,
  clearanceInputSchema,
  endPainSchema,
  endPrecautionSchema,
  injuryInputSchema,
  judgementInputSchema,
  needInputSchema,
  painInputSchema,
  precautionInputSchema,
  protocolInputSchema,
  redFlagInputSchema,
  updateAthleteSchema,
} from './athletes.ts';
export type {
  AthleteCase,
  AthleteFields,
  AthleteList,
  AthleteRow,
  AthleteSummary,
  PrecautionRow,
  RedFlagRow,
} from './athletes.ts';
export {
  finishScreeningSchema,
  importedSchema,
  importScreeningsSchema,
  newScreeningSchema,
  resultInputSchema,
  resultRowSchema,
  screeningRowSchema,
} from './screenings.ts';
export type { Imported, ImportScreenings, ResultInput, ResultRow, ScreeningRow } from './screenings.ts';
export {
  decidedSchema,
  decideSchema,
  draftRowSchema,
  issueRoutineSchema,
  routineRowSchema,
  saveDraftSchema,
} from './routines.ts';
export type { Decide, Decided, Draft, DraftRow, IssueRoutine, RoutineRow } from './routines.ts';
export {
  nextDaySchema,
  progressSchema,
  saveSessionSchema,
  sessionRowSchema,
  startSessionSchema,
} from './sessions.ts';
export type { SessionRow } from './sessions.ts';
export {
  buildOnServerSchema,
  doseSharesInputSchema,
  importDrillsSchema,
  importedDrillsSchema,
  ownDrillInputSchema,
  ownDrillRowSchema,
  templateInputSchema,
  templateRowSchema,
} from './library.ts';
export type { ImportedDrills, OwnDrillRow, TemplateInput, TemplateRow } from './library.ts';
export {
  figureEffectSchema,
  figureInputSchema,
  figurePreviewSchema,
  figuresSchema,
  painLimitsInputSchema,
  practiceTaskInputSchema,
} from './figures.ts';
export type { FigureEffect, FigureInput, FigureRow, Figures, PracticeTaskRow } from './figures.ts';
