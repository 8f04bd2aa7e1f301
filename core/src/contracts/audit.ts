import { z } from 'zod';
import { idSchema } from './common.ts';

/** Who saw or changed what, and when. */
export const auditRowSchema = z
  .object({
    id: z.string(),
    at: z.iso.datetime(),
    actor: z.object({ kind: z.string(), id: idSchema.nullable(), name: z.string().nullable() }),
    athlete: z.object({ id: idSchema, name: z.string().nullable() }).nullable(),
    action: z.string(),
  })
  .meta({ id: 'AuditEvent' });
export type AuditRow = z.infer<typeof auditRowSchema>;
