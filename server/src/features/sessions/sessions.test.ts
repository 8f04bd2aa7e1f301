import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addAthlete, createTestApp, issue, ROCK, TODAY } from '../../testing/testApp.ts';
import type { Client, TestApp } from '../../testing/testApp.ts';

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
  (await north.post('/sessions', { routineId: routine.id, date }).expect(200)).body;
const entry = {
  drill: ROCK.drill,
  side: 'left',
  done: 'all',
  amounts: [8, 8],
  pain: 1,
  effort: 3,
  quality: 3,
};
const progress = { segment: 3, elapsed: 12.5 };

describe('a session', () => {
  it('is kept while it runs: a new start of the same day goes on where it was', async () => {
    const session = await start('2027-02-03');
    expect(session).toMatchObject({ finished: false, progress: { segment: 0, elapsed: 0, skipped: [] } });
    await north
      .put(`/sessions/${session.id}`, { version: 1, progress, entries: [], finished: false })
      .expect(200);
    const again = await start('2027-02-03');
    expect(again).toMatchObject({ id: session.id, progress: { segment: 3, elapsed: 12.5 }, version: 2 });
    // Another day is another session.
    expect((await start('2027-02-04')).id).not.toBe(session.id);
  });

  it('refuses an older version with what is stored, and a finished one altogether', async () => {
    const session = await start('2027-02-05');
    const path = `/sessions/${session.id}`;
    await north.put(path, { version: 1, progress, entries: [], finished: false }).expect(200);
    const late = await north
      .put(path, { version: 1, progress: { segment: 0, elapsed: 0 }, entries: [], finished: false })
      .expect(409);
    expect(late.body.current.progress.segment).toBe(3);
    await north.put(path, { version: 2, progress, entries: [entry], finished: true }).expect(200);
    await north.put(path, { version: 3, progress, entries: [], finished: false }).expect(409);
  });

  it('takes the morning after once it is finished, drill by drill', async () => {
    const session = await start('2027-02-06');
    const morning = { version: 1, pains: [{ index: 0, nextDayPain: 2 }] };
    expect(
      (await north.put(`/sessions/${session.id}/next-day`, morning).expect(400)).body.errors[0].message,
    ).toMatch(/not finished/);
    await north
      .put(`/sessions/${session.id}`, { version: 1, progress, entries: [entry], finished: true })
      .expect(200);
    await north
      .put(`/sessions/${session.id}/next-day`, { version: 2, pains: [{ index: 4, nextDayPain: 2 }] })
      .expect(400);
    const stored = await north
      .put(`/sessions/${session.id}/next-day`, { ...morning, version: 2 })
      .expect(200);
    expect(stored.body.entries[0]).toMatchObject({ pain: 1, nextDayPain: 2 });
    const { body } = await north.get(`/athletes/${athlete.id}/case?on=2027-02-07`);
    expect(body.case.diary.at(-1)).toMatchObject({ date: '2027-02-06', entries: [{ nextDayPain: 2 }] });
  });

  it('holds only drills of its routine, or swaps that the rules allow', async () => {
    const session = await start('2027-02-08');
    const save = (drill: string, swappedFor?: string) =>
      north.put(`/sessions/${session.id}`, {
        version: 1,
        progress,
        entries: [{ ...entry, drill, swappedFor }],
        finished: false,
      });
    expect((await save('wall-sit').expect(400)).body.errors[0].path).toBe('$.entries[0].drill');
    await save('half-kneeling-ankle-rock', ROCK.drill).expect(200);
  });

  it('refuses a swapped-in drill that a precaution forbids', async () => {
    const other = await addAthlete(north);
    const made = (
      await issue(north, other.id, '2027-02-01', [
        { ...ROCK, drill: 'cat-camel', side: 'both', setup: {} },
      ]).expect(201)
    ).body;
    await north
      .post(`/athletes/${other.id}/precautions`, { precaution: 'acute-ankle-sprain', setBy: 'R. Halloran' })
      .expect(201);
    const session = (await north.post('/sessions', { routineId: made.id, date: TODAY }).expect(200)).body;
    const entries = [{ ...entry, side: 'left', swappedFor: 'cat-camel' }];
    const refused = await north
      .put(`/sessions/${session.id}`, { version: 1, progress, entries, finished: false })
      .expect(422);
    expect(refused.body.code).toBe('safety-refused');
  });

  it('does not start while a sign blocks what the routine holds', async () => {
    await app.database.models.redFlags.create({
      athleteId: athlete.id,
      practiceId: (await app.database.models.athletes.findByPk(athlete.id))?.get('practiceId') as string,
      redFlag: 'gen-chest',
      answer: true,
      askedFor: ['ankle-foot'],
      answeredOn: TODAY,
      answeredBy: 'R. Halloran',
    });
    const refused = await north.post('/sessions', { routineId: routine.id, date: TODAY }).expect(422);
    expect(refused.body).toMatchObject({ code: 'blocked' });
    expect(refused.body.detail).toMatch(/Stop now/);
  });
});
