import { auditFilterSchema, auditRowSchema, pageOf, pageQuerySchema } from '@yonder/core/contracts';
import { endpoint, Sent } from '../../http/endpoint.ts';
import type { Endpoint } from '../../http/endpoint.ts';
import { auditCsv, listAudit } from './audit.ts';

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
      query: pageQuerySchema.extend(auditFilterSchema.shape),
      response: pageOf(auditRowSchema),
      handler: ({ unit, query: { limit, after, ...filter } }) =>
        listAudit(unit, filter, { limit, ...(after === undefined ? {} : { after }) }),
    }),
    endpoint({
      id: 'exportAudit',
      tag: 'practice',
      method: 'get',
      path: '/audit.csv',
      summary: 'The audit as a file, with the same filters',
      least: 'owner',
      audits: 'audit.export',
      query: auditFilterSchema,
      sends: 'text/csv',
      handler: async ({ unit, query }) => {
        const csv = await auditCsv(unit, query);
        return new Sent((response) => {
          response.type('text/csv').set('Content-Disposition', 'attachment; filename="audit.csv"').send(csv);
        });
      },
    }),
  ];
}
