import {
  buildOnServerSchema,
  decidedSchema,
  decideSchema,
  draftRowSchema,
  idSchema,
  issueRoutineSchema,
  routineRowSchema,
  saveDraftSchema,
} from '@yonder/core/contracts';
import { z } from 'zod';
import type { Deps } from '../../deps.ts';
import { endpoint } from '../../http/endpoint.ts';
import type { Endpoint } from '../../http/endpoint.ts';
import { streamBuild } from './building.ts';
import { printRoutine } from './printing.ts';
import { routineRow } from './records.ts';
import * as service from './service.ts';

const athlete = z.strictObject({ athleteId: idSchema });
const routine = z.strictObject({ routineId: idSchema });

/** Routine and Progress: draft, issued versions, handout, decisions. */
export function routineEndpoints(deps: Deps): Endpoint[] {
  return [
    endpoint({
      method: 'get',
      path: '/athletes/:athleteId/routines',
      summary: 'Issued versions, newest first',
      params: athlete,
      response: z.array(routineRowSchema),
      handler: ({ user, params }) => service.listRoutines(deps, user, params.athleteId),
    }),
    endpoint({
      method: 'post',
      path: '/athletes/:athleteId/routines',
      summary: 'Issue a version; the safety rules run again on the server',
      status: 201,
      params: athlete,
      body: issueRoutineSchema,
      response: routineRowSchema,
      handler: ({ user, params, body }) => service.issueRoutine(deps, user, params.athleteId, body),
    }),
    endpoint({
      method: 'get',
      path: '/routines/:routineId',
      summary: 'One issued version',
      params: routine,
      response: routineRowSchema,
      handler: async ({ user, params }) =>
        routineRow(await service.findRoutine(deps, user, params.routineId)),
    }),
    endpoint({
      method: 'get',
      path: '/routines/:routineId/handout.pdf',
      summary: 'The handout of a version',
      params: routine,
      sends: 'application/pdf',
      handler: async ({ user, params, response }) => {
        const pdf = await printRoutine(deps, user, params.routineId);
        response
          .type('application/pdf')
          .set('Content-Disposition', 'inline; filename="routine.pdf"')
          .send(pdf);
      },
    }),
    endpoint({
      method: 'post',
      path: '/athletes/:athleteId/build',
      summary:
        'Build on the server: one JSON document a line, interim answers first; closing the request cancels it',
      params: athlete,
      body: buildOnServerSchema,
      sends: 'application/x-ndjson',
      handler: ({ user, params, body, response }) =>
        streamBuild(deps, user, params.athleteId, body, response),
    }),
    endpoint({
      method: 'get',
      path: '/athletes/:athleteId/draft',
      summary: 'The routine being edited',
      params: athlete,
      response: draftRowSchema,
      handler: ({ user, params }) => service.readDraft(deps, user, params.athleteId),
    }),
    endpoint({
      method: 'put',
      path: '/athletes/:athleteId/draft',
      summary: 'Keep the routine being edited',
      params: athlete,
      body: saveDraftSchema,
      response: draftRowSchema,
      handler: ({ user, params, body: { version, ...draft } }) =>
        service.saveDraft(deps, user, params.athleteId, draft, version),
    }),
    endpoint({
      method: 'delete',
      path: '/athletes/:athleteId/draft',
      summary: 'Discard the routine being edited',
      status: 204,
      params: athlete,
      handler: ({ user, params }) => service.discardDraft(deps, user, params.athleteId),
    }),
    endpoint({
      method: 'post',
      path: '/athletes/:athleteId/decisions',
      summary: 'Accept or overrule the decisions on the routine in force',
      status: 201,
      params: athlete,
      body: decideSchema,
      response: decidedSchema,
      handler: ({ user, params, body }) => service.decide(deps, user, params.athleteId, body),
    }),
  ];
}
