import { z } from 'zod';
import { doseShareSchema, itemSchema, MOST_ITEMS, requestSchema, sectionSchema } from '../domain/caseFile.ts';
import { isoDaySchema, occasionSchema } from '../domain/vocabulary.ts';
import { ownDrillSchema } from '../reference/schema.ts';
import { idSchema, newIdSchema, versionSchema } from './common.ts';

/** A drill of the practice's own to keep; on a new one the id is made from its name. */
export const ownDrillInputSchema = z.strictObject({ id: newIdSchema, drill: ownDrillSchema });
/** Body that changes an own drill, with the version that was seen. */
export const changedDrillSchema = z.strictObject({ drill: ownDrillSchema, version: versionSchema });
/** A drill of the practice’s own as the server answers. */
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
/** What a drill file brought in. */
export const importedDrillsSchema = z
  .object({
    faults: z.array(z.object({ path: z.string(), message: z.string() })),
    added: z.array(z.string()).describe('names of drills that are new'),
    replaced: z.array(z.string()).describe('names of own drills of the same id that are replaced'),
  })
  .meta({ id: 'ImportedDrills' });
export type ImportedDrills = z.infer<typeof importedDrillsSchema>;

/** Body that sets the shares of a tested maximum, fractions of 1. */
export const doseSharesInputSchema = z.strictObject({
  doseShares: z
    .array(doseShareSchema)
    .max(60)
    .refine((list) => new Set(list.map((s) => `${s.category}/${s.mode}/${s.of}`)).size === list.length, {
      message: 'one share per category, mode and kind',
    }),
  version: versionSchema,
});

const varies = z.enum(['as-written', 'athlete']);

/** What of a protocol is as it is written, and what follows the athlete it is used for. */
const variablesSchema = z.strictObject({
  minutes: varies.default('as-written'),
  place: varies.default('athlete').describe('kit and room'),
  level: varies
    .default('athlete')
    .describe('athlete: each drill at the level that is open; as written: word by word'),
});

/** A routine that a practice starts others from: a protocol with author, purpose, and for whom it is not. */
export const templateFieldsSchema = z.strictObject({
  name: z.string().trim().min(2, 'a name is needed').max(120),
  sport: z.string().trim().max(80).default(''),
  role: z.string().trim().max(80).default(''),
  author: z.string().trim().max(120).default('').describe('whose protocol it is; left out, who keeps it'),
  purpose: z.string().trim().max(500).default(''),
  notFor: z.string().trim().max(500).default('').describe('for whom it is not'),
  occasion: occasionSchema.nullable().default(null),
  sections: z.array(sectionSchema).max(20).default([]),
  variables: variablesSchema.prefault({}),
  structure: z.string().max(80),
  request: requestSchema,
  items: z.array(itemSchema).min(1, 'a protocol needs a line').max(MOST_ITEMS),
});
export type TemplateFields = z.infer<typeof templateFieldsSchema>;
/** Body that keeps a protocol of the practice. */
export const templateInputSchema = templateFieldsSchema.extend({ id: newIdSchema });
/** Body that changes a protocol, with the version that was seen. */
export const changedTemplateSchema = templateFieldsSchema.extend({ version: versionSchema });
/** A protocol of the practice as the server answers. */
export const templateRowSchema = templateFieldsSchema
  .extend({ id: idSchema, version: versionSchema, savedBy: z.string(), savedOn: isoDaySchema })
  .meta({ id: 'Template' });
export type TemplateRow = z.infer<typeof templateRowSchema>;

/** A version that a protocol had. */
export const templateVersionSchema = z
  .object({ number: z.int(), savedBy: z.string(), savedOn: isoDaySchema, content: templateFieldsSchema })
  .meta({ id: 'TemplateVersion' });
export type TemplateVersion = z.infer<typeof templateVersionSchema>;

/** A protocol for one athlete: as a draft of its occasion, unless something is being edited there. */
export const applyTemplateSchema = z.strictObject({
  athleteId: idSchema,
  occasion: occasionSchema,
  how: z.enum(['fitted', 'word-by-word']).optional().describe('left out, as the protocol says of its levels'),
});
export type ApplyTemplate = z.infer<typeof applyTemplateSchema>;
/** What became of a protocol fitted to an athlete. */
export const appliedTemplateSchema = z
  .object({
    athleteId: idSchema,
    stored: z.boolean().describe('false where a draft is there already: it is left as it is'),
    lines: z.int(),
    changed: z.array(z.string()).describe('what is otherwise than written, as sentences'),
  })
  .meta({ id: 'AppliedTemplate' });
export type AppliedTemplate = z.infer<typeof appliedTemplateSchema>;

/** Asks the server to build; it answers with one JSON document a line, interim answers first. */
export const buildOnServerSchema = z.strictObject({ on: isoDaySchema, request: requestSchema });
