import {
  finishScreeningSchema,
  idSchema,
  importedSchema,
  importScreeningsSchema,
  newScreeningSchema,
  resultInputSchema,
  resultRowSchema,
  screeningRowSchema,
} from '@yonder/core/contracts';
import { sideSchema } from '@yonder/core/schemas';
import { z } from 'zod';
import type { Deps } from '../../deps.ts';
import { endpoint } from '../../http/endpoint.ts';
import type { Endpoint } from '../../http/endpoint.ts';
import { exportScreenings, importScreenings } from './files.ts';
import * as service from './service.ts';

const athlete = z.strictObject({ athleteId: idSchema });
const screening = z.strictObject({ screeningId: idSchema });
const oneResult = z.strictObject({ screeningId: idSchema, test: z.string().max(80), side: sideSchema });

/** Screen: dated visits and their results. */
export function screeningEndpoints(deps: Deps): Endpoint[] {
  return [
    endpoint({
      method: 'post',
      path: '/screenings/import',
      summary: 'Store the rows of a file of screenings; all or none',
      status: 201,
      body: importScreeningsSchema,
      response: importedSchema,
      handler: ({ user, body }) => importScreenings(deps, user, body),
    }),
    endpoint({
      method: 'get',
      path: '/screenings.csv',
      summary: 'All screenings of the practice, or those of one athlete, as CSV',
      query: z.strictObject({ athlete: idSchema.optional() }),
      sends: 'text/csv',
      handler: async ({ user, query, response }) => {
        const csv = await exportScreenings(deps, user, query.athlete);
        response.set('Content-Disposition', 'attachment; filename="screenings.csv"');
        response.type('text/csv').send(csv);
      },
    }),
    endpoint({
      method: 'get',
      path: '/athletes/:athleteId/screenings',
      summary: 'Screenings of an athlete, newest first',
      params: athlete,
      response: z.array(screeningRowSchema),
      handler: ({ user, params }) => service.listScreenings(deps, user, params.athleteId),
    }),
    endpoint({
      method: 'post',
      path: '/athletes/:athleteId/screenings',
      summary: 'Open the visit of a day, or resume it',
      params: athlete,
      body: newScreeningSchema,
      response: screeningRowSchema,
      handler: ({ user, params, body }) => service.openScreening(deps, user, params.athleteId, body.date),
    }),
    endpoint({
      method: 'put',
      path: '/screenings/:screeningId/results/:test/:side',
      summary: 'Store the result of one test and side',
      params: oneResult,
      body: resultInputSchema,
      response: resultRowSchema,
      handler: ({ user, params, body: { version, ...value } }) =>
        service.putResult(
          deps,
          user,
          params.screeningId,
          { ...value, test: params.test, side: params.side },
          version,
        ),
    }),
    endpoint({
      method: 'delete',
      path: '/screenings/:screeningId/results/:test/:side',
      summary: 'Take a result back',
      status: 204,
      params: oneResult,
      handler: ({ user, params }) =>
        service.removeResult(deps, user, params.screeningId, params.test, params.side),
    }),
    endpoint({
      method: 'post',
      path: '/screenings/:screeningId/finish',
      summary: 'Close the visit',
      params: screening,
      body: finishScreeningSchema,
      response: screeningRowSchema,
      handler: ({ user, params, body }) =>
        service.finishScreening(deps, user, params.screeningId, body.version),
    }),
  ];
}
