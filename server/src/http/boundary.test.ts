import { Builds } from '../compute/builds.ts';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { bundledReference } from '@yonder/core/reference/bundled';
import { allEndpoints } from '../app.ts';
import { addAthlete, createTestApp, issue, PASSWORD, ROCK, screenAnkles, TODAY } from '../testing/testApp.ts';
import type { Client, TestApp } from '../testing/testApp.ts';
import type { Endpoint } from './endpoint.ts';

const NOBODY = '00000000-0000-4000-8000-000000000000';
let app: TestApp;
let north: Client;
let endpoints: Endpoint[];
beforeAll(async () => {
  app = await createTestApp();
  north = await app.signIn();
  endpoints = allEndpoints({
    database: app.database,
    reference: bundledReference,
    builds: new Builds(),
    today: () => TODAY,
  });
});
afterAll(() => app.close());

const filled = (path: string) =>
  path
    .replace(':test', 'wblt-distance')
    .replace(':side', 'left')
    .replace(':version', 'abc')
    .replace(/:\w+/g, NOBODY);

describe('every endpoint', () => {
  it('but the door asks for a signed-in clinician', async () => {
    const closed = endpoints.filter((e) => e.access !== 'public');
    expect(closed.length).toBeGreaterThan(25);
    for (const endpoint of closed) {
      const response = await request(app.app)
        [endpoint.method](`/api/v1${filled(endpoint.path)}`)
        .send({});
      expect(response.status, `${endpoint.method} ${endpoint.path}`).toBe(401);
      expect(response.body.code).toBe('not-signed-in');
    }
  });
  it('that writes refuses a request without the page’s token', async () => {
    const signedIn = await request(app.app)
      .post('/api/v1/auth/sign-in')
      .send({ email: 'north@example.org', password: PASSWORD });
    const cookie = String(signedIn.headers['set-cookie']).split(';')[0] ?? '';
    for (const endpoint of endpoints.filter((e) => e.method !== 'get' && e.access !== 'public')) {
      const response = await request(app.app)
        [endpoint.method](`/api/v1${filled(endpoint.path)}`)
        .set('Cookie', cookie)
        .set('X-CSRF-Token', 'x'.repeat(32))
        .send({});
      expect(response.body.code, `${endpoint.method} ${endpoint.path}`).toBe('csrf-token');
    }
  });
  it('answers rubbish with 4xx and a problem document, never 5xx', async () => {
    const rubbish = [{}, { version: 'x' }, { items: 'none' }, [], { a: { b: [1, null, { c: '\u0000' }] } }];
    for (const endpoint of endpoints.filter((e) => e.body && e.path !== '/auth/sign-in')) {
      for (const body of rubbish) {
        const send = endpoint.method === 'put' ? north.put : north.post;
        const response = await send(filled(endpoint.path), body as object);
        expect(response.status, `${endpoint.path} ${JSON.stringify(body)}`).toBeGreaterThanOrEqual(400);
        expect(response.status, `${endpoint.path} ${JSON.stringify(body)}`).toBeLessThan(500);
        expect(response.type).toBe('application/problem+json');
        expect(response.body.requestId).toMatch(/^[0-9a-f-]{36}$/);
      }
    }
  });
  it('is described, with its own status and the problem document', async () => {
    const { body } = await request(app.app).get('/api/v1/openapi.json');
    for (const endpoint of endpoints) {
      const described = body.paths[endpoint.path.replace(/:(\w+)/g, '{$1}')]?.[endpoint.method];
      expect(described, endpoint.path).toBeDefined();
      expect(Object.keys(described.responses)).toContain(String(endpoint.status));
      expect(described.responses.default.content['application/problem+json']).toBeDefined();
    }
  });
});

describe('what is answered', () => {
  it('has the declared shape', async () => {
    const athlete = await addAthlete(north);
    await screenAnkles(north, athlete.id, '2027-02-01');
    const routine = (await issue(north, athlete.id, '2027-02-02', [ROCK]).expect(201)).body;
    await north.post('/sessions', { routineId: routine.id, date: '2027-02-03' }).expect(200);
    const gets = endpoints.filter((e) => e.method === 'get' && e.response);
    for (const endpoint of gets) {
      const path = endpoint.path.replace(':athleteId', athlete.id).replace(':routineId', routine.id);
      const response = await north.get(path).expect(200);
      const parsed = endpoint.response?.safeParse(response.body);
      expect(parsed?.error?.issues ?? [], path).toEqual([]);
    }
  });
  it('is never kept by a proxy or browser, but for the reference', async () => {
    expect((await north.get('/athletes')).headers['cache-control']).toBe('no-store');
  });
  it('too much at once is refused, and an unknown path of the API is a problem, not a page', async () => {
    const large = await north.post('/athletes', { name: 'x'.repeat(600_000) });
    expect(large.body.code).toBe('payload-too-large');
    const lost = await request(app.app).get('/api/v2/athletes');
    expect(lost.body.code).toBe('not-found');
  });
});
