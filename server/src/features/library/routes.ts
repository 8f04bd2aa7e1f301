import {
  figuresSchema,
  idSchema,
  importDrillsSchema,
  importedDrillsSchema,
  ownDrillInputSchema,
  templateInputSchema,
  templateRowSchema,
} from '@yonder/core/contracts';
import { writeDrillFile } from '@yonder/core/formats';
import { z } from 'zod';
import type { Deps } from '../../deps.ts';
import { endpoint } from '../../http/endpoint.ts';
import type { Endpoint } from '../../http/endpoint.ts';
import * as drills from './drills.ts';
import * as templates from './templates.ts';

const one = z.strictObject({ id: idSchema });

/** A practice's own drills and templates. */
export function libraryEndpoints(deps: Deps): Endpoint[] {
  return [
    endpoint({
      method: 'post',
      path: '/library/drills',
      summary: 'Add a drill of the practice’s own',
      status: 201,
      body: ownDrillInputSchema,
      response: figuresSchema,
      handler: ({ user, body }) => drills.saveDrill(deps, user, body),
    }),
    endpoint({
      method: 'put',
      path: '/library/drills/:id',
      summary: 'Change, archive or bring back a drill of the practice’s own',
      params: one,
      body: ownDrillInputSchema,
      response: figuresSchema,
      handler: ({ user, params, body }) => drills.saveDrill(deps, user, body, params.id),
    }),
    endpoint({
      method: 'post',
      path: '/library/drills/import',
      summary: 'Take the drills of a drill file over, all or none; with `check` only say what would happen',
      body: importDrillsSchema,
      response: importedDrillsSchema,
      handler: ({ user, body }) => drills.importDrills(deps, user, body),
    }),
    endpoint({
      method: 'get',
      path: '/library/drills/export.json',
      summary: 'The practice’s own drills as a drill file',
      sends: 'application/json',
      handler: async ({ user, response }) => {
        const file = writeDrillFile(await drills.exportedDrills(deps, user));
        response
          .type('application/json')
          .set('Content-Disposition', 'attachment; filename="drills.json"')
          .send(file);
      },
    }),
    endpoint({
      method: 'get',
      path: '/templates',
      summary: 'Templates of the practice by name',
      response: z.array(templateRowSchema),
      handler: ({ user }) => templates.listTemplates(deps, user),
    }),
    endpoint({
      method: 'post',
      path: '/templates',
      summary: 'Keep a routine as a template',
      status: 201,
      body: templateInputSchema,
      response: templateRowSchema,
      handler: ({ user, body }) => templates.saveTemplate(deps, user, body),
    }),
    endpoint({
      method: 'put',
      path: '/templates/:id',
      summary: 'Change a template',
      params: one,
      body: templateInputSchema,
      response: templateRowSchema,
      handler: ({ user, params, body }) => templates.saveTemplate(deps, user, body, params.id),
    }),
    endpoint({
      method: 'delete',
      path: '/templates/:id',
      summary: 'Remove a template; routines made from it stay as they are',
      status: 204,
      params: one,
      handler: ({ user, params }) => templates.removeTemplate(deps, user, params.id),
    }),
  ];
}
