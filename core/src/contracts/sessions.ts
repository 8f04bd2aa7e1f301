import { z } from 'zod';
import { entrySchema, itemSchema } from '../domain/caseFile.ts';
import { isoDaySchema, painScoreSchema } from '../domain/vocabulary.ts';
import { idSchema, versionSchema } from './common.ts';

export const startSessionSchema = z.strictObject({ routineId: idSchema, date: isoDaySchema });

/** Where a runner stands on the timeline, so that a reload goes on at the same second. */
export const progressSchema = z.strictObject({
  segment: z.int().min(0),
  elapsed: z.number().min(0).describe('seconds into the segment'),
  skipped: z.array(z.int().min(0)).max(2000).default([]).describe('segments that were not done'),
  played: z.array(itemSchema).max(30).nullable().default(null).describe('the items when a drill was swapped'),
});

export const saveSessionSchema = z.strictObject({
  version: versionSchema,
  progress: progressSchema,
  entries: z.array(entrySchema).max(30),
  finished: z.boolean(),
});

export const sessionRowSchema = z
  .object({
    id: idSchema,
    routineId: idSchema,
    date: isoDaySchema,
    finished: z.boolean(),
    progress: progressSchema,
    entries: z.array(entrySchema),
    version: versionSchema,
  })
  .meta({ id: 'Session' });
export type SessionRow = z.infer<typeof sessionRowSchema>;

/** The morning after: pain 0–10 for one drill of a finished session. */
export const nextDaySchema = z.strictObject({
  version: versionSchema,
  pains: z.array(z.strictObject({ index: z.int().min(0), nextDayPain: painScoreSchema })).min(1),
});
