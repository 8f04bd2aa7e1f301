import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { allEndpoints } from '../endpoints.ts';
import { addAthlete, ATHLETE, createTestApp, PASSWORD } from '../testing/testApp.ts';
import type { Client, TestApp } from '../testing/testApp.ts';
import { REQUESTS } from '../testing/requests.ts';
import type { Endpoint } from './endpoint.ts';
import { eachOf } from '@yonder/core/testing/eachOf';

const NOBODY = '00000000-0000-4000-8000-000000000000';
let app: TestApp;
let north: Client;
let endpoints: Endpoint[];
beforeAll(async () => {
  app = await createTestApp();
  north = await app.signIn();
  endpoints = allEndpoints(app.deps);
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
    const closed = endpoints.filter((e) => e.least !== 'public');
    expect(closed.length).toBeGreaterThan(25);
    for (const endpoint of eachOf(closed)) {
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
      .send({ email: 'owner@north.example', password: PASSWORD });
    const cookie = String(signedIn.headers['set-cookie']).split(';')[0] ?? '';
    for (const endpoint of eachOf(endpoints.filter((e) => e.method !== 'get' && e.least !== 'public'))) {
      const response = await request(app.app)
        [endpoint.method](`/api/v1${filled(endpoint.path)}`)
        .set('Cookie', cookie)
        .set('X-CSRF-Token', 'x'.repeat(32))
        .send({});
      expect(response.body.code, `${endpoint.method} ${endpoint.path}`).toBe('csrf-token');
    }
  });
  it('answers rubbish with 4xx and a problem document, never 5xx', async () => {
    const rubbish = [{}, { version: 'x' }, { items: 'none' }, [], { id: NOBODY, rows: [null] }];
    for (const endpoint of eachOf(endpoints.filter((e) => e.body && e.path !== '/auth/sign-in'))) {
      for (const body of eachOf(rubbish)) {
        const send = endpoint.method === 'put' ? north.put : north.post;
        const response = await send(filled(endpoint.path), body);
        const words = `${endpoint.path} ${JSON.stringify(body).slice(0, 80)}`;
        expect(response.status, words).toBeGreaterThanOrEqual(400);
        expect(response.status, words).toBeLessThan(500);
        expect(response.type).toBe('application/problem+json');
        expect(response.body.requestId).toMatch(/^[0-9a-f-]{36}$/);
      }
    }
  });
  it('refuses JSON nested without end', async () => {
    const name: unknown = JSON.parse(`${'['.repeat(100)}${']'.repeat(100)}`);
    const { body } = await north.create('/athletes', { ...ATHLETE, name }).expect(400);
    expect(body.errors[0].message).toContain('nested deeper');
  });
  it.each([
    ['a NUL', { name: 'Mi\u0000ra' }, '$.name'],
    ['half a surrogate pair', { name: 'Mi\ud800ra' }, '$.name'],
    ['a NUL in a key', { places: [{ '\u0000': 1 }] }, '$.places[0]'],
  ])('refuses %s at the door, with its place', async (_what, over, path) => {
    const { body } = await north.create('/athletes', { ...ATHLETE, ...over }).expect(400);
    expect(body.errors).toEqual([{ path, message: expect.stringContaining('cannot be stored') }]);
  });
  it('is described, with its own status and the problem document', async () => {
    const { body } = await request(app.app).get('/api/v1/openapi.json');
    for (const endpoint of eachOf(endpoints)) {
      const described = body.paths[endpoint.path.replace(/:(\w+)/g, '{$1}')]?.[endpoint.method];
      expect(described, endpoint.path).toBeDefined();
      expect(Object.keys(described.responses)).toContain(String(endpoint.status));
      expect(described.responses.default.content['application/problem+json']).toBeDefined();
    }
  });
});

describe('what is answered', () => {
  it('has the declared shape', async () => {
    for (const endpoint of eachOf(endpoints.filter((e) => e.method === 'get' && e.response))) {
      const { path } = (await REQUESTS[endpoint.id]?.(north)) ?? { path: '/' };
      const response = await north.get(path).expect(200);
      const parsed = endpoint.response?.safeParse(response.body);
      expect(parsed?.error?.issues ?? [], path).toEqual([]);
    }
  });
  it('comes in pages that together hold everything once', async () => {
    for (let n = 0; n < 5; n += 1) await addAthlete(north, { name: `Walker ${n}` });
    const seen: string[] = [];
    let after = '';
    do {
      const { body } = await north.get(`/athletes?limit=2${after && `&after=${after}`}`).expect(200);
      expect(body.items.length).toBeLessThanOrEqual(2);
      seen.push(...body.items.map((one: { id: string }) => one.id));
      after = body.next ?? '';
    } while (after);
    const all = (await north.get('/athletes').expect(200)).body.items.map((one: { id: string }) => one.id);
    expect(seen).toEqual(all);
    await north.get('/athletes?after=not-a-place').expect(400);
    await north.get('/athletes?limit=0').expect(400);
  });
  it('is never kept by a proxy or browser, but for the reference', async () => {
    expect((await north.get('/athletes')).headers['cache-control']).toBe('no-store');
  });
  it('too much at once is refused, and an unknown path of the API is a problem, not a page', async () => {
    const large = await north.create('/athletes', { name: 'x'.repeat(600_000) });
    expect(large.body.code).toBe('payload-too-large');
    const lost = await request(app.app).get('/api/v2/athletes');
    expect(lost.body.code).toBe('not-found');
  });
});
