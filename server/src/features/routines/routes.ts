import {
  buildOnServerSchema,
  decidedSchema,
  decideSchema,
  draftRowSchema,
  idSchema,
  issueRoutineSchema,
  occasionListSchema,
  occasionRowSchema,
  pageOf,
  pageQuerySchema,
  putOccasionSchema,
  routineRowSchema,
  saveDraftSchema,
  versionQuerySchema,
} from '@yonder/core/contracts';
import { occasionSchema } from '@yonder/core/schemas';
import { z } from 'zod';
import type { Deps } from '../../deps.ts';
import { endpoint } from '../../http/endpoint.ts';
import type { Endpoint } from '../../http/endpoint.ts';
import { streamBuild } from './building.ts';
import { decide, decidedBefore } from './decisions.ts';
import { discardDraft, readDraft, saveDraft } from './drafts.ts';
import { listOccasions, putOccasion } from './occasions.ts';
import { printBooklet, printRoutine, weekCalendar } from './printing.ts';
import { issueRoutine, listRoutines, needRoutine, routineRow } from './versions.ts';

const athlete = z.strictObject({ athleteId: idSchema });
const ofOccasion = z.strictObject({ athleteId: idSchema, occasion: occasionSchema });
const routine = z.strictObject({ routineId: idSchema });

function versionEndpoints(deps: Deps): Endpoint[] {
  return [
    endpoint({
      id: 'listRoutines',
      tag: 'routine',
      method: 'get',
      path: '/athletes/:athleteId/routines',
      summary: 'Issued versions, newest first',
      least: 'read-only',
      audits: 'routines.read',
      params: athlete,
      query: pageQuerySchema,
      response: pageOf(routineRowSchema),
      handler: ({ unit, params, query }) => listRoutines(unit, params.athleteId, query),
    }),
    endpoint({
      id: 'issueRoutine',
      tag: 'routine',
      method: 'post',
      path: '/athletes/:athleteId/routines',
      summary: 'Issue a version; the safety rules run again on the server',
      least: 'clinician',
      audits: 'routine.issue',
      status: 201,
      params: athlete,
      body: issueRoutineSchema,
      response: routineRowSchema,
      handler: ({ unit, params, body }) => issueRoutine(deps, unit, params.athleteId, body),
      again: async ({ unit, body }) => routineRow(await needRoutine(unit, body.id)),
    }),
    endpoint({
      id: 'readRoutine',
      tag: 'routine',
      method: 'get',
      path: '/routines/:routineId',
      summary: 'One issued version',
      least: 'read-only',
      audits: 'routine.read',
      params: routine,
      response: routineRowSchema,
      handler: async ({ unit, params }) => routineRow(await needRoutine(unit, params.routineId)),
    }),
    endpoint({
      id: 'printRoutine',
      tag: 'routine',
      method: 'get',
      path: '/routines/:routineId/handout.pdf',
      summary: 'The handout of a version',
      least: 'assistant',
      audits: 'routine.print',
      params: routine,
      sends: 'application/pdf',
      handler: ({ unit, params }) => printRoutine(deps, unit, params.routineId, 'handout'),
    }),
    endpoint({
      id: 'printCard',
      tag: 'routine',
      method: 'get',
      path: '/routines/:routineId/card.pdf',
      summary: 'A version as a card for the pocket',
      least: 'assistant',
      audits: 'routine.print',
      params: routine,
      sends: 'application/pdf',
      handler: ({ unit, params }) => printRoutine(deps, unit, params.routineId, 'card'),
    }),
    endpoint({
      id: 'printBooklet',
      tag: 'routine',
      method: 'get',
      path: '/athletes/:athleteId/booklet.pdf',
      summary: 'Every routine in force as one booklet',
      least: 'assistant',
      audits: 'routine.print',
      params: athlete,
      sends: 'application/pdf',
      handler: ({ unit, params }) => printBooklet(deps, unit, params.athleteId),
    }),
    endpoint({
      id: 'weekCalendar',
      tag: 'routine',
      method: 'get',
      path: '/athletes/:athleteId/week.ics',
      summary: 'The week of routines as an iCalendar',
      least: 'assistant',
      audits: 'routine.print',
      params: athlete,
      sends: 'text/calendar',
      handler: ({ unit, params }) => weekCalendar(unit, params.athleteId),
    }),
    endpoint({
      id: 'decideProgress',
      tag: 'progress',
      method: 'post',
      path: '/athletes/:athleteId/decisions',
      summary: 'Accept or overrule the decisions on the routine in force',
      least: 'clinician',
      audits: 'decisions.record',
      status: 201,
      params: athlete,
      body: decideSchema,
      response: decidedSchema,
      handler: ({ unit, params, body }) => decide(deps, unit, params.athleteId, body),
      again: ({ unit, body }) => decidedBefore(unit, body),
    }),
  ];
}

function occasionEndpoints(): Endpoint[] {
  return [
    endpoint({
      id: 'listOccasions',
      tag: 'routine',
      method: 'get',
      path: '/athletes/:athleteId/occasions',
      summary: 'What is in force and being edited for each occasion, and how often it is meant',
      least: 'read-only',
      audits: 'occasions.read',
      params: athlete,
      response: occasionListSchema,
      handler: ({ unit, params }) => listOccasions(unit, params.athleteId),
    }),
    endpoint({
      id: 'putOccasion',
      tag: 'routine',
      method: 'put',
      path: '/athletes/:athleteId/occasions/:occasion',
      summary: 'How often an occasion is meant, and whether its routine is in force',
      least: 'clinician',
      audits: 'occasion.put',
      params: ofOccasion,
      body: putOccasionSchema,
      response: occasionRowSchema,
      handler: ({ unit, params, body }) => putOccasion(unit, params.athleteId, params.occasion, body),
    }),
  ];
}

function draftEndpoints(deps: Deps): Endpoint[] {
  return [
    endpoint({
      id: 'buildRoutine',
      tag: 'routine',
      method: 'post',
      path: '/athletes/:athleteId/build',
      summary:
        'Build on the server: one JSON document a line, interim answers first; closing the request cancels it',
      least: 'read-only',
      audits: 'routine.build',
      params: athlete,
      body: buildOnServerSchema,
      sends: 'application/x-ndjson',
      handler: ({ unit, params, body }) => streamBuild(deps, unit, params.athleteId, body),
    }),
    endpoint({
      id: 'readDraft',
      tag: 'routine',
      method: 'get',
      path: '/athletes/:athleteId/drafts/:occasion',
      summary: 'The routine being edited for an occasion',
      least: 'read-only',
      audits: 'draft.read',
      params: ofOccasion,
      response: draftRowSchema,
      handler: ({ unit, params }) => readDraft(unit, params),
    }),
    endpoint({
      id: 'saveDraft',
      tag: 'routine',
      method: 'put',
      path: '/athletes/:athleteId/drafts/:occasion',
      summary: 'Keep the routine being edited',
      least: 'clinician',
      audits: 'draft.save',
      params: ofOccasion,
      body: saveDraftSchema,
      response: draftRowSchema,
      handler: ({ unit, params, body: { version, ...draft } }) => saveDraft(unit, params, draft, version),
    }),
    endpoint({
      id: 'discardDraft',
      tag: 'routine',
      method: 'delete',
      path: '/athletes/:athleteId/drafts/:occasion',
      summary: 'Discard the routine being edited',
      least: 'clinician',
      audits: 'draft.discard',
      status: 204,
      params: ofOccasion,
      query: versionQuerySchema,
      handler: ({ unit, params, query }) => discardDraft(unit, params, query.version),
    }),
  ];
}

/** Routine and Progress: draft, issued versions, handout, decisions. */
export function routineEndpoints(deps: Deps): Endpoint[] {
  return [...versionEndpoints(deps), ...occasionEndpoints(), ...draftEndpoints(deps)];
}
