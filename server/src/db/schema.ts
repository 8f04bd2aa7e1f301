import {
  athleteFieldsSchema,
  decisionVerdictSchema,
  draftSchema,
  findingSummarySchema,
  itemReasonsSchema,
  ROLES,
} from '@yonder/core/contracts';
import {
  athleteSchema,
  entrySchema,
  isoDaySchema,
  itemSchema,
  judgementSchema,
  modeSchema,
  needOverrideSchema,
  ownDrillSchema,
  ownTaskSchema,
  painAspectSchema,
  painFeelSchema,
  painLimitsSchema,
  painScoreSchema,
  painWhenSchema,
  practiceFiguresSchema,
  protocolSchema,
  reasonSchema,
  referenceEditSchema,
  regionSchema,
  requestSchema,
  sessionEventSchema,
  sideSchema,
} from '@yonder/core/schemas';
import { z } from 'zod';

const uuid = z.uuid();
const text = z.string();
const day = isoDaySchema;
const instant = z.date();
const version = z.int().min(1);

/** Who wrote a row last; null for rows from before that was kept. */
const written = { actorKind: text.nullable(), actorId: uuid.nullable() };
const ofPractice = { id: uuid, practiceId: uuid, version, ...written };
const ofAthlete = { ...ofPractice, athleteId: uuid };
const saved = { savedBy: text, savedOn: day };
const ended = { endedBy: text.nullable(), endedOn: day.nullable() };

/**
 * One schema per table: the row a service reads and writes, the columns of the model, and (from the same parts) what the
 * API takes and gives. Column names are the keys in snake case; keys, checks and indexes are in the migrations.
 */
export const TABLES = {
  practices: z.object({
    id: uuid,
    name: text,
    timeZone: text,
    schools: z.record(text, text),
    painLimits: painLimitsSchema.nullable(),
    doseShares: practiceFiguresSchema.shape.doseShares,
    revision: z.int(),
    version,
  }),
  clinicians: z.object({
    id: uuid,
    practiceId: uuid,
    email: text,
    name: text,
    passwordHash: text,
    role: z.enum(ROLES),
  }),
  athletes: z.object({
    ...ofPractice,
    ...athleteFieldsSchema.shape,
    placements: athleteSchema.shape.placements,
    revision: z.int(),
  }),
  injuries: z.object({
    ...ofAthlete,
    region: regionSchema,
    side: sideSchema,
    date: day,
    operated: z.boolean(),
    what: text,
  }),
  precautions: z.object({
    ...ofAthlete,
    precaution: text,
    reason: text,
    setBy: text,
    since: day,
    until: day.nullable(),
    ...ended,
  }),
  red_flag_answers: z.object({
    ...ofAthlete,
    redFlag: text,
    answer: z.boolean(),
    region: regionSchema.nullable(),
    side: sideSchema.nullable(),
    askedFor: z.array(regionSchema),
    answeredOn: day,
    answeredBy: text,
    clearanceBy: text.nullable(),
    clearanceOn: day.nullable(),
    clearanceScope: text.nullable(),
    createdAt: instant,
  }),
  pains: z.object({
    ...ofAthlete,
    region: regionSchema,
    side: sideSchema,
    aspect: painAspectSchema.nullable(),
    feel: painFeelSchema.nullable(),
    moment: painWhenSchema,
    nrs: painScoreSchema,
    since: day,
    ended: day.nullable(),
  }),
  protocols: z.object({ ...ofAthlete, ...protocolSchema.shape }),
  need_overrides: z.object({
    ...ofAthlete,
    ...needOverrideSchema.shape,
    reason: text,
    setBy: text,
    setOn: day,
  }),
  judgements: z.object({ ...ofAthlete, ...judgementSchema.shape, createdAt: instant }),
  reference_edits: z.object({
    ...ofPractice,
    test: text,
    path: referenceEditSchema.shape.path,
    task: text,
    value: z.number(),
    oldValue: z.number().nullable(),
    reason: text,
    by: text,
    date: day,
    ...ended,
    createdAt: instant,
  }),
  practice_tasks: z.object({
    ...ofPractice,
    slug: text,
    name: text,
    sport: text,
    demands: ownTaskSchema.shape.demands,
  }),
  own_drills: z.object({
    ...ofPractice,
    slug: text,
    drill: ownDrillSchema,
    ...saved,
  }),
  templates: z.object({
    ...ofPractice,
    name: text,
    sport: text,
    role: text,
    structure: text,
    request: requestSchema,
    items: z.array(itemSchema),
    ...saved,
  }),
  screenings: z.object({ ...ofAthlete, date: day, finished: z.boolean(), createdBy: uuid.nullable() }),
  results: z.object({
    ...ofPractice,
    screeningId: uuid,
    test: text,
    side: sideSchema,
    value: z.looseObject({}),
  }),
  routines: z
    .object({
      ...ofAthlete,
      number: z.int(),
      mode: modeSchema,
      structure: text,
      issuedOn: day,
      issuedBy: text,
      items: z.array(itemSchema.required({ id: true })),
      totalSeconds: z.int(),
      request: requestSchema,
      findings: z.array(findingSummarySchema),
      reasons: z.array(itemReasonsSchema),
      changes: z.array(reasonSchema),
      decidedBatch: uuid.nullable(),
    })
    .omit({ version: true }),
  routine_drafts: z.object({
    athleteId: uuid,
    practiceId: uuid,
    draft: draftSchema,
    version,
    ...written,
  }),
  sessions: z.object({ ...ofAthlete, routineId: uuid, date: day, finished: z.boolean() }),
  session_events: z.object({
    id: uuid,
    practiceId: uuid,
    sessionId: uuid,
    event: sessionEventSchema,
    ...written,
  }),
  session_entries: z.object({
    sessionId: uuid,
    itemId: uuid,
    practiceId: uuid,
    athleteId: uuid,
    place: z.int(),
    date: day,
    drill: text,
    side: entrySchema.shape.side,
    done: entrySchema.shape.done,
    amounts: z.array(z.number()),
    painBefore: z.number(),
    pain: z.number(),
    nextDayPain: z.number().nullable(),
    effort: z.number().nullable(),
    quality: z.int().nullable(),
    swappedFor: text.nullable(),
  }),
  decisions: z
    .object({
      ...ofAthlete,
      routineId: uuid,
      batchId: uuid,
      itemId: uuid,
      drill: text,
      decision: text,
      reasons: z.array(reasonSchema),
      verdict: decisionVerdictSchema,
      instead: text.nullable(),
      reason: text.nullable(),
      decidedBy: text,
      decidedOn: day,
    })
    .omit({ version: true }),
  audit_events: z.object({
    id: z.int(),
    practiceId: uuid,
    actorKind: text,
    actorId: uuid.nullable(),
    athleteId: uuid.nullable(),
    action: text,
    requestId: text.nullable(),
    at: instant,
  }),
  receipts: z.object({ practiceId: uuid, id: uuid, operation: text, bodyHash: text }),
} as const;

export type TableName = keyof typeof TABLES;
export type RowOf<Name extends TableName> = z.output<(typeof TABLES)[Name]>;
