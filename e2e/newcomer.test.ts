import { describe, expect, it } from 'vitest';
import { atTheDesk } from './driver/atTheDesk.ts';

const { open, clinician, stored } = await atTheDesk();

/** Presses, keys and pages of a newcomer's job, counted by the page itself. */
async function counting(): Promise<void> {
  await open.page.evaluateOnNewDocument(() => {
    const kept = JSON.parse(sessionStorage.getItem('counts') ?? '{"presses":0,"keys":0}') as {
      presses: number;
      keys: number;
    };
    const add = (what: 'presses' | 'keys') => {
      kept[what] += 1;
      sessionStorage.setItem('counts', JSON.stringify(kept));
    };
    addEventListener('click', (event) => event.isTrusted && add('presses'), true);
    addEventListener('keydown', () => add('keys'), true);
  });
}
const counts = () =>
  open.page.evaluate(
    () => JSON.parse(sessionStorage.getItem('counts') ?? '{}') as { presses: number; keys: number },
  );

describe('a newcomer', () => {
  it('gets from a new athlete through the gate to a first issued routine in few presses', async () => {
    await counting();
    await clinician.reloads();
    const start = Date.now();
    await clinician.presses('Add athlete', 'link');
    await clinician.types('Name', 'Bryn Oakfell');
    await clinician.types('Birth date', '14.3.1999');
    await open.page.keyboard.press('Tab');
    await clinician.chooses('Sport tasks', 'Steep descent running');
    await open.page.keyboard.press('Escape');
    await clinician.presses('Add and answer the stop-and-refer questions');
    const topics = await clinician.goesThroughTheGate();
    await clinician.walksTo('Routine');
    await clinician.presses('Choose drills');
    await clinician.reads('Proven');
    // Drills of regions that the sport does not ask about bring their own questions in.
    const ask = await open.page.$('main [role="alert"] a');
    if (ask) {
      await ask.click();
      await clinician.goesThroughTheGate();
    }
    await clinician.presses('Issue version 1');
    await clinician.reads('Version 1 is issued');
    const { presses, keys } = await counts();
    const [row] = await stored<{ items: unknown[] }>(
      "SELECT r.items FROM routines r JOIN athletes a ON a.id = r.athlete_id WHERE a.name = 'Bryn Oakfell'",
    );
    expect(row?.items.length).toBeGreaterThan(2);
    // eslint-disable-next-line no-console -- the counts are what the walk is for
    console.info(
      `newcomer: ${presses} presses, ${keys} keys, ${topics} topics, ${Math.round((Date.now() - start) / 1000)} s by machine`,
    );
    // The typed words apart (a name, a day, a search), it takes about as many presses as there are things to decide.
    expect(presses).toBeLessThanOrEqual(20);
    expect(keys).toBeLessThanOrEqual(80);
  });
});
