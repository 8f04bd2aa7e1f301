import { PROBLEM_CODES, ROLES } from '@yonder/core/contracts';
import type { Role } from '@yonder/core/contracts';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { allEndpoints } from '../endpoints.ts';
import { MARK, REQUESTS } from '../testing/requests.ts';
import type { Arranged } from '../testing/requests.ts';
import { createTestApp } from '../testing/testApp.ts';
import type { Client, TestApp } from '../testing/testApp.ts';
import type { Endpoint } from './endpoint.ts';
import { eachOf } from '@yonder/core/testing/eachOf';

let app: TestApp;
let endpoints: Endpoint[];
let owner: Client;
const clients = new Map<string, Client>();
beforeAll(async () => {
  app = await createTestApp();
  endpoints = allEndpoints(app.deps).filter((endpoint) => endpoint.least !== 'public');
  owner = await app.signIn('north', 'owner');
  for (const practice of ['north', 'south'] as const)
    for (const role of ROLES) clients.set(`${practice}/${role}`, await app.signIn(practice, role));
});
afterAll(() => app.close());

const send = (client: Client, { method }: Endpoint, { path, body }: Arranged) =>
  client[method](path, body).buffer(true);

async function arranged({ id }: Endpoint): Promise<Arranged> {
  const arrange = REQUESTS[id];
  if (!arrange) throw new Error(`${id} has no request in testing/requests.ts`);
  return arrange(owner);
}
/** What ends the session it is asked in: tried where accounts are tested. */
const ENDS_ITSELF: ReadonlySet<string> = new Set(['signOut', 'signOutEverywhere', 'changePassword']);
const may = (role: Role, { least }: Endpoint) =>
  least !== 'public' && ROLES.indexOf(role) >= ROLES.indexOf(least);

/** Everything stored of the practice in the north, but the notes of who did what. */
async function everythingOfNorth(): Promise<Record<string, unknown>> {
  const tables = await app.stored<{ name: string }>(
    `SELECT table_name AS name FROM information_schema.columns
     WHERE table_schema = 'public' AND column_name = 'practice_id'
       AND table_name NOT IN ('audit_events', 'receipts', 'athlete_summaries') ORDER BY 1`,
  );
  const rows = await app.stored<{ name: string; sum: string }>(
    tables
      .map(
        ({ name }) =>
          `SELECT '${name}' AS name, md5(string_agg(t::text, '|' ORDER BY t::text)) AS sum FROM "${name}" t
           WHERE practice_id = (SELECT id FROM practices WHERE name = 'north')`,
      )
      .join(' UNION ALL '),
  );
  return Object.fromEntries(rows.map(({ name, sum }) => [name, sum]));
}

/** Some hundred requests for every endpoint: longer than other tests. */
const WHOLE_MATRIX = { timeout: 240_000 };

describe('practice × role over every endpoint', WHOLE_MATRIX, () => {
  it('has a request for each, and none for what is not there', () => {
    const declared = allEndpoints(app.deps).map((endpoint) => endpoint.id);
    expect(Object.keys(REQUESTS).sort()).toEqual([...declared].sort());
    expect(new Set(declared).size).toBe(declared.length);
  });

  it('everybody of the practice may do what is declared, and nothing else', async () => {
    for (const endpoint of eachOf(endpoints.filter(({ id }) => !ENDS_ITSELF.has(id)))) {
      let request = await arranged(endpoint);
      for (const role of ROLES) {
        // Who may do more may do this as well: of those above, the owner is asked.
        if (may(role, endpoint) && role !== endpoint.least && role !== 'owner') continue;
        const client = clients.get(`north/${role}`) as Client;
        if (role === 'owner' && endpoint.method !== 'get' && endpoint.least !== 'owner')
          request = await arranged(endpoint);
        const { status, body } = await send(client, endpoint, request);
        const words = `${role} ${endpoint.id}: ${JSON.stringify(body)}`;
        if (may(role, endpoint)) expect(status, words).toBe(endpoint.status);
        else expect(body, words).toMatchObject({ status: 403, code: 'not-allowed' });
      }
    }
  });

  it('nobody of another practice sees or changes anything', async () => {
    const all: { endpoint: Endpoint; request: Arranged }[] = [];
    for (const endpoint of endpoints.filter(({ id }) => !ENDS_ITSELF.has(id)))
      all.push({ endpoint, request: await arranged(endpoint) });
    const before = await everythingOfNorth();
    for (const {
      endpoint,
      request: { path, body },
    } of eachOf(all)) {
      // What the stranger sends does not carry the mark: wherever it is seen then, it is a leak.
      const request = JSON.parse(JSON.stringify({ path, body }).replaceAll(MARK, 'Elsewhere')) as Arranged;
      for (const role of ROLES) {
        const response = await send(clients.get(`south/${role}`) as Client, endpoint, request);
        const seen = `${response.text ?? ''}${JSON.stringify(response.body)}`;
        const words = `${role} ${endpoint.id}`;
        expect(seen, words).not.toContain(MARK);
        const foreign = /[0-9a-f]{8}-[0-9a-f-]{27}/.test(path) || endpoint.id === 'startSession';
        if (!may(role, endpoint)) expect(response.status, words).toBe(403);
        else if (foreign && !endpoint.id.endsWith('Audit')) expect(response.status, words).toBe(404);
        else expect(response.status, `${words}: ${seen}`).toBeLessThan(500);
      }
    }
    expect(await everythingOfNorth()).toEqual(before);
  });
});

describe('sent again', WHOLE_MATRIX, () => {
  const withId = () =>
    endpoints.filter((endpoint) => {
      const schema = endpoint.body as { shape?: Record<string, unknown> } | undefined;
      return schema?.shape !== undefined && 'id' in schema.shape;
    });
  const counts = async () => {
    const tables = await app.stored<{ name: string }>(
      `SELECT table_name AS name FROM information_schema.tables
       WHERE table_schema = 'public' AND table_name NOT IN ('audit_events', 'web_sessions') ORDER BY 1`,
    );
    const rows = await app.stored<{ name: string; count: string }>(
      tables.map(({ name }) => `SELECT '${name}' AS name, count(*) FROM "${name}"`).join(' UNION ALL '),
    );
    return Object.fromEntries(rows.map(({ name, count }) => [name, count]));
  };

  it('whatever creates is there once, and the id stands for nothing else', async () => {
    expect(withId().length).toBeGreaterThan(12);
    for (const endpoint of eachOf(withId())) {
      const request = await arranged(endpoint);
      const first = await send(owner, endpoint, request).expect(endpoint.status);
      const after = await counts();
      const again = await Promise.all([1, 2, 3].map(() => send(owner, endpoint, request)));
      for (const { status, body } of eachOf(again)) {
        expect(status, `${endpoint.id}: ${JSON.stringify(body)}`).toBe(endpoint.status);
        expect(Object.keys(body), endpoint.id).toEqual(Object.keys(first.body));
      }
      expect(await counts(), endpoint.id).toEqual(after);
      const { id } = request.body as { id: string };
      const other = { ...(await arranged(endpoint)).body, id, ...{ date: '2027-02-11' } };
      const taken = await send(owner, endpoint, { path: request.path, body: other });
      expect([400, 409], `${endpoint.id}: ${JSON.stringify(taken.body)}`).toContain(taken.status);
      expect(PROBLEM_CODES, endpoint.id).toContain(taken.body.code);
    }
  });

  it('fifty times at once, an athlete and a version are there once', async () => {
    for (const id of ['createAthlete', 'issueRoutine']) {
      const endpoint = endpoints.find((one) => one.id === id) as Endpoint;
      const request = await arranged(endpoint);
      const before = await counts();
      const all = await Promise.all(Array.from({ length: 50 }, () => send(owner, endpoint, request)));
      expect(new Set(all.map((response) => response.status))).toEqual(new Set([201]));
      const after = await counts();
      const table = id === 'createAthlete' ? 'athletes' : 'routines';
      expect(Number(after[table])).toBe(Number(before[table]) + 1);
    }
  });
});
