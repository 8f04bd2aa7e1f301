import {
  finishScreeningSchema,
  idSchema,
  importedSchema,
  importScreeningsSchema,
  newScreeningSchema,
  pageOf,
  pageQuerySchema,
  resultInputSchema,
  resultRowSchema,
  screeningRowSchema,
  versionQuerySchema,
} from '@yonder/core/contracts';
import { sideSchema } from '@yonder/core/schemas';
import { z } from 'zod';
import { endpoint, Sent } from '../../http/endpoint.ts';
import type { Endpoint } from '../../http/endpoint.ts';
import { exportScreenings, importedBefore, importScreenings } from './files.ts';
import * as service from './service.ts';

const athlete = z.strictObject({ athleteId: idSchema });
const screening = z.strictObject({ screeningId: idSchema });
const oneResult = z.strictObject({ screeningId: idSchema, test: z.string().max(80), side: sideSchema });

/** Screen: dated visits and their results. */
export function screeningEndpoints(): Endpoint[] {
  return [
    endpoint({
      id: 'importScreenings',
      tag: 'screen',
      method: 'post',
      path: '/screenings/import',
      summary: 'Store the rows of a file of screenings; all or none',
      least: 'assistant',
      audits: 'screenings.import',
      status: 201,
      body: importScreeningsSchema,
      response: importedSchema,
      handler: ({ unit, body }) => importScreenings(unit, body),
      again: ({ body }) => importedBefore(body),
    }),
    endpoint({
      id: 'exportScreenings',
      tag: 'screen',
      method: 'get',
      path: '/screenings.csv',
      summary: 'All screenings of the practice, or those of one athlete, as CSV',
      least: 'clinician',
      audits: 'screenings.export',
      query: z.strictObject({ athlete: idSchema.optional() }),
      sends: 'text/csv',
      handler: async ({ unit, query }) => {
        const csv = await exportScreenings(unit, query.athlete);
        return new Sent((response) => {
          response.set('Content-Disposition', 'attachment; filename="screenings.csv"');
          response.type('text/csv').send(csv);
        });
      },
    }),
    endpoint({
      id: 'listScreenings',
      tag: 'screen',
      method: 'get',
      path: '/athletes/:athleteId/screenings',
      summary: 'Screenings of an athlete, newest first',
      least: 'read-only',
      audits: 'screenings.read',
      params: athlete,
      query: pageQuerySchema,
      response: pageOf(screeningRowSchema),
      handler: ({ unit, params, query }) => service.listScreenings(unit, params.athleteId, query),
    }),
    endpoint({
      id: 'openScreening',
      tag: 'screen',
      method: 'post',
      path: '/athletes/:athleteId/screenings',
      summary: 'Open the visit of a day, or resume it',
      least: 'assistant',
      audits: 'screening.open',
      params: athlete,
      body: newScreeningSchema,
      response: screeningRowSchema,
      handler: ({ unit, params, body }) => service.openScreening(unit, params.athleteId, body),
      again: ({ unit, params, body }) => service.readScreeningOf(unit, params.athleteId, body.date),
    }),
    endpoint({
      id: 'putResult',
      tag: 'screen',
      method: 'put',
      path: '/screenings/:screeningId/results/:test/:side',
      summary: 'Store the result of one test and side',
      least: 'assistant',
      audits: 'result.put',
      params: oneResult,
      body: resultInputSchema,
      response: resultRowSchema,
      handler: ({ unit, params: { screeningId, ...place }, body: { version, ...value } }) =>
        service.putResult(unit, screeningId, { ...value, ...place }, version),
    }),
    endpoint({
      id: 'removeResult',
      tag: 'screen',
      method: 'delete',
      path: '/screenings/:screeningId/results/:test/:side',
      summary: 'Take a result back',
      least: 'assistant',
      audits: 'result.remove',
      status: 204,
      params: oneResult,
      query: versionQuerySchema,
      handler: ({ unit, params: { screeningId, ...place }, query }) =>
        service.removeResult(unit, screeningId, place, query.version),
    }),
    endpoint({
      id: 'finishScreening',
      tag: 'screen',
      method: 'post',
      path: '/screenings/:screeningId/finish',
      summary: 'Close the visit',
      least: 'assistant',
      audits: 'screening.finish',
      params: screening,
      body: finishScreeningSchema,
      response: screeningRowSchema,
      handler: ({ unit, params, body }) => service.finishScreening(unit, params.screeningId, body.version),
    }),
  ];
}
