import type { ElementHandle } from 'puppeteer-core';
import { describe, expect, it } from 'vitest';
import { atTheDesk } from './driver/atTheDesk.ts';

const { open, clinician, ids, stored } = await atTheDesk();

const names = () =>
  open.page.$$eval('tbody tr:not([data-spacer]) td:first-child a', (links) =>
    links.map((a) => a.textContent ?? ''),
  );
const pickTest = async (name: string) => {
  await open.page.waitForSelector('ol button');
  await open.page.evaluate((wanted: string) => {
    const tests = [...document.querySelectorAll<HTMLElement>('ol button')];
    tests.find((b) => b.innerText.startsWith(wanted))?.click();
  }, name);
  await open.page.waitForFunction(
    (wanted: string) => document.querySelector('#test-title')?.textContent?.startsWith(wanted),
    {},
    name,
  );
};
const resultOf = async (athlete: string, test: string, side: string) => {
  const [row] = await stored<{ value: Record<string, unknown> }>(
    `SELECT r.value FROM results r JOIN screenings s ON s.id = r.screening_id
     WHERE s.athlete_id = $1 AND r.test = $2 AND r.side = $3 ORDER BY s.date DESC LIMIT 1`,
    [ids.get(athlete), test, side],
  );
  return row?.value;
};

describe('the athletes list', () => {
  it('sorts by what is worst and filters, and an address shows the same again', async () => {
    await clinician.opens('/athletes');
    await clinician.reads('24 of 24');
    const byName = await names();
    expect(byName).toEqual([...byName].sort());
    await clinician.presses('Sort by shortest first');
    await open.page.waitForSelector('th[aria-sort="descending"]');
    const byWorst = await names();
    expect(byWorst).not.toEqual(byName);
    const label = await open.page.$$eval('input[type=checkbox]', (boxes) =>
      boxes.map((b) => b.closest('div')?.textContent ?? '').find((t) => t.startsWith('Under 16')),
    );
    await clinician.ticks(label ?? '');
    await clinician.reads('2 of 24');
    const young = await names();
    const [{ count }] = (await stored<{ count: number }>(
      `SELECT count(*)::int AS count FROM athletes WHERE birth_date > current_date - interval '16 years'`,
    )) as [{ count: number }];
    expect(young).toHaveLength(count);
    await clinician.reloads();
    await clinician.reads('2 of 24');
    expect(await names()).toEqual(young);
  });
});

describe('a task of the practice’s own', () => {
  it('can be given to an athlete and shows as what asks for it on the ridge', async () => {
    await clinician.opens('/figures');
    await clinician.presses('Own sport tasks', 'tab');
    await clinician.presses('Add task');
    await clinician.fills('Name of the task', 'Gully jumps');
    await clinician.chooses('Test 1', 'Single-leg heel-raise endurance');
    await clinician.fills('Asked of test 1', '44');
    await clinician.presses('Save task');
    await clinician.reads('Gully jumps');
    await clinician.opens(`/athletes/${ids.get('Hale Overbeck')}/story`);
    await clinician.chooses('Sport tasks', 'Gully jumps');
    await open.page.keyboard.press('Escape');
    await clinician.presses('Save changes');
    await clinician.reads('Saved.');
    await clinician.opens(`/athletes/${ids.get('Hale Overbeck')}/ridge?region=ankle-foot`);
    await clinician.reads('44 reps');
    await clinician.reads('Gully jumps');
    const [task] = await stored<{ slug: string; demands: object[] }>(
      'SELECT slug, demands FROM practice_tasks',
    );
    expect(task).toEqual({
      slug: 'own-gully-jumps',
      demands: [{ test: 'heel-raise-reps', value: 44, side: 'both' }],
    });
  });
});

describe('pain limits of the practice', () => {
  it('are what the runner says', async () => {
    await clinician.opens('/figures');
    await clinician.presses('Pain limits', 'tab');
    await clinician.fills('Stop above', '4');
    await clinician.fills('Why', 'adults in rehabilitation');
    await clinician.presses('Save pain limits');
    await clinician.reads('The practice’s own limits hold.');
    const [row] = await stored<{ pain_limits: object }>('SELECT pain_limits FROM practices');
    expect(row?.pain_limits).toEqual({ fine: 2, stop: 4 });
    await clinician.opens(`/athletes/${ids.get('Mira Oldtown')}/run`);
    await clinician.startsTheRun();
    await clinician.reads('hurts more than 4/10');
  });
});

describe('screening by eye and by device', () => {
  it('two raters are set side by side and both are stored', async () => {
    await clinician.opens(`/athletes/${ids.get('Mira Oldtown')}/screen?region=knee`);
    await clinician.hasNothingNew();
    await pickTest('Lateral step-down quality');
    await clinician.presses('Knee moves inside the big toe, left: not looked at');
    await clinician.reads('grade 2');
    await clinician.presses('Compare a second rater');
    await open.page.type('input[placeholder="name"]', 'K. Moss');
    await clinician.presses('Pelvis drops on the free side, left, second rater: not looked at');
    await clinician.reads(/Raters, left: grade 2 and 2, 67 % of the faults marked alike/);
    await clinician.reads('Stored.');
    expect(await resultOf('Mira Oldtown', 'step-down-quality', 'left')).toMatchObject({
      grade: 2,
      faults: [{ id: 'knee-in', mark: 'slight' }],
      second: { by: 'K. Moss', faults: [{ id: 'pelvis-drop', mark: 'slight' }] },
    });
  });

  it('an angle is captured when it holds still, without a press', async () => {
    await clinician.opens(`/athletes/${ids.get('Mira Oldtown')}/screen?region=ankle-foot`);
    await clinician.hasNothingNew();
    await pickTest('Weight-bearing lunge test, shin angle');
    await clinician.presses('Capture from inclinometer');
    await clinician.reads('simulated');
    await clinician.presses('Record');
    await clinician.reads('steady');
    const take = await open.page.evaluateHandle(() =>
      [...document.querySelectorAll('button')].find((b) => b.innerText.startsWith('Take ')),
    );
    const shown = await (take as ElementHandle<HTMLElement>).evaluate((b) => b.innerText);
    await (take as ElementHandle<HTMLElement>).click();
    await clinician.reads('Stored.');
    const value = (await resultOf('Mira Oldtown', 'wblt-angle', 'left')) as { trials: number[] };
    expect(shown).toBe(`Take ${value.trials[0]?.toFixed(1)}° into left, trial 1`);
  });

  it('pain with its place and feel suggests what to look at, on the ridge', async () => {
    await clinician.opens(`/athletes/${ids.get('Mira Oldtown')}/screen?region=ankle-foot`);
    await clinician.hasNothingNew();
    await pickTest('Weight-bearing lunge test, toe-to-wall');
    await open.page.focus('[data-entry] [data-field]');
    for (const value of ['7.4', '7.5', '7.4', '2']) await clinician.calls(value);
    expect(await clinician.focused()).toBe('Trial 1 right'); // the place is offered, never in the way
    await open.page.select('select[aria-label="Where it hurts left"]', 'front');
    await open.page.select('select[aria-label="How it feels left"]', 'pinch');
    await clinician.reads('Stored.');
    await clinician.walksTo('Ridge');
    await clinician.reads('no calf stretching into it');
    expect(await resultOf('Mira Oldtown', 'wblt-distance', 'left')).toMatchObject({
      trials: [7.4, 7.5, 7.4],
      pain: { nrs: 2, aspect: 'front', feel: 'pinch' },
    });
  });

  it('a raw reach in centimetres becomes a share of that side’s limb', async () => {
    await clinician.opens(`/athletes/${ids.get('Mira Oldtown')}/screen?region=ankle-foot`);
    await clinician.hasNothingNew();
    await pickTest('Anterior reach in single-leg balance');
    await clinician.reads('leg length 86 cm');
    await clinician.fills('Trial 1 left', '62');
    await clinician.reads('72.1 % limb');
    await clinician.reads('Stored.');
    expect(await resultOf('Mira Oldtown', 'reach-balance-anterior', 'left')).toMatchObject({
      trials: [72.1],
      raw: { readIn: 'cm', per: 86, readings: [62] },
    });
  });
});

describe('what is typed', () => {
  it('is stored without leaving the field: a reload at once loses nothing', async () => {
    await clinician.opens(`/athletes/${ids.get('Mira Oldtown')}/screen?region=ankle-foot`);
    await clinician.hasNothingNew();
    await pickTest('Great toe extension');
    await open.page.focus('[data-entry] [data-field]');
    await open.page.keyboard.type('61');
    await clinician.reads('Stored.');
    expect(await clinician.focused()).toBe('Trial 1 left');
    await clinician.reloads();
    await pickTest('Great toe extension');
    const first = (await clinician.sees('Trial 1 left', 'textbox')) as ElementHandle<HTMLInputElement>;
    expect(await first.evaluate((field) => field.value)).toBe('61');
  });
});

describe('an own need', () => {
  it('replaces what the task asks, with its reason, and can be taken back', async () => {
    await clinician.opens(`/athletes/${ids.get('Joss Fernleigh')}/ridge`);
    await clinician.presses('Own need…');
    await clinician.fills('Own need, left', '118');
    await clinician.fills('Why', 'wall is steep enough for them');
    await clinician.presses('Save need');
    await clinician.reads('wall is steep enough for them');
    const [need] = await stored<{ test: string; side: string; value: number; set_by: string }>(
      'SELECT test, side, value, set_by FROM need_overrides',
    );
    expect(need).toEqual({ test: 'hip-flexion-range', side: 'left', value: 118, set_by: 'Rowan Halloran' });
    expect(open.errors).toEqual([]);
  });
});
