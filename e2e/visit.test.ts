import { bundledReference } from '@yonder/core/reference/bundled';
import { gradeFromFaults } from '@yonder/core/measure';
import type { Test } from '@yonder/core/reference';
import { describe, expect, it } from 'vitest';
import { atADeskApart } from './driver/atTheDesk.ts';
import { violations } from './driver/violations.ts';
import { eachOf } from '@yonder/core/testing/eachOf';

/** Tests entered in the visit, and trials typed per side. */
const TESTS = 20;
const TRIALS = 2;

const { open, clinician, stored, restart } = await atADeskApart();

/** The test whose entry is open. */
async function openTest(): Promise<Test> {
  await open.page.waitForSelector('#test-title');
  const name = await open.page.$eval('#test-title', (node) => node.textContent ?? '');
  const test = bundledReference.data.tests.find((t) => t.name === name);
  if (!test) throw new Error(`no test "${name}"`);
  return test;
}

/** Plenty on every side, but a stiff left ankle and a weak left calf. */
function valueOf(test: Test, side: string): number {
  if (test.id === 'wblt-distance' && side === 'left') return 4;
  if (test.id === 'heel-raise-reps' && side === 'left') return 9;
  if (test.unit === 'nrs-0-10') return 0;
  const { low, high } = test.reference;
  const whole = ['reps', 'grade-0-3', 'points-0-5'].includes(test.unit);
  const good = test.better === 'lower' ? low : high;
  return whole ? Math.round(good) : Number(good.toFixed(1));
}

/** Enters the open test from its first field to the one behind its last, by the keys a scribe would press. */
async function callOut(test: Test): Promise<void> {
  const heading = test.name;
  for (let keys = 0; keys < 80; keys += 1) {
    const label = await clinician.focused();
    const trial = /^Trial (\d)(?: (\w+))?$/.exec(label);
    const side = trial?.[2] ?? (label.includes('right') ? 'right' : 'left');
    if (trial) {
      const typed = Number(trial[1]) <= TRIALS ? String(valueOf(test, side)) : '';
      await clinician.calls(typed);
    } else if (label.startsWith('Pain')) await clinician.calls('0');
    else if (label.includes(': '))
      await clinician.calls('0'); // a fault: not seen
    else throw new Error(`the keys led to "${label}" in ${heading}`);
    if ((await open.page.$eval('#test-title', (node) => node.textContent)) !== heading) return;
  }
  throw new Error(`${heading} did not end`);
}

/** The focus in the first field of the open test, as after choosing it. */
async function focusFirst(): Promise<void> {
  await open.page.waitForSelector('[data-entry] [data-field]');
  await open.page.focus('[data-entry] [data-field]');
}

const resultsOf = (athlete: string) =>
  stored<{ test: string; side: string; value: { trials?: number[]; grade?: number; faults?: [] } }>(
    `SELECT r.test, r.side, r.value FROM results r JOIN screenings s ON s.id = r.screening_id
     WHERE s.athlete_id = $1 ORDER BY r.created_at`,
    [athlete],
  );

describe('a whole visit', () => {
  it('of 20 tests is entered by keyboard alone, survives a reload and a server restart, and ends in the right ranking', async () => {
    await clinician.opens('/athletes/new');
    await clinician.fills('Name', 'Tessa Windgather');
    await clinician.dates('Birth date', '1999-03-14');
    await clinician.chooses('Sport tasks', 'Steep descent running');
    await clinician.chooses('Sport tasks', 'Steep uphill running');
    await open.page.keyboard.press('Escape');
    await clinician.presses('Add and answer the stop-and-refer questions');
    await clinician.goesThroughTheGate();
    const [athlete] = await stored<{ id: string }>("SELECT id FROM athletes WHERE name = 'Tessa Windgather'");
    const id = athlete?.id ?? '';
    await clinician.opens(`/athletes/${id}/screen?scope=battery&minutes=120`);
    await clinician.goesThroughTheGate();
    await clinician.reads('Proposed visit');

    const entered: Test[] = [];
    await focusFirst();
    for (let n = 0; n < TESTS; n += 1) {
      const test = await openTest();
      entered.push(test);
      await callOut(test);
      if (n === 8) {
        await clinician.reads('Stored.');
        await clinician.reloads();
        expect((await openTest()).id).not.toBe(test.id); // it goes on where it was
        await focusFirst();
      }
      if (n === 13) {
        await clinician.reads('Stored.');
        await restart();
      }
    }
    await clinician.reads('Stored.');
    expect(new Set(entered.map((t) => t.id)).size).toBe(TESTS);

    expect(await violations(open)).toEqual([]);

    const rows = await resultsOf(id);
    expect(rows).toHaveLength(entered.reduce((sum, t) => sum + (t.sides === 'central' ? 1 : 2), 0));
    for (const row of eachOf(rows)) {
      const test = entered.find((t) => t.id === row.test) as Test;
      if (test.gradingRule?.kind === 'fault-count') {
        expect([row.test, row.value.grade]).toEqual([test.id, gradeFromFaults(test, [])]);
        continue;
      }
      const value = valueOf(test, row.side);
      const ordinal = test.unit === 'grade-0-3' || test.unit === 'points-0-5';
      if (ordinal) expect([row.test, row.value.grade]).toEqual([test.id, value]);
      else {
        const typed = Array.from({ length: Math.min(TRIALS, test.trials.count) }, () => value);
        expect([row.test, row.value.trials]).toEqual([test.id, typed]);
      }
    }

    await clinician.walksTo('Ridge');
    await clinician.reads('Where the reserve runs out');
    const ranked = await open.page.$$eval('table[aria-label="Ranked restrictions"] tbody tr', (list) =>
      list.slice(0, 3).map((row) => row.querySelector('th')?.textContent ?? ''),
    );
    expect(new Set(ranked)).toEqual(
      new Set(['Calf endurance, left', 'Calf strength, left', 'Ankle dorsiflexion range, left']),
    );
    // The restart itself leaves requests without an answer; nothing else went wrong.
    expect(open.errors.filter((error) => !error.includes('net::ERR'))).toEqual([]);
    expect([...open.strangers]).toEqual([]);
  });
});
