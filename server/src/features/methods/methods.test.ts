import { randomUUID } from 'node:crypto';
import { REGIONS } from '@yonder/core/domain';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addAthlete, createTestApp, DONE, issue, ROCK, said, TODAY } from '../../testing/testApp.ts';
import type { Client, TestApp } from '../../testing/testApp.ts';

let app: TestApp;
let owner: Client;
beforeAll(async () => {
  app = await createTestApp();
  owner = await app.signIn('north', 'owner');
});
afterAll(() => app.close());

const caseOf = async (id: string) =>
  (await owner.get(`/athletes/${id}/case?on=${TODAY}`).expect(200)).body.case;
const choice = (school: string, option: string, replaces: string | null = null) => ({
  school,
  option,
  reason: 'our squad is used to it',
  replaces,
});

describe('methods', () => {
  it('of the practice hold for everybody, an athlete’s own stand before them, and each keeps who, when and why', async () => {
    const { id } = await addAthlete(owner, { name: 'Rill Dunmore' });
    const other = await addAthlete(owner, { name: 'Fen Dunmore' });
    const { body: shared } = await owner
      .create('/methods/choices', choice('release-first', 'skip'))
      .expect(201);
    expect(shared.practice[0]).toMatchObject({ option: 'skip', by: 'R. Halloran', date: TODAY, ended: null });
    expect((await caseOf(id)).schools).toEqual({ 'release-first': 'skip' });
    const { body: own } = await owner
      .create(`/athletes/${id}/methods/choices`, choice('release-first', 'first'))
      .expect(201);
    expect((await caseOf(id)).schools).toEqual({ 'release-first': 'first' });
    expect((await caseOf(other.id)).schools).toEqual({ 'release-first': 'skip' });
    await owner
      .post(`/athletes/${id}/methods/choices/${own.athlete[0].id}/end`, { reason: 'tried it', version: 1 })
      .expect(200);
    expect((await caseOf(id)).schools).toEqual({ 'release-first': 'skip' });
    const { body: kept } = await owner.get(`/athletes/${id}/methods`).expect(200);
    expect(kept.athlete[0].ended).toMatchObject({ by: 'R. Halloran', reason: 'tried it' });
  });
  it('two who choose at once: the second is told what stands now, and nothing is overwritten', async () => {
    const { body } = await owner
      .create('/methods/choices', choice('activation-value', 'pattern-only'))
      .expect(201);
    const late = await owner
      .create('/methods/choices', choice('activation-value', 'then-pattern'))
      .expect(409);
    expect(late.body.current).toMatchObject({ id: body.practice[0].id, option: 'pattern-only' });
    await owner
      .create('/methods/choices', choice('activation-value', 'then-pattern', body.practice[0].id))
      .expect(201);
  });
  it('unknown questions and options are refused with their paths', async () => {
    const wrong = await owner.create('/methods/choices', choice('release-first', 'twice')).expect(400);
    expect(wrong.body.errors[0].path).toBe('$.option');
    const none = await owner.create('/methods/choices', choice('moon-phase', 'full')).expect(400);
    expect(none.body.errors[0].path).toBe('$.school');
    const preview = { school: 'release-first', option: 'twice' };
    await owner.post('/methods/preview', preview).expect(400);
  });
  it('say before saving whose routine would be built otherwise, and store nothing', async () => {
    const { id } = await addAthlete(owner, { name: 'Aa Lowther', tasks: [{ id: 'fell-running-descent' }] });
    await issue(owner, id, TODAY).expect(201);
    const look = { school: 'static-stretch-before', option: 'last-step', athleteId: id };
    const { body } = await owner.post('/methods/preview', look).expect(200);
    expect(body).toMatchObject({ total: 1, judged: 1, routines: 1, next: null });
    expect(body.changed).toHaveLength(1);
    expect(body.changed[0].come.length).toBeGreaterThan(0);
    const same = { school: 'static-stretch-before', option: 'avoid', athleteId: id };
    expect((await owner.post('/methods/preview', same).expect(200)).body.changed).toEqual([]);
    expect((await owner.get(`/athletes/${id}/methods`).expect(200)).body.athlete).toEqual([]);
    const all = await owner.post('/methods/preview', { ...look, athleteId: null }).expect(200);
    expect(all.body.judged).toBeLessThanOrEqual(all.body.total);
  });
  it('pain patterns of the practice’s own take the place of those that ship', async () => {
    const { id } = await addAthlete(owner, { name: 'Beck Lowther' });
    const { body } = await owner.get('/methods').expect(200);
    const pattern = { region: 'knee', aspects: null, feels: null, precautions: ['no-kneeling-pressure'] };
    const put = (painPatterns: object[]) =>
      owner.put('/methods/pain-patterns', { painPatterns, version: body.version });
    const wrong = await put([{ ...pattern, precautions: ['no-fun'] }]).expect(400);
    expect(wrong.body.errors[0].path).toBe('$.painPatterns[0].precautions[0]');
    await put([pattern]).expect(200);
    expect((await caseOf(id)).overrides.painPatterns).toEqual([{ ...pattern, aboveOnly: false }]);
    const figures = await owner.get('/figures').expect(200);
    expect(figures.body.painPatterns).toEqual([{ ...pattern, aboveOnly: false }]);
    const late = await put([pattern]).expect(409);
    const back = { painPatterns: null, version: late.body.current.version };
    await owner.put('/methods/pain-patterns', back).expect(200);
    expect((await caseOf(id)).overrides.painPatterns).toBeNull();
  });
});

describe('the day', () => {
  const PAIN = {
    region: 'ankle-foot',
    side: 'left',
    when: 'movement',
    aspect: 'back',
    feel: 'ache',
    since: '2027-02-20',
  };
  const lift = (id: string) =>
    owner.create(`/athletes/${id}/lifts`, {
      region: 'ankle-foot',
      side: 'left',
      reason: 'seen, it is the old scar',
    });

  it('an amber rule is lifted with a reason, for pain no higher than that; above the stop limit none is', async () => {
    const { id } = await addAthlete(owner, { name: 'Ghyll Lowther' });
    await lift(id).expect(400);
    await owner.create(`/athletes/${id}/pains`, { ...PAIN, nrs: 4 }).expect(201);
    await issue(owner, id, TODAY).expect(422);
    const { body } = await lift(id).expect(201);
    expect(body.lifts[0]).toMatchObject({ nrs: 4, by: 'R. Halloran', date: TODAY });
    await issue(owner, id, TODAY).expect(201);
    await owner.create(`/athletes/${id}/pains`, { ...PAIN, nrs: 5 }).expect(201);
    await issue(owner, id, TODAY).expect(422);
    await owner.create(`/athletes/${id}/pains`, { ...PAIN, nrs: 7 }).expect(201);
    const above = await lift(id).expect(400);
    expect(above.body.errors[0].message).toContain('above the stop limit');
  });
  it('what is said before a session counts on that day; the run leaves out what is not for today', async () => {
    const { id } = await addAthlete(owner, { name: 'Tarn Lowther' });
    const { body: routine } = await issue(owner, id, TODAY).expect(201);
    const place = `/athletes/${id}/check-ins/${TODAY}`;
    expect((await owner.get(place).expect(200)).body).toMatchObject({ sore: [], version: null });
    const sore = [{ region: 'ankle-foot', side: 'left', nrs: 7 }];
    await owner.put(place, { sore: [...sore, ...sore] }).expect(400);
    await owner.put(place, { sore }).expect(200);
    await owner.put(place, { sore: [] }).expect(409);
    const start = { routineId: routine.id, date: TODAY };
    await owner.create('/sessions', start).expect(422);
    const nothing = await owner.create('/sessions', { ...start, leaveOut: [randomUUID()] }).expect(400);
    expect(nothing.body.errors[0].path).toBe('$.leaveOut[0]');
    const [rock] = routine.items;
    expect(
      (await owner.create('/sessions', { ...start, leaveOut: [rock.id] }).expect(400)).body.errors[0],
    ).toEqual({
      path: '$.leaveOut',
      message: 'nothing is left of the routine today',
    });
    const camel = { ...ROCK, id: randomUUID(), drill: 'cat-camel', side: 'both', setup: {} };
    await owner.put(place, { sore: [], version: 1 }).expect(200);
    const { body: longer } = await issue(owner, id, TODAY, [ROCK, camel]).expect(201);
    await owner.put(place, { sore, version: 2 }).expect(200);
    const other = { routineId: longer.id, date: TODAY };
    await owner.create('/sessions', other).expect(422);
    const { body: session } = await owner.create('/sessions', { ...other, leaveOut: [ROCK.id] }).expect(200);
    expect(session.events).toMatchObject([{ type: 'left-out', items: [ROCK.id], device: 'server' }]);
    const forged = said('left-out', { items: [camel.id] });
    await owner.post(`/sessions/${session.id}/events`, { events: [forged] }).expect(400);
    const events = [said('started'), said('finished')];
    const { body: done } = await owner.post(`/sessions/${session.id}/events`, { events }).expect(200);
    expect(done.entries[0]).toMatchObject({ item: ROCK.id, done: 'none', pain: 0 });
  });
  it('said in the middle of a run ends it as it is, and the rest goes on in another without the drill', async () => {
    const { id } = await addAthlete(owner, { name: 'Dub Lowther' });
    const camel = { ...ROCK, id: randomUUID(), drill: 'cat-camel', side: 'both', setup: {} };
    const { body: routine } = await issue(owner, id, TODAY, [ROCK, camel]).expect(201);
    const start = { routineId: routine.id, date: TODAY };
    const { body: first } = await owner.create('/sessions', start).expect(200);
    const [, reached] = DONE();
    await owner.post(`/sessions/${first.id}/events`, { events: [said('started'), reached] }).expect(200);
    const sore = [{ region: 'ankle-foot', side: 'left', nrs: 7 }];
    await owner.put(`/athletes/${id}/check-ins/${TODAY}`, { sore }).expect(200);
    const { body: second } = await owner.create('/sessions', { ...start, leaveOut: [ROCK.id] }).expect(200);
    expect(second.id).not.toBe(first.id);
    const { body: before } = await owner.get(`/sessions/${first.id}`).expect(200);
    expect(before).toMatchObject({ finished: true, entries: [{ done: 'part' }, { done: 'none' }] });
  });
  it('scores of the movement that hurts are kept with the session and reach the record', async () => {
    const { id } = await addAthlete(owner, { name: 'Force Lowther' });
    const { body: routine } = await issue(owner, id, TODAY).expect(201);
    const { body: session } = await owner
      .create('/sessions', { routineId: routine.id, date: TODAY })
      .expect(200);
    const at = { region: 'ankle-foot', side: 'left' };
    // However many places are scored, the record stays readable.
    const elsewhere = REGIONS.flatMap((region) =>
      ['right', 'central'].map((side) => said('provoked', { region, side, moment: 'before', nrs: 1 })),
    );
    await owner
      .post(`/sessions/${session.id}/events`, {
        events: [
          said('provoked', { ...at, moment: 'before', nrs: 4 }),
          ...DONE(),
          said('provoked', { ...at, moment: 'after', nrs: 2 }),
          ...elsewhere,
        ],
      })
      .expect(200);
    const { provoked } = (await caseOf(id)).diary[0];
    expect(provoked).toContainEqual({ ...at, before: 4, after: 2 });
    expect(provoked).toHaveLength(1 + elsewhere.length);
  });
});
