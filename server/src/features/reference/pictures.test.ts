import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { solvedFigureSchema } from '@yonder/core/figure';
import { bundledReference } from '@yonder/core/reference/bundled';
import { createTestApp } from '../../testing/testApp.ts';
import type { Client, TestApp } from '../../testing/testApp.ts';
import { eachOf } from '@yonder/core/testing/eachOf';

let app: TestApp;
let north: Client;
let version: string;
beforeAll(async () => {
  app = await createTestApp();
  north = await app.signIn();
  version = (await north.get('/reference').expect(200)).body.pictures;
});
afterAll(() => app.close());

describe('pictures', () => {
  it('come by ladder, one for each drill, and are kept for good under their version', async () => {
    const ladder = bundledReference.data.ladders.find(({ id }) => id === 'calf-strength');
    const { body, headers } = await north.get(`/reference/pictures/${version}/calf-strength`).expect(200);
    expect(Object.keys(body)).toEqual(ladder?.drills);
    for (const figure of eachOf(Object.values(body)))
      expect(solvedFigureSchema.safeParse(figure).success).toBe(true);
    expect(headers['cache-control']).toContain('immutable');
    expect(JSON.stringify(body).length).toBeLessThan(40_000);
  });
  it('of the tests come together, one for each', async () => {
    const { body } = await north.get(`/reference/pictures/${version}/tests`).expect(200);
    expect(Object.keys(body).sort()).toEqual(
      bundledReference.data.tests.map(({ id }) => `test-${id}`).sort(),
    );
  });
  it('of another version or ladder are not there', async () => {
    await north.get('/reference/pictures/other/calf-strength').expect(404);
    for (const ladder of ['moon', '__proto__', '%00', '..%2F..', 'x'.repeat(80)])
      await north.get(`/reference/pictures/${version}/${ladder}`).expect((response) => {
        expect([400, 404]).toContain(response.status);
      });
  });
});
