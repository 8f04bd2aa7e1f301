import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openDatabase } from '../db/database.ts';
import { createDeps } from '../deps.ts';
import { addAthlete, createTestApp, DONE, issue, ROCK, screenAnkles, TODAY } from '../testing/testApp.ts';
import type { Client, TestApp } from '../testing/testApp.ts';
import { dayIn } from './days.ts';
import { inPractice } from './unit.ts';
import { eachOf } from '@yonder/core/testing/eachOf';

let app: TestApp;
let north: Client;
beforeAll(async () => {
  app = await createTestApp();
  north = await app.signIn();
});
afterAll(() => app.close());

/** Statements that reach the database while something is done. */
async function counted(work: () => PromiseLike<unknown>): Promise<number> {
  app.statements.length = 0;
  await work();
  return app.statements.filter((sql) => !/: (START|BEGIN|COMMIT|SET )/i.test(sql)).length;
}

/** An athlete with so many visits, versions and finished sessions. */
async function history(rounds: number) {
  const { id } = await addAthlete(north, { name: `Aa ${rounds} ${randomUUID()}` });
  let last = '';
  for (let round = 1; round <= rounds; round += 1) {
    const day = `2027-02-${String(round).padStart(2, '0')}`;
    await screenAnkles(north, id, day);
    last = (await issue(north, id, day).expect(201)).body.id;
    const { body } = await north.create('/sessions', { routineId: last, date: day }).expect(200);
    await north.post(`/sessions/${body.id}/events`, { events: DONE() }).expect(200);
  }
  return { id, routine: last };
}

describe('queries of one request', () => {
  it('are as many for a long history as for a short one, and few', async () => {
    const verdicts = [{ item: ROCK.id, verdict: 'overruled', instead: 'keep', reason: 'as planned' }];
    const measure = async ({ id, routine }: { id: string; routine: string }) => ({
      list: await counted(() => north.get('/athletes').expect(200)),
      record: await counted(() => north.get(`/athletes/${id}/case`).expect(200)),
      athlete: await counted(() => north.get(`/athletes/${id}`).expect(200)),
      visits: await counted(() => north.get(`/athletes/${id}/screenings`).expect(200)),
      sessions: await counted(() => north.get(`/athletes/${id}/sessions`).expect(200)),
      decisions: await counted(() =>
        north.create(`/athletes/${id}/decisions`, { on: TODAY, routineId: routine, verdicts }).expect(201),
      ),
      issue: await counted(() => issue(north, id, TODAY).expect(201)),
    });
    const short = await history(1);
    const long = await history(8);
    await north.get('/athletes').expect(200); // nothing left to be worked out
    const few = await measure(short);
    await north.get('/athletes').expect(200);
    expect(await measure(long)).toEqual(few);
    expect(few.list).toBeLessThanOrEqual(4);
    expect(few.visits).toBeLessThanOrEqual(5);
    for (const count of eachOf(Object.values(few))) expect(count).toBeLessThanOrEqual(40);
  });
  it('of an open run that asks whether it may go on are four while nothing happens', async () => {
    const { id, routine } = await history(2);
    const { body: run } = await north.create('/sessions', { routineId: routine, date: TODAY }).expect(200);
    const ask = () => counted(() => north.get(`/sessions/${run.id}/door`).expect(200));
    await ask();
    expect(await ask()).toBe(4); // who asks, the run, the athlete’s revision, how much was told
    await north
      .create(`/athletes/${id}/precautions`, { precaution: 'no-impact', setBy: 'R. Halloran' })
      .expect(201);
    expect(await ask()).toBeGreaterThan(4);
    expect(await ask()).toBe(4);
  });
});

describe('connections', () => {
  it('are one per unit: with a pool of one, ten requests at once are all answered', async () => {
    const narrow = openDatabase(app.databaseUrl, { poolSize: 1 });
    const deps = createDeps({ ...app.deps, database: narrow });
    const [practice] = await app.stored<{ id: string }>("SELECT id FROM practices WHERE name = 'north'");
    const names = await Promise.all(
      Array.from({ length: 10 }, () =>
        inPractice(deps, practice?.id ?? '', async (unit) => (await unit.rows.athletes.all({}))[0]?.name),
      ),
    );
    await narrow.close();
    expect(names.filter(Boolean)).toHaveLength(10);
  });

  it('forty imports and issues at once are all done with a pool of ten', async () => {
    const athletes = await Promise.all(Array.from({ length: 20 }, () => addAthlete(north)));
    const rows = (athleteId: string) =>
      Array.from({ length: 20 }, (_, n) => ({
        athleteId,
        date: `2027-02-${String(n + 1).padStart(2, '0')}`,
        result: { test: 'heel-raise-reps', side: 'left', trials: [14 + n] },
      }));
    const all = await Promise.all(
      athletes.flatMap(({ id }) => [
        north.create('/screenings/import', { rows: rows(id) }),
        issue(north, id, TODAY),
      ]),
    );
    expect(new Set(all.map(({ status }) => status))).toEqual(new Set([201]));
  });
});

describe('today', () => {
  it('is decided by the practice’s time zone, not by the server', async () => {
    app.setClock('2027-03-01T10:30:00Z');
    expect(dayIn('Pacific/Kiritimati', new Date('2027-03-01T10:30:00Z'))).toBe('2027-03-02');
    expect(dayIn('Pacific/Pago_Pago', new Date('2027-03-01T10:30:00Z'))).toBe('2027-02-28');
    await app.stored("UPDATE practices SET time_zone = 'Pacific/Kiritimati' WHERE name = 'north'");
    const { id } = await addAthlete(north);
    const pain = { region: 'knee', side: 'left', when: 'rest', nrs: 2, since: '2027-03-02' };
    await north.create(`/athletes/${id}/pains`, pain).expect(201);
    await app.stored("UPDATE practices SET time_zone = 'Pacific/Pago_Pago' WHERE name = 'north'");
    await north.create(`/athletes/${id}/pains`, { ...pain, since: '2027-03-01' }).expect(400);
    await app.stored("UPDATE practices SET time_zone = 'UTC' WHERE name = 'north'");
  });
});
