import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addAthlete, saySign, createTestApp, screenAnkles } from '../../testing/testApp.ts';
import type { Client, TestApp } from '../../testing/testApp.ts';

let app: TestApp;
let north: Client;
beforeAll(async () => {
  app = await createTestApp();
  north = await app.signIn();
});
afterAll(() => app.close());

interface Listed {
  id: string;
  judged: boolean;
  blocked: boolean;
  reviewsDue: number;
  restrictions: { restriction: string; side: string; severity: number }[];
  real: { better: number; worse: number };
}
const list = async () =>
  (await north.get('/athletes').expect(200)).body as { items: Listed[]; pending: number };
const listed = async (id: string) => (await list()).items.find((a) => a.id === id) as Listed;
const severity = async (id: string) =>
  (await listed(id)).restrictions.find(
    (r) => r.restriction === 'ankle-dorsiflexion-limit' && r.side === 'left',
  )?.severity ?? 0;

describe('a kept summary', () => {
  it('follows every kind of change: result, need, figure, judgement, task', async () => {
    const { id } = await addAthlete(north, { tasks: [] });
    const visit = await screenAnkles(north, id, '2027-02-20', [8, 8, 8]);
    const first = await severity(id);
    expect(first).toBeGreaterThan(0);
    const version = (await north.get(`/athletes/${id}/screenings`)).body.items[0].results.find(
      (r: { test: string; side: string }) => r.test === 'wblt-distance' && r.side === 'left',
    ).version;
    await north
      .put(`/screenings/${visit}/results/wblt-distance/left`, { trials: [6, 6, 6], version })
      .expect(200);
    const worse = await severity(id);
    expect(worse).toBeGreaterThan(first);
    await north.put(`/athletes/${id}/needs/wblt-distance/left`, { value: 5, reason: 'enough for them' });
    const eased = await severity(id);
    expect(eased).toBeLessThan(worse);
    await north.delete(`/athletes/${id}/needs/wblt-distance/left?version=1`).expect(200);
    expect(await severity(id)).toBe(worse);
    const figure = { test: 'wblt-distance', path: 'deficitBelow', value: 5, reason: 'our runners' };
    const { body } = await north.create('/figures/edits', figure).expect(201);
    expect(await severity(id)).toBeLessThan(worse);
    await north.post(`/figures/edits/${body.edits[0].id}/end`, { reason: 'back', version: 1 }).expect(200);
    const aside = {
      restriction: 'ankle-dorsiflexion-limit',
      side: 'left',
      verdict: 'dismissed',
      reason: 'bony',
    };
    await north.create(`/athletes/${id}/judgements`, aside).expect(201);
    expect(await severity(id)).toBe(0);
  });

  it('is not worked out again while nothing changed', async () => {
    await list();
    const stamps = () =>
      app.stored('SELECT athlete_id, xmin::text FROM athlete_summaries ORDER BY athlete_id');
    const before = await stamps();
    expect(before.length).toBeGreaterThan(0);
    await list();
    expect(await stamps()).toEqual(before);
  });

  it('counts what really changed since the last time', async () => {
    const { id } = await addAthlete(north);
    await screenAnkles(north, id, '2027-01-20', [6, 6, 6]);
    await screenAnkles(north, id, '2027-02-20', [9, 9, 9]);
    expect((await listed(id)).real).toEqual({ better: 1, worse: 0 });
  });

  it('never shows findings under an emergency sign, whatever is kept', async () => {
    const { id } = await addAthlete(north);
    await screenAnkles(north, id, '2027-02-20');
    expect((await listed(id)).restrictions.length).toBeGreaterThan(0);
    await saySign(north, id, 'gen-cauda').expect(201);
    expect(await listed(id)).toMatchObject({ blocked: true, restrictions: [], ridge: [], rescreenDue: null });
  });
});

describe('many athletes', () => {
  it('are answered at once; those still to be judged are said and follow by themselves', async () => {
    for (let n = 0; n < 40; n += 1) await addAthlete(north, { name: `Runner ${n}` });
    const first = await list();
    expect(first.pending).toBeGreaterThan(0);
    expect(first.items.filter((a) => !a.judged)).toHaveLength(first.pending);
    await app.runJobs();
    const last = await list();
    expect(last.pending).toBe(0);
    expect(last.items.every((a) => a.judged)).toBe(true);
  });
});
