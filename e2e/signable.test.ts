import { bundledReference } from '@yonder/core/reference/bundled';
import { rehearsalTag } from '@yonder/core/reference';
import type { Drill } from '@yonder/core/reference';
import { loadOn } from '@yonder/core/reference';
import { describe, expect, it } from 'vitest';
import { atTheDesk } from './driver/atTheDesk.ts';
import { eachOf } from '@yonder/core/testing/eachOf';

const { open, clinician, ids, visit, stored } = await atTheDesk();

const RUNNER = 'Moss Applethwaite';
const SORE = 'Rhea Thornby';
const PADDLER = 'Gwyn Pikeside';
const drillOf = (name: string): Drill => {
  const drill = bundledReference.data.drills.find((d) => d.name === name);
  if (!drill) throw new Error(`no drill named ${name}`);
  return drill;
};
const ofAthlete = <Row extends object>(name: string, sql: string) => stored<Row>(sql, [ids.get(name)]);

/** Builds the routine and waits until it is proven; its drills. */
async function builds(button: 'Choose drills' | 'Choose again' = 'Choose drills'): Promise<Drill[]> {
  await clinician.presses(button);
  await clinician.reads(/Proven: /);
  return (await clinician.drillNames()).map(drillOf);
}

/** Tells a pain in the story of the region that is open. */
async function tells(howMuch: string): Promise<void> {
  await clinician.chooses('Aspect', 'back');
  await clinician.chooses('Feels like', 'ache');
  await clinician.fills('How much', howMuch);
  await clinician.presses('Add pain');
  await clinician.reads(new RegExp(`Ankle and foot, left hurts ${howMuch}/10`));
}

describe('what is done every week', () => {
  it('gives a trained runner running, and a level is confirmed in the run', async () => {
    await visit(RUNNER, 'story');
    await clinician.searches('Add an action', 'Run');
    await clinician.fills('Run, hard', '3');
    await clinician.presses('Save changes');
    await clinician.reads('Saved.');
    const [{ exposure } = { exposure: [] }] = await ofAthlete<{ exposure: object[] }>(
      RUNNER,
      'SELECT exposure FROM athletes WHERE id = $1',
    );
    expect(exposure).toContainEqual({ action: 'run', effort: 'hard', perWeek: 3 });
    await clinician.walksTo('Routine');
    await clinician.fills('Minutes', '15');
    const drills = await builds();
    const running = drills.filter(
      (d) => rehearsalTag(bundledReference, d, 'run') >= 0.6 && d.loadClass === 'impact',
    );
    expect(running.length).toBeGreaterThan(0);

    await clinician.presses(/Issue version \d+/.exec(await clinician.reads('Issue version'))?.[0] ?? '');
    await clinician.reads('is issued.');
    const [{ reasons, items } = { reasons: [], items: [] }] = await ofAthlete<{
      reasons: { item: string; reasons: { confirm?: boolean }[] }[];
      items: { id: string; drill: string }[];
    }>(RUNNER, 'SELECT reasons, items FROM routines WHERE athlete_id = $1 ORDER BY number DESC LIMIT 1');
    const unseen = items.findIndex(({ id }) =>
      reasons.some((one) => one.item === id && one.reasons.some(({ confirm }) => confirm)),
    );
    expect(unseen).toBeGreaterThanOrEqual(0);
    await clinician.walksTo('Run');
    await clinician.startsTheRun();
    for (let skipped = 0; skipped < unseen; skipped += 1) await clinician.presses('Skip drill');
    const name = bundledReference.drills.get(items[unseen]?.drill ?? '')?.name ?? '';
    await clinician.reads('Nobody has seen this level yet');
    await clinician.presses(`Seen, fine: ${name}`);
    await clinician.reads(/Seen, fine: Rowan Halloran/);
    await clinician.presses(`Too hard: ${name}`);
    await clinician.reads(/Instead of /);
    await clinician.presses('Close');
    const said = await ofAthlete<{ drill: string; verdict: string }>(
      RUNNER,
      'SELECT drill, verdict FROM placements WHERE athlete_id = $1',
    );
    expect(said).toContainEqual({ drill: items[unseen]?.drill, verdict: 'too-hard' });
    await clinician.presses('Leave, go on later');
  }, 180_000);
});

describe('pain told in the story', () => {
  it('of 4 changes the open routine and says why; the rule is lifted with a reason', async () => {
    await visit(SORE, 'routine');
    const before = await builds();
    await visit(SORE, 'story?region=ankle-foot');
    await tells('4');
    await clinician.walksTo('Routine');
    await clinician.reads(/must not be done today: it hurts too much today/);
    const after = await builds('Choose again');
    expect(after.map((d) => d.id)).not.toEqual(before.map((d) => d.id));
    for (const drill of eachOf(after))
      expect(drill.contraindications, drill.id).not.toContain('achilles-insertional-irritation');
    await clinician.presses('Lift the rule: Ankle and foot, left');
    await clinician.fills('Why it is lifted', 'an old ache, looked at today');
    await clinician.presses('Lift it');
    await clinician.reads(/was lifted by Rowan Halloran on .*: an old ache, looked at today/);
    const lifts = await ofAthlete(SORE, 'SELECT region, side, nrs, by FROM lifts WHERE athlete_id = $1');
    expect(lifts).toEqual([{ region: 'ankle-foot', side: 'left', nrs: 4, by: 'Rowan Halloran' }]);
  }, 120_000);
  it('of 7 takes the region out, whatever was lifted; the rest goes on', async () => {
    await visit(SORE, 'story?region=ankle-foot');
    await tells('7');
    await clinician.walksTo('Routine');
    await clinician.reads(/it is left alone today/);
    const drills = await builds('Choose again');
    expect(drills.length).toBeGreaterThan(2);
    for (const drill of eachOf(drills.filter((d) => !d.unilateral)))
      expect(loadOn(drill, 'ankle-foot'), drill.id).toBeLessThan(0.3);
    await clinician.reads(/Not answered/);
  }, 120_000);
});

describe('what was chosen for the day', () => {
  it('says why it does not show, one word opens what was locked, and then it shows', async () => {
    await visit(PADDLER, 'routine');
    await clinician.fills('Minutes', '12');
    await clinician.presses('Methods');
    await clinician.chooses(
      'Finish the warm-up breathless or able to talk?',
      'Finish breathing hard, short of fatigue',
    );
    await open.page.keyboard.press('Escape');
    await builds();
    await clinician.reads(/Finish breathing hard[^●]*level not open yet/);
    const seen = await clinician.pressesLike('Seen, fine', 'section[aria-label="What the body asks"]');
    const opened = drillOf(seen.replace('Seen, fine: ', ''));
    expect(opened.intensityClass).toBe('high');
    await expect
      .poll(() => ofAthlete(PADDLER, 'SELECT drill, verdict, by FROM placements WHERE athlete_id = $1'))
      .toEqual([{ drill: opened.id, verdict: 'fine', by: 'Rowan Halloran' }]);
    // Its reason is another one as soon as the record knows what was seen.
    await clinician.seesNoMore(seen, 'button');
    const drills = await builds('Choose again');
    expect(drills.slice(-3).map(({ intensityClass }) => intensityClass)).toContain('high');
    await clinician.reads(/●\s+Finish breathing hard, short of fatigue\s+in /);
    await clinician.discards();
  }, 120_000);
});

describe('a method', () => {
  it('is looked at before it is chosen for an athlete, acts in the routine and is marked there', async () => {
    await visit(RUNNER, 'methods?school=static-stretch-before');
    await clinician.ticks('Allowed as the last step, just before the start', 'radio');
    await clinician.presses('Which routines would change?');
    await clinician.reads('1 of 1 routines in force would be built otherwise.');
    await clinician.fills('Why this one', 'wants the end range fresh');
    await clinician.presses('Choose for this athlete');
    await clinician.reads(/Chosen by Rowan Halloran on .*: wants the end range fresh/);
    const rows = await ofAthlete(
      RUNNER,
      'SELECT school, option, by FROM method_choices WHERE athlete_id = $1 AND ended_on IS NULL',
    );
    expect(rows).toEqual([{ school: 'static-stretch-before', option: 'last-step', by: 'Rowan Halloran' }]);
    await clinician.walksTo('Routine');
    await clinician.fills('Minutes', '15');
    const drills = await builds();
    const last = drills.at(-1);
    expect(last?.category).toBe('stretch');
    await clinician.presses(`${drills.length}. ${last?.name}`);
    await clinician.reads('Method: Allowed as the last step, just before the start.');
    await clinician.discards();
  }, 120_000);
  it('of the practice says whose routines would change, and leaves everything as it is until it is chosen', async () => {
    await clinician.opens('/methods?school=release-first');
    await clinician.ticks('Release first, always', 'radio');
    await clinician.presses('Which routines would change?');
    // Everybody's routine is built twice: while other browsers are at work that takes a while.
    await open.page.waitForFunction(
      () => /\d+ of \d+ routines in force would be built otherwise/.test(document.body.innerText),
      { timeout: 150_000 },
    );
    await clinician.presses('Leave it');
    await clinician.seesNoMore('Choose for the practice', 'button');
    expect(await stored('SELECT id FROM method_choices WHERE athlete_id IS NULL')).toEqual([]);
  }, 200_000);
});

describe('before a session', () => {
  it('what hurts today is said, and what is not for today is left out of the run', async () => {
    await visit(PADDLER, 'run?region=shoulder');
    await clinician.presses('Something hurts');
    await clinician.fills('How much', '7');
    await clinician.presses('Say it');
    await clinician.reads(/not today: it hurts too much today/);
    await clinician.reads(/Start without \d+ drills?/);
    await open.page.$$eval('main [role="alert"] input[type="radio"][value="true"]', (nodes) => {
      for (const node of nodes) (node as HTMLElement).click();
    });
    // How many are left out changes while the session of today is worked out: whichever it says now is pressed.
    await open.page.waitForFunction(() => {
      const start = [...document.querySelectorAll('button')].find((one) =>
        one.innerText.startsWith('Start without'),
      );
      if (!start || start.disabled) return false;
      start.click();
      return true;
    });
    await clinician.sees('Runner', 'dialog');
    const [{ event } = { event: { items: [] } }] = await ofAthlete<{ event: { items: string[] } }>(
      PADDLER,
      `SELECT e.event FROM session_events e JOIN sessions s ON s.id = e.session_id
       WHERE s.athlete_id = $1 AND e.event ->> 'type' = 'left-out'`,
    );
    expect(event.items.length).toBeGreaterThan(0);
    const begun = () =>
      ofAthlete(
        PADDLER,
        `SELECT 1 FROM session_events e JOIN sessions s ON s.id = e.session_id
         WHERE s.athlete_id = $1 AND s.date = current_date AND e.event ->> 'type' = 'started'`,
      );
    await expect.poll(begun, { timeout: 15_000 }).toHaveLength(1);
    await clinician.presses('End here');
    await clinician.reads('not for today');
    await clinician.presses('Store the session');
    await clinician.seesNoMore('Runner', 'dialog');
    const entries = await ofAthlete<{ item_id: string; done: string }>(
      PADDLER,
      `SELECT item_id, done FROM session_entries WHERE athlete_id = $1 AND date = current_date`,
    );
    for (const item of eachOf(event.items)) expect(entries).toContainEqual({ item_id: item, done: 'none' });
  }, 120_000);
});
