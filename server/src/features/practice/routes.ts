import { auditRowSchema, idSchema, pageOf, pageQuerySchema } from '@yonder/core/contracts';
import { endpoint } from '../../http/endpoint.ts';
import type { Endpoint } from '../../http/endpoint.ts';
import { listAudit } from './audit.ts';

/** What a practice may read of itself. */
export function practiceEndpoints(): Endpoint[] {
  return [
    endpoint({
      id: 'listAudit',
      tag: 'practice',
      method: 'get',
      path: '/audit',
      summary: 'Who saw and changed what, newest first; of everybody or of one athlete',
      least: 'owner',
      audits: 'audit.read',
      query: pageQuerySchema.extend({ athlete: idSchema.optional() }),
      response: pageOf(auditRowSchema),
      handler: ({ unit, query }) => listAudit(unit, query),
    }),
  ];
}
