import {
  athleteCaseSchema,
  athleteListSchema,
  athleteSchemaRow,
  dayQuerySchema,
  idSchema,
  newAthleteSchema,
  pageQuerySchema,
  updateAthleteSchema,
} from '@yonder/core/contracts';
import { z } from 'zod';
import type { Deps } from '../../deps.ts';
import { endpoint } from '../../http/endpoint.ts';
import type { Endpoint } from '../../http/endpoint.ts';
import { listAthletes } from './list.ts';
import { loadRecord, revisionOf } from './record.ts';
import * as service from './service.ts';
import { showAthlete } from './stories.ts';

const athlete = z.strictObject({ athleteId: idSchema });

/** Athletes: the list, one of them, and the case the core judges. */
export function athleteEndpoints(deps: Deps): Endpoint[] {
  return [
    endpoint({
      id: 'listAthletes',
      tag: 'athletes',
      method: 'get',
      path: '/athletes',
      summary: 'Athletes of the practice by name, each with a miniature ridge',
      least: 'read-only',
      audits: 'athletes.list',
      query: pageQuerySchema,
      response: athleteListSchema,
      handler: ({ unit, query }) => listAthletes(deps, unit, query),
    }),
    endpoint({
      id: 'createAthlete',
      tag: 'athletes',
      method: 'post',
      path: '/athletes',
      summary: 'Add an athlete',
      least: 'assistant',
      audits: 'athlete.create',
      status: 201,
      body: newAthleteSchema,
      response: athleteSchemaRow,
      handler: ({ unit, body }) => service.createAthlete(unit, body),
      again: ({ unit, body }) => showAthlete(unit, body.id),
    }),
    endpoint({
      id: 'readAthlete',
      tag: 'athletes',
      method: 'get',
      path: '/athletes/:athleteId',
      summary: 'One athlete',
      least: 'read-only',
      audits: 'athlete.read',
      params: athlete,
      response: athleteSchemaRow,
      handler: ({ unit, params }) => showAthlete(unit, params.athleteId),
    }),
    endpoint({
      id: 'updateAthlete',
      tag: 'athletes',
      method: 'put',
      path: '/athletes/:athleteId',
      summary: 'Change an athlete',
      least: 'assistant',
      audits: 'athlete.update',
      params: athlete,
      body: updateAthleteSchema,
      response: athleteSchemaRow,
      handler: ({ unit, params, body }) => service.updateAthlete(unit, params.athleteId, body),
    }),
    endpoint({
      id: 'readCase',
      tag: 'athletes',
      method: 'get',
      path: '/athletes/:athleteId/case',
      summary: 'The case as of a working date: what the core judges',
      least: 'read-only',
      audits: 'case.read',
      params: athlete,
      query: dayQuerySchema,
      response: athleteCaseSchema,
      handler: async ({ unit, params, query }) => {
        const on = query.on ?? unit.today;
        const record = await loadRecord(unit, params.athleteId, on);
        return {
          case: record.case,
          routineId: record.routine?.id ?? null,
          revision: revisionOf(unit, record.athlete, on),
        };
      },
    }),
  ];
}
