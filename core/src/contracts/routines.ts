import { z } from 'zod';
import { itemSchema, requestSchema } from '../domain/caseFile.ts';
import { isoDaySchema, modeSchema, sideSchema } from '../domain/vocabulary.ts';
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

export const issueRoutineSchema = z.strictObject({
  id: newIdSchema,
  on: isoDaySchema,
  mode: modeSchema,
  structure: z.string().max(80),
  request: requestSchema,
  items: z.array(identifiedItem).min(1, 'a routine needs a drill').max(30),
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
    number: z.int().min(1),
    issuedOn: isoDaySchema,
    issuedBy: z.string(),
    mode: modeSchema,
    structure: z.string(),
    schools: requestSchema.shape.schools,
    items: z.array(identifiedItem),
    totalSeconds: z.int(),
    findings: z.array(findingSummarySchema),
    reasons: z.array(itemReasonsSchema).describe('empty for versions from before reasons were kept'),
    changes: z.array(reasonSchema).describe('what changed since the version before'),
    overrides: z.array(overrideSchema).describe('rules it was issued against'),
  })
  .meta({ id: 'Routine' });
export type RoutineRow = z.infer<typeof routineRowSchema>;

/** The routine being edited, kept so that nothing is lost between visits. */
export const draftSchema = z.strictObject({
  request: requestSchema,
  structure: z.string().max(80),
  items: z.array(identifiedItem).max(30),
});
export type Draft = z.infer<typeof draftSchema>;
export const saveDraftSchema = draftSchema.extend({ version: versionSchema.nullable() });
export const draftRowSchema = z
  .object({ draft: draftSchema.nullable(), version: versionSchema.nullable() })
  .meta({ id: 'Draft' });
export type DraftRow = z.infer<typeof draftRowSchema>;

export const decisionVerdictSchema = z.enum(['accepted', 'overruled']);

/** A verdict on each decision of the routine in force, by item; an overruled one says what instead, and why. */
export const decideSchema = z.strictObject({
  id: newIdSchema.describe('of the verdicts given together'),
  on: isoDaySchema,
  routineId: idSchema,
  verdicts: z
    .array(
      z.discriminatedUnion('verdict', [
        z.strictObject({ item: idSchema, verdict: z.literal('accepted') }),
        z.strictObject({
          item: idSchema,
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
export const decidedSchema = z.object({ routine: routineRowSchema.nullable() }).meta({ id: 'Decided' });
export type Decided = z.infer<typeof decidedSchema>;
