import type { Express } from 'express';
import { bundledReference } from '@yonder/core/reference/bundled';
import { pino } from 'pino';
import request from 'supertest';
import { inject } from 'vitest';
import { createApp } from '../app.ts';
import { Builds } from '../compute/builds.ts';
import type { Config } from '../config.ts';
import { openDatabase } from '../db/database.ts';
import type { Database } from '../db/database.ts';
import { createMigrator } from '../db/migrate.ts';
import { hashPassword } from '../features/auth/routes.ts';

export const TODAY = '2027-03-01';
export const PASSWORD = 'ridge-and-valley';

/** What a signed-in client does, in few words. Each call expects nothing: look at `status` and `body`. */
export interface Client {
  get: (path: string) => request.Test;
  post: (path: string, body?: object) => request.Test;
  put: (path: string, body?: object) => request.Test;
  delete: (path: string) => request.Test;
}

export interface TestApp {
  readonly app: Express;
  readonly database: Database;
  readonly log: string[];
  /** Signs in a clinician of practice "north" or "south". */
  readonly signIn: (practice?: 'north' | 'south') => Promise<Client>;
  readonly close: () => Promise<void>;
}

async function seedPractice(database: Database, name: string): Promise<void> {
  const practice = await database.models.practices.create({ name });
  await database.models.clinicians.create({
    practiceId: practice.get('id') as string,
    email: `${name}@example.org`,
    name: name === 'north' ? 'R. Halloran' : 'T. Okafor',
    passwordHash: await hashPassword(PASSWORD),
  });
}

function clientOf(app: Express, cookie: string, csrf: string): Client {
  const send = (method: 'post' | 'put' | 'delete', path: string, body?: object) =>
    request(app)[method](`/api/v1${path}`).set('Cookie', cookie).set('X-CSRF-Token', csrf).send(body);
  return {
    get: (path) => request(app).get(`/api/v1${path}`).set('Cookie', cookie),
    post: (path, body = {}) => send('post', path, body),
    put: (path, body = {}) => send('put', path, body),
    delete: (path) => send('delete', path),
  };
}

/** An application on an empty schema of the throw-away database, with two practices. */
export async function createTestApp(): Promise<TestApp> {
  const url = inject('databaseUrl');
  const database = openDatabase(url);
  await database.sequelize.query('DROP SCHEMA public CASCADE; CREATE SCHEMA public');
  await createMigrator(database.sequelize).up();
  await seedPractice(database, 'north');
  await seedPractice(database, 'south');
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
  };
  const builds = new Builds();
  const deps = { database, reference: bundledReference, builds, today: () => TODAY };
  const { express: app, close } = createApp(deps, config, logger);
  return {
    app,
    database,
    log,
    signIn: async (practice = 'north') => {
      const response = await request(app)
        .post('/api/v1/auth/sign-in')
        .send({ email: `${practice}@example.org`, password: PASSWORD })
        .expect(200);
      const cookie = String(response.headers['set-cookie']).split(';')[0] ?? '';
      return clientOf(app, cookie, response.body.csrfToken);
    },
    close: async () => {
      await builds.close();
      await close();
      await database.sequelize.close();
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

/** Adds an athlete and returns the stored row. */
export async function addAthlete(
  client: Client,
  over: object = {},
): Promise<{ id: string; version: number }> {
  const response = await client.post('/athletes', { ...ATHLETE, ...over }).expect(201);
  return response.body;
}

/** Screens both ankles on a day: left short, right enough. */
export async function screenAnkles(
  client: Client,
  athleteId: string,
  date: string,
  left = [7, 7.2, 7.1],
): Promise<string> {
  const { body } = await client.post(`/athletes/${athleteId}/screenings`, { date }).expect(200);
  const put = (test: string, side: string, trials: number[]) =>
    client.put(`/screenings/${body.id}/results/${test}/${side}`, { trials }).expect(200);
  await put('wblt-distance', 'left', left);
  await put('wblt-distance', 'right', [11, 11.2, 11.1]);
  await put('heel-raise-reps', 'left', [14]);
  await put('heel-raise-reps', 'right', [26]);
  return body.id;
}

export const ROCK = {
  drill: 'knee-to-wall-rock',
  side: 'left',
  sets: 2,
  amount: 8,
  measure: 'reps',
  restSeconds: 10,
  setup: { 'foot-wall-distance': 6 },
};

/** Issues a one-drill routine on a day. */
export function issue(client: Client, athleteId: string, on: string, items: object[] = [ROCK]): request.Test {
  const body = { on, mode: 'prepare', structure: 'two-block-general-to-specific', request: {}, items };
  return client.post(`/athletes/${athleteId}/routines`, body);
}
