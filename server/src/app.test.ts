import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { PROBLEM_CODES } from '@yonder/core/contracts';
import { readFileSync } from 'node:fs';
import { withMigrator } from './db/migrate.ts';
import { reasonText } from '@yonder/core/words';
import type { Reason } from '@yonder/core/reasons';
import { bundledReference } from '@yonder/core/reference/bundled';
import {
  addAthlete,
  saySign,
  DONE,
  ATHLETE,
  createTestApp,
  issue,
  PASSWORD,
  ROCK,
  screenAnkles,
  TODAY,
} from './testing/testApp.ts';
import type { Client, TestApp } from './testing/testApp.ts';
import { eachOf } from '@yonder/core/testing/eachOf';

const changesIn = (routine: { changes: Reason[] }) =>
  routine.changes.map((change) => reasonText(bundledReference, change));

let app: TestApp;
let north: Client;
beforeAll(async () => {
  app = await createTestApp();
  north = await app.signIn();
});
afterAll(() => app.close());

describe('signing in', () => {
  it('is asked for everywhere but at the door', async () => {
    const response = await request(app.app).get('/api/v1/athletes').expect(401);
    expect(response.type).toBe('application/problem+json');
    expect(response.body).toMatchObject({ status: 401, code: 'not-signed-in' });
  });
  it('refuses a write without the token of the page', async () => {
    const response = await request(app.app)
      .post('/api/v1/auth/sign-in')
      .send({ email: 'owner@north.example', password: PASSWORD });
    const cookie = String(response.headers['set-cookie']);
    expect(cookie).toMatch(/HttpOnly/);
    expect(cookie).toMatch(/SameSite=Lax/);
    const write = await request(app.app)
      .post('/api/v1/athletes')
      .set('Cookie', cookie.split(';')[0] ?? '')
      .send(ATHLETE);
    expect(write.body.code).toBe('csrf-token');
  });
  it('ends with signing out', async () => {
    const client = await app.signIn();
    await client.post('/auth/sign-out').expect(204);
    await client.get('/auth/me').expect(401);
  });
  it('slows down after five wrong passwords, right ones included, across processes', async () => {
    const attempt = (password: string) =>
      request(app.app).post('/api/v1/auth/sign-in').send({ email: 'owner@south.example', password });
    for (let i = 0; i < 5; i += 1) expect((await attempt('wrong')).body.code).toBe('wrong-credentials');
    expect((await attempt(PASSWORD)).body.code).toBe('too-many-attempts');
    // One person locks nobody else of the building out.
    const other = { email: 'assistant@south.example', password: PASSWORD };
    await request(app.app).post('/api/v1/auth/sign-in').send(other).expect(200);
    const rows = await app.stored<{ key: string }>('SELECT key FROM rate_limits');
    expect(JSON.stringify(rows)).not.toContain('owner');
    await app.stored('DELETE FROM rate_limits');
  });
  it('stores an argon2id hash, never the password', async () => {
    const rows = await app.stored<{ hash: string }>('SELECT password_hash AS hash FROM clinicians');
    for (const row of eachOf(rows)) expect(row.hash).toMatch(/^\$argon2id\$/);
  });
});

describe('bad input', () => {
  it('names the path of each fault and stores nothing', async () => {
    const before = (await north.get('/athletes')).body.items.length;
    const response = await north
      .create('/athletes', { ...ATHLETE, name: ' ', bodyMassKg: 900, colour: 'teal' })
      .expect(400);
    expect(response.body.errors.map((e: { path: string }) => e.path)).toEqual(
      expect.arrayContaining(['$.name', '$.bodyMassKg', '$']),
    );
    expect((await north.get('/athletes')).body.items).toHaveLength(before);
  });
  it.each([
    ['/athletes/not-an-id', 400],
    ['/athletes/00000000-0000-4000-8000-000000000000', 404],
    ['/nowhere', 404],
    ['/athletes/%E0%A4%A', 400],
  ])('GET %s is %i', async (path, status) => {
    expect((await north.get(path)).status).toBe(status);
  });
  it('broken JSON is the client’s fault', async () => {
    const response = await north
      .create('/athletes')
      .set('Content-Type', 'application/json')
      .send('{"name":')
      .expect(400);
    expect(response.body.code).toBe('malformed-json');
  });
  it('an implausible trial is refused with the plausible range', async () => {
    const athlete = await addAthlete(north);
    const { body } = await north.create(`/athletes/${athlete.id}/screenings`, { date: TODAY });
    const response = await north
      .put(`/screenings/${body.id}/results/wblt-distance/left`, { trials: [7, 650] })
      .expect(400);
    expect(response.body.errors).toEqual([{ path: '$.trials[1]', message: '650 cm is outside -5 to 25 cm' }]);
    const stored = await north.get(`/athletes/${athlete.id}/screenings`);
    expect(stored.body.items[0].results).toEqual([]);
  });
});

describe('two people at once', () => {
  it('the second writer gets 409 with the row as it is now', async () => {
    const athlete = await addAthlete(north);
    await north.put(`/athletes/${athlete.id}`, { ...ATHLETE, bodyMassKg: 63, version: 1 }).expect(200);
    const late = await north
      .put(`/athletes/${athlete.id}`, { ...ATHLETE, bodyMassKg: 59, version: 1 })
      .expect(409);
    expect(late.body).toMatchObject({ code: 'version-conflict', current: { bodyMassKg: 63, version: 2 } });
    expect((await north.get(`/athletes/${athlete.id}`)).body.bodyMassKg).toBe(63);
  });
  it('results and drafts are versioned the same way', async () => {
    const athlete = await addAthlete(north);
    const { body } = await north.create(`/athletes/${athlete.id}/screenings`, { date: TODAY });
    const path = `/screenings/${body.id}/results/heel-raise-reps/left`;
    await north.put(path, { trials: [14] }).expect(200);
    expect((await north.put(path, { trials: [20] }).expect(409)).body.current.trials).toEqual([14]);
    await north.put(path, { trials: [15], version: 1 }).expect(200);
    const draft = { request: {}, structure: 'short-minimum', items: [ROCK], version: null };
    await north.put(`/athletes/${athlete.id}/drafts/before-training`, draft).expect(200);
    await north.put(`/athletes/${athlete.id}/drafts/before-training`, draft).expect(409);
  });
});

describe('another practice', () => {
  it('sees and changes nothing of ours', async () => {
    const south = await app.signIn('south');
    const athlete = await addAthlete(north);
    const screening = await screenAnkles(north, athlete.id, '2027-02-01');
    const routine = (await issue(north, athlete.id, '2027-02-02').expect(201)).body;
    await south.get(`/athletes/${athlete.id}`).expect(404);
    await south.get(`/athletes/${athlete.id}/case`).expect(404);
    await south.get(`/athletes/${athlete.id}/routines`).expect(404);
    await south.get(`/athletes/${athlete.id}/sessions`).expect(404);
    await south.get(`/routines/${routine.id}/handout.pdf`).expect(404);
    await south
      .put(`/screenings/${screening}/results/wblt-distance/left`, { trials: [9], version: 1 })
      .expect(404);
    await south.create('/sessions', { routineId: routine.id, date: '2027-02-03' }).expect(404);
    await issue(south, athlete.id, '2027-02-02').expect(404);
    expect((await south.get('/athletes')).body.items).toEqual([]);
  });
});

describe('safety on the server', () => {
  it('refuses a drill that an active precaution forbids, whatever the client sends', async () => {
    const athlete = await addAthlete(north);
    await north
      .create(`/athletes/${athlete.id}/precautions`, {
        precaution: 'acute-ankle-sprain',
        setBy: 'R. Halloran',
        until: '2027-03-20',
      })
      .expect(201);
    const refused = await issue(north, athlete.id, TODAY).expect(422);
    expect(refused.body).toMatchObject({ code: 'safety-refused', errors: [{ path: '$.items[0]' }] });
    expect((await north.get(`/athletes/${athlete.id}/routines`)).body.items).toEqual([]);
    const { body } = await north.get(`/athletes/${athlete.id}`);
    await north
      .post(`/athletes/${athlete.id}/precautions/${body.precautions[0].id}/end`, {
        by: 'R. Halloran',
        date: TODAY,
        version: 1,
      })
      .expect(200);
    await issue(north, athlete.id, TODAY).expect(201);
    const again = await north.post(`/athletes/${athlete.id}/precautions/${body.precautions[0].id}/end`, {
      by: 'Somebody else',
      date: TODAY,
      version: 1,
    });
    expect(again.body).toMatchObject({ code: 'version-conflict', current: { ended: { by: 'R. Halloran' } } });
  });

  it('a precaution past its review date still binds', async () => {
    const athlete = await addAthlete(north);
    const path = `/athletes/${athlete.id}/precautions`;
    await north
      .create(path, { precaution: 'acute-ankle-sprain', setBy: 'R. Halloran', until: TODAY })
      .expect(201);
    expect((await issue(north, athlete.id, '2027-03-20')).body.code).toBe('safety-refused');
  });

  it('a positive stop sign blocks until a named clinician clears it; a later "no" does not', async () => {
    const athlete = await addAthlete(north);
    await saySign(north, athlete.id, 'ankle-achilles').expect(201);
    await north.create(`/athletes/${athlete.id}/gate`, { topic: 'ankle-foot', outcome: 'none' }).expect(201);
    expect((await issue(north, athlete.id, TODAY)).body.code).toBe('safety-refused');
    const { body: screening } = await north.create(`/athletes/${athlete.id}/screenings`, { date: TODAY });
    expect(
      (await north.put(`/screenings/${screening.id}/results/wblt-distance/left`, { trials: [7] })).body.code,
    ).toBe('blocked');
    const { body } = await north.get(`/athletes/${athlete.id}`);
    const open = body.redFlags.find((flag: { answer: boolean }) => flag.answer);
    const path = `/athletes/${athlete.id}/red-flags/${open.id}/clearance`;
    await north.post(path, { by: '', date: TODAY, scope: 'all', version: 1 }).expect(400);
    await north.post(path, { by: 'Dr V. Ness', date: TODAY, scope: 'full loading', version: 1 }).expect(200);
    await issue(north, athlete.id, TODAY).expect(201);
  });
});

describe('a routine from issue to next version', () => {
  it('is immutable, run, decided and superseded, in words', async () => {
    const athlete = await addAthlete(north);
    await screenAnkles(north, athlete.id, '2027-02-01');
    const first = (await issue(north, athlete.id, '2027-02-02').expect(201)).body;
    expect(first).toMatchObject({
      number: 1,
      issuedBy: 'R. Halloran',
      totalSeconds: 10 + 2 * 8 * 4 + 10,
      changes: [],
    });
    await expect(app.stored(`UPDATE routines SET structure = 'x' WHERE id = '${first.id}'`)).rejects.toThrow(
      /never edited/,
    );

    for (const date of ['2027-02-20', '2027-02-25']) {
      const session = (await north.create('/sessions', { routineId: first.id, date }).expect(200)).body;
      const resumed = (await north.create('/sessions', { routineId: first.id, date }).expect(200)).body;
      expect(resumed.id).toBe(session.id);
      await north.post(`/sessions/${session.id}/events`, { events: DONE() }).expect(200);
    }
    await screenAnkles(north, athlete.id, TODAY, [9.2, 9.3, 9.1]);
    const decided = await north
      .create(`/athletes/${athlete.id}/decisions`, {
        on: TODAY,
        routineId: first.id,
        verdicts: [{ item: ROCK.id, verdict: 'accepted' }],
      })
      .expect(201);
    expect(decided.body.routine).toMatchObject({ number: 2, items: [{ amount: 10, from: { by: 'dose' } }] });
    expect(changesIn(decided.body.routine)).toEqual(['Knee-to-wall rock left: 2 × 8 → 2 × 10']);
    const stored = await app.stored('SELECT * FROM decisions WHERE athlete_id = $1', [athlete.id]);
    expect(stored).toMatchObject([{ decision: 'advance-dose', verdict: 'accepted' }]);
    // The version decided on is no longer in force.
    const again = await north.create(`/athletes/${athlete.id}/decisions`, {
      on: TODAY,
      routineId: first.id,
      verdicts: [{ item: ROCK.id, verdict: 'accepted' }],
    });
    expect(again.body).toMatchObject({ code: 'version-conflict', current: { number: 2 } });
  });

  it('overruling needs a reason', async () => {
    const athlete = await addAthlete(north);
    const routine = (await issue(north, athlete.id, '2027-02-02').expect(201)).body;
    const decide = (reason: string) =>
      north.create(`/athletes/${athlete.id}/decisions`, {
        on: TODAY,
        routineId: routine.id,
        verdicts: [{ item: ROCK.id, verdict: 'overruled', instead: 'ease', reason }],
      });
    expect((await decide('')).body.errors[0].path).toBe('$.verdicts[0].reason');
    const eased = await decide('sore after a long race');
    expect(changesIn(eased.body.routine)).toEqual([
      'Knee-to-wall rock left: foot distance from wall 6 → 4 cm',
    ]);
  });

  it('prints a handout that is a PDF', async () => {
    const athlete = await addAthlete(north);
    const routine = (await issue(north, athlete.id, TODAY).expect(201)).body;
    const pdf = await north.get(`/routines/${routine.id}/handout.pdf`).expect(200);
    expect(pdf.type).toBe('application/pdf');
    expect((pdf.body as Buffer).subarray(0, 5).toString()).toBe('%PDF-');
  });
});

describe('the ground it stands on', () => {
  it('describes every endpoint in OpenAPI 3.1', async () => {
    const { body } = await request(app.app).get('/api/v1/openapi.json').expect(200);
    expect(body.openapi).toBe('3.1.0');
    expect(body.paths['/athletes/{athleteId}/routines'].post.responses['201']).toBeDefined();
    expect(body.components.schemas.Problem.properties.code).toBeDefined();
  });
  it('explains every problem code, and no other, in docs/api.md', () => {
    const docs = readFileSync(new URL('../../docs/api.md', import.meta.url), 'utf8');
    const explained = [...docs.matchAll(/^\| `([a-z-]+)` \|/gm)].map((match) => match[1]);
    expect(explained.sort()).toEqual([...PROBLEM_CODES].sort());
  });
  it('is alive and ready, and allows itself nothing but WebAssembly beyond its own files', async () => {
    await request(app.app).get('/healthz').expect(200);
    const ready = await request(app.app).get('/readyz').expect(200);
    const policy = String(ready.headers['content-security-policy']);
    expect(policy).toContain("script-src 'self' 'wasm-unsafe-eval'");
    expect(policy).not.toMatch(/unsafe-inline|unsafe-eval'(?<!wasm-unsafe-eval')/);
  });
  it('serves the reference once, under its version', async () => {
    const { version } = (await north.get('/reference')).body;
    const data = await north.get(`/reference/${version}`).expect(200);
    expect(data.headers['cache-control']).toContain('immutable');
    expect(data.body.tests).toHaveLength(bundledReference.data.tests.length);
    await north.get('/reference/0000').expect(404);
  });
  it('logs neither names nor findings', async () => {
    const athlete = await addAthlete(north, { name: 'Zebulon Quillfeather' });
    await screenAnkles(north, athlete.id, '2027-02-09');
    const log = app.log.join('');
    expect(log).toContain('"status":200');
    expect(log).not.toMatch(/Zebulon|Quillfeather|trials|ridge-and-valley|yonder\.sid/);
  });
  it('logs of a path what the API names itself, and ids', async () => {
    await north.get('/athletes/Zebulon?on=2027-03-01');
    await north.get('/Quillfeather/zebulon');
    const paths = app.log.map((line) => (JSON.parse(line) as { req?: { path: string } }).req?.path);
    expect(paths.slice(-2)).toEqual(['/api/v1/athletes/…', '/api/v1/…/…']);
  });
  it('keeps an audit trail of reading and changing', async () => {
    const athlete = await addAthlete(north);
    await north.get(`/athletes/${athlete.id}`);
    const rows = await app.stored<{ action: string }>(
      'SELECT action FROM audit_events WHERE athlete_id = $1 ORDER BY id',
      [athlete.id],
    );
    expect(rows.map((row) => row.action)).toEqual(['athlete.create', 'athlete.read']);
  });
  it('migrates down to nothing and up again', async () => {
    await withMigrator(app.databaseUrl, async (migrator) => {
      await migrator.down({ to: 0 });
      expect(
        await app.stored(
          "SELECT tablename FROM pg_tables WHERE schemaname = 'public' AND tablename <> 'schema_migrations'",
        ),
      ).toEqual([]);
      await migrator.up();
    });
    expect(await app.stored('SELECT id FROM athletes')).toEqual([]);
  });
});
