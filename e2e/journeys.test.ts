import { describe, expect, it } from 'vitest';
import { atTheDesk } from './driver/atTheDesk.ts';

const { open, clinician, ids, visit, stored } = await atTheDesk({ speed: 30 });
const HANGING = 'No hanging (never)';

describe('an open stop-and-refer sign', () => {
  it('stops tests and shows what to do, until a named clinician records a clearance', async () => {
    await visit('Ada Brackenridge', 'screen');
    await clinician.reads('No tests for ankle and foot today');
    await visit('Ada Brackenridge', 'story');
    await clinician.presses('Record a clearance');
    await clinician.presses('Record clearance');
    await clinician.reads('a name is needed');
    await clinician.fills("Cleared by (clinician's name)", 'Dr V. Ness');
    await clinician.fills('Written scope', 'walking and balance, no jumps');
    await clinician.presses('Record clearance');
    await clinician.reads('Cleared by Dr V. Ness');
    await visit('Ada Brackenridge', 'screen');
    await clinician.hasNothingNew();
    await clinician.reads('Weight-bearing lunge test');
    const [row] = await stored<{ clearance_by: string; clearance_scope: string }>(
      'SELECT clearance_by, clearance_scope FROM red_flag_answers WHERE answer AND athlete_id = $1',
      [ids.get('Ada Brackenridge')],
    );
    expect(row).toEqual({ clearance_by: 'Dr V. Ness', clearance_scope: 'walking and balance, no jumps' });
  });

  it('one tick at the gate ends routine building for everything it blocks', async () => {
    await visit('Wren Hollis', 'gate');
    await clinician.presses('Bladder, feeling, strength');
    await clinician.ticks('Trouble with bladder or bowel, numb around the seat, weak or sore down both legs');
    await clinician.presses('Record this sign');
    await clinician.reads('now: emergency.');
    await clinician.reads('Stop and refer: everything');
    await clinician.walksTo('Routine');
    await clinician.reads('No routine while a stop-and-refer sign is open');
    await clinician.walksTo('Ridge');
    await clinician.reads('No findings are shown');
  });
});

describe('a precaution', () => {
  it('set in the story stands above every step, keeps drills out, and stops one in the routine in force', async () => {
    await visit('Joss Fernleigh', 'story');
    await clinician.chooses('Precaution', HANGING);
    await clinician.fills('Reason', 'sore shoulder');
    await clinician.presses('Set precaution');
    await clinician.reads('sore shoulder');
    await clinician.walksTo('Routine');
    const strip = await open.page.$eval(
      '[aria-label="Precautions and stop signs"]',
      (node) => node.textContent ?? '',
    );
    expect(strip).toMatch(/hang/i);
    await clinician.presses('Choose drills');
    await clinician.reads('Proven');
    const drills = await open.page.$$eval('table[aria-label="Drills of the routine"] th button', (nodes) =>
      nodes.map((n) => n.textContent),
    );
    expect(drills.filter((name) => /hang/i.test(name ?? ''))).toEqual([]);
    await clinician.discards();
  });
});

describe('editing a routine', () => {
  it('moves a drill by keyboard, keeps pins when built again, and undoes all of it', async () => {
    await visit('Tarn Whitlow', 'routine');
    await clinician.presses('Choose drills');
    await clinician.reads('Proven');
    const names = () =>
      open.page.$$eval('table[aria-label="Drills of the routine"] th button', (nodes) =>
        nodes.map((n) => (n.textContent ?? '').replace(/^\d+\. /, '')),
      );
    const before = await names();
    const [first = '', second = ''] = before;
    const handle = await clinician.sees(`Move ${first}`, 'button');
    await handle.focus();
    // Each key is answered by what is said aloud.
    const of = `of ${before.length}.`;
    await clinician.hears(`${first}: number 1 ${of}`, 'Space');
    await clinician.hears(`${first}: number 2 ${of}`, 'ArrowDown');
    await clinician.hears(`${first} is put down: number 2 ${of}`, 'Space');
    await open.page.waitForFunction(
      (name: string) =>
        document
          .querySelector('table[aria-label="Drills of the routine"] th button')
          ?.textContent?.endsWith(name),
      {},
      second,
    );
    await clinician.presses('Undo');
    expect(await names()).toEqual(before);

    const last = before.at(-1) ?? '';
    await clinician.presses(`Pin ${last}`);
    await clinician.fills('Minutes', '5');
    await clinician.presses('Choose again');
    await open.page.waitForFunction(
      (count: number) =>
        document.querySelectorAll('table[aria-label="Drills of the routine"] tbody').length < count,
      {},
      before.length,
    );
    expect(await names()).toContain(last);
    expect(await clinician.totalSeconds()).toBeLessThanOrEqual(300);
    await clinician.discards();
  });

  it('says which rules clash when pins cannot be kept', async () => {
    await visit('Tarn Whitlow', 'routine');
    await clinician.presses('Choose drills');
    await clinician.reads('Proven');
    const [first = ''] = await open.page.$$eval(
      'table[aria-label="Drills of the routine"] th button',
      (nodes) => nodes.map((n) => (n.textContent ?? '').replace(/^\d+\. /, '')),
    );
    for (const name of await open.page.$$eval('[aria-label^="Pin "]', (nodes) =>
      nodes.map((n) => n.getAttribute('aria-label') ?? ''),
    )) {
      await clinician.presses(name);
    }
    await clinician.fills('Minutes', '1');
    await clinician.presses('Choose again');
    await clinician.reads(/need \d+ s more than there are|is pinned, but no phase of this structure takes/);
    // What was there stays.
    await clinician.sees(`Move ${first}`, 'button');
    await clinician.discards();
  });
});

describe('two people on one athlete', () => {
  it('the second to save is told, and what was typed stays in the form', async () => {
    const id = ids.get('Tarn Whitlow');
    await visit('Tarn Whitlow', 'story');
    await clinician.reads('About Tarn Whitlow');
    await stored('UPDATE athletes SET version = version + 1, body_mass_kg = 80 WHERE id = $1', [id]);
    await clinician.fills('Body mass', '77');
    await clinician.presses('Save changes');
    await clinician.reads('Somebody changed this meanwhile');
    const field = await clinician.sees('Body mass', 'textbox');
    expect(await field.evaluate((node) => (node as HTMLInputElement).value)).toBe('77');
    const [row] = await stored<{ body_mass_kg: number }>('SELECT body_mass_kg FROM athletes WHERE id = $1', [
      id,
    ]);
    expect(row?.body_mass_kg).toBe(80);
    await clinician.presses('Save mine over it');
    await clinician.reads('Saved.');
    const [after] = await stored<{ body_mass_kg: number }>(
      'SELECT body_mass_kg FROM athletes WHERE id = $1',
      [id],
    );
    expect(after?.body_mass_kg).toBe(77);
  });
});

describe('in the runner', () => {
  it('pain above the limit stops that drill; a skipped side makes it part; both are stored', async () => {
    await visit('Mira Oldtown', 'run');
    await clinician.startsTheRun();
    await clinician.presses('It hurts');
    await clinician.presses('7');
    await clinician.reads('2 / ');
    await clinician.presses('Swap drill');
    await clinician.reads('Instead of');
    await open.page.keyboard.press('Escape');
    await clinician.presses('Go');
    await clinician.sees('Pause', 'button');
    await clinician.presses('Skip');
    await clinician.presses('Skip drill');
    await clinician.reads(/[34] \/ /);
    await clinician.presses('End here');
    await clinician.reads('Pain above the limit of 5/10');
    await clinician.presses('Store the session');
    await clinician.reads('Last sessions');
    const entries = await stored<{ done: string; pain: number }>(
      `SELECT e.done, e.pain FROM session_entries e JOIN sessions s ON s.id = e.session_id
       WHERE s.id = (SELECT id FROM sessions WHERE athlete_id = $1 AND finished
                     ORDER BY date DESC, updated_at DESC LIMIT 1) ORDER BY e.place`,
      [ids.get('Mira Oldtown')],
    );
    expect(entries[0]).toMatchObject({ done: 'none', pain: 7 });
    expect(entries[1]?.done).not.toBe('all');
    expect(entries.at(-1)).toMatchObject({ done: 'none', pain: 0 });
    await clinician.walksTo('Progress');
    await clinician.reads('above the limit of 5');
  });
});

describe('on smaller screens', () => {
  const SCREENS = [
    [820, 1180],
    [390, 844],
    [640, 400], // 1280 × 800 at 200 % zoom
  ] as const;
  it.each(['story', 'screen', 'ridge', 'routine', 'run', 'progress'])(
    '%s needs no scrolling sideways',
    async (step) => {
      await visit('Mira Oldtown', step);
      for (const [width, height] of SCREENS) {
        await open.page.setViewport({ width, height });
        const overflow = () =>
          open.page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
        await expect.poll(overflow, { message: `${width} × ${height}` }).toBeLessThanOrEqual(0);
      }
      await open.page.setViewport({ width: 1280, height: 800 });
    },
  );

  it('no step threw an error on the way', () => {
    expect(open.errors).toEqual([]);
    expect([...open.strangers]).toEqual([]);
  });
});
