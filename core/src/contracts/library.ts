import { z } from 'zod';
import { doseShareSchema, itemSchema, requestSchema } from '../domain/caseFile.ts';
import { isoDaySchema } from '../domain/vocabulary.ts';
import { ownDrillSchema } from '../reference/schema.ts';
import { idSchema, newIdSchema, versionSchema } from './common.ts';

/** A drill of the practice's own to keep; on a new one the id is made from its name. */
export const ownDrillInputSchema = z.strictObject({ id: newIdSchema, drill: ownDrillSchema });
export const changedDrillSchema = z.strictObject({ drill: ownDrillSchema, version: versionSchema });
export const ownDrillRowSchema = z
  .object({
    rowId: idSchema,
    version: versionSchema,
    savedBy: z.string(),
    savedOn: isoDaySchema,
    drill: ownDrillSchema,
  })
  .meta({ id: 'OwnDrill' });
export type OwnDrillRow = z.infer<typeof ownDrillRowSchema>;

/** Drills of a drill file; with `check` nothing is stored. Faults carry the path inside the file. */
export const importDrillsSchema = z.strictObject({
  id: newIdSchema,
  drills: z.array(z.unknown()).min(1).max(500),
  check: z.boolean().default(false),
});
export const importedDrillsSchema = z
  .object({
    faults: z.array(z.object({ path: z.string(), message: z.string() })),
    added: z.array(z.string()).describe('names of drills that are new'),
    replaced: z.array(z.string()).describe('names of own drills of the same id that are replaced'),
  })
  .meta({ id: 'ImportedDrills' });
export type ImportedDrills = z.infer<typeof importedDrillsSchema>;

export const doseSharesInputSchema = z.strictObject({
  doseShares: z
    .array(doseShareSchema)
    .max(60)
    .refine((list) => new Set(list.map((s) => `${s.category}/${s.mode}/${s.of}`)).size === list.length, {
      message: 'one share per category, mode and kind',
    }),
  version: versionSchema,
});

/** A routine that a practice starts others from, by sport and role. */
const templateFields = z.strictObject({
  name: z.string().trim().min(2, 'a name is needed').max(120),
  sport: z.string().trim().max(80).default(''),
  role: z.string().trim().max(80).default(''),
  structure: z.string().max(80),
  request: requestSchema,
  items: z.array(itemSchema).min(1, 'a template needs a drill').max(30),
});
export type TemplateFields = z.infer<typeof templateFields>;
export const templateInputSchema = templateFields.extend({ id: newIdSchema });
export const changedTemplateSchema = templateFields.extend({ version: versionSchema });
export const templateRowSchema = templateFields
  .extend({ id: idSchema, version: versionSchema, savedBy: z.string(), savedOn: isoDaySchema })
  .meta({ id: 'Template' });
export type TemplateRow = z.infer<typeof templateRowSchema>;

/** Asks the server to build; it answers with one JSON document a line, interim answers first. */
export const buildOnServerSchema = z.strictObject({ on: isoDaySchema, request: requestSchema });
