import { randomUUID } from 'node:crypto';
import type { Express } from 'express';
import type { Role } from '@yonder/core/contracts';
import { REGIONS } from '@yonder/core/domain';
import type { Region } from '@yonder/core/domain';
import { gateTopics } from '@yonder/core/safety';
import { kitWordsOf } from '@yonder/core/reference';
import { bundledReference } from '@yonder/core/reference/bundled';
import pg from 'pg';
import { pino } from 'pino';
import request from 'supertest';
import { inject } from 'vitest';
import { createApp } from '../app.ts';
import { Compute } from '../compute/compute.ts';
import { Printer } from '../features/printing/printer.ts';
import type { Config } from '../config.ts';
import { openDatabase } from '../db/database.ts';
import { createDeps } from '../deps.ts';
import type { Deps } from '../deps.ts';
import { runJobsOnce } from '../jobs/run.ts';
import { emailOf, PASSWORD } from './practices.ts';
import type { PracticeName } from './practices.ts';

export const TODAY = '2027-03-01';
export { PASSWORD };

/** What a signed-in client does, in few words. Each call expects nothing: look at `status` and `body`. */
export interface Client {
  get: (path: string) => request.Test;
  post: (path: string, body?: object) => request.Test;
  /** A post whose body gets an id of its own unless it has one. */
  create: (path: string, body?: object) => request.Test;
  put: (path: string, body?: object) => request.Test;
  delete: (path: string) => request.Test;
  /** Every topic of the gate answered for an athlete, at the start of the season. */
  readonly gate: (athleteId: string) => Promise<void>;
}

export interface TestApp {
  readonly app: Express;
  readonly deps: Deps;
  readonly databaseUrl: string;
  readonly log: string[];
  /** Statements sent to the database since the last look. */
  readonly statements: string[];
  /** Signs in a clinician of practice "north" or "south", the owner unless told otherwise. */
  readonly signIn: (practice?: PracticeName, role?: Role) => Promise<Client>;
  /** Rows straight from the database. */
  readonly stored: <Row extends object>(sql: string, values?: unknown[]) => Promise<Row[]>;
  readonly runJobs: () => Promise<void>;
  /** Moves the clock; it stands still otherwise. */
  readonly setClock: (instant: string) => void;
  readonly close: () => Promise<void>;
}

function clientOf(app: Express, pool: pg.Pool, cookie: string, csrf: string): Client {
  const send = (method: 'post' | 'put' | 'delete', path: string, body?: object) =>
    request(app)[method](`/api/v1${path}`).set('Cookie', cookie).set('X-CSRF-Token', csrf).send(body);
  return {
    get: (path) => request(app).get(`/api/v1${path}`).set('Cookie', cookie),
    post: (path, body = {}) => send('post', path, body),
    create: (path, body = {}) => send('post', path, { id: randomUUID(), ...body }),
    put: (path, body = {}) => send('put', path, body),
    delete: (path) => send('delete', path),
    gate: async (athleteId) => {
      const topics = gateTopics(bundledReference, REGIONS, '2012-01-01', TODAY).map((topic) => topic.id);
      await pool.query(
        `INSERT INTO gate_answers (id, practice_id, athlete_id, topic, outcome, answered_on, answered_by)
         SELECT gen_random_uuid(), practice_id, id, topic, 'none', '2026-10-01', 'R. Halloran'
         FROM athletes, unnest($2::text[]) AS t(topic) WHERE id = $1`,
        [athleteId, topics],
      );
    },
  };
}

/** A database of its own, copied from the migrated template with its two practices. */
async function ownDatabase(): Promise<{ url: string; drop: () => Promise<void> }> {
  const url = new URL(inject('databaseUrl'));
  const template = url.pathname.slice(1);
  const name = `test_${randomUUID().replaceAll('-', '')}`;
  const atCluster = async (sql: string) => {
    const client = new pg.Client({ connectionString: new URL('/postgres', url).href });
    await client.connect();
    await client.query(sql).finally(() => client.end());
  };
  await atCluster(`CREATE DATABASE "${name}" TEMPLATE "${template}" STRATEGY file_copy`);
  url.pathname = `/${name}`;
  return { url: url.href, drop: () => atCluster(`DROP DATABASE "${name}" WITH (FORCE)`) };
}

/** One for all files of this worker: from sources its thread takes seconds to begin. */
const printer = new Printer();

/** An application on a database of its own, with two practices that have a clinician of every role. */
export async function createTestApp(): Promise<TestApp> {
  const { url, drop } = await ownDatabase();
  const statements: string[] = [];
  const database = openDatabase(url, { onStatement: (sql) => statements.push(sql) });
  const log: string[] = [];
  const logger = pino({ level: 'info' }, { write: (line: string) => log.push(line) });
  const config: Config = {
    host: '127.0.0.1',
    port: 0,
    databaseUrl: url,
    sessionSecret: 'a secret for tests only',
    secureCookie: false,
    webDist: '',
    logLevel: 'info',
    signInLimit: 5,
    poolSize: 10,
    threads: 1,
    jobs: false,
  };
  const compute = new Compute(1);
  let now = new Date(`${TODAY}T12:00:00Z`);
  const deps = createDeps({ database, reference: bundledReference, compute, printer, clock: () => now });
  const { express: app, pool, close } = createApp(deps, config, logger);
  return {
    app,
    deps,
    databaseUrl: url,
    log,
    statements,
    signIn: async (practice = 'north', role = 'owner') => {
      const response = await request(app)
        .post('/api/v1/auth/sign-in')
        .send({ email: emailOf(practice, role), password: PASSWORD })
        .expect(200);
      const cookie = String(response.headers['set-cookie']).split(';')[0] ?? '';
      return clientOf(app, pool, cookie, response.body.csrfToken);
    },
    stored: async (sql, values = []) => (await pool.query(sql, values)).rows,
    runJobs: () => runJobsOnce(deps, pool),
    setClock: (instant) => {
      now = new Date(instant);
    },
    close: async () => {
      await compute.close();
      await close();
      await database.close();
      await drop();
    },
  };
}

export const ATHLETE = {
  name: 'Mira Oldtown',
  birthDate: '2001-05-02',
  sport: 'fell running',
  bodyMassKg: 61,
  trainingYears: 6,
  tasks: [{ id: 'fell-running-descent', lead: 'either' }],
  kit: ['wall'],
  minutes: 10,
};

/** Adds an athlete who went through the gate and returns the stored row. */
export async function addAthlete(
  client: Client,
  over: object = {},
): Promise<{ id: string; version: number }> {
  const response = await client.create('/athletes', { ...ATHLETE, ...over }).expect(201);
  await client.gate(response.body.id);
  return response.body;
}

/** Screens both ankles on a day: left short, right enough. */
export async function screenAnkles(
  client: Client,
  athleteId: string,
  date: string,
  left = [7, 7.2, 7.1],
): Promise<string> {
  const { body } = await client.create(`/athletes/${athleteId}/screenings`, { date }).expect(200);
  const put = (test: string, side: string, trials: number[]) =>
    client.put(`/screenings/${body.id}/results/${test}/${side}`, { trials }).expect(200);
  await put('wblt-distance', 'left', left);
  await put('wblt-distance', 'right', [11, 11.2, 11.1]);
  await put('heel-raise-reps', 'left', [14]);
  await put('heel-raise-reps', 'right', [26]);
  return body.id;
}

export const ROCK = {
  id: '00000000-0000-4000-8000-0000000000c0',
  drill: 'knee-to-wall-rock',
  side: 'left',
  sets: 2,
  amount: 8,
  measure: 'reps',
  restSeconds: 10,
  setup: { 'foot-wall-distance': 6 },
};

/** Every kind of kit that a drill can need. */
export const ALL_KIT = [...new Set(bundledReference.data.drills.flatMap(kitWordsOf))];

/** Issues a routine, of one drill unless told otherwise, on a day with all its kit at hand. */
export function issue(client: Client, athleteId: string, on: string, items: object[] = [ROCK]): request.Test {
  const request = { kit: ALL_KIT };
  const body = { on, mode: 'prepare', structure: 'two-block-general-to-specific', request, items };
  return client.create(`/athletes/${athleteId}/routines`, body);
}

let told = 0;
/** An event as a device says it. */
export const said = (type: string, over: object = {}) => ({
  id: randomUUID(),
  device: 'test',
  seq: (told += 1),
  at: `${TODAY}T12:00:00.000Z`,
  type,
  ...over,
});

/** A session of the one-drill routine done in full: both sets, how it felt, the end. */
export const DONE = () => [
  said('started'),
  said('reached', { item: ROCK.id, segment: 1, set: 1, side: 'left', amount: 8 }),
  said('reached', { item: ROCK.id, segment: 3, set: 2, side: 'left', amount: 8 }),
  said('amended', { item: ROCK.id, pain: 1, nextDayPain: 0, effort: 3, quality: 3 }),
  said('finished'),
];

/** Says that one stop-and-refer sign is there, in the topic where it is asked. */
export function saySign(
  client: Client,
  athleteId: string,
  redFlag: string,
  region: Region | null = null,
): request.Test {
  const topic = gateTopics(bundledReference, REGIONS, ATHLETE.birthDate, TODAY).find((t) =>
    t.signs.some(({ sign }) => sign.id === redFlag),
  );
  const body = { topic: topic?.id, outcome: 'signs', signs: [{ redFlag, region }] };
  return client.create(`/athletes/${athleteId}/gate`, body);
}
