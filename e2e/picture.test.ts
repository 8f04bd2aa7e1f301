import { spawnSync } from 'node:child_process';
import { bodyOf, pictureFaults } from '@yonder/core/figure';
import type { SolvedFigure } from '@yonder/core/figure';
import { figureOf } from '@yonder/core/figure/bundled';
import { describe, expect, it } from 'vitest';
import { atTheDesk } from './driver/atTheDesk.ts';

const { open, clinician, ids, stored } = await atTheDesk({ still: false });

/** Outlines of the picture that is shown large, as one text: differs when anything in it moves. */
const drawn = () =>
  open.page.$eval('[role="img"][aria-label]', (svg) =>
    [...svg.querySelectorAll('path')].map((path) => path.getAttribute('d')).join(),
  );
const colours = () =>
  open.page.$eval('[role="img"][aria-label]', (svg) =>
    [...svg.querySelectorAll('path')].map((path) => path.getAttribute('fill') ?? ''),
  );
const pictureOf = async (name: string) => {
  const [row] = await stored<{ drill: { id: string; picture?: SolvedFigure } }>(
    `SELECT drill FROM own_drills WHERE drill->>'name' = $1`,
    [name],
  );
  return row?.drill;
};
/** Waits until the large picture is drawn otherwise than before; how it is then. */
const drawnOtherThan = async (before: string): Promise<string> => {
  await expect.poll(drawn, { timeout: 10_000 }).not.toBe(before);
  return drawn();
};
/** Lets the page draw so many times. */
const frames = (count: number) =>
  open.page.evaluate(
    (left: number) =>
      new Promise<void>((done) => {
        const step = (n: number) => (n === 0 ? done() : requestAnimationFrame(() => step(n - 1)));
        step(left);
      }),
    count,
  );

describe('the picture of a drill', () => {
  it('is in the list, moves on press, stands again, and shows the other side in its colour', async () => {
    await clinician.opens('/library?drill=split-squat');
    await clinician.sees('Play the picture', 'button');
    await open.page.waitForFunction(
      () => document.querySelectorAll('ol[aria-label="Drills"] svg path').length > 60,
    );
    const still = await drawn();
    await clinician.presses('Play the picture');
    const moving = await drawnOtherThan(still);
    await drawnOtherThan(moving);
    await clinician.presses('Stop the picture');
    await clinician.sees('Play the picture', 'button');
    await expect.poll(drawn).toBe(still);
    expect(await colours()).toContain('var(--fig-left)');
    await clinician.presses('Show the right side');
    await clinician.sees('Show the left side', 'button');
    expect(await colours()).toContain('var(--fig-right)');
    expect(await colours()).not.toContain('var(--fig-left)');
  });

  it('for who wants no motion goes from position to position instead', async () => {
    await open.page.emulateMediaFeatures([{ name: 'prefers-reduced-motion', value: 'reduce' }]);
    await clinician.opens('/library?drill=split-squat');
    await clinician.sees('Next position', 'button');
    const end = await drawn();
    await clinician.presses('Next position');
    const start = await drawnOtherThan(end);
    await frames(40);
    expect(await drawn()).toBe(start);
    await open.page.emulateMediaFeatures([]);
  });
});

describe('a picture drawn by hand', () => {
  const NAME = 'Low split squat of ours';
  it('begins with that of the source; a joint is drawn, kit put in, a step taken back, and it is kept', async () => {
    await clinician.opens('/library/new?copy=split-squat');
    await clinician.fills('Name', NAME);
    await clinician.presses('Change the picture');
    const knee = await clinician.sees('Left knee', 'button');
    const box = await knee.boundingBox();
    if (!box) throw new Error('the knee is not on the page');
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    await open.page.mouse.move(x, y);
    await open.page.mouse.down();
    for (let i = 1; i <= 8; i += 1) {
      await open.page.mouse.move(x + 4 * i, y - 3 * i);
      await frames(2);
    }
    await open.page.mouse.up();
    await clinician.sees('Undo', 'button');
    await open.page.waitForFunction(
      () =>
        ![...document.querySelectorAll('button')]
          .find((b) => b.textContent === 'Undo')
          ?.hasAttribute('disabled'),
    );
    await clinician.ticks('Kit', 'radio');
    await clinician.searches('Add kit', 'cone');
    await clinician.sees('Remove cone', 'button');
    // And put elsewhere in the picture: towards the back, looked at from the left.
    const cone = await clinician.sees('cone, where it stands', 'button');
    await cone.evaluate((node) => (node as unknown as SVGElement).focus());
    for (let i = 0; i < 3; i += 1) await open.page.keyboard.press('ArrowRight');
    await clinician.searches('Add kit', 'kettlebell');
    await clinician.sees('Remove kettlebell', 'button');
    await clinician.presses('Undo');
    await clinician.seesNoMore('Remove kettlebell', 'button');
    await clinician.presses('Done');
    await clinician.reads('Drawn for this drill.');
  });

  it('is there again after a reload in the middle of it, and stored as it was drawn', async () => {
    await clinician.reloads();
    await clinician.reads('Drawn for this drill.');
    await clinician.presses('Save drill');
    await open.page.waitForFunction(() => location.pathname === '/library');
    const kept = await pictureOf(NAME);
    const picture = kept?.picture;
    const source = figureOf('split-squat');
    if (!picture || !source) throw new Error('no picture was stored');
    expect(pictureFaults(picture)).toEqual([]);
    expect(picture.kit.map(({ type, at }) => [type, at])).toEqual([['cone', [24, 0, 0]]]);
    const [before, after] = [source, picture].map((one) => bodyOf(one.poses[one.shown] ?? []).sites);
    expect(after?.['kneeL']?.at[0]).not.toBeCloseTo(before?.['kneeL']?.at[0] ?? 0, 0);
    // The foot that stood stands where it stood.
    expect(after?.['heelL']?.at[0]).toBeCloseTo(before?.['heelL']?.at[0] ?? 0, 0);
    await clinician.opens(`/library?drill=${kept?.id}`);
    await clinician.sees('Play the picture', 'button');
  });

  it('is drawn with the keyboard too: a joint is reached, moved by arrows, and named with its numbers', async () => {
    const [row] = await stored<{ id: string }>(`SELECT id FROM own_drills WHERE drill->>'name' = $1`, [NAME]);
    await clinician.opens(`/library/own/${row?.id}`);
    await clinician.presses('Change the picture');
    const wrist = await clinician.sees('Right hand', 'button');
    await wrist.evaluate((node) => (node as unknown as SVGElement).focus());
    for (let i = 0; i < 4; i += 1) await open.page.keyboard.press('ArrowUp');
    await clinician.reads('Palm bent in');
    await clinician.presses('Exchange sides');
    await clinician.presses('Done');
    await clinician.presses('Save drill');
    await open.page.waitForFunction(() => location.pathname === '/library');
    expect((await pictureOf(NAME))?.picture?.accent).toEqual(['legR']);
  });
});

describe('bad luck while it is drawn', () => {
  const arrows = async (name: string, times: number, who = clinician) => {
    const joint = await who.sees(name, 'button');
    await joint.evaluate((node) => (node as unknown as SVGElement).focus());
    for (let i = 0; i < times; i += 1) await who.page.keyboard.press('ArrowUp');
  };
  it('with the network gone goes on being drawn, and is stored once it is back', async () => {
    const name = 'Drawn without a network';
    await clinician.opens('/library/new?copy=bodyweight-squat');
    await clinician.fills('Name', name);
    await clinician.presses('Change the picture');
    await clinician.sees('Left hand', 'button');
    await open.page.setOfflineMode(true);
    await arrows('Left hand', 3);
    // Another drill's picture cannot be had now, and that is said.
    await clinician.searches('Begin with the picture of', 'Dead bug');
    await clinician.reads('the server is out of reach');
    await clinician.presses('Done');
    const unanswered = new Promise((done) => open.page.once('requestfailed', done));
    await clinician.presses('Save drill');
    await unanswered;
    expect(await pictureOf(name)).toBeUndefined();
    await open.page.setOfflineMode(false);
    await clinician.reads('Drawn for this drill.');
    await clinician.presses('Save drill');
    await open.page.waitForFunction(() => location.pathname === '/library');
    expect((await pictureOf(name))?.picture?.poses).toHaveLength(2);
  });
  it('the tab killed in the middle loses nothing that was let go', async () => {
    const tab = await clinician.opensATab();
    await tab.opens('/library/new?copy=forearm-plank');
    await tab.presses('Change the picture');
    await arrows('Head', 2, tab);
    await tab.presses('Add a position');
    // Ends the renderer as it stands; no page is told that it is left.
    const killed = new Promise((done) => tab.page.once('error', done));
    void tab.page.goto('chrome://kill').catch(() => undefined); // nobody is left to answer
    await killed;
    await tab.page.close();
    await clinician.opens('/library/new?copy=forearm-plank');
    await clinician.reads('Drawn for this drill.');
    await clinician.presses('Change the picture');
    await clinician.reads('Position 2');
    await clinician.presses('Done');
    await clinician.presses('Throw it away');
    await clinician.reads('As the drill it was copied from.');
  });
});

describe('on paper', () => {
  it('every drill of a routine has its picture as a vector on a handout below 400 kB', async () => {
    const [routine] = await stored<{ id: string; items: { drill: string }[] }>(
      `SELECT id, items FROM routines WHERE athlete_id = $1 AND occasion = 'before-training' ORDER BY number DESC LIMIT 1`,
      [ids.get('Tarn Whitlow')],
    );
    const { type, bytes } = await open.page.evaluate(async (id: string) => {
      const response = await fetch(`/api/v1/routines/${id}/handout.pdf`);
      const body = new Uint8Array(await response.arrayBuffer());
      return { type: response.headers.get('content-type'), bytes: [...body] };
    }, routine?.id ?? '');
    expect(type).toBe('application/pdf');
    expect(bytes.length).toBeLessThan(400_000);
    // One page as dots: its left margin of each half, where the pictures are, has the colours of working limbs.
    const { stdout } = spawnSync('pdftoppm', ['-r', '50', '-f', '1', '-l', '1', '-'], {
      input: Buffer.from(bytes),
      maxBuffer: 1 << 26,
    });
    const head = /^P6\s+(\d+) (\d+)\s+255\n/.exec(stdout.subarray(0, 30).toString('latin1'));
    const dots = stdout.subarray(head?.[0].length ?? 0);
    let teal = 0;
    for (let i = 0; i + 2 < dots.length; i += 3) {
      const [r = 0, g = 0, b = 0] = dots.subarray(i, i + 3);
      if (Math.abs(r - 0x18) < 12 && Math.abs(g - 0x64) < 12 && Math.abs(b - 0x6a) < 12) teal += 1;
    }
    expect(teal).toBeGreaterThan(150);
    expect(
      spawnSync('pdfimages', ['-list', '-'], { input: Buffer.from(bytes), encoding: 'utf8' }).stdout,
    ).not.toMatch(/image/);
  });
});
