import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addAthlete, createTestApp, screenAnkles } from '../testing/testApp.ts';
import type { Client, TestApp } from '../testing/testApp.ts';
import { inPractice } from '../work/unit.ts';
import { workOutLater } from './summaries.ts';

let app: TestApp;
let north: Client;
let practice: string;
beforeAll(async () => {
  app = await createTestApp();
  north = await app.signIn();
  practice = (await app.stored<{ id: string }>("SELECT id FROM practices WHERE name = 'north'"))[0]?.id ?? '';
});
afterAll(() => app.close());

const waiting = () =>
  app.stored<{ payload: object }>('SELECT payload FROM graphile_worker._private_jobs ORDER BY id');
const lines = () => app.stored<{ athlete_id: string }>('SELECT athlete_id FROM athlete_summaries');

describe('working lines out later', () => {
  it('is asked for once however often, says nothing of anybody, and is done once', async () => {
    const { id } = await addAthlete(north, { name: 'Bram Tollgate' });
    await screenAnkles(north, id, '2027-02-20');
    for (let n = 0; n < 5; n += 1) await inPractice(app.deps, practice, workOutLater);
    const jobs = await waiting();
    expect(jobs).toEqual([{ payload: { practiceId: practice } }]);
    await app.runJobs();
    expect(await waiting()).toEqual([]);
    expect(await lines()).toEqual([{ athlete_id: id }]);
  });

  it('is not done when the unit that asked for it fails', async () => {
    const failing = inPractice(app.deps, practice, async (unit) => {
      await workOutLater(unit);
      throw new Error('something else went wrong');
    });
    await expect(failing).rejects.toThrow('something else');
    expect(await waiting()).toEqual([]);
  });

  it('finds nothing to do when nothing changed, and only what did', async () => {
    await inPractice(app.deps, practice, workOutLater);
    await app.runJobs();
    const stamp = () => app.stored('SELECT athlete_id, xmin::text FROM athlete_summaries ORDER BY 1');
    const before = await stamp();
    const other = await addAthlete(north, { name: 'Wren Hollis' });
    await inPractice(app.deps, practice, workOutLater);
    await app.runJobs();
    const after = await stamp();
    expect(after).toHaveLength(before.length + 1);
    expect(after).toEqual(expect.arrayContaining(before));
    expect((await lines()).map((line) => line.athlete_id)).toContain(other.id);
  });
});
