import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ElementHandle } from 'puppeteer-core';
import { describe, expect, it } from 'vitest';
import { atTheDesk } from './driver/atTheDesk.ts';

const { open, clinician, ids, visit, stored } = await atTheDesk();

const ranked = () =>
  open.page.$$eval('table[aria-label="Ranked restrictions"] tbody tr', (rows) =>
    rows.map((row) => ({
      name: row.querySelector('th')?.textContent ?? '',
      priority: Number(row.querySelector('td:last-child')?.textContent),
    })),
  );

describe('the story', () => {
  it('what hurts says what it points to, and is gone when it is gone', async () => {
    await visit('Tarn Whitlow', 'story?region=shoulder');
    await clinician.chooses('Aspect', 'back');
    await clinician.chooses('Feels like', 'stretch');
    await clinician.fills('How much', '2');
    await clinician.presses('Add pain');
    await clinician.reads('compare both sides and the whole arc first');
    await visit('Tarn Whitlow', 'ridge');
    await clinician.reads('Back-of-shoulder');
    await visit('Tarn Whitlow', 'story?region=shoulder');
    await clinician.presses('Gone today');
    await clinician.reads('Nothing recorded.');
    const [pain] = await stored<{ aspect: string; feel: string; ended: string | null }>(
      'SELECT aspect, feel, ended FROM pains WHERE athlete_id = $1',
      [ids.get('Tarn Whitlow')],
    );
    expect(pain).toMatchObject({ aspect: 'back', feel: 'stretch' });
    expect(pain?.ended).not.toBeNull();
  });

  it('a protocol opens the tests it ticks', async () => {
    await visit('Isla Crowmarsh', 'screen?region=knee');
    await clinician.hasNothingNew();
    await clinician.reads('Passive knee flexion');
    const sidesOf = async (test: string) => {
      await open.page.evaluate((name: string) => {
        const pick = [...document.querySelectorAll<HTMLElement>('ol button')];
        pick.find((b) => b.innerText.startsWith(name))?.click();
      }, test);
      await open.page.waitForFunction(
        (name: string) => document.querySelector('#test-title')?.textContent?.startsWith(name),
        {},
        test,
      );
      return open.page.$$eval('[data-entry] tbody[data-side]', (rows) =>
        rows.map((row) => row.getAttribute('data-side')),
      );
    };
    expect(await sidesOf('Passive knee flexion')).toEqual(['left', 'right']);
    expect(await sidesOf('Prone knee bend')).toEqual(['right']); // the operated side is not ticked
    await visit('Isla Crowmarsh', 'story?region=knee');
    await clinician.presses('Save protocol');
    await clinician.reads('Saved.');
    const [row] = await stored<{ tests: string[]; version: number }>(
      'SELECT tests, version FROM protocols WHERE athlete_id = $1',
      [ids.get('Isla Crowmarsh')],
    );
    expect(row).toEqual({ tests: ['knee-extension-range', 'knee-flexion-range'], version: 2 });
  });

  it('kit per place and minutes per mode go into the routine', async () => {
    await visit('Joss Fernleigh', 'story');
    await clinician.presses('Add place');
    await clinician.fills('Name of the place', 'crag');
    await clinician.fills('Minutes, build', '22');
    await clinician.presses('Save changes');
    await clinician.reads('Saved.');
    const [row] = await stored<{ places: object[]; minutes_build: number }>(
      'SELECT places, minutes_build FROM athletes WHERE id = $1',
      [ids.get('Joss Fernleigh')],
    );
    expect(row).toEqual({ places: [{ name: 'crag', kit: [] }], minutes_build: 22 });
    await visit('Joss Fernleigh', 'routine');
    await clinician.ticks('Build', 'radio');
    const minutes = (await clinician.sees('Minutes', 'textbox')) as ElementHandle<HTMLInputElement>;
    expect(await minutes.evaluate((field) => field.value)).toBe('22');
  });
});

describe('what is said of a finding', () => {
  it('set aside it goes to the end with its reason, taken back it leads again', async () => {
    await visit('Mira Oldtown', 'ridge');
    await clinician.reads('Where the reserve runs out');
    const [first] = await ranked();
    await clinician.presses('Set aside…');
    await clinician.fills('Why is it set aside?', 'tested after a race');
    await clinician.presses('Set aside');
    await clinician.reads('Take back');
    const after = await ranked();
    expect(after.at(-1)).toMatchObject({ priority: 0 });
    expect(after.find((r) => r.name.startsWith(first?.name ?? '?'))).toBeUndefined();
    await clinician.presses('Take back “set aside”');
    await clinician.sees('Confirm', 'button');
    await open.page.waitForFunction(
      (name: string) =>
        document.querySelector('table[aria-label="Ranked restrictions"] tbody th')?.textContent === name,
      {},
      first?.name ?? '',
    );
  });

  it('one seen by eye joins the ranking', async () => {
    await visit('Mira Oldtown', 'ridge?region=knee');
    await clinician.presses('Seen by eye…');
    await clinician.chooses('Which restriction', 'Landing control');
    await clinician.ticks('marked', 'radio');
    await clinician.presses('Add landing control');
    await clinician.seesNoMore('Add landing control', 'button');
    await clinician.reads('seen by eye');
    const [row] = await stored<{ restriction: string; degree: string; by: string }>(
      'SELECT restriction, degree, by FROM judgements WHERE athlete_id = $1',
      [ids.get('Mira Oldtown')],
    );
    expect(row).toEqual({ restriction: 'landing-control-deficit', degree: 'marked', by: 'Rowan Halloran' });
  });

  it('two dates are compared: only real changes, better and worse', async () => {
    await visit('Corin Ashfell', 'ridge');
    const dates = await open.page.$$eval('select[aria-label="Compare with"] option', (o) =>
      o.map((option) => option.value),
    );
    await open.page.select('select[aria-label="Compare with"]', dates.at(-1) ?? '');
    await clinician.reads(/better: .+\+/);
    expect(dates.length).toBeGreaterThan(3);
  });
});

describe('a figure of the practice', () => {
  it('says whose findings would change, is marked with who and when, and can be set back', async () => {
    await clinician.opens('/figures?test=wblt-distance');
    await clinician.presses('Edit Short below');
    await clinician.fills('Short below, new value', '14');
    await clinician.presses('Whose findings change?');
    const text = await clinician.reads(/Findings of \d+ of 24 athletes would change/);
    const count = Number(/Findings of (\d+)/.exec(text)?.[1]);
    expect(count).toBeGreaterThan(3);
    await clinician.fills('Why', 'our own runners');
    await clinician.presses('Save figure');
    await clinician.reads('edited by Rowan Halloran');
    await visit('Corin Ashfell', 'ridge?region=ankle-foot');
    await clinician.reads('Ankle dorsiflexion range');
    await clinician.opens('/figures?test=wblt-distance');
    await clinician.presses('Set back…');
    await clinician.fills('Why it is set back', 'too few runners');
    await clinician.presses('Set back now');
    await clinician.reads('Earlier edits (1)');
    expect(
      await stored('SELECT value, old_value, reason, ended_by, ended_reason FROM reference_edits'),
    ).toEqual([
      {
        value: 14,
        old_value: 9,
        reason: 'our own runners',
        ended_by: 'Rowan Halloran',
        ended_reason: 'too few runners',
      },
    ]);
  });
});

describe('screening', () => {
  it('a device’s trace fills the trial, in the unit of the test', async () => {
    await visit('Mira Oldtown', 'screen?region=ankle-foot');
    await clinician.hasNothingNew();
    await open.page.evaluate(() => {
      const pick = [...document.querySelectorAll<HTMLElement>('ol button')];
      pick.find((b) => b.innerText.startsWith('Isometric ankle eversion'))?.click();
    });
    await clinician.presses('Capture from handheld dynamometer');
    await clinician.reads('simulated');
    await clinician.presses('Record');
    const take = await open.page.waitForSelector('::-p-text(into left, trial 1)', { timeout: 30_000 });
    await clinician.reads(/peak \d+ N/);
    await open.page.waitForSelector('::-p-aria([name="Record again"][role="button"])', { timeout: 30_000 });
    const button = await open.page.evaluateHandle(() =>
      [...document.querySelectorAll('button')].find((b) => b.innerText.startsWith('Take ')),
    );
    const shown = await (button as ElementHandle<HTMLElement>).evaluate((b) => b.innerText);
    await (button as ElementHandle<HTMLElement>).click();
    await clinician.reads('Stored.');
    expect(take).not.toBeNull();
    const [row] = await stored<{ value: { trials: number[] } }>(
      `SELECT r.value FROM results r JOIN screenings s ON s.id = r.screening_id
       WHERE s.athlete_id = $1 AND r.test = 'ankle-eversion-strength' AND r.side = 'left'
       ORDER BY s.date DESC LIMIT 1`,
      [ids.get('Mira Oldtown')],
    );
    expect(shown).toMatch(/^Take \d\.\d\d N\/kg into left, trial 1$/);
    // What is stored is what was shown, to the digits that are shown: each is rounded, and a half goes either way.
    const digits = Number(/[\d.]+/.exec(shown)?.[0]);
    expect(Math.abs((row?.value.trials[0] ?? 0) - digits)).toBeLessThan(0.0101);
  });

  it('the balance clock goes on through touch-downs and stores both', async () => {
    await visit('Mira Oldtown', 'screen?region=ankle-foot');
    await clinician.hasNothingNew();
    await open.page.evaluate(() => {
      const pick = [...document.querySelectorAll<HTMLElement>('ol button')];
      pick.find((b) => b.innerText.startsWith('Single-leg stance, eyes closed'))?.click();
    });
    await clinician.presses('Start clock');
    await clinician.presses('Touch-down (0)');
    await clinician.presses('Touch-down (1)');
    await open.page.waitForFunction(
      () => parseFloat(document.querySelector('[aria-label="Clock"]')?.textContent ?? '') > 0.5,
    );
    await clinician.presses('Stop and take');
    await clinician.reads('2 touch-downs');
    await clinician.reads('Stored.');
    const [row] = await stored<{ value: { trials: number[]; raw: object } }>(
      `SELECT r.value FROM results r JOIN screenings s ON s.id = r.screening_id
       WHERE s.athlete_id = $1 AND r.test = 'single-leg-balance-ec' ORDER BY s.date DESC LIMIT 1`,
      [ids.get('Mira Oldtown')],
    );
    expect(row?.value.raw).toEqual({ touchDowns: 2 });
    expect(row?.value.trials[0]).toBeGreaterThan(0.5);
  });
});

describe('a file of screenings', () => {
  const fileOf = (text: string) => {
    const path = join(mkdtempSync(join(tmpdir(), 'yonder-csv-')), 'screenings.csv');
    writeFileSync(path, text);
    return path;
  };
  const choose = async (path: string) => {
    await clinician.opens('/screenings');
    const input = (await open.page.waitForSelector('input[type=file]')) as ElementHandle<HTMLInputElement>;
    await input.uploadFile(path);
  };

  it('with a faulty row names it and imports nothing; mended it imports all', async () => {
    const head = 'Who,date,test,side,trial 1,trial 2';
    const good = 'Hale Overbeck,2026-01-05,wblt-distance,left,8.1,8.3';
    await choose(fileOf(`${head}\n${good}\nHale Overbeck,2026-01-05,wblt-distance,right,88,8.3\n`));
    await clinician.reads('Choose the column of: athlete');
    await clinician.chooses('athlete', 'Who');
    await clinician.reads('Row 3: 88 cm is outside -5 to 25 cm');
    const button = await clinician.sees('Import 1 rows', 'button');
    expect(await button.evaluate((b) => (b as HTMLButtonElement).disabled)).toBe(true);
    await choose(
      fileOf(
        `${head.replace('Who', 'athlete')}\n${good}\nHale Overbeck,2026-01-05,wblt-distance,right,"8,8",8.3\n`,
      ),
    );
    await clinician.presses('Import 2 rows');
    await clinician.reads('2 results in 1 visits of 1 athlete.');
    const rows = await stored<{ side: string; value: object }>(
      `SELECT r.side, r.value FROM results r JOIN screenings s ON s.id = r.screening_id
       WHERE s.athlete_id = $1 AND s.date = '2026-01-05' ORDER BY r.side`,
      [ids.get('Hale Overbeck')],
    );
    expect(rows).toEqual([
      { side: 'left', value: { trials: [8.1, 8.3] } },
      { side: 'right', value: { trials: [8.8, 8.3] } },
    ]);
    expect(open.errors).toEqual([]);
  });
});
