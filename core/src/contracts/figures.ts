import { z } from 'zod';
import {
  doseShareSchema,
  ownTaskSchema,
  ownTestSchema,
  painLimitsSchema,
  painPatternSchema,
  referenceEditSchema,
} from '../domain/caseFile.ts';
import { isoDaySchema, sideSchema } from '../domain/vocabulary.ts';
import { MOST_PAIN } from '../findings/settings.ts';
import { endedSchema, idSchema, newIdSchema, reasonInputSchema, versionSchema } from './common.ts';
import { ownDrillRowSchema } from './library.ts';

/** A figure to put in place of the reference's, in the unit of its test (CV in percent). */
export const figureInputSchema = referenceEditSchema
  .omit({ by: true, date: true })
  .extend({ id: newIdSchema, reason: reasonInputSchema });
export type FigureInput = z.infer<typeof figureInputSchema>;

/** Why a figure goes back to the reference's own. */
export const figureBackSchema = z.strictObject({ reason: reasonInputSchema, version: versionSchema });

const figureRowSchema = referenceEditSchema
  .extend({
    id: idSchema,
    version: versionSchema,
    oldValue: z.number().nullable(),
    reason: z.string(),
    by: z.string(),
    date: isoDaySchema,
    ended: endedSchema.describe('set back, with why, or replaced by the next edit (reason null)'),
  })
  .meta({ id: 'Figure' });
export type FigureRow = z.infer<typeof figureRowSchema>;

/** Body that adds a sport task of the practice’s own. */
export const practiceTaskInputSchema = ownTaskSchema.omit({ id: true }).extend({ id: newIdSchema });
/** Body that changes an own sport task, with the version that was seen. */
export const changedTaskSchema = ownTaskSchema.omit({ id: true }).extend({ version: versionSchema });
const practiceTaskRowSchema = ownTaskSchema
  .extend({ rowId: idSchema, version: versionSchema })
  .meta({ id: 'PracticeTask' });
export type PracticeTaskRow = z.infer<typeof practiceTaskRowSchema>;

/** Body that adds a test of the practice’s own. */
export const practiceTestInputSchema = ownTestSchema.omit({ id: true }).extend({ id: newIdSchema });
/** Body that changes an own test, with the version that was seen. */
export const changedTestSchema = ownTestSchema.omit({ id: true }).extend({ version: versionSchema });
const practiceTestRowSchema = ownTestSchema
  .extend({ rowId: idSchema, version: versionSchema })
  .meta({ id: 'PracticeTest' });
export type PracticeTestRow = z.infer<typeof practiceTestRowSchema>;

/** Everything a practice set instead of, or beside, the reference. */
export const figuresSchema = z
  .object({
    version: versionSchema,
    painLimits: painLimitsSchema.nullable(),
    edits: z.array(figureRowSchema).describe('in force and set back, newest first'),
    tasks: z.array(practiceTaskRowSchema),
    tests: z.array(practiceTestRowSchema),
    drills: z.array(ownDrillRowSchema),
    doseShares: z.array(doseShareSchema),
    painPatterns: z.array(painPatternSchema).nullable().describe('null for those that ship'),
  })
  .meta({ id: 'Figures' });
export type Figures = z.infer<typeof figuresSchema>;

/** Body that sets the practice’s pain limits, 0–10. */
export const painLimitsInputSchema = z.strictObject({
  painLimits: painLimitsSchema
    .refine(({ fine }) => fine <= MOST_PAIN.fine, {
      path: ['fine'],
      message: `at most ${MOST_PAIN.fine} of 10`,
    })
    .refine(({ stop }) => stop <= MOST_PAIN.stop, {
      path: ['stop'],
      message: `at most ${MOST_PAIN.stop} of 10`,
    })
    .nullable(),
  why: z.string().trim().min(3, 'say why: every routine goes by them').max(1000),
  version: versionSchema,
});
export type PainLimitsInput = z.infer<typeof painLimitsInputSchema>;

/** What would be saved: the figures set, and those set back (by id). */
export const figurePreviewSchema = z
  .strictObject({
    set: z
      .array(figureInputSchema.omit({ id: true }).extend({ reason: z.string().default('') }))
      .max(50)
      .default([]),
    unset: z.array(idSchema).max(50).default([]),
    from: z.int().min(0).default(0).describe('place in the list of athletes to begin at'),
  })
  .refine((input) => input.set.length + input.unset.length > 0, {
    message: 'name a figure to set or set back',
  });

/** Whose findings an edited figure would change. */
export const figureEffectSchema = z
  .object({
    total: z.int().describe('athletes of the practice'),
    judged: z.int().describe('athletes looked at in this answer'),
    next: z.int().nullable().describe('where to go on; null when everybody was looked at'),
    changed: z.array(
      z.object({
        athleteId: idSchema,
        name: z.string(),
        changes: z.array(
          z.object({
            restriction: z.string(),
            side: sideSchema,
            from: z.string().describe('state before, or "none"'),
            to: z.string(),
            severityFrom: z.number(),
            severityTo: z.number(),
          }),
        ),
      }),
    ),
  })
  .meta({ id: 'FigureEffect' });
export type FigureEffect = z.infer<typeof figureEffectSchema>;
