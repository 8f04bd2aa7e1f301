import {
  athleteCaseSchema,
  athleteFieldsSchema,
  athleteListSchema,
  athleteSchemaRow,
  clearanceInputSchema,
  dayQuerySchema,
  endPrecautionSchema,
  idSchema,
  injuryInputSchema,
  precautionInputSchema,
  redFlagInputSchema,
  updateAthleteSchema,
} from '@yonder/core/contracts';
import { z } from 'zod';
import type { Deps } from '../../deps.ts';
import { endpoint } from '../../http/endpoint.ts';
import type { Endpoint } from '../../http/endpoint.ts';
import { loadCase } from './cases.ts';
import { answerRedFlags, clearRedFlag } from './redFlags.ts';
import * as service from './service.ts';
import { listAthletes } from './summaries.ts';

const athlete = z.strictObject({ athleteId: idSchema });
const child = z.strictObject({ athleteId: idSchema, id: idSchema });

/** Story: who the athlete is, injuries, precautions, stop-and-refer answers; and the case the core judges. */
export function athleteEndpoints(deps: Deps): Endpoint[] {
  return [
    endpoint({
      method: 'get',
      path: '/athletes',
      summary: 'Athletes of the practice with a miniature ridge',
      response: athleteListSchema,
      handler: ({ user }) => listAthletes(deps, user),
    }),
    endpoint({
      method: 'post',
      path: '/athletes',
      summary: 'Add an athlete',
      status: 201,
      body: athleteFieldsSchema,
      response: athleteSchemaRow,
      handler: ({ user, body }) => service.createAthlete(deps, user, body),
    }),
    endpoint({
      method: 'get',
      path: '/athletes/:athleteId',
      summary: 'One athlete',
      params: athlete,
      response: athleteSchemaRow,
      handler: ({ user, params }) => service.readAthlete(deps, user, params.athleteId),
    }),
    endpoint({
      method: 'put',
      path: '/athletes/:athleteId',
      summary: 'Change an athlete',
      params: athlete,
      body: updateAthleteSchema,
      response: athleteSchemaRow,
      handler: ({ user, params, body }) => service.updateAthlete(deps, user, params.athleteId, body),
    }),
    endpoint({
      method: 'get',
      path: '/athletes/:athleteId/case',
      summary: 'The case as of a working date: what the core judges',
      params: athlete,
      query: dayQuerySchema,
      response: athleteCaseSchema,
      handler: async ({ user, params, query }) => {
        const loaded = await loadCase(
          deps.database,
          user.practiceId,
          params.athleteId,
          query.on ?? deps.today(),
        );
        return { case: loaded.case, routineId: loaded.routine?.id ?? null };
      },
    }),
    endpoint({
      method: 'post',
      path: '/athletes/:athleteId/injuries',
      summary: 'Add a past injury',
      status: 201,
      params: athlete,
      body: injuryInputSchema,
      response: athleteSchemaRow,
      handler: ({ user, params, body }) => service.addInjury(deps, user, params.athleteId, body),
    }),
    endpoint({
      method: 'delete',
      path: '/athletes/:athleteId/injuries/:id',
      summary: 'Remove an injury entered by mistake',
      params: child,
      response: athleteSchemaRow,
      handler: ({ user, params }) => service.removeInjury(deps, user, params.athleteId, params.id),
    }),
    endpoint({
      method: 'post',
      path: '/athletes/:athleteId/precautions',
      summary: 'Set a precaution',
      status: 201,
      params: athlete,
      body: precautionInputSchema,
      response: athleteSchemaRow,
      handler: ({ user, params, body }) => service.addPrecaution(deps, user, params.athleteId, body),
    }),
    endpoint({
      method: 'post',
      path: '/athletes/:athleteId/precautions/:id/end',
      summary: 'End a precaution, by a named person',
      params: child,
      body: endPrecautionSchema,
      response: athleteSchemaRow,
      handler: ({ user, params, body }) =>
        service.endPrecaution(deps, user, params.athleteId, params.id, body),
    }),
    endpoint({
      method: 'post',
      path: '/athletes/:athleteId/red-flags',
      summary: 'Answer the stop-and-refer questions of regions',
      status: 201,
      params: athlete,
      body: redFlagInputSchema,
      response: athleteSchemaRow,
      handler: ({ user, params, body }) => answerRedFlags(deps, user, params.athleteId, body),
    }),
    endpoint({
      method: 'post',
      path: '/athletes/:athleteId/red-flags/:id/clearance',
      summary: 'Record the clearance of a named clinician',
      params: child,
      body: clearanceInputSchema,
      response: athleteSchemaRow,
      handler: ({ user, params, body }) => clearRedFlag(deps, user, params.athleteId, params.id, body),
    }),
  ];
}
