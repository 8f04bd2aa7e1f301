import { z } from 'zod';
import { isoDaySchema } from '../domain/vocabulary.ts';
import { idSchema } from './common.ts';

/** What decides about safety, as it was before a change, as it is now, and why. */
export const auditChangeSchema = z.object({
  what: z.string(),
  was: z.string(),
  is: z.string(),
  why: z.string(),
});
export type AuditChange = z.infer<typeof auditChangeSchema>;

/** Who saw or changed what, and when. */
export const auditRowSchema = z
  .object({
    id: z.string(),
    at: z.iso.datetime(),
    actor: z.object({ kind: z.string(), id: idSchema.nullable(), name: z.string().nullable() }),
    athlete: z.object({ id: idSchema, name: z.string().nullable() }).nullable(),
    action: z.string(),
    change: auditChangeSchema.nullable(),
    refused: z.string().nullable().describe('why it was not done; null for what was'),
  })
  .meta({ id: 'AuditEvent' });
/** Which of the audit: an athlete's, a person's, of some kind of action, between two days. */
export const auditFilterSchema = z.strictObject({
  athlete: idSchema.optional(),
  actor: idSchema.optional(),
  action: z
    .string()
    .regex(/^[a-z-]{1,40}(\.[a-z-]{1,40})?$/, 'write an action such as "routine" or "routine.issue"')
    .optional(),
  from: isoDaySchema.optional(),
  to: isoDaySchema.optional(),
});
export type AuditFilter = z.infer<typeof auditFilterSchema>;
export type AuditRow = z.infer<typeof auditRowSchema>;
