// Zod schemas have their own entry so that computation bundles (the worker) do not carry Zod.
export {
  athleteSchema,
  caseSchema,
  clearanceSchema,
  currentPainSchema,
  doseShareSchema,
  diarySessionSchema,
  EDITABLE_FIGURES,
  entrySchema,
  faultMarkSchema,
  injurySchema,
  itemSchema,
  judgementSchema,
  needOverrideSchema,
  ownTaskSchema,
  ownTestSchema,
  painLimitsSchema,
  placementSchema,
  practiceFiguresSchema,
  precautionSchema,
  protocolSchema,
  redFlagAnswerSchema,
  referenceEditSchema,
  requestSchema,
  resultSchema,
  routineSchema,
  screeningSchema,
  taskSchema,
  testPainSchema,
} from '../domain/caseFile.ts';
export { ownDrillSchema } from '../reference/schema.ts';
export { reasonSchema } from '../reasons/schema.ts';
export { sessionEventSchema } from '../session/schema.ts';
export {
  isoDaySchema,
  itemSideSchema,
  measureSchema,
  modeSchema,
  painAspectSchema,
  painFeelSchema,
  painScoreSchema,
  painWhenSchema,
  regionSchema,
  sideSchema,
} from '../domain/vocabulary.ts';
export { speakPlainly } from './plainWords.ts';
