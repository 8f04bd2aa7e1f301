import {
  appendEventsSchema,
  doorOfRunSchema,
  idSchema,
  pageOf,
  pageQuerySchema,
  recentSessionsSchema,
  sessionRowSchema,
  sessionWithEventsSchema,
  startSessionSchema,
} from '@yonder/core/contracts';
import { addDays } from '@yonder/core/domain';
import { isoDaySchema } from '@yonder/core/schemas';
import { z } from 'zod';
import type { Deps } from '../../deps.ts';
import { endpoint } from '../../http/endpoint.ts';
import type { Endpoint } from '../../http/endpoint.ts';
import { doorOf } from './door.ts';
import * as service from './service.ts';

const session = z.strictObject({ sessionId: idSchema });

/** Run: performances of a routine and what happened in them. */
export function sessionEndpoints(deps: Deps): Endpoint[] {
  return [
    endpoint({
      id: 'listSessions',
      tag: 'run',
      method: 'get',
      path: '/athletes/:athleteId/sessions',
      summary: 'Sessions of an athlete, newest first',
      least: 'read-only',
      audits: 'sessions.read',
      params: z.strictObject({ athleteId: idSchema }),
      query: pageQuerySchema,
      response: pageOf(sessionRowSchema),
      handler: ({ unit, params, query }) => service.listSessions(unit, params.athleteId, query),
    }),
    endpoint({
      id: 'recentSessions',
      tag: 'run',
      method: 'get',
      path: '/sessions',
      summary: 'Sessions of everybody since a day, yesterday unless told otherwise',
      least: 'read-only',
      audits: 'sessions.recent',
      query: z.strictObject({ since: isoDaySchema.optional() }),
      response: recentSessionsSchema,
      handler: ({ unit, query }) => service.recentSessions(unit, query.since ?? addDays(unit.today, -1)),
    }),
    endpoint({
      id: 'startSession',
      tag: 'run',
      method: 'post',
      path: '/sessions',
      summary: 'Start a session of a routine, or go on with an unfinished one',
      least: 'assistant',
      audits: 'session.start',
      body: startSessionSchema,
      response: sessionWithEventsSchema,
      handler: ({ unit, body }) => service.startSession(deps, unit, body),
      again: ({ unit, body }) => service.startedBefore(unit, body),
    }),
    endpoint({
      id: 'readSession',
      tag: 'run',
      method: 'get',
      path: '/sessions/:sessionId',
      summary: 'A session with its events, to go on with it',
      least: 'read-only',
      audits: 'session.read',
      params: session,
      response: sessionWithEventsSchema,
      handler: ({ unit, params }) => service.readSession(unit, params.sessionId),
    }),
    endpoint({
      id: 'mayGoOn',
      tag: 'run',
      method: 'get',
      path: '/sessions/:sessionId/door',
      summary: 'What of a run that is under way the rules forbid by now',
      least: 'read-only',
      audits: null,
      params: session,
      response: doorOfRunSchema,
      handler: ({ unit, params }) => doorOf(deps, unit, params.sessionId),
    }),
    endpoint({
      id: 'appendEvents',
      tag: 'run',
      method: 'post',
      path: '/sessions/:sessionId/events',
      summary: 'Add what happened; events known already are passed over, none is ever changed',
      least: 'assistant',
      audits: 'session.append',
      params: session,
      body: appendEventsSchema,
      response: sessionRowSchema,
      handler: ({ unit, params, body }) => service.appendEvents(deps, unit, params.sessionId, body.events),
    }),
  ];
}
