import { bundledFigures, figureOf } from '@yonder/core/figure/bundled';
import { createHash } from 'node:crypto';
import { gzipSync } from 'node:zlib';
import { z } from 'zod';
import type { Deps } from '../../deps.ts';
import { endpoint, Sent } from '../../http/endpoint.ts';
import type { Endpoint } from '../../http/endpoint.ts';
import { notFound } from '../../http/problem.ts';

const FOREVER = { 'Cache-Control': 'private, max-age=31536000, immutable' };
/** The pictures that show tests rather than drills. */
const TESTS = 'tests';

/** The reference data under a version of its own, so that a browser fetches it once and keeps it. */
export function referenceEndpoints(deps: Deps): Endpoint[] {
  const json = Buffer.from(JSON.stringify(deps.reference.data));
  const version = createHash('sha256').update(json).digest('hex').slice(0, 16);
  const pictures = createHash('sha256').update(JSON.stringify(bundledFigures)).digest('hex').slice(0, 16);
  let zipped: Buffer | null = null; // packed once, for the first who asks
  return [
    endpoint({
      id: 'readReferenceVersion',
      tag: 'reference',
      method: 'get',
      path: '/reference',
      summary: 'Version of the reference data in force',
      least: 'read-only',
      audits: null,
      response: z.object({ version: z.string(), pictures: z.string().describe('version of the pictures') }),
      handler: async () => ({ version, pictures }),
    }),
    endpoint({
      id: 'readReference',
      tag: 'reference',
      method: 'get',
      path: '/reference/:version',
      summary: 'The reference data of a version; never changes, keep it',
      least: 'read-only',
      audits: null,
      params: z.strictObject({ version: z.string().max(64) }),
      sends: 'application/json',
      handler: async ({ params, request }) => {
        if (params.version !== version) throw notFound('Reference version');
        return new Sent((response) => {
          response.set({ ...FOREVER, Vary: 'Accept-Encoding' });
          response.type('application/json');
          if (request.acceptsEncodings('gzip')) {
            zipped ??= gzipSync(json, { level: 9 });
            response.set('Content-Encoding', 'gzip').send(zipped);
          } else response.send(json);
        });
      },
    }),
    endpoint({
      id: 'readPictures',
      tag: 'reference',
      method: 'get',
      path: '/reference/pictures/:version/:ladder',
      summary:
        'Pictures of the drills of a ladder (of the tests: "tests"), by drill; never change, keep them',
      least: 'read-only',
      audits: null,
      params: z.strictObject({ version: z.string().max(64), ladder: z.string().max(80) }),
      sends: 'application/json',
      handler: async ({ params }) => {
        if (params.version !== pictures) throw notFound('Version of the pictures');
        const ladder = deps.reference.data.ladders.find(({ id }) => id === params.ladder);
        if (!ladder && params.ladder !== TESTS) throw notFound('Ladder');
        const ids = ladder?.drills ?? deps.reference.data.tests.map(({ id }) => `test-${id}`);
        const chunk = Object.fromEntries(ids.map((id) => [id, figureOf(id) ?? undefined]));
        return new Sent((response) => void response.set(FOREVER).json(chunk));
      },
    }),
  ];
}
