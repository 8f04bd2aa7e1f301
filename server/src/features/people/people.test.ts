import { randomUUID } from 'node:crypto';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { athleteFieldsSchema } from '@yonder/core/contracts';
import { PASSWORD } from '../../testing/practices.ts';
import { addAthlete, createTestApp, DONE, issue, screenAnkles, TODAY } from '../../testing/testApp.ts';
import type { Client, TestApp } from '../../testing/testApp.ts';
import { eachOf } from '@yonder/core/testing/eachOf';

let app: TestApp;
let owner: Client;
beforeAll(async () => {
  app = await createTestApp();
  owner = await app.signIn();
});
afterAll(() => app.close());

const invite = async (role = 'clinician') => {
  const email = `${randomUUID().slice(0, 8)}@moor.example`;
  const { body } = await owner.create('/people', { name: 'Kim Moss', email, role }).expect(201);
  return { email, id: body.person.id as string, token: body.token as string, version: body.person.version };
};
const open = (path: string, body: object) => request(app.app).post(`/api/v1${path}`).send(body);
const signIn = (email: string, password: string) => open('/auth/sign-in', { email, password });
const cookieOf = (response: { headers: Record<string, unknown> }) =>
  String(response.headers['set-cookie']).split(';')[0] ?? '';
const me = (cookie: string) => request(app.app).get('/api/v1/auth/me').set('Cookie', cookie);
const joined = async (role?: string) => {
  const person = await invite(role);
  await open('/auth/link', { token: person.token, password: 'over-the-moor' }).expect(204);
  const cookie = cookieOf(await signIn(person.email, 'over-the-moor').expect(200));
  await me(cookie).expect(200);
  return { ...person, cookie, version: 1 };
};

describe('an invitation', () => {
  it('opens an account once: the link says whose it is, takes a password, and is worth nothing then', async () => {
    const { email, token } = await invite();
    expect((await signIn(email, '')).status).toBe(400);
    expect((await signIn(email, 'anything-at-all')).status).toBe(401);
    const { body } = await open('/auth/link/look', { token }).expect(200);
    expect(body).toEqual({ name: 'Kim Moss', email, practice: 'north', kind: 'invite' });
    await open('/auth/link', { token, password: 'short' }).expect(400);
    await open('/auth/link', { token, password: 'over-the-moor' }).expect(204);
    await open('/auth/link', { token, password: 'over-the-moor' }).expect(404);
    await signIn(email, 'over-the-moor').expect(200);
    const stored = await app.stored('SELECT token_hash FROM account_links');
    expect(JSON.stringify(stored)).not.toContain(token);
  });

  it('is replaced by a newer link, and ends after three days', async () => {
    const { id, token } = await invite();
    const { body } = await owner.create(`/people/${id}/link`).expect(201);
    await open('/auth/link/look', { token }).expect(404);
    await open('/auth/link/look', { token: body.token }).expect(200);
    app.setClock('2027-03-05T12:00:00Z');
    await open('/auth/link/look', { token: body.token }).expect(404);
    app.setClock(`${TODAY}T12:00:00Z`);
  });
});

describe('a password', () => {
  it('is none that is tried first, and holds neither name nor address of its account', async () => {
    const { email, token } = await invite();
    const own = email.slice(0, 8);
    const choose = (password: string) => open('/auth/link', { token, password });
    for (const poor of ['password1234', 'Qwertyuiop', 'mossy-banks-moss', `up-${own}-down`]) {
      const { body } = await choose(poor).expect(400);
      expect(body.errors[0].path, poor).toBe('$.password');
    }
    await choose('over-the-moor').expect(204); // the link was not used up
  });

  it('that is current is guessed only so often, from however many sessions of the account', async () => {
    const { email } = await joined();
    const tries: number[] = [];
    for (let i = 0; i < 8; i += 1) {
      const session = await signIn(email, 'over-the-moor').expect(200);
      const { status } = await open('/account/password', { current: `guess-${i}`, next: 'over-the-fell' })
        .set('Cookie', cookieOf(session))
        .set('X-CSRF-Token', session.body.csrfToken);
      tries.push(status);
    }
    expect(tries).toEqual([400, 400, 400, 400, 400, 429, 429, 429]);
  });
});

describe('a link', () => {
  it('that is broken is tried only so often, and closes nobody else’s good one', async () => {
    const broken = { token: 'x'.repeat(40) };
    for (let i = 0; i < 5; i += 1) await open('/auth/link/look', broken).expect(404);
    await open('/auth/link/look', broken).expect(429);
    const { token } = await invite();
    await open('/auth/link/look', { token }).expect(200);
  });
});

describe('a session', () => {
  it.each([
    ['another role', { role: 'assistant', active: true }],
    ['a closed account', { role: 'clinician', active: false }],
  ])('ends at once with %s', async (_what, change) => {
    const { id, cookie, version } = await joined();
    await owner.put(`/people/${id}`, { name: 'Kim Moss', version, ...change }).expect(200);
    await me(cookie).expect(401);
  });

  it('ends everywhere but here with a new password, and everywhere by one press', async () => {
    const { email, cookie } = await joined();
    const second = await signIn(email, 'over-the-moor').expect(200);
    const here = cookieOf(second);
    const asked = (path: string, csrf: string, at: string, body: object) =>
      open(path, body).set('Cookie', at).set('X-CSRF-Token', csrf);
    const wrong = { current: 'not-it', next: 'over-the-fell' };
    await asked('/account/password', second.body.csrfToken, here, wrong).expect(400);
    await me(cookie).expect(200);
    const changed = await asked('/account/password', second.body.csrfToken, here, {
      current: 'over-the-moor',
      next: 'over-the-fell',
    }).expect(200);
    await me(cookie).expect(401);
    await me(here).expect(401);
    const now = cookieOf(changed);
    await me(now).expect(200);
    await asked('/account/sign-out-everywhere', changed.body.csrfToken, now, {}).expect(204);
    await me(now).expect(401);
    await signIn(email, 'over-the-fell').expect(200);
  });

  it('two owners who close each other at the same moment leave one', async () => {
    const own = await createTestApp();
    const first = await own.signIn();
    const { body } = await first.get('/people').expect(200);
    const rowOf = (role: string) => body.items.find((one: { role: string }) => one.role === role);
    const [one, two] = [rowOf('owner'), rowOf('clinician')];
    const { name, version } = two;
    await first.put(`/people/${two.id}`, { name, role: 'owner', active: true, version }).expect(200);
    const second = await own.signIn('north', 'clinician'); // an owner by now
    const close = (by: Client, { id, name: called, version: at }: typeof one, more: number) =>
      by.put(`/people/${id}`, { name: called, role: 'owner', active: false, version: at + more });
    const answers = await Promise.all([close(first, two, 1), close(second, one, 0)]);
    expect(answers.map(({ status }) => status).filter((status) => status === 200)).toHaveLength(1);
    const left = await own.stored("SELECT 1 FROM clinicians WHERE role = 'owner' AND active AND name <> ''");
    const practices = await own.stored('SELECT 1 FROM practices');
    expect(left).toHaveLength(practices.length);
    await own.close();
  });

  it('and what failed is written down for its owner to see', async () => {
    const { email, cookie } = await joined();
    await signIn(email, 'wrong-one').expect(401);
    const { body } = await request(app.app).get('/api/v1/account/sign-ins').set('Cookie', cookie).expect(200);
    expect(body.items.map((row: { succeeded: boolean }) => row.succeeded)).toEqual([false, true]);
  });

  it('a closed account cannot sign in, and the last owner cannot be closed or changed', async () => {
    const { id, email, version } = await joined();
    await owner.put(`/people/${id}`, { name: 'Kim', role: 'clinician', active: false, version }).expect(200);
    await signIn(email, 'over-the-moor').expect(401);
    const { body } = await owner.get('/people').expect(200);
    const last = body.items.find((one: { role: string }) => one.role === 'owner');
    for (const change of [
      { role: 'clinician', active: true },
      { role: 'owner', active: false },
    ])
      await owner
        .put(`/people/${last.id}`, { name: last.name, version: last.version, ...change })
        .expect(409);
    await signIn('owner@north.example', PASSWORD).expect(200);
  });
});

describe('an athlete', () => {
  const full = async () => {
    const { id } = await addAthlete(owner, { name: 'Rill Scarfoot' });
    await screenAnkles(owner, id, '2027-02-01');
    const { body: version } = await issue(owner, id, '2027-02-02').expect(201);
    const { body: run } = await owner.create('/sessions', { routineId: version.id, date: '2027-02-03' });
    await owner.post(`/sessions/${run.id}/events`, { events: DONE() }).expect(200);
    return id;
  };

  it('archived is off the list and back on it, with everything', async () => {
    const id = await full();
    const listed = async (query = '') =>
      (await owner.get(`/athletes${query}`).expect(200)).body.items.some(
        (one: { id: string }) => one.id === id,
      );
    const { body } = await owner.post(`/athletes/${id}/archive`, { archived: true, version: 1 }).expect(200);
    expect(body.archived).toEqual({ by: 'R. Halloran', date: TODAY });
    expect([await listed(), await listed('?archived=yes')]).toEqual([false, true]);
    await owner.post(`/athletes/${id}/archive`, { archived: false, version: 2 }).expect(200);
    expect(await listed()).toBe(true);
  });

  it('is exported whole, and erased only by the name typed again; what stays has no name', async () => {
    const id = await full();
    const { body } = await owner.get(`/athletes/${id}/export.json`).expect(200);
    expect(body).toMatchObject({ format: 'yonder-ridge-athlete/1', athlete: { name: 'Rill Scarfoot' } });
    for (const part of [
      'screenings',
      'results',
      'routines',
      'sessions',
      'events',
      'entries',
      'gate',
      'audit',
    ])
      expect(body[part].length, part).toBeGreaterThan(0);
    const { body: about } = await owner.get(`/athletes/${id}`).expect(200);
    const fields = Object.fromEntries(Object.keys(athleteFieldsSchema.shape).map((key) => [key, about[key]]));
    const typo = { birthDate: '1999-01-01', birthDateWhy: 'typed wrong', version: about.version };
    await owner.put(`/athletes/${id}`, { ...fields, ...typo }).expect(200);
    const erase = (name: string, reason: string) => owner.create(`/athletes/${id}/erase`, { name, reason });
    await erase('rill scarfoot', 'asked for it').expect(400);
    await erase('Rill Scarfoot', 'Rill Scarfoot asked for it').expect(400);
    await erase('Rill Scarfoot', 'asked for it').expect(200);
    await owner.get(`/athletes/${id}`).expect(404);
    const tables = await app.stored<{ name: string }>(
      `SELECT table_name AS name FROM information_schema.tables WHERE table_schema = 'public' AND table_type = 'BASE TABLE'`,
    );
    for (const { name } of eachOf(tables)) {
      const rows = await app.stored(`SELECT t::text FROM "${name}" t WHERE t::text LIKE '%Rill Scarfoot%'`);
      expect(rows, name).toEqual(name === 'athletes' ? rows : []);
    }
    expect(await app.stored('SELECT 1 FROM athletes WHERE id = $1', [id])).toEqual([]);
    const left = await app.stored('SELECT operation FROM receipts WHERE athlete_id = $1 OR id = $1', [id]);
    expect(left).toEqual([{ operation: 'eraseAthlete' }]);
    const changes = 'SELECT 1 FROM audit_events WHERE athlete_id = $1 AND change IS NOT NULL';
    expect(await app.stored(changes, [id])).toEqual([]);
    const { body: audit } = await owner.get(`/audit?athlete=${id}`).expect(200);
    expect(audit.items.map((row: { action: string }) => row.action)).toContain('athlete.erase');
    expect(audit.items[0].athlete).toEqual({ id, name: null });
  });
});
