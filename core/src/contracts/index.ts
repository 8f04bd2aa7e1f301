export {
  dayQuerySchema,
  idSchema,
  pageOf,
  pageQuerySchema,
  PROBLEM_CODES,
  problemSchema,
  ROLES,
  versionQuerySchema,
  versionSchema,
} from './common.ts';
export type { Page, PageQuery, Problem, ProblemCode, Role } from './common.ts';
export {
  checkInInputSchema,
  checkInRowSchema,
  choiceInputSchema,
  endChoiceSchema,
  liftInputSchema,
  methodEffectSchema,
  methodPreviewSchema,
  methodsSchema,
  painPatternsInputSchema,
} from './methods.ts';
export type { CheckInRow, ChoiceInput, ChoiceRow, MethodEffect, Methods } from './methods.ts';
export { auditChangeSchema, auditFilterSchema, auditRowSchema } from './audit.ts';
export type { AuditChange } from './audit.ts';
export type { AuditFilter, AuditRow } from './audit.ts';
export {
  archiveSchema,
  askLinkSchema,
  changePasswordSchema,
  changePersonSchema,
  changePracticeSchema,
  eraseSchema,
  erasedSchema,
  linkForSchema,
  lookAtLinkSchema,
  newPasswordSchema,
  newPersonSchema,
  oneTimeLinkSchema,
  personRowSchema,
  practiceFieldsSchema,
  practiceRowSchema,
  signInRowSchema,
  useLinkSchema,
} from './people.ts';
export type { LinkFor, OneTimeLink, PersonRow, PracticeRow, SignInRow } from './people.ts';
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
  gateAnswerInputSchema,
  gateOutcomeSchema,
  injuryInputSchema,
  judgementInputSchema,
  needInputSchema,
  newAthleteSchema,
  painInputSchema,
  placementInputSchema,
  precautionInputSchema,
  protocolInputSchema,
  updateAthleteSchema,
  VISIT_TOPIC,
} from './athletes.ts';
export type {
  AthleteCase,
  AthleteFields,
  UpdateAthlete,
  AthleteList,
  AthleteRow,
  AthleteSummary,
  ClearanceInput,
  GateAnswerInput,
  GateAnswerRow,
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
  decisionVerdictSchema,
  draftRowSchema,
  draftSchema,
  findingSummarySchema,
  issueRoutineSchema,
  itemReasonsSchema,
  occasionListSchema,
  occasionRowSchema,
  overrideSchema,
  putOccasionSchema,
  routineRowSchema,
  saveDraftSchema,
} from './routines.ts';
export type {
  Decide,
  Decided,
  Draft,
  DraftRow,
  IssueRoutine,
  ItemReasons,
  OccasionRow,
  Override,
  OverrideInput,
  PutOccasion,
  RoutineRow,
} from './routines.ts';
export {
  appendEventsSchema,
  doorOfRunSchema,
  recentSessionsSchema,
  sessionRowSchema,
  sessionWithEventsSchema,
  startSessionSchema,
} from './sessions.ts';
export type { DoorOfRun, RecentSessions, SessionRow, SessionWithEvents } from './sessions.ts';
export {
  buildOnServerSchema,
  changedDrillSchema,
  changedTemplateSchema,
  doseSharesInputSchema,
  importDrillsSchema,
  importedDrillsSchema,
  ownDrillInputSchema,
  ownDrillRowSchema,
  templateFieldsSchema,
  templateInputSchema,
  applyTemplateSchema,
  appliedTemplateSchema,
  templateRowSchema,
  templateVersionSchema,
} from './library.ts';
export type {
  ImportedDrills,
  OwnDrillRow,
  TemplateFields,
  ApplyTemplate,
  AppliedTemplate,
  TemplateRow,
  TemplateVersion,
} from './library.ts';
export {
  changedTaskSchema,
  changedTestSchema,
  figureEffectSchema,
  figureBackSchema,
  figureInputSchema,
  figurePreviewSchema,
  figuresSchema,
  painLimitsInputSchema,
  practiceTaskInputSchema,
  practiceTestInputSchema,
} from './figures.ts';
export type {
  FigureEffect,
  FigureInput,
  FigureRow,
  Figures,
  PainLimitsInput,
  PracticeTaskRow,
  PracticeTestRow,
} from './figures.ts';
