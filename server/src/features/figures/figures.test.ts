import type { FigureEffect } from '@yonder/core/contracts';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addAthlete, ATHLETE, createTestApp, screenAnkles, TODAY } from '../../testing/testApp.ts';
import type { Client, TestApp } from '../../testing/testApp.ts';

let app: TestApp;
let north: Client;
let south: Client;
let athlete: string;
beforeAll(async () => {
  app = await createTestApp();
  north = await app.signIn();
  south = await app.signIn('south');
  athlete = (await addAthlete(north, { tasks: [] })).id;
  await screenAnkles(north, athlete, '2027-02-20');
});
afterAll(() => app.close());

const floor = (value: number, reason = 'our own runners') => ({
  test: 'wblt-distance',
  path: 'deficitBelow',
  value,
  reason,
});
const overridesOf = async (client: Client, id: string) =>
  (await client.get(`/athletes/${id}/case`).expect(200)).body.case.overrides;

interface Edits {
  edits: { id: string }[];
}
const setBack = (client: Client, { edits: [first] }: Edits, reason = 'measured anew') =>
  client.post(`/figures/edits/${first?.id ?? ''}/end`, { reason, version: 1 });

describe('an edited figure', () => {
  it('is judged by at once, marked with who, when and the old value, and can be set back', async () => {
    const { body } = await north.create('/figures/edits', floor(12)).expect(201);
    expect(body.edits[0]).toMatchObject({
      value: 12,
      oldValue: 9,
      by: 'R. Halloran',
      date: TODAY,
      ended: null,
    });
    expect((await overridesOf(north, athlete)).reference).toMatchObject([
      { path: 'deficitBelow', value: 12 },
    ]);
    const again = await north.create('/figures/edits', floor(11)).expect(201);
    expect(again.body.edits.filter((e: { ended: object | null }) => !e.ended)).toHaveLength(1);
    expect(again.body.edits[0]).toMatchObject({ value: 11, oldValue: 12 });
    const bare = await setBack(north, again.body, ' ').expect(400);
    expect(bare.body.errors[0].path).toBe('$.reason');
    const back = await setBack(north, again.body).expect(200);
    expect(back.body.edits.map((e: { ended: object | null }) => e.ended)).toEqual([
      { by: 'R. Halloran', date: TODAY, reason: 'measured anew' },
      { by: 'R. Halloran', date: TODAY, reason: null },
    ]);
    expect((await overridesOf(north, athlete)).reference).toEqual([]);
    await setBack(north, again.body).expect(404);
  });

  it('belongs to its practice alone', async () => {
    const { body } = await north.create('/figures/edits', floor(10)).expect(201);
    expect((await south.get('/figures').expect(200)).body.edits).toEqual([]);
    await setBack(south, body).expect(404);
    const stranger = await addAthlete(south);
    expect((await overridesOf(south, stranger.id)).reference).toEqual([]);
    await setBack(north, body).expect(200);
  });

  it.each([
    [{ ...floor(300) }, '$.value'],
    [{ ...floor(10, '') }, '$.reason'],
    [{ ...floor(10), path: 'name' }, '$.path'],
    [{ ...floor(10), test: 'moon-walk' }, '$.test'],
    [{ ...floor(0), path: 'sem' }, '$.value'],
    [{ ...floor(11), path: 'demand', task: 'double-poling' }, '$.task'],
  ])('%o is refused at %s', async (body, path) => {
    const refused = await north.create('/figures/edits', body).expect(400);
    expect(refused.body.errors.map((e: { path: string }) => e.path)).toContain(path);
  });

  it('says beforehand whose findings would change, and stores nothing', async () => {
    const preview = (value: number) => north.post('/figures/preview', { set: [floor(value)] }).expect(200);
    const { body } = await preview(14);
    expect(body.judged).toBeGreaterThan(0);
    expect(body.changed.map((c: { name: string }) => c.name)).toContain(ATHLETE.name);
    const right = body.changed[0].changes.find((c: { side: string }) => c.side === 'right');
    expect(right).toMatchObject({ restriction: 'ankle-dorsiflexion-limit', to: 'short' });
    expect((await preview(9)).body.changed).toEqual([]);
    expect((await overridesOf(north, athlete)).reference).toEqual([]);
  });

  it('says as well what setting a figure back would change', async () => {
    const { body: set } = await north.create('/figures/edits', floor(14)).expect(201);
    const { body } = await north.post('/figures/preview', { unset: [set.edits[0].id] }).expect(200);
    const own = body.changed.find((c: { athleteId: string }) => c.athleteId === athlete);
    const right = own.changes.find((c: { side: string }) => c.side === 'right');
    expect(right).toMatchObject({ restriction: 'ankle-dorsiflexion-limit', from: 'short', to: 'enough' });
    await setBack(north, set).expect(200);
  });
});

describe('a look at many athletes', () => {
  it('comes in parts that together hold everybody once', async () => {
    for (let n = 0; n < 55; n += 1) await addAthlete(north, { name: `Walker ${n}`, tasks: [] });
    const late = await addAthlete(north, { name: 'Zz Last', tasks: [] });
    await screenAnkles(north, late.id, '2027-02-20');
    let from: number | null = 0;
    let judged = 0;
    let total = -1;
    const changed: string[] = [];
    const answers: number[] = [];
    while (from !== null) {
      const answer = await north.post('/figures/preview', { set: [floor(14)], from }).expect(200);
      const body = answer.body as FigureEffect;
      judged += body.judged;
      total = body.total;
      answers.push(body.judged);
      changed.push(...body.changed.map((c) => c.athleteId));
      from = body.next;
    }
    expect(judged).toBe(total);
    expect(answers.length).toBeGreaterThan(1);
    expect(changed).toContain(late.id);
    expect(new Set(changed).size).toBe(changed.length);
    await north.post('/figures/preview', { set: [floor(14)], from: -1 }).expect(400);
  });
});

describe('pain limits of the practice', () => {
  it('reach the case, on the version they were read at', async () => {
    const { version } = (await north.get('/figures').expect(200)).body;
    const put = (fine: number, stop: number, at = version) =>
      north.put('/figures/pain-limits', {
        painLimits: { fine, stop },
        version: at,
        why: 'adults in rehabilitation',
      });
    expect((await put(4, 3).expect(400)).body.errors[0].path).toBe('$.painLimits.stop');
    expect((await put(5, 6).expect(400)).body.errors[0].path).toBe('$.painLimits.fine');
    expect((await put(4, 10).expect(400)).body.errors[0].path).toBe('$.painLimits.stop');
    await put(1, 4).expect(200);
    expect((await overridesOf(north, athlete)).painLimits).toEqual({ fine: 1, stop: 4 });
    await put(2, 4).expect(409);
    await north.put('/figures/pain-limits', { painLimits: null, version: version + 1 }).expect(400);
    const back = { painLimits: null, version: version + 1, why: 'season begins' };
    await north.put('/figures/pain-limits', back).expect(200);
    expect((await overridesOf(north, athlete)).painLimits).toBeNull();
  });
});

describe('a task of the practice’s own', () => {
  const task = {
    name: 'Gully jumps',
    sport: 'fell running',
    demands: [{ test: 'heel-raise-reps', value: 35, side: 'both' }],
  };

  it('can be given to athletes and makes a need; removing it waits until nobody has it', async () => {
    const { body } = await north.create('/figures/tasks', task).expect(201);
    const [own] = body.tasks;
    const jumper = await addAthlete(north, { tasks: [{ id: own.id, lead: 'either' }] });
    expect((await overridesOf(north, jumper.id)).tasks).toMatchObject([
      { id: own.id, demands: task.demands },
    ]);
    await south.create('/athletes', { ...ATHLETE, tasks: [{ id: own.id, lead: 'either' }] }).expect(400);
    const refused = await north.delete(`/figures/tasks/${own.rowId}?version=1`).expect(409);
    expect(refused.body).toMatchObject({ code: 'in-use', detail: expect.stringContaining(ATHLETE.name) });
    await north.put(`/athletes/${jumper.id}`, { ...ATHLETE, tasks: [], version: 1 }).expect(200);
    await north.delete(`/figures/tasks/${own.rowId}?version=1`).expect(200);
  });

  it('keeps its id when its name is taken or changes; a stale change is told', async () => {
    const first = (await north.create('/figures/tasks', task).expect(201)).body.tasks[0];
    const both = (await north.create('/figures/tasks', task).expect(201)).body.tasks;
    expect(new Set(both.map((t: { id: string }) => t.id)).size).toBe(2);
    const renamed = { ...task, name: 'Gully leaps', version: 1 };
    const { body } = await north.put(`/figures/tasks/${first.rowId}`, renamed).expect(200);
    expect(body.tasks.find((t: { rowId: string }) => t.rowId === first.rowId)).toMatchObject({
      id: first.id,
      name: 'Gully leaps',
      version: 2,
    });
    await north.put(`/figures/tasks/${first.rowId}`, renamed).expect(409);
    const faulty = { ...task, demands: [{ test: 'heel-raise-reps', value: 3500 }] };
    expect((await north.create('/figures/tasks', faulty).expect(400)).body.errors[0].path).toBe(
      '$.demands[0].value',
    );
  });
});
