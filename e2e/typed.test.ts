import type { Page } from 'puppeteer-core';
import { describe, expect, it } from 'vitest';
import { atTheDesk } from './driver/atTheDesk.ts';
import type { Clinician } from './driver/Clinician.ts';

/** Tries in a minute without a network: one every five seconds. */
const RETRIES = 12;

const { open, clinician, ids, stored, endSessions } = await atTheDesk({ haste: 60 });
const mira = () => ids.get('Mira Oldtown') ?? '';

const pickTest = async (page: Page, name: string) => {
  const button = await page.waitForSelector(`ol button::-p-text(${name})`);
  await button?.click();
  await page.waitForFunction(
    (wanted: string) => document.querySelector('#test-title')?.textContent?.startsWith(wanted),
    {},
    name,
  );
};
const fieldText = (page: Page, label: string) =>
  page.$eval(`[aria-label="${label}"]`, (node) => (node as HTMLInputElement).value);
const toeTrials = async () =>
  (
    await stored<{ value: { trials: number[] } }>(
      `SELECT r.value FROM results r JOIN screenings s ON s.id = r.screening_id
       WHERE s.athlete_id = $1 AND r.test = 'great-toe-extension-range' AND r.side = 'left' AND s.date = CURRENT_DATE`,
      [mira()],
    )
  )[0]?.value.trials;
const toe = async (page: Page = open.page, at: Clinician = clinician) => {
  page.setDefaultTimeout(10_000);
  await at.opens(`/athletes/${mira()}/screen?region=ankle-foot`);
  await at.hasNothingNew();
  await pickTest(page, 'Great toe extension');
  await page.focus('[data-entry] [data-field]');
};

describe('a value that is typed', () => {
  it('and cannot be stored as it is, is there again after a reload, with its fault', async () => {
    await toe();
    await open.page.keyboard.type('6110');
    await clinician.reads('Not stored');
    await clinician.reloads();
    await pickTest(open.page, 'Great toe extension');
    expect(await fieldText(open.page, 'Trial 1 left')).toBe('6110');
    await clinician.reads(/trial 1 left: 6110 is outside/);
    expect(await toeTrials()).toBeUndefined();
    await clinician.fills('Trial 1 left', '61');
    await clinician.reads('Stored.');
    expect(await toeTrials()).toEqual([61]);
  });

  it('is kept when the tab is killed, and stored from the next one', async () => {
    const other = await clinician.opensATab();
    const { page } = other;
    await toe(page, other);
    await page.setOfflineMode(true);
    await other.fills('Trial 2 left', '63');
    await other.reads('1 value is kept on this device');
    await page.close();
    await clinician.loads('/athletes');
    await expect.poll(toeTrials, { timeout: 60_000 }).toEqual([61, 63]);
  });

  it('with the network gone for a minute is stored once it is back, and said to be waiting until then', async () => {
    await toe();
    await open.page.setOfflineMode(true);
    await clinician.fills('Trial 3 left', '62');
    await clinician.reads('1 value is kept on this device and sent as soon as it answers');
    await clinician.reads('The server cannot be reached. 1 value kept on this device');
    expect(await toeTrials()).toEqual([61, 63]);
    // The page’s minute is a second of ours.
    for (const _try of Array.from({ length: RETRIES }))
      await new Promise((done) => open.page.once('requestfailed', done));
    await clinician.reads('1 value kept on this device');
    await open.page.setOfflineMode(false);
    await open.page.waitForFunction(() => document.body.innerText.includes('Stored.'), { timeout: 60_000 });
    await expect.poll(toeTrials).toEqual([61, 63, 62]);
  });

  it('after the session has ended is stored by signing in again, and the door says why it is shown', async () => {
    await toe();
    await endSessions();
    await clinician.fills('Pain left', '1');
    await clinician.reads('Your session has ended. What you typed is kept on this device');
    await clinician.givesCredentials();
    await clinician.reads('Great toe extension');
    await expect
      .poll(
        async () =>
          (
            await stored<{ nrs: number }>(
              `SELECT (r.value->'pain'->>'nrs')::int AS nrs FROM results r JOIN screenings s ON s.id = r.screening_id
               WHERE s.athlete_id = $1 AND r.test = 'great-toe-extension-range' AND r.side = 'left' AND s.date = CURRENT_DATE`,
              [mira()],
            )
          )[0]?.nrs,
        { timeout: 60_000 },
      )
      .toBe(1);
  });

  it('in two tabs is asked about with both values, and the one chosen is stored', async () => {
    await toe();
    const other = await clinician.opensATab();
    const { page } = other;
    await toe(page, other);
    await other.fills('Trial 1 left', '55');
    await other.reads('Stored.');
    await open.page.bringToFront();
    await clinician.fills('Trial 1 left', '66');
    await clinician.reads(/you typed 66, 63, 62.*stored meanwhile: 55, 63, 62/s);
    expect(await toeTrials()).toEqual([55, 63, 62]);
    await clinician.presses('Store mine');
    await clinician.reads('Stored.');
    await expect.poll(toeTrials).toEqual([66, 63, 62]);
    await page.close();
  });
});

describe('a form that is not saved', () => {
  it('asks before it is left, is there again after a reload, and goes when it is thrown away', async () => {
    await clinician.opens(`/athletes/${mira()}/story`);
    await clinician.fills('What happened', 'fell on the stairs');
    await clinician.turnsTo('Ridge');
    await clinician.reads('An injury: typed and not saved');
    await clinician.presses('Stay');
    await clinician.reloads();
    await clinician.reads('Typed earlier and not saved: it is back.');
    const text = await clinician.sees('What happened', 'textbox');
    expect(await text.evaluate((node) => (node as HTMLInputElement).value)).toBe('fell on the stairs');
    await clinician.presses('Throw it away');
    await clinician.walksTo('Ridge');
    await clinician.reads('Where the reserve runs out');
  });
});
