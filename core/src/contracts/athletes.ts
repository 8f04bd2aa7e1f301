import { z } from 'zod';
import {
  athleteSchema,
  caseSchema,
  currentPainSchema,
  judgementSchema,
  needOverrideSchema,
  placementSchema,
  protocolSchema,
} from '../domain/caseFile.ts';
import { isoDaySchema, occasionSchema, regionSchema, sideSchema } from '../domain/vocabulary.ts';
import { todoSchema } from '../today/schema.ts';
import { idSchema, newIdSchema, versionSchema } from './common.ts';
import { liftRowSchema } from './methods.ts';

const own = athleteSchema.shape;
const name = z.string().trim().min(1, 'a name is needed').max(120);
const text = z.string().trim().max(1000);

/** What a clinician types about an athlete; measures in kg and cm. */
export const athleteFieldsSchema = z.strictObject({
  name,
  birthDate: isoDaySchema,
  sport: z.string().trim().max(80).default(''),
  bodyMassKg: own.bodyMassKg,
  limbLengthCm: own.limbLengthCm,
  dominantHand: own.dominantHand,
  dominantLeg: own.dominantLeg,
  trainingYears: own.trainingYears,
  tasks: own.tasks,
  exposure: own.exposure,
  kit: z.array(z.string().max(40)).max(60).default([]),
  minutes: z.number().min(1).max(120).default(10).describe('minutes at hand for a preparation'),
  minutesBuild: z.number().min(1).max(120).nullable().default(null).describe('minutes for a build routine'),
  minutesRestore: z.number().min(1).max(120).nullable().default(null).describe('minutes for restoring'),
  places: z
    .array(
      z.strictObject({ name: z.string().trim().min(1).max(60), kit: z.array(z.string().max(40)).max(60) }),
    )
    .max(12)
    .default([])
    .describe('kit at hand per place'),
  dislikes: own.dislikes,
  loadLimits: own.loadLimits,
  lightSpans: own.lightSpans,
});
export type AthleteFields = z.infer<typeof athleteFieldsSchema>;
/** Body that adds an athlete. */
export const newAthleteSchema = athleteFieldsSchema.extend({ id: newIdSchema });

/** Body that adds an injury to a story. */
export const injuryInputSchema = z.strictObject({
  id: newIdSchema,
  region: regionSchema,
  side: sideSchema,
  date: isoDaySchema,
  operated: z.boolean().default(false),
  what: text.default(''),
});
const injuryRowSchema = injuryInputSchema.extend({ version: versionSchema }).meta({ id: 'Injury' });

/** Body that sets a precaution. */
export const precautionInputSchema = z.strictObject({
  id: newIdSchema,
  precaution: z.string().min(1).max(80),
  reason: text.default(''),
  setBy: z.string().trim().min(1, 'who set it?').max(120),
  until: isoDaySchema.nullable().default(null),
  region: regionSchema.nullable().default(null).describe('of a precaution that may bind one region alone'),
  side: sideSchema.nullable().default(null),
});
const signature = z.strictObject({
  by: z.string().trim().min(1, 'a name is needed').max(120),
  date: isoDaySchema,
});
const clearance = signature.extend({
  scope: z.string().trim().min(3, 'a written scope is needed').max(2000),
});
/** Body that ends a precaution, with the version that was seen. */
export const endPrecautionSchema = signature.extend({ version: versionSchema });
const precautionRowSchema = precautionInputSchema
  .extend({
    version: versionSchema,
    since: isoDaySchema,
    ended: signature.nullable(),
    clearance: clearance.nullable().describe('who cleared it, when, and in which scope'),
    fromClearance: idSchema.nullable().describe('the stop sign whose clearance left it'),
  })
  .meta({ id: 'PrecautionRow' });
export type PrecautionRow = z.infer<typeof precautionRowSchema>;

/** What was said to a topic of the gate: none of its signs, some, or the athlete does not know. */
export const gateOutcomeSchema = z.enum(['none', 'signs', 'unknown']);
/** The topic of "anything new?" at a visit. */
export const VISIT_TOPIC = 'visit';
const gateSign = z.strictObject({
  redFlag: z.string().min(1).max(80),
  region: regionSchema.nullable().default(null),
  side: sideSchema.nullable().default(null),
});
/** One topic, read out and answered; the signs that are there, if any. */
export const gateAnswerInputSchema = z.strictObject({
  id: newIdSchema,
  topic: z.string().min(1).max(40).describe('a general group, a region, or "visit"'),
  outcome: gateOutcomeSchema,
  seconds: z.number().min(0).max(86400).nullable().default(null).describe('for which it was open'),
  signs: z.array(gateSign).max(20).default([]),
});
export type GateAnswerInput = z.infer<typeof gateAnswerInputSchema>;
const gateAnswerRowSchema = z
  .object({
    topic: z.string(),
    outcome: gateOutcomeSchema,
    seconds: z.number().nullable(),
    on: isoDaySchema,
    by: z.string(),
    until: isoDaySchema.describe('last day on which it holds'),
    signs: z
      .array(z.string())
      .nullable()
      .describe('signs read out; null = as they were asked before that was kept'),
  })
  .meta({ id: 'GateAnswer' });
export type GateAnswerRow = z.infer<typeof gateAnswerRowSchema>;
/** A clearance of a sign or of a precaution; what is still to be avoided becomes precautions with a review date. */
export const clearanceInputSchema = clearance.extend({
  version: versionSchema,
  precautions: z
    .array(z.strictObject({ precaution: z.string().min(1).max(80), until: isoDaySchema }))
    .max(10)
    .default([]),
});
export type ClearanceInput = z.infer<typeof clearanceInputSchema>;
const redFlagRowSchema = z
  .object({
    id: idSchema,
    version: versionSchema,
    redFlag: z.string(),
    answer: z.boolean(),
    region: regionSchema.nullable(),
    side: sideSchema.nullable(),
    answeredOn: isoDaySchema,
    answeredBy: z.string(),
    clearance: clearance.nullable(),
  })
  .meta({ id: 'RedFlagRow' });
export type RedFlagRow = z.infer<typeof redFlagRowSchema>;

/** Body that tells what hurts. */
export const painInputSchema = currentPainSchema.omit({ ended: true }).extend({ id: newIdSchema });
/** Body that says a pain is gone, with the version that was seen. */
export const endPainSchema = z.strictObject({ date: isoDaySchema, version: versionSchema });
const painRowSchema = currentPainSchema
  .extend({ id: idSchema, version: versionSchema })
  .meta({ id: 'PainRow' });

/** What the treating clinician ticked after an operation. */
export const protocolInputSchema = protocolSchema.omit({ region: true, side: true }).extend({
  version: versionSchema.nullable().default(null).describe('null for a protocol not stored yet'),
});
const protocolRowSchema = protocolSchema
  .extend({
    id: idSchema,
    version: versionSchema,
    changed: z
      .array(z.string())
      .describe('own drills that were changed since they were ticked: closed until ticked again'),
  })
  .meta({ id: 'ProtocolRow' });

/** Body that sets a need of the practitioner’s own. */
export const needInputSchema = z.strictObject({
  value: z.number(),
  reason: z.string().trim().min(3, 'say why').max(1000),
  version: versionSchema.nullable().default(null).describe('null for a need not stored yet'),
});
const needRowSchema = needOverrideSchema
  .extend({
    id: idSchema,
    version: versionSchema,
    reason: z.string(),
    setBy: z.string(),
    setOn: isoDaySchema,
  })
  .meta({ id: 'NeedRow' });

/** A level seen at work: fine, or too hard. */
export const placementInputSchema = z.strictObject({
  verdict: placementSchema.shape.verdict.unwrap(),
  version: versionSchema.nullable().default(null).describe('null for a level not judged yet'),
});
const placementRowSchema = placementSchema
  .omit({ ladder: true })
  .extend({ id: idSchema, version: versionSchema })
  .meta({ id: 'PlacementRow' });

/** Body that confirms a finding, sets it aside, or adds one seen by eye. */
export const judgementInputSchema = judgementSchema
  .omit({ by: true, date: true })
  .extend({ id: newIdSchema });
const judgementRowSchema = judgementSchema
  .extend({ id: idSchema, version: versionSchema })
  .meta({ id: 'JudgementRow' });

/** An athlete as the server answers: fields, story, and the version to change it by. */
export const athleteSchemaRow = athleteFieldsSchema
  .extend({
    id: idSchema,
    version: versionSchema,
    injuries: z.array(injuryRowSchema),
    precautions: z.array(precautionRowSchema),
    redFlags: z.array(redFlagRowSchema),
    pains: z.array(painRowSchema),
    protocols: z.array(protocolRowSchema),
    needs: z.array(needRowSchema),
    placements: z.array(placementRowSchema),
    judgements: z.array(judgementRowSchema),
    lifts: z.array(liftRowSchema),
    /** Answers of the gate, newest of each topic and season. */
    asked: z.array(gateAnswerRowSchema),
    archived: signature.nullable(),
  })
  .meta({ id: 'Athlete' });
export type AthleteRow = z.infer<typeof athleteSchemaRow>;

/** One line of the athletes list; the miniature ridge is drawn from the worst margin per region and side. */
const athleteSummarySchema = z
  .object({
    id: idSchema,
    name: z.string(),
    sport: z.string(),
    birthDate: isoDaySchema,
    lastScreening: isoDaySchema.nullable(),
    rescreenDue: isoDaySchema.nullable(),
    routineVersion: z.int().nullable(),
    age: z.int().describe('years'),
    blocked: z.boolean(),
    precautions: z.int(),
    reviewsDue: z.int().describe('precautions past their review date'),
    protocol: z.boolean().describe('a protocol leads for a region'),
    judged: z.boolean().describe('false while the findings below are being worked out'),
    restrictions: z.array(
      z.object({ restriction: z.string(), side: sideSchema, state: z.string(), severity: z.number() }),
    ),
    ridge: z.array(z.object({ region: regionSchema, side: sideSchema, margin: z.number() })),
    todo: z.array(todoSchema).describe('what waits for somebody today, most urgent first'),
    oldResults: z.int().describe('tests that are due for a rescreen'),
    real: z
      .object({ better: z.int(), worse: z.int() })
      .describe('tests with a change beyond their error since the last time'),
  })
  .meta({ id: 'AthleteSummary' });
export type AthleteSummary = z.infer<typeof athleteSummarySchema>;

/** A page of the list of athletes, with how many lines are still being worked out. */
export const athleteListSchema = z
  .object({
    items: z.array(athleteSummarySchema),
    next: z.string().nullable(),
    pending: z.int().describe('athletes whose findings are being worked out; ask again soon'),
  })
  .meta({ id: 'AthleteList' });
export type AthleteList = z.infer<typeof athleteListSchema>;

/** Body that changes an athlete’s fields, with the version that was seen. */
export const updateAthleteSchema = athleteFieldsSchema.extend({
  version: versionSchema,
  birthDateWhy: text
    .optional()
    .describe('why the birth date is another than before; the age rules hang on it'),
});
export type UpdateAthlete = z.infer<typeof updateAthleteSchema>;

/** The athlete's case as of a working date: what the core judges, in the browser and on the server alike. */
export const athleteCaseSchema = z
  .object({
    case: caseSchema,
    routineIds: z.partialRecord(occasionSchema, idSchema).describe('the version in force of each occasion'),
    revision: z.string().describe('differs whenever anything the judgement rests on does'),
  })
  .meta({ id: 'AthleteCase' });
export type AthleteCase = z.infer<typeof athleteCaseSchema>;
