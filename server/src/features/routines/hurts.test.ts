import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addAthlete, createTestApp, DONE, issue, ROCK, said, saySign, TODAY } from '../../testing/testApp.ts';
import type { Client, TestApp } from '../../testing/testApp.ts';

let app: TestApp;
let north: Client;
beforeAll(async () => {
  app = await createTestApp();
  north = await app.signIn();
});
afterAll(() => app.close());

const item = (drill: string, over: object = {}) => ({ ...ROCK, id: randomUUID(), drill, setup: {}, ...over });
const messages = (body: { errors?: { message: string }[] }) =>
  (body.errors ?? []).map(({ message }) => message);
const start = (routineId: string, date = TODAY, over: object = {}) =>
  north.create('/sessions', { routineId, date, ...over });
const events = (session: string, all: object[]) => north.post(`/sessions/${session}/events`, { events: all });
const precaution = (id: string, precaution: string) =>
  north.create(`/athletes/${id}/precautions`, { precaution, setBy: 'R. Halloran' }).expect(201);

/** A routine of one drill that hurt 8/10 in two sessions running. */
async function hurtTwice() {
  const { id } = await addAthlete(north);
  const { body: routine } = await issue(north, id, '2027-02-02').expect(201);
  for (const date of ['2027-02-20', '2027-02-22']) {
    const { body: session } = await start(routine.id, date).expect(200);
    const [started, one, two, , finished] = DONE();
    await events(session.id, [
      started,
      one,
      two,
      said('pain', { item: ROCK.id, nrs: 8 }),
      finished,
    ] as object[]).expect(200);
  }
  return { id, routine: routine.id as string };
}

describe('what a diary asked to refer', () => {
  it('is not issued, printed or run again until a named person ends it', async () => {
    const { id, routine } = await hurtTwice();
    const refused = await issue(north, id, TODAY).expect(422);
    expect(messages(refused.body)).toContainEqual(expect.stringContaining('stop and refer'));
    expect((await north.get(`/routines/${routine}/handout.pdf`)).status).toBe(422);
    expect((await start(routine)).body.code).toBe('safety-refused');
    const lift = (over: object) =>
      north.create(`/athletes/${id}/lifts`, {
        region: 'ankle-foot',
        side: 'left',
        reason: 'seen by the physician',
        ...over,
      });
    expect(messages((await lift({}).expect(400)).body)).toEqual([expect.stringContaining('ended by name')]);
    await lift({ referral: true, side: 'right' }).expect(400);
    const { body } = await lift({ referral: true }).expect(201);
    expect(body.lifts).toMatchObject([{ referral: true, by: 'R. Halloran', date: TODAY }]);
    await issue(north, id, TODAY).expect(201);
  });
  it('is no clinician’s alone to see: an assistant cannot end it', async () => {
    const { id } = await hurtTwice();
    const assistant = await app.signIn('north', 'assistant');
    const said = { region: 'ankle-foot', side: 'left', reason: 'looks fine', referral: true };
    expect((await assistant.create(`/athletes/${id}/lifts`, said)).status).toBe(403);
  });
});

describe('ways around the door', () => {
  it('a dose for the closed side is no way in, whatever side the line says', async () => {
    const { id } = await addAthlete(north);
    await north
      .create(`/athletes/${id}/pains`, {
        region: 'ankle-foot',
        side: 'right',
        when: 'rest',
        nrs: 6,
        since: '2027-02-20',
      })
      .expect(201);
    const drill = 'single-leg-heel-raise-hold';
    const even = item(drill, { side: 'left', measure: 'hold-seconds', amount: 20 });
    const uneven = { ...even, perSide: { left: { sets: 2, amount: 20 }, right: { sets: 2, amount: 20 } } };
    expect((await issue(north, id, TODAY, [uneven])).body.code).toBe('safety-refused');
  });
  it('own words that name a forbidden drill are that drill', async () => {
    const { id } = await addAthlete(north);
    await precaution(id, 'no-impact');
    const words = (text: string) => [
      ROCK,
      item('own-words', { side: 'central', sets: 1, amount: 60, measure: 'seconds', words: text }),
    ];
    const { body } = await issue(north, id, TODAY, words('then two-leg pogo hops, three minutes'));
    expect(messages(body)).toContainEqual(expect.stringContaining('Two-leg pogo hops'));
    await issue(north, id, TODAY, words('then talk about the course')).expect(201);
  });
  it('what was swapped in is judged again before a run goes on', async () => {
    const { id } = await addAthlete(north);
    const { body: routine } = await issue(north, id, TODAY).expect(201);
    const { body: session } = await start(routine.id).expect(200);
    const to = item('supine-knee-drops', { side: 'both' });
    await events(session.id, [said('started'), said('swapped', { item: ROCK.id, to })]).expect(200);
    await start(routine.id).expect(200);
    await saySign(north, id, 'hip-joint').expect(201);
    expect((await start(routine.id)).body.code).toBe('safety-refused');
  });
  it('a start sent again is no way in, and what was swapped in stays in where the run begins anew', async () => {
    const { id } = await addAthlete(north);
    const issued = [ROCK, item('cat-camel', { side: 'both' })];
    const { body: routine } = await issue(north, id, TODAY, issued).expect(201);
    const body = { id: randomUUID(), routineId: routine.id, date: TODAY };
    const { body: session } = await north.post('/sessions', body).expect(200);
    const to = item('dead-bug', { side: 'both' });
    const camel = issued[1]?.id;
    await events(session.id, [
      said('started'),
      said('swapped', { item: camel, to }),
      said('reached', { item: ROCK.id, segment: 1, set: 1, side: 'left', amount: 8 }),
    ]).expect(200);
    const { body: anew } = await start(routine.id, TODAY, { leaveOut: [ROCK.id] }).expect(200);
    expect(anew.id).not.toBe(session.id);
    expect(anew.items.map((one: { drill: string }) => one.drill)).toEqual([ROCK.drill, 'dead-bug']);
    await events(anew.id, [said('finished')]).expect(200);
    const again = { id: randomUUID(), routineId: routine.id, date: TODAY };
    await north.post('/sessions', again).expect(200);
    await saySign(north, id, 'foot-locking').expect(201);
    expect((await north.post('/sessions', again)).body.code).toBe('safety-refused');
  });
  it('a swap takes a drill within its bounds and nothing else', async () => {
    const { id } = await addAthlete(north);
    const { body: routine } = await issue(north, id, TODAY).expect(201);
    const { body: session } = await start(routine.id).expect(200);
    const swap = (to: object) => events(session.id, [said('swapped', { item: ROCK.id, to })]);
    const words = item('own-words', { words: 'anything', measure: 'seconds', amount: 60 });
    expect(messages((await swap(words).expect(400)).body)).toEqual(['a drill is swapped for a drill']);
    await swap(item('cat-camel', { setup: { nonsense: 3 } })).expect(400);
  });
  it('a hold or a step beyond what a precaution allows is refused by name', async () => {
    const { id } = await addAthlete(north);
    await precaution(id, 'acute-adductor-strain');
    const squeeze = (effort: number) => [
      item('supine-ball-squeeze', { side: 'both', setup: { effort, 'object-width': 'medium' } }),
    ];
    expect((await issue(north, id, TODAY, squeeze(50))).body.code).toBe('safety-refused');
    await issue(north, id, TODAY, squeeze(30)).expect(201);
  });
});
