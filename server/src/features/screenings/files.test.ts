import Papa from 'papaparse';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addAthlete, saySign, createTestApp, screenAnkles } from '../../testing/testApp.ts';
import type { Client, TestApp } from '../../testing/testApp.ts';

let app: TestApp;
let north: Client;
let south: Client;
beforeAll(async () => {
  app = await createTestApp();
  north = await app.signIn();
  south = await app.signIn('south');
});
afterAll(() => app.close());

const row = (athleteId: string, over: object = {}, date = '2027-02-01') => ({
  athleteId,
  date,
  result: { test: 'wblt-distance', side: 'left', trials: [7, 7.2], ...over },
});
const visits = async (id: string) => (await north.get(`/athletes/${id}/screenings`).expect(200)).body.items;

describe('an import of screenings', () => {
  it('makes a visit per athlete and day, and puts results into a visit that is there', async () => {
    const { id } = await addAthlete(north);
    await screenAnkles(north, id, '2027-02-01');
    const rows = [
      row(id, { trials: [9, 9.2] }),
      row(id, { test: 'single-leg-balance-ec', trials: [8] }),
      row(id, { side: 'right' }, '2026-12-01'),
    ];
    const { body } = await north.create('/screenings/import', { rows }).expect(201);
    expect(body).toEqual({ results: 3, visits: 2, athletes: 1, replaced: 1, unchanged: 0 });
    const [newest, older] = await visits(id);
    const lunge = newest.results.find(
      (r: { test: string; side: string }) => r.test === 'wblt-distance' && r.side === 'left',
    );
    expect(lunge).toMatchObject({ trials: [9, 9.2], version: 2 });
    expect(newest.results).toHaveLength(5);
    expect(older).toMatchObject({ date: '2026-12-01', finished: true });
  });

  it('stores all rows or none, and names each faulty one at its place in the file', async () => {
    const { id } = await addAthlete(north);
    const rows = [
      row(id),
      row(id, { trials: [99] }, '2027-02-02'),
      row(id, { side: 'right' }, '2027-02-01'),
      row(id, {}, '2027-03-05'),
    ];
    const late = await north.create('/screenings/import', { rows }).expect(400);
    expect(late.body.errors).toEqual([
      { path: '$.rows[3].date', message: '2027-03-05 is after today, 2027-03-01' },
    ]);
    const implausible = await north.create('/screenings/import', { rows: rows.slice(0, 2) }).expect(400);
    expect(implausible.body.errors).toEqual([
      { path: '$.rows[1].result.trials[0]', message: '99 cm is outside -5 to 25 cm' },
    ]);
    expect(await visits(id)).toEqual([]);
  });

  it('refuses a place that stands in the file twice', async () => {
    const { id } = await addAthlete(north);
    const { body } = await north.create('/screenings/import', { rows: [row(id), row(id)] }).expect(400);
    expect(body.errors).toEqual([
      { path: '$.rows[1].result', message: 'stands in row 1 of the file already' },
    ]);
    expect(await visits(id)).toEqual([]);
  });

  it('refuses tests under an open stop sign, and athletes of another practice', async () => {
    const { id } = await addAthlete(north);
    await south.create('/screenings/import', { rows: [row(id)] }).expect(400);
    await saySign(north, id, 'foot-locking').expect(201);
    const { body } = await north.create('/screenings/import', { rows: [row(id)] }).expect(422);
    expect(body.errors[0].path).toBe('$.rows[0].result.test');
    expect(await visits(id)).toEqual([]);
  });
});

describe('an export of screenings', () => {
  it('holds the practice’s own results in the columns that are read back', async () => {
    const { id } = await addAthlete(north, { name: '=HYPERLINK("x")' });
    await screenAnkles(north, id, '2027-02-20');
    const all = await north.get('/screenings.csv').expect(200);
    expect(all.headers['content-type']).toContain('text/csv');
    const { data } = Papa.parse<Record<string, string>>(
      (await north.get(`/screenings.csv?athlete=${id}`).expect(200)).text,
      { header: true },
    );
    expect(data).toHaveLength(4);
    expect(
      data.find((r) => r.test === 'Weight-bearing lunge test, toe-to-wall distance' && r.side === 'left'),
    ).toMatchObject({
      date: '2027-02-20',
      'trial 1': '7',
      'trial 3': '7.1',
    });
    expect(data[0]?.athlete).toBe('\'=HYPERLINK("x")'); // no formula
    expect((await south.get('/screenings.csv').expect(200)).text).not.toContain('2027-02-20');
  });
});
