import {
  choiceInputSchema,
  endChoiceSchema,
  idSchema,
  methodEffectSchema,
  methodPreviewSchema,
  methodsSchema,
  painPatternsInputSchema,
} from '@yonder/core/contracts';
import { z } from 'zod';
import type { Deps } from '../../deps.ts';
import { endpoint } from '../../http/endpoint.ts';
import type { Endpoint } from '../../http/endpoint.ts';
import { previewMethod } from './preview.ts';
import { chooseMethod, endMethod, readMethods, setPainPatterns } from './service.ts';

const athlete = z.strictObject({ athleteId: idSchema });
const choice = z.strictObject({ id: idSchema });
const common = { tag: 'methods', response: methodsSchema } as const;

function practiceMethods(deps: Deps): Endpoint[] {
  return [
    endpoint({
      ...common,
      id: 'readMethods',
      method: 'get',
      path: '/methods',
      summary: 'Which options of the schools the practice chose, by whom, when and why',
      least: 'read-only',
      audits: null,
      handler: ({ unit }) => readMethods(unit, null),
    }),
    endpoint({
      ...common,
      id: 'chooseMethod',
      method: 'post',
      path: '/methods/choices',
      summary: 'Choose an option of a school for the practice, with the reason',
      least: 'owner',
      audits: 'method.choose',
      status: 201,
      body: choiceInputSchema,
      handler: ({ unit, body }) => chooseMethod(unit, null, body),
      again: ({ unit }) => readMethods(unit, null),
    }),
    endpoint({
      ...common,
      id: 'endMethod',
      method: 'post',
      path: '/methods/choices/:id/end',
      summary: 'Take a choice of the practice back: the default holds again',
      least: 'owner',
      audits: 'method.end',
      params: choice,
      body: endChoiceSchema,
      handler: ({ unit, params, body }) => endMethod(unit, null, params.id, body),
    }),
    endpoint({
      id: 'previewMethod',
      tag: 'methods',
      method: 'post',
      path: '/methods/preview',
      summary: 'Whose routine would be built otherwise; nothing is stored',
      least: 'clinician',
      audits: 'method.preview',
      body: methodPreviewSchema,
      response: methodEffectSchema,
      handler: ({ unit, body }) => previewMethod(deps, unit, body),
    }),
    endpoint({
      ...common,
      id: 'setPainPatterns',
      method: 'put',
      path: '/methods/pain-patterns',
      summary: 'Set which precautions hold where and how it hurts; null takes those that ship',
      least: 'owner',
      audits: 'pain-patterns.set',
      body: painPatternsInputSchema,
      handler: ({ unit, body }) => setPainPatterns(unit, body.painPatterns, body.version),
    }),
  ];
}

function athleteMethods(): Endpoint[] {
  return [
    endpoint({
      ...common,
      id: 'readAthleteMethods',
      method: 'get',
      path: '/athletes/:athleteId/methods',
      summary: 'What was chosen for an athlete, beside what the practice chose',
      least: 'read-only',
      audits: 'methods.read',
      params: athlete,
      handler: ({ unit, params }) => readMethods(unit, params.athleteId),
    }),
    endpoint({
      ...common,
      id: 'chooseAthleteMethod',
      method: 'post',
      path: '/athletes/:athleteId/methods/choices',
      summary: 'Choose an option of a school for one athlete, with the reason',
      least: 'clinician',
      audits: 'method.choose',
      status: 201,
      params: athlete,
      body: choiceInputSchema,
      handler: ({ unit, params, body }) => chooseMethod(unit, params.athleteId, body),
      again: ({ unit, params }) => readMethods(unit, params.athleteId),
    }),
    endpoint({
      ...common,
      id: 'endAthleteMethod',
      method: 'post',
      path: '/athletes/:athleteId/methods/choices/:id/end',
      summary: 'Take an athlete’s choice back: the practice’s holds again',
      least: 'clinician',
      audits: 'method.end',
      params: z.strictObject({ athleteId: idSchema, id: idSchema }),
      body: endChoiceSchema,
      handler: ({ unit, params, body }) => endMethod(unit, params.athleteId, params.id, body),
    }),
  ];
}

/** Schools at the level of the practice and of one athlete. */
export function methodEndpoints(deps: Deps): Endpoint[] {
  return [...practiceMethods(deps), ...athleteMethods()];
}
