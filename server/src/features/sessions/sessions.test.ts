import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addAthlete, saySign, createTestApp, DONE, issue, ROCK, said, TODAY } from '../../testing/testApp.ts';
import type { Client, TestApp } from '../../testing/testApp.ts';
import { bundledReference } from '@yonder/core/reference/bundled';
import { reduceSession } from '@yonder/core/session';
import { eachOf } from '@yonder/core/testing/eachOf';

let app: TestApp;
let north: Client;
let athlete: { id: string };
let routine: { id: string };
beforeAll(async () => {
  app = await createTestApp();
  north = await app.signIn();
  athlete = await addAthlete(north);
  routine = (await issue(north, athlete.id, '2027-02-01').expect(201)).body;
});
afterAll(() => app.close());

const start = async (date: string) =>
  (await north.create('/sessions', { routineId: routine.id, date }).expect(200)).body;
const tell = (id: string, events: object[]) => north.post(`/sessions/${id}/events`, { events });
const eventsOf = (id: string) =>
  app.stored<{ id: string }>('SELECT id FROM session_events WHERE session_id = $1', [id]);

describe('a session', () => {
  it('is kept while it runs: a new start of the same day goes on with what happened', async () => {
    const session = await start('2027-02-03');
    expect(session).toMatchObject({ finished: false, entries: [], events: [] });
    const started = said('started');
    const paused = said('paused', { segment: 3, elapsed: 12.5 });
    await tell(session.id, [paused, started]).expect(200);
    const again = await start('2027-02-03');
    expect(again.id).toBe(session.id);
    expect(again.events).toEqual([started, paused]);
    // Another day is another session.
    expect((await start('2027-02-04')).id).not.toBe(session.id);
  });

  it('comes to the same whatever way its events arrive, and however often', async () => {
    const done = DONE();
    const shapes: object[] = [];
    for (const batches of [
      [done],
      [done, done],
      done.map((event) => [event]).reverse(),
      [done.slice(2), done.slice(0, 3)],
    ]) {
      const other = await addAthlete(north);
      const made = (await issue(north, other.id, '2027-02-01').expect(201)).body;
      const { body } = await north
        .create('/sessions', { routineId: made.id, date: '2027-02-05' })
        .expect(200);
      // Every round tells events of its own, in the order and parts of its round.
      const ids = new Map<string, string>(done.map((event) => [event.id, randomUUID()]));
      for (const batch of eachOf(batches)) {
        const events = (batch as { id: string }[]).map((event) => ({ ...event, id: ids.get(event.id) }));
        await tell(body.id, events).expect(200);
      }
      expect(await eventsOf(body.id)).toHaveLength(done.length);
      const [kept] = (await north.get(`/athletes/${other.id}/sessions`).expect(200)).body.items;
      expect(kept.finished).toBe(true);
      shapes.push(kept.entries);
    }
    expect(shapes[0]).toMatchObject([
      { item: ROCK.id, drill: ROCK.drill, done: 'all', amounts: [8, 8], pain: 1 },
    ]);
    for (const shape of eachOf(shapes)) expect(shape).toEqual(shapes[0]);
  });

  it('never changes an event: the same id with other content is refused, and so is the database', async () => {
    const session = await start('2027-02-06');
    const pain = said('pain', { item: ROCK.id, nrs: 4 });
    await tell(session.id, [pain]).expect(200);
    expect((await tell(session.id, [{ ...pain, nrs: 0 }]).expect(409)).body.code).toBe('id-taken');
    const sql = [
      'UPDATE session_events SET event = event',
      'DELETE FROM session_events',
      'TRUNCATE session_events',
    ];
    for (const statement of eachOf(sql)) await expect(app.stored(statement)).rejects.toThrow();
    expect(await eventsOf(session.id)).toHaveLength(1);
  });

  it('takes the morning after, item by item, and carries it into the case', async () => {
    const session = await start('2027-02-07');
    await tell(session.id, DONE()).expect(200);
    const { body } = await tell(session.id, [said('amended', { item: ROCK.id, nextDayPain: 2 })]).expect(200);
    expect(body.entries[0]).toMatchObject({ pain: 1, nextDayPain: 2 });
    const loaded = (await north.get(`/athletes/${athlete.id}/case?on=2027-02-08`)).body.case;
    expect(loaded.diary.at(-1)).toMatchObject({ date: '2027-02-07', entries: [{ nextDayPain: 2 }] });
  });

  it.each([
    [{ type: 'pain', item: randomUUID(), nrs: 3 }, '$.events[0].item'],
    [{ type: 'pain', item: ROCK.id, nrs: 11 }, '$.events[0].nrs'],
    [{ type: 'swapped', item: ROCK.id, to: { ...ROCK, drill: 'moon-walk' } }, '$.events[0].to.drill'],
    [{ type: 'celebrated' }, '$.events[0].type'],
    [{ type: 'started', device: 'x'.repeat(65) }, '$.events[0].device'],
    [{ type: 'started', seq: -1 }, '$.events[0].seq'],
    [{ type: 'carried', entries: [], segment: 0, elapsed: 0, skipped: [], played: null }, '$.events[0].type'],
  ])('refuses %o at %s and stores nothing of its batch', async (over, path) => {
    const session = await start('2027-02-09');
    const { type, ...rest } = over;
    const { body } = await tell(session.id, [said(type, rest), said('finished')]).expect(400);
    expect(body.errors.map((e: { path: string }) => e.path)).toContain(path);
    expect(await eventsOf(session.id)).toEqual([]);
  });

  it('takes a swap that the rules allow, never one that a precaution forbids', async () => {
    const other = await addAthlete(north);
    const camel = { ...ROCK, drill: 'cat-camel', side: 'both', setup: {} };
    const made = (await issue(north, other.id, '2027-02-01', [camel]).expect(201)).body;
    const { body: session } = await north
      .create('/sessions', { routineId: made.id, date: TODAY })
      .expect(200);
    const { id: _id, ...rock } = ROCK;
    const swap = () => said('swapped', { item: camel.id, to: rock });
    await tell(session.id, [swap()]).expect(200);
    await north
      .create(`/athletes/${other.id}/precautions`, { precaution: 'acute-ankle-sprain', setBy: 'R. Halloran' })
      .expect(201);
    expect((await tell(session.id, [swap()]).expect(422)).body.code).toBe('safety-refused');
    expect(await eventsOf(session.id)).toHaveLength(1);
  });

  it('takes nothing played after its end, nothing from years away, nothing beyond its timeline', async () => {
    const session = await start('2027-02-10');
    const faults = async (event: object) =>
      (await tell(session.id, [event]).expect(400)).body.errors.map((e: { path: string }) => e.path);
    expect(await faults({ ...said('started'), at: '0001-01-01T00:00:00.000Z' })).toEqual(['$.events[0].at']);
    expect(await faults({ ...said('started'), at: '9999-12-31T00:00:00.000Z' })).toEqual(['$.events[0].at']);
    const far = said('reached', { item: ROCK.id, segment: 5000, set: 1, side: 'left', amount: 8 });
    expect(await faults(far)).toEqual(['$.events[0].segment']);
    const done = DONE();
    await tell(session.id, done).expect(200);
    const late = { ...said('pain', { item: ROCK.id, nrs: 9 }), at: `${TODAY}T23:59:00.000Z` };
    expect(await faults(late)).toEqual(['$.events[0].type']);
    await tell(session.id, done).expect(200); // sent again it changes nothing and is no fault
    expect(await eventsOf(session.id)).toHaveLength(done.length);
  });

  it('of a version that a newer one took the place of is not begun; one under way goes on', async () => {
    const other = await addAthlete(north);
    const old = (await issue(north, other.id, '2027-02-01').expect(201)).body;
    const begin = (routineId: string, date: string) => north.create('/sessions', { routineId, date });
    const { body: open } = await begin(old.id, '2027-02-20').expect(200);
    const now = (await issue(north, other.id, '2027-02-15').expect(201)).body;
    const refused = await begin(old.id, '2027-02-16').expect(409);
    expect(refused.body).toMatchObject({ code: 'superseded', current: { id: now.id, number: 2 } });
    expect((await begin(old.id, '2027-02-20').expect(200)).body.id).toBe(open.id);
    await begin(old.id, '2027-02-14').expect(200); // written down for a day on which it was in force
    await begin(now.id, '2027-02-16').expect(200);
  });

  it('hears of what is forbidden meanwhile: of single lines, and of everything', async () => {
    const other = await addAthlete(north);
    const lines = [ROCK, { ...ROCK, id: randomUUID(), drill: 'cat-camel', side: 'both', setup: {} }];
    const made = (await issue(north, other.id, TODAY, lines).expect(201)).body;
    const { body: run } = await north.create('/sessions', { routineId: made.id, date: TODAY }).expect(200);
    const door = async () => (await north.get(`/sessions/${run.id}/door`).expect(200)).body;
    expect(await door()).toEqual({ blocked: null, items: [] });
    await north
      .create(`/athletes/${other.id}/precautions`, { precaution: 'acute-ankle-sprain', setBy: 'R. Halloran' })
      .expect(201);
    expect(await door()).toEqual({
      blocked: null,
      items: [{ item: ROCK.id, why: expect.stringContaining('a precaution forbids it') }],
    });
    // Left out, it is not to come any more.
    const { segments } = reduceSession(bundledReference, made.items, []);
    const rest = segments.flatMap(({ item }, s) => (item === 0 ? [s] : []));
    await tell(run.id, [said('skipped', { item: ROCK.id, segments: rest, next: rest.length })]).expect(200);
    expect(await door()).toEqual({ blocked: null, items: [] });
    await saySign(north, other.id, 'gen-chest').expect(201);
    expect((await door()).blocked).toMatch(/Stop now/);
  });

  it('is not begun, issued or printed of somebody who is archived', async () => {
    const other = await addAthlete(north);
    const made = (await issue(north, other.id, TODAY).expect(201)).body;
    await north.post(`/athletes/${other.id}/archive`, { archived: true, version: 1 }).expect(200);
    const begin = { routineId: made.id, date: TODAY };
    expect((await north.create('/sessions', begin).expect(409)).body.code).toBe('archived');
    expect((await issue(north, other.id, TODAY).expect(409)).body.code).toBe('archived');
    expect((await north.get(`/routines/${made.id}/handout.pdf`)).status).toBe(409);
    await north.post(`/athletes/${other.id}/archive`, { archived: false, version: 2 }).expect(200);
    await north.create('/sessions', begin).expect(200);
  });

  it('does not start while a sign blocks what the routine holds', async () => {
    await saySign(north, athlete.id, 'gen-chest').expect(201);
    const refused = await north.create('/sessions', { routineId: routine.id, date: TODAY }).expect(422);
    expect(refused.body).toMatchObject({ code: 'blocked' });
    expect(refused.body.detail).toMatch(/Stop now/);
  });
});
