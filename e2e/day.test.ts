import { describe, expect, it } from 'vitest';
import { atTheDesk } from './driver/atTheDesk.ts';

const { open, clinician, ids, visit, stored, account } = await atTheDesk({ speed: 30 });

const rows = () => open.page.$$eval('tbody tr a', (links) => links.map((link) => link.textContent ?? ''));

describe('the list of athletes', () => {
  it('narrows by name or sport, keeps the search in the address, and says when nobody fits', async () => {
    await clinician.opens('/athletes');
    await clinician.reads(`${ids.size} of ${ids.size}`);
    // Only the rows in view are drawn, from the first name on.
    const inView = await rows();
    expect(inView.length).toBeGreaterThan(8);
    expect(inView).toEqual([...ids.keys()].sort().slice(0, inView.length));
    await clinician.fills('Search athletes', 'mira');
    expect(await rows()).toEqual(['Mira Oldtown']);
    expect(new URL(open.page.url()).searchParams.get('q')).toBe('mira');
    await clinician.reloads();
    await clinician.reads('Mira Oldtown');
    expect(await rows()).toEqual(['Mira Oldtown']);
    await clinician.fills('Search athletes', 'nobody at all');
    await clinician.reads('Nobody matches.');
  });

  it('shows a stop sign where one is open, as the database has it', async () => {
    await clinician.loads('/athletes');
    await clinician.reads('stop and refer');
    const flagged = await open.page.$$eval('tbody tr', (all) =>
      all
        .filter((row) => row.textContent?.includes('stop and refer'))
        .map((row) => row.querySelector('a')?.textContent),
    );
    const signs = await stored<{ name: string }>(
      `SELECT DISTINCT a.name FROM athletes a JOIN red_flag_answers r ON r.athlete_id = a.id
       WHERE r.answer AND r.clearance_by IS NULL`,
    );
    expect([...flagged].sort()).toEqual(signs.map((s) => s.name).sort());
    expect(flagged.length).toBeGreaterThan(0);
  });
});

describe('the gate', () => {
  it('is read topic by topic: no sign is answered that was not opened, and leaving keeps what was said', async () => {
    await visit('Wren Hollis', 'gate');
    await clinician.reads('Group 1 of 11');
    // The key of this topic is the other one: pressed, it does nothing.
    await open.page.keyboard.press('y');
    await open.page.keyboard.press('n');
    await clinician.reads('Group 2 of 11');
    await open.page.keyboard.press('d');
    await clinician.reads('Group 3 of 11');
    const said = await stored<{ topic: string; outcome: string }>(
      `SELECT topic, outcome FROM gate_answers g JOIN athletes a ON a.id = g.athlete_id WHERE a.name = 'Wren Hollis'
       ORDER BY g.created_at`,
    );
    expect(said).toEqual([
      { topic: 'heart', outcome: 'none' },
      { topic: 'head-back', outcome: 'unknown' },
    ]);
    await clinician.presses('Leave, go on later');
    await clinician.reads('12 of 13 topics not answered');
  });
});

describe('the morning after', () => {
  it('is stored only when each drill was asked about', async () => {
    const id = ids.get('Mira Oldtown') ?? '';
    const [last] = await stored<{ id: string }>(
      'SELECT id FROM sessions WHERE athlete_id = $1 AND finished ORDER BY date DESC, updated_at DESC LIMIT 1',
      [id],
    );
    await stored('UPDATE session_entries SET next_day_pain = NULL WHERE session_id = $1', [last?.id]);
    await visit('Mira Oldtown', 'progress');
    await clinician.reads('Morning after');
    const lists = await open.page.$$eval(
      '[aria-label^="Next morning, "][role="combobox"], input[aria-label^="Next morning, "]',
      (nodes) => nodes.map((node) => node.getAttribute('aria-label') ?? ''),
    );
    const count = lists.length;
    expect(count).toBeGreaterThan(1);
    await clinician.sees(`Store the morning (${count} to answer)`, 'button');
    for (const [index, label] of lists.entries())
      await clinician.chooses(label, index === 0 ? '6 / 10' : '0 / 10');
    const answer = open.page.waitForResponse((r) => r.request().method() !== 'GET');
    await clinician.presses('Store the morning');
    expect((await answer).status()).toBe(200);
    const entries = await stored<{ next_day_pain: number | null }>(
      'SELECT next_day_pain FROM session_entries WHERE session_id = $1 ORDER BY place',
      [last?.id],
    );
    expect(entries.map((e) => e.next_day_pain)).toEqual(lists.map((_, index) => (index === 0 ? 6 : 0)));
  });
});

describe('the theme', () => {
  it('is kept over a reload', async () => {
    await clinician.opens('/athletes');
    const scheme = () => open.page.evaluate(() => document.documentElement.dataset.mantineColorScheme);
    const before = await scheme();
    await clinician.presses(`Switch to ${before === 'dark' ? 'light' : 'dark'} theme`);
    await clinician.reloads();
    await clinician.reads('Athletes');
    expect(await scheme()).not.toBe(before);
    await clinician.presses(`Switch to ${before} theme`);
    expect(await scheme()).toBe(before);
  });
});

describe('the door', () => {
  it('closes on signing out, refuses a wrong password and keeps the e-mail, and leads back to the page wanted', async () => {
    await clinician.opens('/athletes');
    await clinician.presses('Sign out');
    await clinician.sees('Sign in', 'button');
    const answer = await open.page.evaluate(async () => (await fetch('/api/v1/athletes')).status);
    expect(answer).toBe(401);
    await visit('Mira Oldtown', 'ridge');
    await clinician.givesCredentials('not the password');
    await open.page.waitForSelector('[role="alert"]');
    const email = await clinician.sees('E-mail', 'textbox');
    expect(await email.evaluate((node) => (node as HTMLInputElement).value)).toBe(account.email);
    await clinician.givesCredentials();
    await clinician.reads('Mira Oldtown');
    expect(new URL(open.page.url()).pathname).toBe(`/athletes/${ids.get('Mira Oldtown')}/ridge`);
  });
});
