import {
  changedDrillSchema,
  appliedTemplateSchema,
  applyTemplateSchema,
  changedTemplateSchema,
  figuresSchema,
  idSchema,
  importDrillsSchema,
  importedDrillsSchema,
  ownDrillInputSchema,
  pageOf,
  templateInputSchema,
  templateRowSchema,
  templateVersionSchema,
  versionQuerySchema,
} from '@yonder/core/contracts';
import { writeDrillFile } from '@yonder/core/formats';
import { z } from 'zod';
import type { Deps } from '../../deps.ts';
import { endpoint, Sent } from '../../http/endpoint.ts';
import type { Endpoint } from '../../http/endpoint.ts';
import { readFigures } from '../figures/service.ts';
import * as drills from './drills.ts';
import * as templates from './templates.ts';

const one = z.strictObject({ id: idSchema });

function drillEndpoints(): Endpoint[] {
  return [
    endpoint({
      id: 'addDrill',
      tag: 'library',
      method: 'post',
      path: '/library/drills',
      summary: 'Add a drill of the practice’s own',
      least: 'clinician',
      audits: 'drill.add',
      status: 201,
      body: ownDrillInputSchema,
      response: figuresSchema,
      handler: ({ unit, body }) => drills.addDrill(unit, body),
      again: ({ unit }) => readFigures(unit),
    }),
    endpoint({
      id: 'changeDrill',
      tag: 'library',
      method: 'put',
      path: '/library/drills/:id',
      summary: 'Change, archive or bring back a drill of the practice’s own',
      least: 'clinician',
      audits: 'drill.change',
      params: one,
      body: changedDrillSchema,
      response: figuresSchema,
      handler: ({ unit, params, body }) => drills.changeDrill(unit, params.id, body),
    }),
    endpoint({
      id: 'importDrills',
      tag: 'library',
      method: 'post',
      path: '/library/drills/import',
      summary: 'Take the drills of a drill file over, all or none; with `check` only say what would happen',
      least: 'clinician',
      audits: 'drill.import',
      body: importDrillsSchema,
      response: importedDrillsSchema,
      handler: ({ unit, body }) => drills.importDrills(unit, body),
      again: ({ unit, body }) => drills.lookAtDrills(unit, body),
    }),
    endpoint({
      id: 'exportDrills',
      tag: 'library',
      method: 'get',
      path: '/library/drills/export.json',
      summary: 'The practice’s own drills as a drill file',
      least: 'read-only',
      audits: null,
      sends: 'application/json',
      handler: async ({ unit }) => {
        const file = writeDrillFile(await drills.ownDrills(unit));
        return new Sent((response) => {
          response
            .type('application/json')
            .set('Content-Disposition', 'attachment; filename="drills.json"')
            .send(file);
        });
      },
    }),
  ];
}

function templateEndpoints(deps: Deps): Endpoint[] {
  return [
    endpoint({
      id: 'listTemplates',
      tag: 'library',
      method: 'get',
      path: '/templates',
      summary: 'Templates of the practice by name',
      least: 'read-only',
      audits: null,
      response: pageOf(templateRowSchema),
      handler: async ({ unit }) => ({ items: await templates.listTemplates(unit), next: null }),
    }),
    endpoint({
      id: 'addTemplate',
      tag: 'library',
      method: 'post',
      path: '/templates',
      summary: 'Keep a routine as a template',
      least: 'clinician',
      audits: 'template.add',
      status: 201,
      body: templateInputSchema,
      response: templateRowSchema,
      handler: ({ unit, body }) => templates.addTemplate(unit, body),
      again: ({ unit, body }) => templates.readTemplate(unit, body.id),
    }),
    endpoint({
      id: 'changeTemplate',
      tag: 'library',
      method: 'put',
      path: '/templates/:id',
      summary: 'Change a template',
      least: 'clinician',
      audits: 'template.change',
      params: one,
      body: changedTemplateSchema,
      response: templateRowSchema,
      handler: ({ unit, params, body }) => templates.changeTemplate(unit, params.id, body),
    }),
    endpoint({
      id: 'templateVersions',
      tag: 'library',
      method: 'get',
      path: '/templates/:id/versions',
      summary: 'Every version a protocol had, newest first',
      least: 'read-only',
      audits: null,
      params: one,
      response: z.object({ items: z.array(templateVersionSchema) }),
      handler: async ({ unit, params }) => ({ items: await templates.templateVersions(unit, params.id) }),
    }),
    endpoint({
      id: 'applyTemplate',
      tag: 'library',
      method: 'post',
      path: '/templates/:id/apply',
      summary: 'Use a protocol for an athlete, as a draft; what is being edited stays',
      least: 'clinician',
      audits: 'template.apply',
      params: one,
      body: applyTemplateSchema,
      response: appliedTemplateSchema,
      handler: ({ unit, params, body }) => templates.applyTemplate(deps, unit, params.id, body),
    }),
    endpoint({
      id: 'removeTemplate',
      tag: 'library',
      method: 'delete',
      path: '/templates/:id',
      summary: 'Remove a template; routines made from it stay as they are',
      least: 'clinician',
      audits: 'template.remove',
      status: 204,
      params: one,
      query: versionQuerySchema,
      handler: ({ unit, params, query }) => templates.removeTemplate(unit, params.id, query.version),
    }),
  ];
}

/** A practice's own drills and templates. */
export function libraryEndpoints(deps: Deps): Endpoint[] {
  return [...drillEndpoints(), ...templateEndpoints(deps)];
}
