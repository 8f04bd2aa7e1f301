import {
  changedTaskSchema,
  changedTestSchema,
  doseSharesInputSchema,
  figureEffectSchema,
  figureBackSchema,
  figureInputSchema,
  figurePreviewSchema,
  figuresSchema,
  idSchema,
  painLimitsInputSchema,
  practiceTaskInputSchema,
  practiceTestInputSchema,
  versionQuerySchema,
} from '@yonder/core/contracts';
import { z } from 'zod';
import { endpoint } from '../../http/endpoint.ts';
import type { Endpoint } from '../../http/endpoint.ts';
import { previewFigures } from './preview.ts';
import * as service from './service.ts';

const one = z.strictObject({ id: idSchema });
const common = { tag: 'figures', response: figuresSchema } as const;

function settingEndpoints(): Endpoint[] {
  return [
    endpoint({
      ...common,
      id: 'readFigures',
      method: 'get',
      path: '/figures',
      summary: 'What the practice set instead of, or beside, the reference',
      least: 'read-only',
      audits: null,
      handler: ({ unit }) => service.readFigures(unit),
    }),
    endpoint({
      ...common,
      id: 'setFigure',
      method: 'post',
      path: '/figures/edits',
      summary: 'Put a figure in place of the reference’s',
      least: 'owner',
      audits: 'figure.set',
      status: 201,
      body: figureInputSchema,
      handler: ({ unit, body }) => service.setFigure(unit, body),
      again: ({ unit }) => service.readFigures(unit),
    }),
    endpoint({
      ...common,
      id: 'unsetFigure',
      method: 'post',
      path: '/figures/edits/:id/end',
      summary: 'Set a figure back to the reference’s own, with the reason',
      least: 'owner',
      audits: 'figure.unset',
      params: one,
      body: figureBackSchema,
      handler: ({ unit, params, body }) => service.unsetFigure(unit, params.id, body),
    }),
    endpoint({
      id: 'previewFigures',
      tag: 'figures',
      method: 'post',
      path: '/figures/preview',
      summary: 'Whose findings would change; nothing is stored',
      least: 'clinician',
      audits: 'figures.preview',
      body: figurePreviewSchema,
      response: figureEffectSchema,
      handler: ({ unit, body }) => previewFigures(unit, body),
    }),
    endpoint({
      ...common,
      id: 'setPainLimits',
      method: 'put',
      path: '/figures/pain-limits',
      summary: 'Set the practice’s own pain limits, or take them back (null)',
      least: 'owner',
      audits: 'pain-limits.set',
      body: painLimitsInputSchema,
      handler: ({ unit, body }) => service.setPainLimits(unit, body),
    }),
    endpoint({
      ...common,
      id: 'setDoseShares',
      method: 'put',
      path: '/figures/dose-shares',
      summary: 'Set the practice’s own shares of a tested maximum; an empty list sets all back',
      least: 'owner',
      audits: 'dose-shares.set',
      body: doseSharesInputSchema,
      handler: ({ unit, body }) => service.setDoseShares(unit, body.doseShares, body.version),
    }),
  ];
}

function taskEndpoints(): Endpoint[] {
  return [
    endpoint({
      ...common,
      id: 'addTask',
      method: 'post',
      path: '/figures/tasks',
      summary: 'Add a sport task of the practice’s own',
      least: 'clinician',
      audits: 'task.add',
      status: 201,
      body: practiceTaskInputSchema,
      handler: ({ unit, body }) => service.addTask(unit, body),
      again: ({ unit }) => service.readFigures(unit),
    }),
    endpoint({
      ...common,
      id: 'changeTask',
      method: 'put',
      path: '/figures/tasks/:id',
      summary: 'Change a task of the practice’s own',
      least: 'clinician',
      audits: 'task.change',
      params: one,
      body: changedTaskSchema,
      handler: ({ unit, params, body }) => service.changeTask(unit, params.id, body),
    }),
    endpoint({
      ...common,
      id: 'removeTask',
      method: 'delete',
      path: '/figures/tasks/:id',
      summary: 'Remove a task nobody has',
      least: 'clinician',
      audits: 'task.remove',
      params: one,
      query: versionQuerySchema,
      handler: ({ unit, params, query }) => service.removeTask(unit, params.id, query.version),
    }),
  ];
}

function testEndpoints(): Endpoint[] {
  return [
    endpoint({
      ...common,
      id: 'addTest',
      method: 'post',
      path: '/figures/tests',
      summary: 'Add a test of the practice’s own',
      least: 'clinician',
      audits: 'test.add',
      status: 201,
      body: practiceTestInputSchema,
      handler: ({ unit, body }) => service.addTest(unit, body),
      again: ({ unit }) => service.readFigures(unit),
    }),
    endpoint({
      ...common,
      id: 'changeTest',
      method: 'put',
      path: '/figures/tests/:id',
      summary: 'Change a test of the practice’s own',
      least: 'clinician',
      audits: 'test.change',
      params: one,
      body: changedTestSchema,
      handler: ({ unit, params, body }) => service.changeTest(unit, params.id, body),
    }),
    endpoint({
      ...common,
      id: 'removeTest',
      method: 'delete',
      path: '/figures/tests/:id',
      summary: 'Remove a test that nothing rests on',
      least: 'clinician',
      audits: 'test.remove',
      params: one,
      query: versionQuerySchema,
      handler: ({ unit, params, query }) => service.removeTest(unit, params.id, query.version),
    }),
  ];
}

/** A practice's own figures, tasks and tests. */
export function figureEndpoints(): Endpoint[] {
  return [...settingEndpoints(), ...taskEndpoints(), ...testEndpoints()];
}
