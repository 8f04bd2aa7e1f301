import { z } from 'zod';
import { isoDaySchema } from '../domain/vocabulary.ts';

/** Id of a stored row. */
export const idSchema = z.uuid();
/** Count of changes of a row: what is changed has to be what was seen. */
export const versionSchema = z
  .int()
  .min(1)
  .describe('row version the change was made on; a mismatch gives 409');
/** The working date of a request; today in the practice’s time zone unless given. */
export const dayQuerySchema = z.strictObject({
  on: isoDaySchema.optional().describe('working date, default today in the practice’s time zone'),
});
/** The version a row was read at, for taking it away. */
export const versionQuerySchema = z.strictObject({ version: z.coerce.number().pipe(versionSchema) });

/** Why something is done that stays on record. */
export const reasonInputSchema = z.string().trim().min(3, 'say why').max(1000);
/** How something ended that stays on record: taken back with a reason, or replaced (reason null). */
export const endedSchema = z
  .object({ by: z.string(), date: isoDaySchema, reason: z.string().nullable() })
  .nullable();

/** Anything that is created carries an id made by the client: sent twice, it is there once. */
export const newIdSchema = idSchema.describe('made by whoever creates it; the same id twice is one row');

/** What people of a practice may do, each with everything before it. */
export const ROLES = ['read-only', 'assistant', 'clinician', 'owner'] as const;
/** What somebody may do in a practice. */
export type Role = (typeof ROLES)[number];

/** How much of a list, and where it goes on. */
export const pageQuerySchema = z.strictObject({
  limit: z.coerce.number().pipe(z.int().min(1).max(1000)).default(200),
  after: z.string().max(200).optional().describe('`next` of the page before'),
});
export type PageQuery = z.infer<typeof pageQuerySchema>;

/** A page of a list: its items and where the next page begins, null at the end. */
export function pageOf<Item extends z.ZodType>(item: Item) {
  return z.object({ items: z.array(item), next: z.string().nullable() });
}
/** A page of a list: its items and where the next page begins, null at the end. */
export interface Page<Item> {
  items: Item[];
  next: string | null;
}

/** RFC 9457 problem document with a stable code and the path of each fault. */
export const problemSchema = z
  .object({
    type: z.string(),
    title: z.string(),
    status: z.int(),
    code: z.string(),
    detail: z.string().optional(),
    errors: z.array(z.object({ path: z.string(), message: z.string() })).optional(),
    current: z.unknown().optional().describe('with 409: the row as it is now'),
    requestId: z.string().optional(),
  })
  .meta({ id: 'Problem' });
export type Problem = z.infer<typeof problemSchema>;

/** Every problem code the API can give, one per kind of refusal; docs/api.md explains each. */
export const PROBLEM_CODES = [
  'invalid-request',
  'malformed-json',
  'unsupported-media-type',
  'payload-too-large',
  'not-signed-in',
  'wrong-credentials',
  'csrf-token',
  'not-allowed',
  'too-many-attempts',
  'not-found',
  'version-conflict',
  'already-exists',
  'id-taken',
  'archived',
  'superseded',
  'proposal-changed',
  'in-use',
  'safety-refused',
  'blocked',
  'override-needed',
  'unavailable',
  'internal',
] as const;
/** Stable code of a problem document; clients go by it, never by its words. */
export type ProblemCode = (typeof PROBLEM_CODES)[number];
