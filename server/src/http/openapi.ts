import { extendZodWithOpenApi, OpenApiGeneratorV31, OpenAPIRegistry } from '@asteasolutions/zod-to-openapi';
import { problemSchema } from '@yonder/core/contracts';
import { z } from 'zod';
import type { Endpoint, Tag } from './endpoint.ts';

extendZodWithOpenApi(z);

const TAGS: Readonly<Record<Tag, string>> = {
  account: 'Signing in and out',
  athletes: 'Athletes and the case the core judges',
  story: 'What is told of an athlete: injuries, pain, stop-and-refer answers, precautions, needs, judgements',
  screen: 'Visits and their results',
  routine: 'The routine being edited, issued versions, handout',
  run: 'Sessions and what happened in them',
  progress: 'Decisions on the routine in force',
  library: 'Drills and templates of the practice’s own',
  figures: 'Figures and tasks of the practice’s own',
  methods: 'Methods: where practitioners differ, and what was chosen',
  reference: 'The reference data that ships',
  practice: 'The practice itself and its audit',
};

function responsesOf(endpoint: Endpoint) {
  const problem = {
    description: 'A problem document; its `code` says which',
    content: { 'application/problem+json': { schema: problemSchema } },
  };
  const schema = endpoint.response;
  const content = endpoint.sends
    ? { [endpoint.sends]: { schema: z.string() } }
    : schema
      ? { 'application/json': { schema } }
      : undefined;
  return {
    [endpoint.status]: { description: 'Done', ...(content ? { content } : {}) },
    '4XX': problem,
    default: problem,
  };
}

function describe(endpoint: Endpoint): string {
  const who = endpoint.least === 'public' ? 'Anybody may call it.' : `For ${endpoint.least} and above.`;
  return endpoint.audits === null ? who : `${who} The audit gets "${endpoint.audits}".`;
}

/** OpenAPI 3.1 of the endpoints, from the very schemas that check requests. */
export function openApiDocument(endpoints: readonly Endpoint[]): object {
  const registry = new OpenAPIRegistry();
  const cookie = registry.registerComponent('securitySchemes', 'session', {
    type: 'apiKey',
    in: 'cookie',
    name: 'yonder.sid',
  });
  for (const endpoint of endpoints) {
    registry.registerPath({
      operationId: endpoint.id,
      tags: [endpoint.tag],
      method: endpoint.method,
      path: endpoint.path.replace(/:(\w+)/g, '{$1}'),
      summary: endpoint.summary,
      description: describe(endpoint),
      security: endpoint.least === 'public' ? [] : [{ [cookie.name]: [] }],
      request: {
        ...(endpoint.params ? { params: endpoint.params as z.ZodObject } : {}),
        ...(endpoint.query ? { query: endpoint.query as z.ZodObject } : {}),
        ...(endpoint.body ? { body: { content: { 'application/json': { schema: endpoint.body } } } } : {}),
      },
      responses: responsesOf(endpoint),
    });
  }
  return new OpenApiGeneratorV31(registry.definitions).generateDocument({
    openapi: '3.1.0',
    info: {
      title: 'Yonder Ridge',
      version: '2',
      description: 'Prehab routines: screen, judge, build, run, progress.',
      license: { name: 'Unlicensed; the owner decides', identifier: 'LicenseRef-Unlicensed' },
    },
    servers: [{ url: '/api/v1' }],
    tags: Object.entries(TAGS).map(([name, description]) => ({ name, description })),
  });
}
