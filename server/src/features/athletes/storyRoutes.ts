import {
  athleteSchemaRow,
  checkInInputSchema,
  checkInRowSchema,
  clearanceInputSchema,
  endPainSchema,
  endPrecautionSchema,
  gateAnswerInputSchema,
  idSchema,
  injuryInputSchema,
  judgementInputSchema,
  liftInputSchema,
  needInputSchema,
  painInputSchema,
  placementInputSchema,
  precautionInputSchema,
  protocolInputSchema,
  versionQuerySchema,
} from '@yonder/core/contracts';
import { isoDaySchema, placementSchema, regionSchema, sideSchema } from '@yonder/core/schemas';
import { z } from 'zod';
import { endpoint } from '../../http/endpoint.ts';
import type { Endpoint } from '../../http/endpoint.ts';
import { clearPrecaution, clearRedFlag, endPain, endPrecaution } from './endings.ts';
import { answerTopic } from './gate.ts';
import { addInjury, addPrecaution, removeInjury } from './service.ts';
import { showAthlete } from './stories.ts';
import * as story from './story.ts';
import { liftRule, putCheckIn, readCheckIn, removeLift } from './today.ts';

const athlete = z.strictObject({ athleteId: idSchema });
const child = z.strictObject({ athleteId: idSchema, id: idSchema });
const protocol = z.strictObject({ athleteId: idSchema, region: regionSchema, side: sideSchema });
const placement = z.strictObject({
  athleteId: idSchema,
  drill: z.string().max(120),
  side: placementSchema.shape.side,
});
const onDay = z.strictObject({ athleteId: idSchema, date: isoDaySchema });
const need = z.strictObject({ athleteId: idSchema, test: z.string().max(80), side: sideSchema });

const common = { tag: 'story', response: athleteSchemaRow } as const;

/** What happened and what hurts: injuries and pains. */
function bodyEndpoints(): Endpoint[] {
  return [
    endpoint({
      ...common,
      id: 'addInjury',
      method: 'post',
      path: '/athletes/:athleteId/injuries',
      summary: 'Add a past injury',
      least: 'assistant',
      audits: 'injury.add',
      status: 201,
      params: athlete,
      body: injuryInputSchema,
      handler: ({ unit, params, body }) => addInjury(unit, params.athleteId, body),
      again: ({ unit, params }) => showAthlete(unit, params.athleteId),
    }),
    endpoint({
      ...common,
      id: 'removeInjury',
      method: 'delete',
      path: '/athletes/:athleteId/injuries/:id',
      summary: 'Remove an injury entered by mistake',
      least: 'clinician',
      audits: 'injury.remove',
      params: child,
      query: versionQuerySchema,
      handler: ({ unit, params, query }) => removeInjury(unit, params.athleteId, params.id, query.version),
    }),
    endpoint({
      ...common,
      id: 'addPain',
      method: 'post',
      path: '/athletes/:athleteId/pains',
      summary: 'Record what hurts now',
      least: 'assistant',
      audits: 'pain.add',
      status: 201,
      params: athlete,
      body: painInputSchema,
      handler: ({ unit, params, body }) => story.addPain(unit, params.athleteId, body),
      again: ({ unit, params }) => showAthlete(unit, params.athleteId),
    }),
    endpoint({
      ...common,
      id: 'endPain',
      method: 'post',
      path: '/athletes/:athleteId/pains/:id/end',
      summary: 'It no longer hurts',
      least: 'assistant',
      audits: 'pain.end',
      params: child,
      body: endPainSchema,
      handler: ({ unit, params, body }) => endPain(unit, params.athleteId, params.id, body),
    }),
  ];
}

/** The safety gate: stop-and-refer answers and clearances, precautions, protocols after an operation. */
function safetyEndpoints(): Endpoint[] {
  return [
    endpoint({
      ...common,
      id: 'addPrecaution',
      method: 'post',
      path: '/athletes/:athleteId/precautions',
      summary: 'Set a precaution',
      least: 'clinician',
      audits: 'precaution.add',
      status: 201,
      params: athlete,
      body: precautionInputSchema,
      handler: ({ unit, params, body }) => addPrecaution(unit, params.athleteId, body),
      again: ({ unit, params }) => showAthlete(unit, params.athleteId),
    }),
    endpoint({
      ...common,
      id: 'endPrecaution',
      method: 'post',
      path: '/athletes/:athleteId/precautions/:id/end',
      summary: 'End a precaution, by a named person',
      least: 'clinician',
      audits: 'precaution.end',
      params: child,
      body: endPrecautionSchema,
      handler: ({ unit, params, body }) => endPrecaution(unit, params.athleteId, params.id, body),
    }),
    endpoint({
      ...common,
      id: 'clearPrecaution',
      method: 'post',
      path: '/athletes/:athleteId/precautions/:id/clearance',
      summary: 'Record the clearance of a precaution by a named clinician',
      least: 'clinician',
      audits: 'precaution.clear',
      params: child,
      body: clearanceInputSchema,
      handler: ({ unit, params, body }) => clearPrecaution(unit, params.athleteId, params.id, body),
    }),
    endpoint({
      ...common,
      id: 'answerGate',
      method: 'post',
      path: '/athletes/:athleteId/gate',
      summary: 'Answer one topic of the stop-and-refer questions',
      least: 'assistant',
      audits: 'gate.answer',
      status: 201,
      params: athlete,
      body: gateAnswerInputSchema,
      handler: ({ unit, params, body }) => answerTopic(unit, params.athleteId, body),
      again: ({ unit, params }) => showAthlete(unit, params.athleteId),
    }),
    endpoint({
      ...common,
      id: 'clearRedFlag',
      method: 'post',
      path: '/athletes/:athleteId/red-flags/:id/clearance',
      summary: 'Record the clearance of a named clinician',
      least: 'clinician',
      audits: 'red-flag.clear',
      params: child,
      body: clearanceInputSchema,
      handler: ({ unit, params, body }) => clearRedFlag(unit, params.athleteId, params.id, body),
    }),
    endpoint({
      ...common,
      id: 'putProtocol',
      method: 'put',
      path: '/athletes/:athleteId/protocols/:region/:side',
      summary: 'What the treating clinician ticked after an operation',
      least: 'clinician',
      audits: 'protocol.put',
      params: protocol,
      body: protocolInputSchema,
      handler: ({ unit, params: { athleteId, ...place }, body }) =>
        story.putProtocol(unit, athleteId, place, body),
    }),
  ];
}

/** What a clinician says of needs and findings. */
function sayingEndpoints(): Endpoint[] {
  return [
    endpoint({
      ...common,
      id: 'putNeed',
      method: 'put',
      path: '/athletes/:athleteId/needs/:test/:side',
      summary: 'Set an athlete’s own need',
      least: 'clinician',
      audits: 'need.put',
      params: need,
      body: needInputSchema,
      handler: ({ unit, params: { athleteId, ...place }, body }) =>
        story.putNeed(unit, athleteId, place, body),
    }),
    endpoint({
      ...common,
      id: 'removeNeed',
      method: 'delete',
      path: '/athletes/:athleteId/needs/:test/:side',
      summary: 'Take an athlete’s own need back',
      least: 'clinician',
      audits: 'need.remove',
      params: need,
      query: versionQuerySchema,
      handler: ({ unit, params: { athleteId, ...place }, query }) =>
        story.removeNeed(unit, athleteId, place, query.version),
    }),
    endpoint({
      ...common,
      id: 'putPlacement',
      method: 'put',
      path: '/athletes/:athleteId/placements/:drill/:side',
      summary: 'Say that a level was seen fine, or too hard',
      least: 'clinician',
      audits: 'placement.put',
      params: placement,
      body: placementInputSchema,
      handler: ({ unit, params: { athleteId, ...place }, body }) =>
        story.putPlacement(unit, athleteId, place, body),
    }),
    endpoint({
      ...common,
      id: 'removePlacement',
      method: 'delete',
      path: '/athletes/:athleteId/placements/:drill/:side',
      summary: 'Take back what was seen of a level',
      least: 'clinician',
      audits: 'placement.remove',
      params: placement,
      query: versionQuerySchema,
      handler: ({ unit, params: { athleteId, ...place }, query }) =>
        story.removePlacement(unit, athleteId, place, query.version),
    }),
    endpoint({
      ...common,
      id: 'addJudgement',
      method: 'post',
      path: '/athletes/:athleteId/judgements',
      summary: 'Confirm a finding, set it aside, or add one seen by eye',
      least: 'clinician',
      audits: 'finding.judge',
      status: 201,
      params: athlete,
      body: judgementInputSchema,
      handler: ({ unit, params, body }) => story.addJudgement(unit, params.athleteId, body),
      again: ({ unit, params }) => showAthlete(unit, params.athleteId),
    }),
    endpoint({
      ...common,
      id: 'removeJudgement',
      method: 'delete',
      path: '/athletes/:athleteId/judgements/:id',
      summary: 'Take a judgement back',
      least: 'clinician',
      audits: 'finding.withdraw',
      params: child,
      query: versionQuerySchema,
      handler: ({ unit, params, query }) =>
        story.removeJudgement(unit, params.athleteId, params.id, query.version),
    }),
  ];
}

/** What holds on one day: what hurts before a session, and rules of the day that were lifted. */
function dayEndpoints(): Endpoint[] {
  return [
    endpoint({
      ...common,
      id: 'liftRule',
      method: 'post',
      path: '/athletes/:athleteId/lifts',
      summary: 'Lift an amber rule of the day, with the reason',
      least: 'clinician',
      audits: 'day-rule.lift',
      status: 201,
      params: athlete,
      body: liftInputSchema,
      handler: ({ unit, params, body }) => liftRule(unit, params.athleteId, body),
      again: ({ unit, params }) => showAthlete(unit, params.athleteId),
    }),
    endpoint({
      ...common,
      id: 'removeLift',
      method: 'delete',
      path: '/athletes/:athleteId/lifts/:id',
      summary: 'Take a lift back: the rule of the day holds again',
      least: 'clinician',
      audits: 'day-rule.restore',
      params: child,
      query: versionQuerySchema,
      handler: ({ unit, params, query }) => removeLift(unit, params.athleteId, params.id, query.version),
    }),
    endpoint({
      id: 'readCheckIn',
      tag: 'run',
      method: 'get',
      path: '/athletes/:athleteId/check-ins/:date',
      summary: 'What was said before the sessions of a day',
      least: 'read-only',
      audits: 'check-in.read',
      params: onDay,
      response: checkInRowSchema,
      handler: ({ unit, params }) => readCheckIn(unit, params.athleteId, params.date),
    }),
    endpoint({
      id: 'putCheckIn',
      tag: 'run',
      method: 'put',
      path: '/athletes/:athleteId/check-ins/:date',
      summary: 'Say what hurts before the sessions of a day; it counts on that day alone',
      least: 'assistant',
      audits: 'check-in.put',
      params: onDay,
      body: checkInInputSchema,
      response: checkInRowSchema,
      handler: ({ unit, params, body }) => putCheckIn(unit, params.athleteId, params.date, body),
    }),
  ];
}

/** Story: everything told of an athlete beside the typed fields. */
export function storyEndpoints(): Endpoint[] {
  return [...bodyEndpoints(), ...safetyEndpoints(), ...sayingEndpoints(), ...dayEndpoints()];
}
