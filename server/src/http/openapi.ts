import { extendZodWithOpenApi, OpenApiGeneratorV31, OpenAPIRegistry } from '@asteasolutions/zod-to-openapi';
import { problemSchema } from '@yonder/core/contracts';
import { z } from 'zod';
import type { Endpoint } from './endpoint.ts';

extendZodWithOpenApi(z);

function responsesOf(endpoint: Endpoint) {
  const problem = {
    description: 'Problem',
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
    default: problem,
  };
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
      method: endpoint.method,
      path: endpoint.path.replace(/:(\w+)/g, '{$1}'),
      summary: endpoint.summary,
      security: endpoint.access === 'public' ? [] : [{ [cookie.name]: [] }],
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
      version: '1',
      description: 'Prehab routines: screen, judge, build, run, progress.',
    },
    servers: [{ url: '/api/v1' }],
  });
}
