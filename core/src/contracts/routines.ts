import { z } from 'zod';
import { itemSchema, MOST_ITEMS, requestSchema, sectionSchema } from '../domain/caseFile.ts';
import { isoDaySchema, modeSchema, occasionSchema, sideSchema, WEEKDAYS } from '../domain/vocabulary.ts';
import { ownDrillSchema } from '../reference/schema.ts';
import { reasonSchema } from '../reasons/schema.ts';
import { idSchema, newIdSchema, versionSchema } from './common.ts';

/** An item that can be referred to. */
const identifiedItem = itemSchema.required({ id: true });

/** A rule that a practitioner issued a version against, and why; shown wherever the version is. */
export const overrideSchema = z.object({
  item: idSchema.nullable().describe('null for the routine as a whole'),
  rule: reasonSchema,
  why: z.string(),
  by: z.string(),
});
export type Override = z.infer<typeof overrideSchema>;
const overrideInputSchema = z.strictObject({
  item: idSchema.nullable(),
  rule: z.string().max(60),
  why: z.string().trim().min(3, 'say why').max(500),
});
export type OverrideInput = z.infer<typeof overrideInputSchema>;

const sections = z
  .array(sectionSchema)
  .max(20)
  .refine((list) => new Set(list.map((s) => s.id)).size === list.length, 'one section per id');

/** Body that issues a version of a routine. */
export const issueRoutineSchema = z.strictObject({
  id: newIdSchema,
  on: isoDaySchema,
  occasion: occasionSchema.optional().describe('what it is for; left out, its mode says so'),
  sections: sections.default([]),
  mode: modeSchema,
  structure: z.string().max(80),
  request: requestSchema,
  items: z.array(identifiedItem).min(1, 'a routine needs a drill').max(MOST_ITEMS),
  overrides: z
    .array(overrideInputSchema)
    .max(60)
    .default([])
    .describe('rules issued against, each with a reason'),
});
export type IssueRoutine = z.infer<typeof issueRoutineSchema>;

/** A finding that a version answered, as it stood then. */
export const findingSummarySchema = z.object({
  restriction: z.string(),
  side: sideSchema,
  severity: z.number(),
  priority: z.number(),
  state: z.string(),
});

/** Why an item is in a version: what it serves, and what to watch, as data. */
export const itemReasonsSchema = z.object({
  item: idSchema,
  serves: z.array(z.object({ restriction: z.string(), side: sideSchema, match: z.number() })),
  reasons: z.array(reasonSchema),
  cautions: z.array(reasonSchema),
});
export type ItemReasons = z.infer<typeof itemReasonsSchema>;

/** An issued version: immutable, with who issued it, the findings it answered and why each drill is in. */
export const routineRowSchema = z
  .object({
    id: idSchema,
    occasion: occasionSchema,
    number: z.int().min(1),
    issuedOn: isoDaySchema,
    issuedBy: z.string(),
    mode: modeSchema,
    structure: z.string(),
    schools: requestSchema.shape.schools,
    sections: z.array(sectionSchema),
    items: z.array(identifiedItem),
    totalSeconds: z.int(),
    findings: z.array(findingSummarySchema),
    reasons: z.array(itemReasonsSchema).describe('empty for versions from before reasons were kept'),
    changes: z.array(reasonSchema).describe('what changed since the version before'),
    overrides: z.array(overrideSchema).describe('rules it was issued against'),
    ownDrills: z
      .array(ownDrillSchema)
      .describe('drills of the practice’s own in it, as they were when it was issued'),
  })
  .meta({ id: 'Routine' });
export type RoutineRow = z.infer<typeof routineRowSchema>;

/** The routine being edited, kept so that nothing is lost between visits. */
export const draftSchema = z.strictObject({
  request: requestSchema,
  structure: z.string().max(80),
  sections: sections.default([]),
  items: z.array(identifiedItem).max(MOST_ITEMS),
  left: z
    .array(
      z.strictObject({
        ...overrideInputSchema.shape,
        why: z.string().trim().max(500),
        by: z.string().max(120),
        on: isoDaySchema,
      }),
    )
    .max(200)
    .default([])
    .describe('notes that were left as they are, by whom and why'),
});
export type Draft = z.infer<typeof draftSchema>;
/** Body that stores the draft of a routine, with the version it was made on; null for the first. */
export const saveDraftSchema = draftSchema.extend({ version: versionSchema.nullable() });
/** The stored draft of a routine; null where there is none. */
export const draftRowSchema = z
  .object({ draft: draftSchema.nullable(), version: versionSchema.nullable() })
  .meta({ id: 'Draft' });
export type DraftRow = z.infer<typeof draftRowSchema>;

const frequency = {
  days: z
    .array(z.enum(WEEKDAYS))
    .max(7)
    .describe('days of the week it is meant for; none = as the drills say'),
  timesPerDay: z.int().min(1).max(10),
};

/** What is there of one occasion: the version in force, what is being edited, how often it is meant. */
export const occasionRowSchema = z
  .object({
    occasion: occasionSchema,
    routine: z
      .object({
        id: idSchema,
        number: z.int(),
        issuedOn: isoDaySchema,
        mode: modeSchema,
        totalSeconds: z.int(),
        lines: z.int(),
      })
      .nullable(),
    draft: z.object({ lines: z.int(), version: versionSchema }).nullable(),
    ...frequency,
    endedOn: isoDaySchema.nullable().describe('the day from which its routine is in force no more'),
    endedBy: z.string().nullable(),
    version: versionSchema.nullable().describe('of the frequency; null while none is kept'),
  })
  .meta({ id: 'Occasion' });
export type OccasionRow = z.infer<typeof occasionRowSchema>;
/** Occasions for which an athlete has a routine. */
export const occasionListSchema = z.object({ items: z.array(occasionRowSchema) }).meta({ id: 'Occasions' });
/** Body that says on which days and how often a day an occasion is meant. */
export const putOccasionSchema = z.strictObject({
  ...frequency,
  ended: z.boolean().default(false),
  version: versionSchema.nullable(),
});
export type PutOccasion = z.infer<typeof putOccasionSchema>;

/** What a practitioner says of a proposed decision. */
export const decisionVerdictSchema = z.enum(['accepted', 'overruled']);

/** What was proposed for an item: the decision and the item that would follow, null = left out. */
const proposedSchema = z.strictObject({ decision: z.string().max(40), next: itemSchema.nullable() });
const shown = proposedSchema
  .optional()
  .describe('what was on the screen; refused when it is another by now. Left out: whatever is proposed now');

/** A verdict on each decision of the routine in force, by item; an overruled one says what instead, and why. */
export const decideSchema = z.strictObject({
  id: newIdSchema.describe('of the verdicts given together'),
  on: isoDaySchema,
  routineId: idSchema,
  verdicts: z
    .array(
      z.discriminatedUnion('verdict', [
        z.strictObject({ item: idSchema, verdict: z.literal('accepted'), shown }),
        z.strictObject({
          item: idSchema,
          shown,
          verdict: z.literal('overruled'),
          instead: z.enum(['keep', 'ease', 'remove']),
          reason: z.string().trim().min(3, 'say why').max(1000),
        }),
      ]),
    )
    .min(1)
    .refine((list) => new Set(list.map((v) => v.item)).size === list.length, 'one verdict per item'),
});
export type Decide = z.infer<typeof decideSchema>;
/** The version that followed from recorded decisions; null where nothing changed. */
export const decidedSchema = z.object({ routine: routineRowSchema.nullable() }).meta({ id: 'Decided' });
export type Decided = z.infer<typeof decidedSchema>;
