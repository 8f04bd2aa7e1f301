import {
  idSchema,
  nextDaySchema,
  saveSessionSchema,
  sessionRowSchema,
  startSessionSchema,
} from '@yonder/core/contracts';
import { z } from 'zod';
import type { Deps } from '../../deps.ts';
import { endpoint } from '../../http/endpoint.ts';
import type { Endpoint } from '../../http/endpoint.ts';
import * as service from './service.ts';

const session = z.strictObject({ sessionId: idSchema });

/** Run: performances of a routine and what happened in them. */
export function sessionEndpoints(deps: Deps): Endpoint[] {
  return [
    endpoint({
      method: 'get',
      path: '/athletes/:athleteId/sessions',
      summary: 'Sessions of an athlete, newest first',
      params: z.strictObject({ athleteId: idSchema }),
      response: z.array(sessionRowSchema),
      handler: ({ user, params }) => service.listSessions(deps, user, params.athleteId),
    }),
    endpoint({
      method: 'post',
      path: '/sessions',
      summary: 'Start a session of a routine, or go on with an unfinished one',
      body: startSessionSchema,
      response: sessionRowSchema,
      handler: ({ user, body }) => service.startSession(deps, user, body),
    }),
    endpoint({
      method: 'put',
      path: '/sessions/:sessionId',
      summary: 'Store how far the session is',
      params: session,
      body: saveSessionSchema,
      response: sessionRowSchema,
      handler: ({ user, params, body }) => service.saveSession(deps, user, params.sessionId, body),
    }),
    endpoint({
      method: 'put',
      path: '/sessions/:sessionId/next-day',
      summary: 'Record pain on the morning after',
      params: session,
      body: nextDaySchema,
      response: sessionRowSchema,
      handler: ({ user, params, body }) => service.recordNextDay(deps, user, params.sessionId, body),
    }),
  ];
}
