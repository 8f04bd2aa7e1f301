import { z } from 'zod';
import { resultSchema } from '../domain/caseFile.ts';
import { isoDaySchema } from '../domain/vocabulary.ts';
import { idSchema, newIdSchema, versionSchema } from './common.ts';

/** Body that opens a visit of a day. */
export const newScreeningSchema = z.strictObject({ id: newIdSchema, date: isoDaySchema });

/** A result as it is typed: everything but test and side, which are in the path. */
export const resultInputSchema = resultSchema.omit({ test: true, side: true }).extend({
  version: versionSchema.nullable().default(null).describe('null for a result not stored yet'),
});
export type ResultInput = z.input<typeof resultInputSchema>;

/** A stored result with the version to change it by. */
export const resultRowSchema = resultSchema.extend({ version: versionSchema }).meta({ id: 'Result' });
export type ResultRow = z.infer<typeof resultRowSchema>;

/** A visit with its results as the server answers. */
export const screeningRowSchema = z
  .object({
    id: idSchema,
    date: isoDaySchema,
    finished: z.boolean(),
    version: versionSchema,
    results: z.array(resultRowSchema),
  })
  .meta({ id: 'Screening' });
export type ScreeningRow = z.infer<typeof screeningRowSchema>;

/** Body that closes a visit. */
export const finishScreeningSchema = z.strictObject({ version: versionSchema });

/** Rows of a file of screenings; all are stored or none. */
export const importScreeningsSchema = z.strictObject({
  id: newIdSchema,
  rows: z
    .array(z.strictObject({ athleteId: idSchema, date: isoDaySchema, result: resultSchema }))
    .min(1)
    .max(2000, 'at most 2000 rows at once; split the file'),
});
export type ImportScreenings = z.infer<typeof importScreeningsSchema>;

/** What a file of screenings brought in, counted. */
export const importedSchema = z
  .object({
    results: z.int(),
    visits: z.int(),
    athletes: z.int(),
    replaced: z.int().describe('stored already with another value, which these took the place of'),
    unchanged: z.int().describe('stored already just so'),
  })
  .meta({ id: 'ImportedScreenings' });
export type Imported = z.infer<typeof importedSchema>;
