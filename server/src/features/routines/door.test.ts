import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  addAthlete,
  ATHLETE,
  createTestApp,
  DONE,
  issue,
  ROCK,
  said,
  saySign,
  TODAY,
} from '../../testing/testApp.ts';
import type { Client, TestApp } from '../../testing/testApp.ts';

let app: TestApp;
let north: Client;
beforeAll(async () => {
  app = await createTestApp();
  north = await app.signIn();
});
afterAll(() => app.close());

const item = (drill: string, over: object = {}) => ({ ...ROCK, id: randomUUID(), drill, setup: {}, ...over });
const told = (body: { errors?: { path: string; message: string }[] }) =>
  (body.errors ?? []).map(({ path, message }) => `${path} ${message}`);
const answer = (id: string, body: object) => north.create(`/athletes/${id}/gate`, body);

describe('the gate', () => {
  it('is asked before anything is issued: an athlete never asked gets no version', async () => {
    const { body: athlete } = await north.create('/athletes', ATHLETE).expect(201);
    const { body } = await issue(north, athlete.id, TODAY).expect(422);
    expect(body.code).toBe('safety-refused');
    expect(told(body)).toContain('$ the stop-and-refer questions are not answered yet: Heart and breath');
    expect(told(body)).toContainEqual(expect.stringMatching(/items\[0\].*not answered yet: Ankle and foot/));
  });

  it('takes one topic at a time, with signs that are asked there and only then', async () => {
    const { body: athlete } = await north.create('/athletes', ATHLETE).expect(201);
    const heart = { topic: 'heart', outcome: 'none', seconds: 4 };
    const { body } = await answer(athlete.id, heart).expect(201);
    expect(body.asked).toEqual([
      { ...heart, on: TODAY, by: 'R. Halloran', until: '2027-09-30', signs: ['gen-chest'] },
    ]);
    for (const wrong of [
      { topic: 'everything', outcome: 'none' },
      { topic: 'heart', outcome: 'signs' },
      { topic: 'heart', outcome: 'none', signs: [{ redFlag: 'gen-chest' }] },
      { topic: 'heart', outcome: 'signs', signs: [{ redFlag: 'gen-cauda' }] },
      { topic: 'use', outcome: 'signs', signs: [{ redFlag: 'gen-fracture' }] },
      { topic: 'growing', outcome: 'none' },
    ])
      await answer(athlete.id, wrong).expect(400);
    const signs = [{ redFlag: 'gen-fracture', region: 'knee' }];
    const { body: after } = await answer(athlete.id, { topic: 'use', outcome: 'signs', signs }).expect(201);
    expect(after.redFlags).toMatchObject([{ redFlag: 'gen-fracture', region: 'knee', answeredOn: TODAY }]);
  });

  it('holds to the end of the season, and "does not know" does not hold', async () => {
    const athlete = await addAthlete(north);
    await answer(athlete.id, { topic: 'nerves', outcome: 'unknown' }).expect(201);
    const { body } = await issue(north, athlete.id, TODAY).expect(422);
    expect(told(body)).toEqual([expect.stringContaining('Bladder, feeling, strength')]);
    await answer(athlete.id, { topic: 'nerves', outcome: 'none' }).expect(201);
    await issue(north, athlete.id, TODAY).expect(201);
    app.setClock('2027-10-01T12:00:00Z');
    expect((await issue(north, athlete.id, '2027-10-01')).body.code).toBe('safety-refused');
    app.setClock(`${TODAY}T12:00:00Z`);
  });
});

describe('a set-up that a precaution rules out', () => {
  it('is refused at the door, and its drill with eyes open is not', async () => {
    const athlete = await addAthlete(north);
    await north
      .create(`/athletes/${athlete.id}/precautions`, {
        precaution: 'eyes-closed-fall-risk',
        setBy: 'R. Halloran',
      })
      .expect(201);
    const balance = (eyes: string) => [
      item('single-leg-balance', { measure: 'hold-seconds', amount: 20, side: 'left', setup: { eyes } }),
    ];
    const { body } = await issue(north, athlete.id, TODAY, balance('closed')).expect(422);
    expect(told(body)).toEqual([expect.stringMatching(/items\[0\].*a precaution forbids it/)]);
    await issue(north, athlete.id, TODAY, balance('open')).expect(201);
  });
});

describe('a clearance', () => {
  it('leaves precautions that bind, never dated before the sign', async () => {
    const athlete = await addAthlete(north);
    const { body } = await saySign(north, athlete.id, 'foot-locking').expect(201);
    const path = `/athletes/${athlete.id}/red-flags/${body.redFlags[0].id}/clearance`;
    const clear = { by: 'Dr V. Ness', scope: 'no jumping for two weeks', version: 1 };
    const precautions = [{ precaution: 'no-impact', until: '2027-03-15' }];
    await north.post(path, { ...clear, date: '1990-01-01', precautions }).expect(400);
    await north
      .post(path, { ...clear, date: TODAY, precautions: [{ precaution: 'no-impact', until: '2026-03-15' }] })
      .expect(400);
    const cleared = await north.post(path, { ...clear, date: TODAY, precautions }).expect(200);
    expect(cleared.body.precautions).toMatchObject([
      {
        precaution: 'no-impact',
        setBy: 'Dr V. Ness',
        until: '2027-03-15',
        fromClearance: body.redFlags[0].id,
      },
    ]);
    const refused = await issue(north, athlete.id, TODAY, [item('pogo-hop', { measure: 'contacts' })]);
    expect(told(refused.body)).toEqual([
      expect.stringMatching(/a precaution forbids it: No jumping or running/),
    ]);
  });
});

describe('a clearance of a precaution', () => {
  it('opens its drills and closes what is chosen to stay closed, once, until it is ended', async () => {
    const athlete = await addAthlete(north);
    const set = { precaution: 'no-kneeling-pressure', setBy: 'R. Halloran' };
    const { body } = await north.create(`/athletes/${athlete.id}/precautions`, set).expect(201);
    const path = `/athletes/${athlete.id}/precautions/${body.precautions[0].id}/clearance`;
    const clear = { by: 'Dr V. Ness', scope: 'may kneel on a mat', version: 1, date: TODAY };
    const avoid = (precaution: string, until: string) => ({ ...clear, precautions: [{ precaution, until }] });
    const none = await north.post(path, avoid('no-such', '2027-03-15')).expect(400);
    expect(told(none.body)).toEqual(['$.precautions[0].precaution unknown precaution']);
    await north.post(path, avoid('no-impact', '2026-03-15')).expect(400);
    const kneel = [item('cat-camel', { side: 'both' })];
    const hop = [item('pogo-hop', { measure: 'contacts' })];
    const before = await issue(north, athlete.id, TODAY, kneel).expect(422);
    expect(told(before.body)).toEqual([expect.stringMatching(/needs a clearance note/)]);
    const cleared = await north.post(path, avoid('no-impact', '2027-03-15')).expect(200);
    expect(cleared.body.precautions).toHaveLength(2);
    expect(cleared.body.precautions).toContainEqual(
      expect.objectContaining({
        precaution: 'no-impact',
        until: '2027-03-15',
        reason: expect.stringContaining('may kneel on a mat'),
        ended: null,
        clearance: null,
      }),
    );
    const refused = await issue(north, athlete.id, TODAY, hop).expect(422);
    expect(told(refused.body)).toContainEqual(expect.stringMatching(/No jumping or running/));
    await issue(north, athlete.id, TODAY, kneel).expect(201);
    await north.post(path, avoid('no-impact', '2027-03-15')).expect(409);
  });
});

describe('what is issued', () => {
  it('is never older than the version before it', async () => {
    const athlete = await addAthlete(north);
    await issue(north, athlete.id, '2027-02-20').expect(201);
    const { body } = await issue(north, athlete.id, '2027-02-19').expect(400);
    expect(told(body)).toEqual(['$.on before version 1, issued 2027-02-20']);
  });

  it('goes against kit, dislikes, bans and doses only with a reason, which is kept and shown', async () => {
    const athlete = await addAthlete(north, { dislikes: ['cat-camel'] });
    const items = [
      item('cat-camel', { side: 'both', sets: 20, amount: 1000 }),
      item('band-ankle-mobilisation', { measure: 'reps' }),
      { ...ROCK, id: randomUUID() },
      { ...ROCK, id: randomUUID() },
    ];
    const version = {
      on: TODAY,
      mode: 'prepare',
      structure: 'two-block-general-to-specific',
      request: { bans: [ROCK.drill] },
      items,
    };
    const path = `/athletes/${athlete.id}/routines`;
    const { body } = await north.create(path, version).expect(422);
    expect(body.code).toBe('override-needed');
    const rules = told(body).map((line) => line.split(':')[0]);
    for (const rule of ['not-at-hand', 'too-many-sets', 'beyond-range', 'drill-repeated'])
      expect(rules, rule).toContainEqual(expect.stringContaining(rule));
    const overrides = (body.errors as { path: string; message: string }[]).map(({ path, message }) => ({
      item: items[Number(/\d+/.exec(path)?.[0])]?.id,
      rule: message.split(':')[0],
      why: 'asked for by the coach',
    }));
    const made = await north.create(path, { ...version, overrides }).expect(201);
    expect(made.body.overrides).toHaveLength(overrides.length);
    expect(made.body.overrides[0]).toMatchObject({ why: 'asked for by the coach', by: 'R. Halloran' });
    const [shown] = (await north.get(`/athletes/${athlete.id}/routines`)).body.items;
    expect(shown.overrides).toEqual(made.body.overrides);
  });
});

describe('an issued version', () => {
  const forbids = async (arrange: (athlete: string) => Promise<unknown>) => {
    const athlete = await addAthlete(north);
    const { body: version } = await issue(north, athlete.id, '2027-02-02').expect(201);
    const { body: session } = await north
      .create('/sessions', { routineId: version.id, date: '2027-02-03' })
      .expect(200);
    await arrange(athlete.id);
    return { athlete: athlete.id, version, session };
  };
  const sprain = (id: string) =>
    north
      .create(`/athletes/${id}/precautions`, { precaution: 'no-kneeling-pressure', setBy: 'R. H.' })
      .expect(201);

  it('is neither printed nor started while a stop sign is open', async () => {
    const { version } = await forbids((id) => saySign(north, id, 'gen-chest').expect(201));
    expect((await north.get(`/routines/${version.id}/handout.pdf`)).body.code).toBe('blocked');
    expect((await north.create('/sessions', { routineId: version.id, date: TODAY })).body.code).toBe(
      'blocked',
    );
  });

  it('takes no drill in by a swap that would not be issued', async () => {
    const { session } = await forbids(sprain);
    const swapped = (drill: string) => said('swapped', { item: ROCK.id, to: { ...ROCK, drill, setup: {} } });
    const tell = (event: object) => north.post(`/sessions/${session.id}/events`, { events: [event] });
    expect((await tell(swapped('no-such-drill'))).status).toBe(400);
    await north.post(`/sessions/${session.id}/events`, { events: DONE() }).expect(200);
  });
});
