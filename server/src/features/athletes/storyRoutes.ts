import {
  athleteSchemaRow,
  endPainSchema,
  idSchema,
  judgementInputSchema,
  needInputSchema,
  painInputSchema,
  protocolInputSchema,
} from '@yonder/core/contracts';
import { regionSchema, sideSchema } from '@yonder/core/schemas';
import { z } from 'zod';
import type { Deps } from '../../deps.ts';
import { endpoint } from '../../http/endpoint.ts';
import type { Endpoint } from '../../http/endpoint.ts';
import * as story from './story.ts';

const athlete = z.strictObject({ athleteId: idSchema });
const child = z.strictObject({ athleteId: idSchema, id: idSchema });
const protocol = z.strictObject({ athleteId: idSchema, region: regionSchema, side: sideSchema });
const need = z.strictObject({ athleteId: idSchema, test: z.string().max(80), side: sideSchema });

/** Story: what hurts now, protocols after an operation, own needs; and what is said of findings. */
export function storyEndpoints(deps: Deps): Endpoint[] {
  return [
    endpoint({
      method: 'post',
      path: '/athletes/:athleteId/pains',
      summary: 'Record what hurts now',
      status: 201,
      params: athlete,
      body: painInputSchema,
      response: athleteSchemaRow,
      handler: ({ user, params, body }) => story.addPain(deps, user, params.athleteId, body),
    }),
    endpoint({
      method: 'post',
      path: '/athletes/:athleteId/pains/:id/end',
      summary: 'It no longer hurts',
      params: child,
      body: endPainSchema,
      response: athleteSchemaRow,
      handler: ({ user, params, body }) => story.endPain(deps, user, params.athleteId, params.id, body.date),
    }),
    endpoint({
      method: 'put',
      path: '/athletes/:athleteId/protocols/:region/:side',
      summary: 'What the treating clinician ticked after an operation',
      params: protocol,
      body: protocolInputSchema,
      response: athleteSchemaRow,
      handler: ({ user, params: { athleteId, ...place }, body }) =>
        story.putProtocol(deps, user, athleteId, place, body),
    }),
    endpoint({
      method: 'put',
      path: '/athletes/:athleteId/needs/:test/:side',
      summary: 'Set an athlete’s own need',
      params: need,
      body: needInputSchema,
      response: athleteSchemaRow,
      handler: ({ user, params: { athleteId, ...place }, body }) =>
        story.putNeed(deps, user, athleteId, place, body),
    }),
    endpoint({
      method: 'delete',
      path: '/athletes/:athleteId/needs/:test/:side',
      summary: 'Take an athlete’s own need back',
      params: need,
      response: athleteSchemaRow,
      handler: ({ user, params: { athleteId, ...place } }) => story.removeNeed(deps, user, athleteId, place),
    }),
    endpoint({
      method: 'post',
      path: '/athletes/:athleteId/judgements',
      summary: 'Confirm a finding, set it aside, or add one seen by eye',
      status: 201,
      params: athlete,
      body: judgementInputSchema,
      response: athleteSchemaRow,
      handler: ({ user, params, body }) => story.addJudgement(deps, user, params.athleteId, body),
    }),
    endpoint({
      method: 'delete',
      path: '/athletes/:athleteId/judgements/:id',
      summary: 'Take a judgement back',
      params: child,
      response: athleteSchemaRow,
      handler: ({ user, params }) => story.removeJudgement(deps, user, params.athleteId, params.id),
    }),
  ];
}
