import { spawnSync } from 'node:child_process';
import { itemSeconds, routineSeconds } from '@yonder/core/dose';
import type { RoutineItem } from '@yonder/core/domain';
import { bundledReference } from '@yonder/core/reference/bundled';
import { describe, expect, it } from 'vitest';
import { atTheDesk } from './driver/atTheDesk.ts';
import { eachOf } from '@yonder/core/testing/eachOf';

const { open, clinician, ids, visit, stored } = await atTheDesk();

const MIRA = 'Mira Oldtown';
const drillOf = (name: string) => {
  const drill = bundledReference.data.drills.find((d) => d.name === name);
  if (!drill) throw new Error(`no drill named ${name}`);
  return drill;
};
interface Stored {
  id: string;
  number: number;
  items: RoutineItem[];
  total_seconds: number;
  request: { pattern: string | null };
}
async function newest(name: string): Promise<Stored> {
  const [row] = await stored<Stored & { [key: string]: unknown }>(
    'SELECT id, number, items, total_seconds, request FROM routines WHERE athlete_id = $1 ORDER BY number DESC LIMIT 1',
    [ids.get(name)],
  );
  if (!row) throw new Error('no routine is stored');
  return row;
}

describe('a routine for the action of the day', () => {
  it('is built, and says why each drill is in', async () => {
    await visit(MIRA, 'routine');
    await clinician.chooses('Action of the day', 'Run');
    await clinician.fills('Minutes', '12');
    await clinician.presses('Choose drills');
    await clinician.reads(/Proven: /);
    expect(await clinician.totalSeconds()).toBeLessThanOrEqual(720);
    const names = await clinician.drillNames();
    for (const name of names) {
      await clinician.presses(`${names.indexOf(name) + 1}. ${name}`);
      await open.page.waitForFunction(
        (wanted: string) => document.querySelector('aside[aria-label="Why"]')?.textContent?.includes(wanted),
        {},
        name,
      );
    }
    await clinician.reads(/Rehearses today’s action: run/);
  });

  it('is moved by keyboard alone, with what the move costs, and undone', async () => {
    const before = await clinician.drillNames();
    const [, second = ''] = before;
    const amount = await clinician.sees(`Rest of ${second}`, 'spinbutton');
    await amount.focus();
    await open.page.keyboard.down('Alt');
    await open.page.keyboard.press('ArrowDown');
    await open.page.keyboard.up('Alt');
    const after = await clinician.drillsOtherThan(before);
    expect(after.indexOf(second)).toBe(2);
    await clinician.reads(new RegExp(`${second} is now number 3: (costs nothing|\\d|\\+|−)`));
    await open.page.keyboard.down('Control');
    await open.page.keyboard.press('z');
    await open.page.keyboard.up('Control');
    expect(await clinician.drillsOtherThan(after)).toEqual(before);
  });

  it('moves the total at once by one key a step, to the exact second', async () => {
    const names = await clinician.drillNames();
    const name = names.find((n) => drillOf(n).dose.measure === 'reps' && !drillOf(n).unilateral) ?? '';
    const sets = await clinician.sees(`Sets of ${name}`, 'spinbutton');
    // What the server keeps is what is shown, as soon as it has it.
    await expect.poll(draftNames, { timeout: 15_000 }).toEqual(names);
    const was = await draftItem(name);
    const before = await clinician.totalSeconds();
    await sets.focus();
    await open.page.keyboard.press('ArrowUp');
    const more = itemSeconds(drillOf(name), { ...was, sets: was.sets + 1 }) - itemSeconds(drillOf(name), was);
    await expect.poll(() => clinician.totalSeconds()).toBe(before + more);
    await clinician.presses('Undo');
    await expect.poll(() => clinician.totalSeconds()).toBe(before);
  });

  async function draftItems(): Promise<RoutineItem[]> {
    const [row] = await stored<{ draft: { items: RoutineItem[] } }>(
      'SELECT draft FROM routine_drafts WHERE athlete_id = $1',
      [ids.get(MIRA)],
    );
    return row?.draft.items ?? [];
  }
  async function draftNames(): Promise<(string | undefined)[]> {
    return (await draftItems()).map(({ drill }) => bundledReference.drills.get(drill)?.name);
  }
  async function draftItem(name: string): Promise<RoutineItem> {
    const found = (await draftItems()).find((i) => i.drill === drillOf(name).id);
    if (!found) throw new Error(`${name} is not in the stored draft`);
    return found;
  }

  it('too long for its minutes, is fitted in by one press', async () => {
    const names = await clinician.drillNames();
    const name = names.find((n) => drillOf(n).dose.measure === 'reps') ?? '';
    await clinician.fills(`Sets of ${name}`, '5', 'spinbutton');
    await clinician.fills(`Rest of ${name}`, '120', 'spinbutton');
    await clinician.reads(/over the 12 min there are/);
    await clinician.pressesLike('Fit in', 'ul[aria-label="Checks"]');
    await clinician.readsNoMore('over the 12 min there are');
    expect(await clinician.totalSeconds()).toBeLessThanOrEqual(720);
  });

  it('one drill is swapped for another without its kit, and what is lost is said', async () => {
    const before = await clinician.drillNames();
    const kitted = before.find((n) => drillOf(n).equipment.length > 0) ?? before.at(-1) ?? '';
    await clinician.presses(`${before.indexOf(kitted) + 1}. ${kitted}`);
    await clinician.presses('Swap for an equivalent…');
    await clinician.ticks('no kit', 'radio');
    await clinician.reads(/keeps \d+ %.*; loses /);
    await open.page.waitForSelector('aside ul li button b');
    await (await open.page.$('aside ul li button:has(b)'))?.click();
    const after = await clinician.drillsOtherThan(before);
    const [instead = ''] = after.filter((n) => !before.includes(n));
    for (const kit of eachOf(drillOf(kitted).equipment))
      expect(drillOf(instead).equipment).not.toContain(kit);
  });

  it('any other drill can be asked why it is not in: the rule, or the cost, exactly if wanted', async () => {
    await clinician.ticks('Why not', 'radio');
    await clinician.reads(/It (costs|would cost)/);
    await clinician.presses('Exactly?');
    await clinician.reads(/Proven: /);
    await clinician.searches(
      'Why is this drill not in?',
      bundledReference.drills.get('box-drop-landing')?.name ?? '',
    );
    await clinician.reads('Ruled out: kit not at hand: box.');
  });

  it('more minutes, and minutes against benefit, are answered without leaving the page', async () => {
    await clinician.ticks('What if', 'radio');
    await clinician.presses('nothing on the floor');
    await clinician.reads(/nothing on the floor: (\d+ % (more|less) benefit|changes next to nothing)/);
    await clinician.reads(
      /(From \d+ min on more time adds little|Every further minute up to 30 still pays)\./,
    );
    await clinician.ticks('Why', 'radio');
  });

  it('is given more on one side and two drills in rounds, and is issued exactly as shown', async () => {
    await clinician.discards();
    await clinician.presses('Edit as the next version');
    const names = await clinician.drillsOtherThan([]);
    const sided = names.find((n) => drillOf(n).unilateral) ?? '';
    await clinician.presses(`${names.indexOf(sided) + 1}. ${sided}`);
    await (await clinician.sees(`Side of ${sided}`, 'combobox')).select('both');
    await clinician.ticks('sides by themselves');
    await clinician.fills(`Sets of ${sided}, left`, '3', 'spinbutton');
    await clinician.fills(`Sets of ${sided}, right`, '1', 'spinbutton');
    const [first = ''] = names;
    await clinician.presses(`1. ${first}`);
    await clinician.presses('in rounds with the next drill');
    await clinician.sees('Rounds', 'spinbutton');
    const shown = await clinician.totalSeconds();
    const number = (await newest(MIRA)).number + 1;
    await clinician.presses(`Issue version ${number}`);
    await clinician.reads(`Version ${number}: prepare`);
    const routine = await newest(MIRA);
    expect(routine.total_seconds).toBe(shown);
    expect(routineSeconds(bundledReference, routine.items)).toBe(shown);
    const uneven = routine.items.find((i) => i.drill === drillOf(sided).id);
    expect(uneven?.perSide?.left.sets).toBe(3);
    expect(routine.items[0]?.circuit).toEqual({ id: 'a', rounds: 2 });
    expect(routine.items[1]?.circuit).toEqual({ id: 'a', rounds: 2 });
  });

  it('is compared with the version before, side by side and in words', async () => {
    const text = await clinician.reads('Compare versions');
    expect(text).toMatch(/→ 3 × \d+( s)? left/);
    expect(text).toMatch(/rounds: once → 2 rounds/);
    expect(text).toMatch(/Time \d+ min \d+ s → \d+ min \d+ s \([+−]\d+ s\)/);
    await clinician.chooses('Compare from', await optionStarting('Compare from', 'Version 1'));
    await clinician.reads(/Version 1\s+Version 4\s+Difference/);
  });

  async function optionStarting(label: string, start: string): Promise<string> {
    const field = await open.page.waitForSelector(`::-p-aria([name="${label}"])`);
    await field?.click();
    await open.page.waitForSelector('[role="option"]');
    const names = await open.page.$$eval('[role="option"]', (nodes) => nodes.map((n) => n.textContent ?? ''));
    await open.page.keyboard.press('Escape');
    return names.find((name) => name.startsWith(start)) ?? '';
  }

  it('is printed: the sheet says in plain words what was issued, with a page to log it', async () => {
    const routine = await newest(MIRA);
    const bytes = await open.page.evaluate(async (id: string) => {
      const response = await fetch(`/api/v1/routines/${id}/handout.pdf`);
      return [...new Uint8Array(await response.arrayBuffer())];
    }, routine.id);
    const pdf = Buffer.from(bytes);
    const text = spawnSync('pdftotext', ['-raw', '-', '-'], { input: pdf, encoding: 'utf8' }).stdout;
    const read = text.replace(/\s+/g, ' ');
    for (const { drill } of eachOf(routine.items))
      expect(read).toContain(bundledReference.drills.get(drill)?.name ?? drill);
    expect(read).toMatch(/Left 3 sets of \d+ \w+( \w+)?; right 1 set of/);
    expect(read).toContain('in a circuit of 2 rounds');
    expect(read).toContain(`Log: ${MIRA}, before training, version 4`);
    const info = spawnSync('pdfinfo', ['-'], { input: pdf, encoding: 'utf8' }).stdout;
    expect(Number(/Pages:\s+(\d+)/.exec(info)?.[1])).toBeLessThanOrEqual(3);
  });
});

describe('from one routine to others', () => {
  it('a short version is one press: solved anew in five minutes, with what became of each drill', async () => {
    await visit(MIRA, 'routine');
    await clinician.presses('Derive…');
    await clinician.presses('Short, 5 min, the most of it in five minutes', 'menuitem');
    await clinician.reads('Short, 5 min, solved anew');
    expect(await clinician.totalSeconds()).toBeLessThanOrEqual(300);
    const report = await clinician.reads(/Left out/);
    expect(report).toMatch(/Kept|Another level/);
  });

  it('kept as a template and fitted to somebody with other kit, it says what changed', async () => {
    await clinician.presses('Derive…');
    await clinician.presses('Save as protocol', 'menuitem');
    await clinician.fills('Name', 'Five minutes for the ankle');
    await clinician.presses('Keep protocol');
    await clinician.reads('Protocol “Five minutes for the ankle” is kept.');
    const [template] = await stored<{ items: RoutineItem[] }>(
      "SELECT items FROM templates WHERE name LIKE 'Five minutes%'",
    );
    expect(template?.items.length).toBeGreaterThan(2);
    await clinician.discards();
    await visit('Tarn Whitlow', 'routine');
    await clinician.presses('From a protocol');
    await clinician.reads('Five minutes for the ankle');
    const protocol = await clinician.sees('Five minutes for the ankle', 'group');
    await (await protocol.$('::-p-aria([name="Fit to this athlete"][role="button"])'))?.click();
    await clinician.reads('“Five minutes for the ankle”, fitted');
    await clinician.reads(/Kept|In place of|Left out/);
    const kit = await stored<{ kit: string[] }>('SELECT kit FROM athletes WHERE id = $1', [
      ids.get('Tarn Whitlow'),
    ]);
    const needed = (await clinician.drillNames()).flatMap((name) => drillOf(name).equipment);
    for (const word of eachOf(needed)) expect(kit[0]?.kit).toContain(word);
    await clinician.discards();
  });
});

describe('the library', () => {
  it('is narrowed by what a drill is for and needs, and shows what makes the next level harder', async () => {
    await clinician.opens('/library');
    await clinician.chooses('Restriction', 'Ankle dorsiflexion range');
    await clinician.chooses('Kit', 'without any');
    await clinician.reads(/\d+ of 52\d drills/);
    await clinician.presses('Half-kneeling ankle rock mobilise · Ankle bend mobility 3 · no kit');
    const text = await clinician.reads('Ankle bend mobility');
    expect(text).toMatch(/stability\s+less support: half kneeling/);
  });

  it('takes a copy as a drill of the practice’s own, refuses what breaks the rules, and offers it', async () => {
    await clinician.presses('Copy as own', 'link');
    await clinician.fills('Name', 'Ankle rock on a slope');
    await clinician.fills('Place in the ladder', '9');
    await clinician.fills('Skill', '0');
    await clinician.presses('Save drill');
    await clinician.reads('1 or more');
    await clinician.fills('Skill', '5');
    await clinician.fills('Fatigue', '4');
    await clinician.presses('Save drill');
    await clinician.reads('The practice’s own; saved by Rowan Halloran');
    await clinician.sees('Edit', 'link');
    const [row] = await stored<{ slug: string; drill: { level: number }; saved_by: string }>(
      "SELECT slug, drill, saved_by FROM own_drills WHERE slug LIKE 'own-ankle-rock%'",
    );
    expect(row).toMatchObject({
      slug: 'own-ankle-rock-on-a-slope',
      saved_by: 'Rowan Halloran',
      drill: { level: 9 },
    });
    await visit(MIRA, 'routine');
    await clinician.presses('Choose drills');
    await clinician.reads(/Proven: /);
    await clinician.ticks('Why not', 'radio');
    await clinician.searches('Why is this drill not in?', 'Ankle rock on a slope');
    await clinician.reads(/Ruled out: level not open yet|It costs|It would cost/);
    await clinician.discards();
  });

  it('a drill file that does not fit says where, and nothing is stored', async () => {
    await clinician.opens('/library?whose=own');
    const before = await stored('SELECT id FROM own_drills');
    const input = await open.page.waitForSelector('input[type=file]');
    const exported = await open.page.evaluate(async () =>
      (await fetch('/api/v1/library/drills/export.json')).json(),
    );
    exported.drills[0].fatigue = 99;
    await open.page.evaluate((text: string) => {
      const field = document.querySelector<HTMLInputElement>('input[type=file]');
      const files = new DataTransfer();
      files.items.add(new File([text], 'drills.json', { type: 'application/json' }));
      if (field) field.files = files.files;
      field?.dispatchEvent(new Event('change', { bubbles: true }));
    }, JSON.stringify(exported));
    expect(input).not.toBeNull();
    await clinician.reads(/\$\.drills\[0\]\.fatigue/);
    expect(await stored('SELECT id FROM own_drills')).toEqual(before);
    await clinician.presses('Cancel');
    expect(open.errors).toEqual([]);
    expect([...open.strangers]).toEqual([]);
  });

  it('a starting level is confirmed or refused by one press, and what is taken out stays out', async () => {
    const BRAM = 'Bram Tollgate';
    await visit(BRAM, 'routine');
    await clinician.presses('Choose drills');
    await clinician.reads(/Proven: /);
    await clinician.reads('Starting level by rule');
    const unsure = () =>
      open.page.$$eval('[aria-label="Drills of the routine"] [aria-label^="Seen, fine: "]', (list) =>
        list.map((node) => node.getAttribute('aria-label')?.slice('Seen, fine: '.length) ?? ''),
      );
    const [fine = '', hard = ''] = await unsure();
    await clinician.presses(`Seen, fine: ${fine}`);
    await expect.poll(unsure, { timeout: 15_000 }).not.toContain(fine);
    await clinician.presses(`Too hard: ${hard}`);
    await expect.poll(() => clinician.drillNames(), { timeout: 15_000 }).not.toContain(hard);
    expect(await clinician.drillNames()).toContain(fine);
    const placed = await stored<{ drill: string; verdict: string; by: string }>(
      'SELECT drill, verdict, by FROM placements WHERE athlete_id = $1 ORDER BY said_at',
      [ids.get(BRAM)],
    );
    expect(placed).toEqual([
      { drill: drillOf(fine).id, verdict: 'fine', by: 'Rowan Halloran' },
      { drill: drillOf(hard).id, verdict: 'too-hard', by: 'Rowan Halloran' },
    ]);

    await clinician.presses(`Remove ${fine}`);
    await clinician.presses('Choose again');
    await clinician.reads(/Proven: /);
    const again = await clinician.drillNames();
    expect(again).not.toContain(fine);
    expect(again).not.toContain(hard);
    await clinician.presses(`Let ${fine} back`);
    await open.page.waitForFunction(() => !document.querySelector('[aria-label="Left out"]'));
    await clinician.discards();
  });

  it('shares of the maximum, edited, hold for the practice', async () => {
    await clinician.opens('/figures');
    await clinician.presses('Dose', 'tab');
    await clinician.fills('activate, repetitions, upper', '40');
    await clinician.presses('Save shares');
    await clinician.reads('1 of your own.');
    const [row] = await stored<{ dose_shares: object[] }>('SELECT dose_shares FROM practices');
    expect(row?.dose_shares).toEqual([
      { category: 'activate', mode: 'prepare', of: 'reps', low: 0.3, high: 0.4 },
    ]);
  });
});
