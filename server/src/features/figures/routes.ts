import {
  doseSharesInputSchema,
  figureEffectSchema,
  figureInputSchema,
  figurePreviewSchema,
  figuresSchema,
  idSchema,
  painLimitsInputSchema,
  practiceTaskInputSchema,
} from '@yonder/core/contracts';
import { z } from 'zod';
import type { Deps } from '../../deps.ts';
import { endpoint } from '../../http/endpoint.ts';
import type { Endpoint } from '../../http/endpoint.ts';
import * as service from './service.ts';

const one = z.strictObject({ id: idSchema });

/** A practice's own figures and tasks. */
export function figureEndpoints(deps: Deps): Endpoint[] {
  return [
    endpoint({
      method: 'get',
      path: '/figures',
      summary: 'What the practice set instead of, or beside, the reference',
      response: figuresSchema,
      handler: ({ user }) => service.readFigures(deps, user),
    }),
    endpoint({
      method: 'post',
      path: '/figures/edits',
      summary: 'Put a figure in place of the reference’s',
      status: 201,
      body: figureInputSchema,
      response: figuresSchema,
      handler: ({ user, body }) => service.setFigure(deps, user, body),
    }),
    endpoint({
      method: 'delete',
      path: '/figures/edits/:id',
      summary: 'Set a figure back to the reference’s own',
      params: one,
      response: figuresSchema,
      handler: ({ user, params }) => service.unsetFigure(deps, user, params.id),
    }),
    endpoint({
      method: 'post',
      path: '/figures/preview',
      summary: 'Whose findings would change; nothing is stored',
      body: figurePreviewSchema,
      response: figureEffectSchema,
      handler: ({ user, body }) => service.previewFigures(deps, user, body),
    }),
    endpoint({
      method: 'put',
      path: '/figures/pain-limits',
      summary: 'Set the practice’s own pain limits, or take them back (null)',
      body: painLimitsInputSchema,
      response: figuresSchema,
      handler: ({ user, body }) => service.setPainLimits(deps, user, body.painLimits, body.version),
    }),
    endpoint({
      method: 'put',
      path: '/figures/dose-shares',
      summary: 'Set the practice’s own shares of a tested maximum; an empty list sets all back',
      body: doseSharesInputSchema,
      response: figuresSchema,
      handler: ({ user, body }) => service.setDoseShares(deps, user, body.doseShares, body.version),
    }),
    endpoint({
      method: 'post',
      path: '/figures/tasks',
      summary: 'Add a sport task of the practice’s own',
      status: 201,
      body: practiceTaskInputSchema,
      response: figuresSchema,
      handler: ({ user, body }) => service.saveTask(deps, user, body),
    }),
    endpoint({
      method: 'put',
      path: '/figures/tasks/:id',
      summary: 'Change a task of the practice’s own',
      params: one,
      body: practiceTaskInputSchema,
      response: figuresSchema,
      handler: ({ user, params, body }) => service.saveTask(deps, user, body, params.id),
    }),
    endpoint({
      method: 'delete',
      path: '/figures/tasks/:id',
      summary: 'Remove a task nobody has',
      params: one,
      response: figuresSchema,
      handler: ({ user, params }) => service.removeTask(deps, user, params.id),
    }),
  ];
}
