import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { bundledReference } from '@yonder/core/reference/bundled';
import { reduceSession } from '@yonder/core/session';
import { addAthlete, createTestApp, ROCK, said, TODAY } from '../../testing/testApp.ts';
import type { Client, TestApp } from '../../testing/testApp.ts';

let app: TestApp;
let north: Client;
beforeAll(async () => {
  app = await createTestApp();
  north = await app.signIn();
});
afterAll(() => app.close());

const line = (drill: string, over: object = {}) => ({
  ...ROCK,
  id: randomUUID(),
  drill,
  side: 'both',
  setup: {},
  ...over,
});
const WALK = line('brisk-walk-build', { measure: 'seconds', sets: 1, amount: 150 });
const HEEL = line('single-leg-heel-raise', { sets: 3, amount: 10 });
const HOPS = line('pogo-hop', { measure: 'contacts', sets: 1, amount: 10 });

async function arranged(checkIn: object | null, items: object[] = [WALK, HEEL]) {
  const { id } = await addAthlete(north, { trainingYears: 6 });
  const overrides = items.map((item) => ({
    item: (item as { id: string }).id,
    rule: 'not-at-hand',
    why: 'seen today',
  }));
  const body = {
    on: TODAY,
    mode: 'prepare',
    structure: 'two-block-general-to-specific',
    request: { kit: ['step', 'wall'] },
    items,
    overrides,
  };
  const routine = (await north.create(`/athletes/${id}/routines`, body).expect(201)).body;
  if (checkIn)
    await north.put(`/athletes/${id}/check-ins/${TODAY}`, { ...checkIn, version: null }).expect(200);
  const start = (over: object = {}) =>
    north.create('/sessions', { routineId: routine.id, date: TODAY, adapt: true, ...over });
  return { id, routine, start };
}

describe('a session by what was said before it', () => {
  it('is done by today’s copy; the issued version stays, and what comes in has an id of its own', async () => {
    const { routine, start, id } = await arranged({ slept: 'badly', tension: 'tense', sore: [] });
    const { body } = await start().expect(200);
    expect(body.items[0]).toMatchObject({ drill: 'seated-breathing-reset', amount: 60 });
    expect(body.items[1]).toMatchObject({ id: WALK.id, amount: 195 });
    expect(body.changes.map((c: { id: string }) => c.id)).toEqual(['calm-start', `ramp/${WALK.id}`]);
    const [stored] = await app.stored<{ items: { amount: number }[] }>(
      'SELECT items FROM routines WHERE id = $1',
      [routine.id],
    );
    expect(stored?.items[0]?.amount).toBe(150);
    expect((await north.get(`/athletes/${id}/sessions`)).body.items[0].items).toHaveLength(3);
  });
  it('what is put back is as issued; without being asked for, or without a check-in, nothing changes', async () => {
    const told = { slept: 'badly', tension: 'tense', sore: [] };
    const back = await (await arranged(told)).start({ undone: ['calm-start'] }).expect(200);
    expect(back.body.items).toHaveLength(2);
    expect((await (await arranged(told)).start({ adapt: false }).expect(200)).body.items).toBeNull();
    expect((await (await arranged(null)).start().expect(200)).body.items).toBeNull();
  });
  it('is begun by the copy that was shown, and by no other', async () => {
    const told = { slept: 'badly', tension: 'tense', sore: [] };
    const { body: seen } = await (await arranged(told)).start().expect(200);
    const { start } = await arranged(told);
    const fewer = await start({ shown: seen.changes.slice(1) }).expect(409);
    expect(fewer.body.code).toBe('proposal-changed');
    expect(fewer.body.current.map((c: { id: string }) => c.id)).toEqual(
      seen.changes.map((c: { id: string }) => c.id),
    );
    await start({ shown: [] }).expect(409);
    await start({ shown: fewer.body.current }).expect(200);
  });
  it('what the day keeps out is out whatever is put back, and less than issued counts as a part of it', async () => {
    const heel = { region: 'ankle-foot', side: 'left', aspect: 'back', feel: 'ache', nrs: 4 };
    const { start } = await arranged({ sore: [heel] }, [WALK, HEEL, HOPS]);
    const { body } = await start({ undone: [`out/${HOPS.id}`, `eased/${HEEL.id}`] }).expect(200);
    const left = body.events.find((e: { type: string }) => e.type === 'left-out');
    expect(left.items).toContain(HOPS.id);
    const own = body.items.find((i: { id: string }) => i.id === HEEL.id);
    expect(own.sets).toBeLessThanOrEqual(2);
    const { segments: timeline } = reduceSession(bundledReference, body.items, body.events);
    const segments = timeline.map((_, i) => i);
    const events = [
      said('started'),
      ...segments.map((segment) =>
        said('reached', { item: HEEL.id, segment, set: 1, side: 'left', amount: 5 }),
      ),
      said('finished'),
    ];
    const done = (await north.post(`/sessions/${body.id}/events`, { events }).expect(200)).body;
    expect(done.entries.find((e: { item: string }) => e.item === HEEL.id).done).toBe('part');
  });
  it('said twice at once, one of both is stored and the other told; what is none of it is refused at its place', async () => {
    const { id } = await arranged({ minutes: 8, sore: [] });
    const put = (body: object) => north.put(`/athletes/${id}/check-ins/${TODAY}`, body);
    await put({ minutes: 5, sore: [], version: null }).expect(409);
    const refused = await put({ minutes: 0, slept: 'like a log', sore: [], version: 1 }).expect(400);
    expect(refused.body.errors.map((e: { path: string }) => e.path).sort()).toEqual(['$.minutes', '$.slept']);
  });
  it('a session started by a copy goes on by it, whoever starts again', async () => {
    const { start } = await arranged({ tension: 'very-tense', sore: [] });
    const first = (await start().expect(200)).body;
    const again = (await start({ adapt: false }).expect(200)).body;
    expect(again.id).toBe(first.id);
    expect(again.items).toEqual(first.items);
  });
});
