import {
  athleteCaseSchema,
  athleteListSchema,
  archiveSchema,
  athleteSchemaRow,
  erasedSchema,
  eraseSchema,
  dayQuerySchema,
  idSchema,
  newAthleteSchema,
  pageQuerySchema,
  updateAthleteSchema,
} from '@yonder/core/contracts';
import type { AthleteCase } from '@yonder/core/contracts';
import { z } from 'zod';
import type { Deps } from '../../deps.ts';
import { endpoint, Sent } from '../../http/endpoint.ts';
import type { Endpoint } from '../../http/endpoint.ts';
import type { Unit } from '../../work/unit.ts';
import { listAthletes } from './list.ts';
import { loadRecord, revisionOf } from './record.ts';
import * as keeping from './keeping.ts';
import * as service from './service.ts';
import { needAthlete, showAthlete } from './stories.ts';

const athlete = z.strictObject({ athleteId: idSchema });

/** A record as JSON; once answered it is known under its revision until anything of it changes. */
async function caseJson(deps: Deps, unit: Unit, athleteId: string, on: string): Promise<string> {
  const revision = revisionOf(unit, await needAthlete(unit, athleteId), on);
  const known = deps.cases.get(revision);
  if (known !== undefined) return known;
  const { case: input, routines } = await loadRecord(unit, athleteId, on);
  const routineIds = Object.fromEntries(routines.map(({ occasion, id }) => [occasion, id]));
  const answer: AthleteCase = { case: input, routineIds, revision };
  const json = JSON.stringify(answer);
  deps.cases.set(revision, json);
  return json;
}

/** How an athlete leaves the lists, goes out whole, or is erased. */
function keepingEndpoints(): Endpoint[] {
  return [
    endpoint({
      id: 'archiveAthlete',
      tag: 'athletes',
      method: 'post',
      path: '/athletes/:athleteId/archive',
      summary: 'Take an athlete off the lists, or back onto them',
      least: 'clinician',
      audits: 'athlete.archive',
      params: athlete,
      body: archiveSchema,
      response: athleteSchemaRow,
      handler: ({ unit, params, body }) => keeping.archiveAthlete(unit, params.athleteId, body),
    }),
    endpoint({
      id: 'exportAthlete',
      tag: 'athletes',
      method: 'get',
      path: '/athletes/:athleteId/export.json',
      summary: 'Everything on record of one athlete',
      least: 'clinician',
      audits: 'athlete.export',
      params: athlete,
      sends: 'application/json',
      handler: async ({ unit, params }) => {
        const document = await keeping.exportAthlete(unit, params.athleteId);
        return new Sent((response) => {
          const name = `athlete-${params.athleteId}.json`;
          response.set('Content-Disposition', `attachment; filename="${name}"`).json(document);
        });
      },
    }),
    endpoint({
      id: 'eraseAthlete',
      tag: 'athletes',
      method: 'post',
      path: '/athletes/:athleteId/erase',
      summary: 'Erase an athlete; the name has to be typed again',
      least: 'owner',
      audits: 'athlete.erase',
      params: athlete,
      body: eraseSchema,
      response: erasedSchema,
      handler: ({ unit, params, body }) => keeping.eraseAthlete(unit, params.athleteId, body),
      again: ({ unit, body }) => keeping.erasedBefore(unit, body.id),
    }),
  ];
}

/** Athletes: the list, one of them, the case the core judges, and how they are kept. */
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
      query: pageQuerySchema.extend({ archived: z.enum(['yes', 'no']).default('no') }),
      response: athleteListSchema,
      handler: async ({ unit, query: { archived, ...page } }) => {
        const json = await listAthletes(deps, unit, page, archived === 'yes');
        return new Sent((response) => {
          response.type('application/json').send(json);
        });
      },
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
        const json = await caseJson(deps, unit, params.athleteId, query.on ?? unit.today);
        return new Sent((response) => {
          response.type('application/json').send(json);
        });
      },
    }),
    ...keepingEndpoints(),
  ];
}
