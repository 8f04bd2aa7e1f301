import { z } from 'zod';
import { itemSchema, requestSchema } from '../domain/caseFile.ts';
import { isoDaySchema, modeSchema, sideSchema } from '../domain/vocabulary.ts';
import { idSchema, versionSchema } from './common.ts';

export const issueRoutineSchema = z.strictObject({
  on: isoDaySchema,
  mode: modeSchema,
  structure: z.string().max(80),
  request: requestSchema,
  items: z.array(itemSchema).min(1, 'a routine needs a drill').max(30),
});
export type IssueRoutine = z.infer<typeof issueRoutineSchema>;

/** An issued version: immutable, with who issued it and the findings it answered. */
export const routineRowSchema = z
  .object({
    id: idSchema,
    number: z.int().min(1),
    issuedOn: isoDaySchema,
    issuedBy: z.string(),
    mode: modeSchema,
    structure: z.string(),
    items: z.array(itemSchema),
    totalSeconds: z.int(),
    findings: z.array(
      z.object({
        restriction: z.string(),
        side: sideSchema,
        severity: z.number(),
        priority: z.number(),
        state: z.string(),
      }),
    ),
    changes: z.array(z.string()).describe('what changed since the version before, in words'),
  })
  .meta({ id: 'Routine' });
export type RoutineRow = z.infer<typeof routineRowSchema>;

/** The routine being edited, kept so that nothing is lost between visits. */
const draftSchema = z.strictObject({
  request: requestSchema,
  structure: z.string().max(80),
  items: z.array(itemSchema).max(30),
});
export type Draft = z.infer<typeof draftSchema>;
export const saveDraftSchema = draftSchema.extend({ version: versionSchema.nullable() });
export const draftRowSchema = z
  .object({ draft: draftSchema.nullable(), version: versionSchema.nullable() })
  .meta({ id: 'Draft' });
export type DraftRow = z.infer<typeof draftRowSchema>;

/** A verdict on each decision of the routine in force; an overruled one says what instead, and why. */
export const decideSchema = z.strictObject({
  on: isoDaySchema,
  routineId: idSchema,
  verdicts: z
    .array(
      z.discriminatedUnion('verdict', [
        z.strictObject({ index: z.int().min(0), verdict: z.literal('accepted') }),
        z.strictObject({
          index: z.int().min(0),
          verdict: z.literal('overruled'),
          instead: z.enum(['keep', 'ease', 'remove']),
          reason: z.string().trim().min(3, 'say why').max(1000),
        }),
      ]),
    )
    .min(1),
});
export type Decide = z.infer<typeof decideSchema>;
export const decidedSchema = z
  .object({ routine: routineRowSchema.nullable(), changes: z.array(z.string()) })
  .meta({ id: 'Decided' });
export type Decided = z.infer<typeof decidedSchema>;
