import { z } from 'zod';
import { checkInSchema, liftSchema, painPatternSchema } from '../domain/caseFile.ts';
import { isoDaySchema } from '../domain/vocabulary.ts';
import { endedSchema, idSchema, newIdSchema, reasonInputSchema, versionSchema } from './common.ts';

const id = z.string().min(1).max(80);

/** An option of a school, chosen for the practice or for one athlete. */
export const choiceInputSchema = z.strictObject({
  id: newIdSchema,
  school: id,
  option: id,
  reason: reasonInputSchema,
  replaces: idSchema.nullable().default(null).describe('the choice in force that was read; null for none'),
});
export type ChoiceInput = z.infer<typeof choiceInputSchema>;
/** Why a choice is taken back: what stands above it holds again. */
export const endChoiceSchema = z.strictObject({ reason: reasonInputSchema, version: versionSchema });

const choiceRowSchema = z
  .object({
    id: idSchema,
    version: versionSchema,
    school: z.string(),
    option: z.string(),
    reason: z.string(),
    by: z.string(),
    date: isoDaySchema,
    ended: endedSchema.describe('taken back, with why, or replaced by the next choice (reason null)'),
  })
  .meta({ id: 'MethodChoice' });
export type ChoiceRow = z.infer<typeof choiceRowSchema>;

/** What the practice chose, and one athlete where one is asked for: in force and ended, newest first. */
export const methodsSchema = z
  .object({
    version: versionSchema.describe('of the practice, for its pain patterns'),
    practice: z.array(choiceRowSchema),
    athlete: z.array(choiceRowSchema),
    painPatterns: z.array(painPatternSchema).nullable().describe('null for those that ship'),
  })
  .meta({ id: 'Methods' });
export type Methods = z.infer<typeof methodsSchema>;

/** Body that sets which precautions hold where it hurts. */
export const painPatternsInputSchema = z.strictObject({
  painPatterns: z.array(painPatternSchema).max(80).nullable(),
  version: versionSchema,
});

/** What would be chosen; of one athlete, or of all from a place in the list on. */
export const methodPreviewSchema = z.strictObject({
  school: id,
  option: id.nullable().describe('null = taken back'),
  athleteId: idSchema.nullable().default(null),
  from: z.int().min(0).default(0).describe('place in the list of athletes to begin at'),
});

/** Whose routine would be built otherwise: the drills that would leave and come, with the seconds of each build. */
export const methodEffectSchema = z
  .object({
    total: z.int().describe('athletes of the practice, or 1'),
    judged: z.int().describe('athletes looked at in this answer'),
    routines: z.int().describe('of those, with a routine in force'),
    next: z.int().nullable().describe('where to go on; null when everybody was looked at'),
    changed: z.array(
      z.object({
        athleteId: idSchema,
        name: z.string(),
        leave: z.array(z.string()),
        come: z.array(z.string()),
        secondsNow: z.int(),
        secondsThen: z.int(),
      }),
    ),
  })
  .meta({ id: 'MethodEffect' });
export type MethodEffect = z.infer<typeof methodEffectSchema>;

/** Body that lifts a rule of the day, with why. */
export const liftInputSchema = liftSchema
  .pick({ region: true, side: true, reason: true, referral: true })
  .extend({ id: newIdSchema });
/** A lifted rule as the server answers. */
export const liftRowSchema = liftSchema.extend({ id: idSchema, version: versionSchema }).meta({ id: 'Lift' });

/** Body that says how today is before a session. */
export const checkInInputSchema = checkInSchema.omit({ date: true }).extend({
  version: versionSchema.nullable().default(null).describe('null for a day without one yet'),
});
/** What was said before a session, as the server answers. */
export const checkInRowSchema = checkInSchema
  .extend({ by: z.string().nullable(), version: versionSchema.nullable() })
  .meta({ id: 'CheckIn' });
export type CheckInRow = z.infer<typeof checkInRowSchema>;
