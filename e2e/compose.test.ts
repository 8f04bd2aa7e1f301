import { spawnSync } from 'node:child_process';
import type { RoutineItem } from '@yonder/core/domain';
import { routineSeconds, routineTimeline } from '@yonder/core/dose';
import { bundledReference } from '@yonder/core/reference/bundled';
import { describe, expect, it } from 'vitest';
import { atTheDesk } from './driver/atTheDesk.ts';
import { eachOf } from '@yonder/core/testing/eachOf';

const { open, clinician, ids, visit, stored } = await atTheDesk();

const HER = 'Orla Greenhow';
const HOME = `walk or jog 3 min before
ankle rocks kneeling 2x10 L only
calf raise 2x12 bent knee each side
heel raises two legs, slow 2x8-10
towel scrunch 2 min
1 leg stand 3 x 30s each
band pull aparts 20
bridge 2x12
calf stretch wall
hold 30 s
Anwen's foot thing with the marble 1 min
ice if sore`;
const CIRCUIT = `Warm up:
easy jog 2 min

3 rounds, 30 s between rounds:
bird dog 5 each
side plank 15 s each

rest 1 min, water
goblet squat 9x8
goblet squat 2x8`;

interface Version {
  readonly id: string;
  readonly number: number;
  readonly items: RoutineItem[];
  readonly totalSeconds: number;
  readonly overrides: { why: string; by: string }[];
}
const versionOf = async (occasion: string): Promise<Version> => {
  const [row] = await stored<Version>(
    `SELECT id, number, items, total_seconds AS "totalSeconds", overrides FROM routines
     WHERE athlete_id = $1 AND occasion = $2 ORDER BY number DESC LIMIT 1`,
    [ids.get(HER), occasion],
  );
  if (!row) throw new Error(`nothing issued for ${occasion}`);
  return row;
};

/** What the server keeps of what is being composed, as soon as it has it: another device goes on from there. */
const keptOf = async (occasion: string): Promise<{ drill: string }[]> => {
  const rows = () =>
    stored<{ draft: { items: { drill: string }[] } }>(
      'SELECT draft FROM routine_drafts WHERE athlete_id = $1 AND occasion = $2',
      [ids.get(HER), occasion],
    );
  await expect.poll(rows, { timeout: 20_000 }).toHaveLength(1);
  const [row] = await rows();
  return row?.draft.items ?? [];
};

/** What a practitioner presses, counted. */
let presses = 0;
const press = async (name: string, role = 'button') => {
  presses += 1;
  await clinician.presses(name, role);
};
/** Presses the first button whose name begins so. */
const pressLike = async (start: string, within?: string) => {
  presses += 1;
  await clinician.pressesLike(start, within);
};
/** Puts a text into the list as from the clipboard: one press. */
const pastes = async (text: string) => {
  presses += 1;
  await (
    await clinician.sees('The list', 'textbox')
  ).evaluate((field, pasted) => {
    const data = new DataTransfer();
    data.setData('text/plain', pasted);
    field.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    );
  }, text);
};
const forOccasion = async (name: string) => {
  await press('+ Occasion');
  await press(name, 'menuitem');
  // The page of the occasion is there when its tab is the chosen one.
  await open.page.waitForFunction(
    (wanted: string) =>
      document.querySelector('[role="tab"][aria-selected="true"]')?.textContent?.startsWith(wanted),
    {},
    name,
  );
};
/** Issues what is composed; what goes against a rule gets the same reason. */
const issues = async () => {
  await pressLike('Issue version', 'main');
  // It is issued, or something goes against a rule and a reason is asked for.
  await open.page.waitForFunction(
    () => document.querySelector('[role="dialog"] form') ?? document.body.innerText.includes('is issued.'),
  );
  if (await open.page.$('[role="dialog"] form')) {
    const fields = await open.page.$$('[role="dialog"] form input');
    if (fields.length > 1) await press('part of the plan');
    else {
      presses += 1;
      await fields[0]?.type('part of the plan');
    }
    await pressLike('Issue version', '[role="dialog"]');
  }
  await clinician.reads('is issued.');
};

describe('a list from the clipboard', () => {
  it('of twelve lines is issued for an occasion in at most fifteen presses, every line kept', async () => {
    await visit(HER, 'routine');
    await clinician.sees('+ Occasion', 'button');
    presses = 0;
    await forOccasion('At home');
    await press('Take over a list…');
    await pastes(HOME);
    await clinician.reads('12 of 12 lines kept');
    await clinician.reads('one line has to be chosen first');
    await press('Brisk walk, faster each minute');
    await press('Take over, 12 of 12 lines kept');
    await clinician.reads('lines are taken over.');
    await issues();
    expect(presses).toBeLessThanOrEqual(15);
    const { items, totalSeconds, overrides } = await versionOf('at-home');
    // Eleven lines and one that belongs to the one before.
    expect(items).toHaveLength(11);
    expect(items[1]).toMatchObject({ drill: 'half-kneeling-ankle-rock', side: 'left', sets: 2, amount: 10 });
    expect(items[3]).toMatchObject({ amountFrom: 8, amount: 10, note: 'slow' });
    expect(items[10]).toMatchObject({ drill: 'own-words', words: 'ice if sore', amount: 0 });
    expect(totalSeconds).toBe(routineSeconds(bundledReference, items));
    for (const { why, by } of eachOf(overrides))
      expect([why, by]).toEqual(['part of the plan', 'Rowan Halloran']);
  });

  it('half written is there again after a reload', async () => {
    await visit(HER, 'routine?for=travel');
    await press('Take over a list…');
    await (await clinician.sees('The list', 'textbox')).type('side plank 2x20 s each');
    await clinician.reloads();
    await press('Take over a list…');
    await clinician.reads('side plank 2x20 s each');
    await press('Edit the paper');
    await clinician.fills('The list', ' ');
    await press('Back');
  });
});

describe('a circuit composed by hand', () => {
  it('is repaired twice, completed, issued and printed as it stands', async () => {
    await visit(HER, 'routine?for=on-its-own');
    await press('Take over a list…');
    await pastes(CIRCUIT);
    await pressLike('Take over,');
    await clinician.reads('lines are taken over.');
    const kept = (await keptOf('on-its-own')).filter(({ drill }) => drill !== 'pause');
    expect(kept.map(({ drill }) => bundledReference.drills.get(drill)?.name)).toEqual(
      await clinician.drillNames(),
    );
    const before = await clinician.totalSeconds();
    for (let mended = 0; mended < 2; mended += 1) {
      const shown = await clinician.totalSeconds();
      const repair = 'ul[aria-label="Checks"] [data-level="warn"] button[data-variant="light"]';
      await open.page.waitForSelector(repair);
      await open.page.$eval(repair, (node) => (node as HTMLElement).click());
      await expect.poll(() => clinician.totalSeconds(), { timeout: 10_000 }).not.toBe(shown);
    }
    expect(await clinician.totalSeconds()).toBeLessThan(before);
    const fixed = await clinician.drillNames();
    await clinician.fills('Minutes', '25');
    await pressLike('Complete it ');
    const said = await clinician.reads('Added: ');
    const after = await clinician.drillNames();
    expect(after.filter((name) => fixed.includes(name))).toEqual(fixed);
    expect(after.length).toBeGreaterThan(fixed.length);
    expect(said).toContain('What stood there is as it was.');
    const shown = await clinician.totalSeconds();
    expect(shown).toBeLessThanOrEqual(25 * 60);
    await issues();
    const version = await versionOf('on-its-own');
    expect(version.totalSeconds).toBe(shown);
    const pdf = await open.page.evaluate(async (id: string) => {
      const response = await fetch(`/api/v1/routines/${id}/handout.pdf`);
      return [...new Uint8Array(await response.arrayBuffer())];
    }, version.id);
    const read = spawnSync('pdftotext', ['-raw', '-', '-'], {
      input: Buffer.from(pdf),
      encoding: 'utf8',
    }).stdout.replace(/\s+/g, ' ');
    for (const words of ['On its own', 'Warm up', '3 rounds, 30 s between rounds', 'Bird dog', 'Rest: water'])
      expect(read).toContain(words);
    for (const name of eachOf(after)) expect(read).toContain(name);
  });

  it('and is run round by round, by exactly the seconds that were shown', async () => {
    const { items, id } = await versionOf('on-its-own');
    const segments = routineTimeline(bundledReference, items);
    await visit(HER, 'run?for=on-its-own');
    await clinician.startsTheRun();
    const rounds = new Set<string>();
    for (const _segment of segments) {
      const text = await open.page.$eval('[role="dialog"]', (node) => (node as HTMLElement).innerText);
      const [round] = /Round \d of 3/.exec(text) ?? [];
      if (round) rounds.add(round);
      if (rounds.size === 3) break;
      await clinician.presses('Skip');
    }
    expect([...rounds]).toEqual(['Round 1 of 3', 'Round 2 of 3', 'Round 3 of 3']);
    await clinician.presses('End here');
    await clinician.reads('How was it?');
    const [session] = await stored<{ n: number }>(
      'SELECT count(*)::int AS n FROM sessions WHERE routine_id = $1',
      [id],
    );
    expect(session?.n).toBe(1);
    expect(await versionOf('at-home')).toMatchObject({ number: 1 });
  });
});
