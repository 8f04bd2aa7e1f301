import { spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { DRILL_FILE_FORMAT, ownDrillOf } from '@yonder/core/formats';
import { figureOf } from '@yonder/core/figure/bundled';
import { bundledReference } from '@yonder/core/reference/bundled';
import { addAthlete, createTestApp, issue, ROCK, TODAY } from '../../testing/testApp.ts';
import type { Client, TestApp } from '../../testing/testApp.ts';

let app: TestApp;
let north: Client;
let south: Client;
beforeAll(async () => {
  app = await createTestApp();
  north = await app.signIn();
  south = await app.signIn('south');
});
afterAll(() => app.close());

const source = bundledReference.drills.get('knee-to-wall-rock');
if (!source) throw new Error('no drill to copy');
const copy = (name: string, over: object = {}) => ({ ...ownDrillOf(source, 'own-new', name), ...over });
const drillsOf = async (client: Client) => (await client.get('/figures').expect(200)).body.drills;

describe('drills of the practice’s own', () => {
  it('get an id from their name, are known to cases at once, and stay inside the practice', async () => {
    const { body } = await north.create('/library/drills', { drill: copy('Slope board rock') }).expect(201);
    const [row] = body.drills;
    expect(row).toMatchObject({
      version: 1,
      savedBy: 'R. Halloran',
      savedOn: TODAY,
      drill: { id: 'own-slope-board-rock' },
    });
    const { id } = await addAthlete(north);
    const { body: loaded } = await north.get(`/athletes/${id}/case?on=${TODAY}`).expect(200);
    expect(loaded.case.overrides.drills.map((d: { id: string }) => d.id)).toEqual(['own-slope-board-rock']);
    expect(await drillsOf(south)).toEqual([]);
    await south.put(`/library/drills/${row.rowId}`, { drill: row.drill, version: 1 }).expect(404);
  });
  it('can be issued, run and printed; archived they keep their name in what was issued', async () => {
    const [row] = await drillsOf(north);
    const { id } = await addAthlete(north);
    const item = { ...ROCK, drill: row.drill.id };
    const routine = (await issue(north, id, TODAY, [item]).expect(201)).body;
    expect(routine.totalSeconds).toBeGreaterThan(0);
    await north.get(`/routines/${routine.id}/handout.pdf`).expect(200);
    await north.create('/sessions', { routineId: routine.id, date: TODAY }).expect(200);
    await north
      .put(`/library/drills/${row.rowId}`, { drill: { ...row.drill, archived: true }, version: row.version })
      .expect(200);
    const next = await issue(north, id, TODAY, [ROCK]).expect(201);
    expect(next.body.changes.map((c: { rule: string }) => c.rule)).toContain('item-replaced');
    expect(JSON.stringify(next.body.changes)).toContain(row.drill.id);
  });
  it('changed later stay as they were in what was issued, and a tick for them is taken back and named', async () => {
    const added = await north.create('/library/drills', { drill: copy('Ledge rock') }).expect(201);
    const rowOf = (body: { drills: { drill: { name: string } }[] }, name: string) =>
      body.drills.find(({ drill }) => drill.name === name) as never as {
        rowId: string;
        version: number;
        drill: { id: string; dose: object };
      };
    const row = rowOf(added.body, 'Ledge rock');
    const { id } = await addAthlete(north);
    const ticked = { by: 'Dr V. Ness', date: TODAY, drills: [row.drill.id, ROCK.drill], tests: [] };
    await north.put(`/athletes/${id}/protocols/ankle-foot/left`, ticked).expect(200);
    const routine = (await issue(north, id, TODAY, [{ ...ROCK, drill: row.drill.id }]).expect(201)).body;
    expect(routine.ownDrills).toEqual([row.drill]);
    const dose = { ...row.drill.dose, secondsPerRep: 30 };
    const slower = { ...row.drill, name: 'Ledge rock, slow', dose };
    const changed = await north
      .put(`/library/drills/${row.rowId}`, { drill: slower, version: row.version })
      .expect(200);
    // What was ticked was another drill.
    const { body: story } = await north.get(`/athletes/${id}`).expect(200);
    expect(story.protocols).toMatchObject([{ drills: [ROCK.drill], changed: [row.drill.id], version: 2 }]);
    const again = { ...ticked, version: 2 };
    const { body: anew } = await north.put(`/athletes/${id}/protocols/ankle-foot/left`, again).expect(200);
    expect(anew.protocols).toMatchObject([{ drills: ticked.drills, changed: [] }]);
    // What was issued is printed and counted as it was.
    const { body: pdf } = await north.get(`/routines/${routine.id}/handout.pdf`).expect(200);
    const text = spawnSync('pdftotext', ['-layout', '-', '-'], { input: pdf, encoding: 'utf8' }).stdout;
    expect(text).toContain('Ledge rock');
    expect(text).not.toContain('slow');
    const { body: kept } = await north.get(`/athletes/${id}/routines`).expect(200);
    expect(kept.items[0]).toMatchObject({ ownDrills: [row.drill], totalSeconds: routine.totalSeconds });
    const next = (await issue(north, id, TODAY, [{ ...ROCK, drill: row.drill.id }]).expect(201)).body;
    expect(next.ownDrills[0].name).toBe('Ledge rock, slow');
    expect(next.totalSeconds).toBeGreaterThan(routine.totalSeconds);
    // Archived and brought back it is no other drill.
    const now = rowOf(changed.body, 'Ledge rock, slow');
    const put = (drill: object, version: number) =>
      north.put(`/library/drills/${row.rowId}`, { drill, version }).expect(200);
    await put({ ...now.drill, archived: true }, now.version);
    await put({ ...now.drill, archived: false }, now.version + 1);
    const { body: last } = await north.get(`/athletes/${id}`).expect(200);
    expect(last.protocols).toMatchObject([{ drills: ticked.drills, changed: [] }]);
  });
  it('keep the picture that was drawn for them; what cannot be drawn is refused with its place', async () => {
    const picture = figureOf('split-squat');
    const sent = await north.create('/library/drills', { drill: copy('Drawn', { picture }) }).expect(201);
    const row = sent.body.drills.find((one: { drill: { name: string } }) => one.drill.name === 'Drawn');
    expect(row.drill.picture).toEqual(picture);
    const { id } = await addAthlete(north);
    const routine = (await issue(north, id, TODAY, [{ ...ROCK, drill: row.drill.id }]).expect(201)).body;
    await north.get(`/routines/${routine.id}/handout.pdf`).expect(200);
    const refused = async (over: object, path: string) => {
      const drill = { ...row.drill, picture: { ...picture, ...over } };
      const answer = await north.put(`/library/drills/${row.rowId}`, { drill, version: row.version });
      expect([answer.status, answer.body.errors?.[0]?.path]).toEqual([400, path]);
    };
    await refused({ marks: [{ hold: 'tail' }] }, '$.drill.picture.marks[0].hold');
    await refused({ poses: [] }, '$.drill.picture.poses');
    await refused({ poses: [Array.from({ length: 49 }, () => 1e9)] }, '$.drill.picture.poses[0][0]');
    await refused({ kit: Array.from({ length: 900 }, () => ({ type: 'cone' })) }, '$.drill.picture.kit');
    expect((await drillsOf(north)).find((one: { rowId: string }) => one.rowId === row.rowId).version).toBe(
      row.version,
    );
  });
  it('with a picture sent fifty times are stored once, and nobody of another practice can have or change them', async () => {
    const body = { id: randomUUID(), drill: copy('Fifty times', { picture: figureOf('split-squat') }) };
    const sent = await Promise.all(Array.from({ length: 50 }, () => north.post('/library/drills', body)));
    expect(sent.every(({ status }) => status < 300 || status === 409 || status === 429)).toBe(true);
    const own = (await drillsOf(north)).filter(
      (one: { drill: { name: string } }) => one.drill.name === 'Fifty times',
    );
    expect(own).toHaveLength(1);
    const [{ rowId, drill, version }] = own;
    await south.put(`/library/drills/${rowId}`, { drill, version }).expect(404);
    expect(JSON.stringify(await drillsOf(south))).not.toContain('Fifty times');
    const reader = await app.signIn('north', 'read-only');
    await reader.put(`/library/drills/${rowId}`, { drill, version }).expect(403);
    const old = await north.put(`/library/drills/${rowId}`, { drill, version: version + 7 });
    expect(old.status).toBe(409);
  });
  it('two saved at once never share an id', async () => {
    const sent = await Promise.all(
      [1, 2, 3].map(() => north.create('/library/drills', { drill: copy('Twin') })),
    );
    expect(sent.map((r) => r.status)).toEqual([201, 201, 201]);
    const ids = (await drillsOf(north)).map((d: { drill: { id: string } }) => d.drill.id);
    expect(new Set(ids).size).toBe(ids.length);
    expect(ids).toEqual(expect.arrayContaining(['own-twin', 'own-twin-2', 'own-twin-3']));
  });
  it.each([
    [{ serves: [{ restriction: 'none-such', match: 1 }] }, '$.drill.serves[0].restriction'],
    [{ loadClass: 'impact' }, '$.drill.level'],
    [{ dose: { ...source.dose, sets: { default: 9, min: 1, max: 3 } } }, '$.drill.dose.sets'],
    [{ ladder: 'own-unnamed' }, '$.drill.ladderName'],
    [{ colour: 'teal' }, '$.drill'],
  ])('refuses %o at %s and stores nothing', async (over, path) => {
    const before = await drillsOf(north);
    const { body } = await north.create('/library/drills', { drill: copy('Faulty', over) }).expect(400);
    expect(body.errors.map((e: { path: string }) => e.path)).toContain(path);
    expect(await drillsOf(north)).toEqual(before);
  });
  it('a change on an old version is a conflict that shows the stored one', async () => {
    const row = (await drillsOf(north)).find((d: { drill: { id: string } }) => d.drill.id === 'own-twin');
    await north
      .put(`/library/drills/${row.rowId}`, {
        drill: { ...row.drill, name: 'Twin one' },
        version: row.version,
      })
      .expect(200);
    const late = await north
      .put(`/library/drills/${row.rowId}`, { drill: row.drill, version: row.version })
      .expect(409);
    expect(late.body.current.drill.name).toBe('Twin one');
  });
});

describe('drill files', () => {
  it('exported and imported by another practice are the same drills', async () => {
    const file = JSON.parse((await north.get('/library/drills/export.json').expect(200)).text);
    expect(file.format).toBe(DRILL_FILE_FORMAT);
    const checked = await south
      .create('/library/drills/import', { drills: file.drills, check: true })
      .expect(200);
    expect(checked.body).toMatchObject({ faults: [], replaced: [] });
    expect(checked.body.added).toHaveLength(file.drills.length);
    expect(await drillsOf(south)).toEqual([]);
    await south.create('/library/drills/import', { drills: file.drills }).expect(200);
    expect((await drillsOf(south)).map((d: { drill: unknown }) => d.drill)).toEqual(file.drills);
    const again = await south
      .create('/library/drills/import', { drills: file.drills, check: true })
      .expect(200);
    expect(again.body.replaced).toHaveLength(file.drills.length);
  });
  it('one faulty drill keeps all out, each fault with its place in the file', async () => {
    const before = await drillsOf(south);
    const drills = [
      copy('Sound', { id: 'own-sound' }),
      copy('Not sound', { id: 'own-unsound', fatigue: 40 }),
    ];
    const { body } = await south.create('/library/drills/import', { drills }).expect(400);
    expect(body.errors.map((e: { path: string }) => e.path)).toEqual(['$.drills[1].fatigue']);
    expect(await drillsOf(south)).toEqual(before);
  });
});

describe('dose shares', () => {
  const share = { category: 'activate', mode: 'prepare', of: 'reps', low: 0.2, high: 0.4 };
  it('are kept for the practice, reach its cases, and an empty list sets them back', async () => {
    const { version } = (await north.get('/figures')).body;
    const set = await north.put('/figures/dose-shares', { doseShares: [share], version }).expect(200);
    expect(set.body.doseShares).toEqual([share]);
    const { id } = await addAthlete(north);
    const { body } = await north.get(`/athletes/${id}/case?on=${TODAY}`);
    expect(body.case.overrides.doseShares).toEqual([share]);
    await north.put('/figures/dose-shares', { doseShares: [], version }).expect(409);
    await north.put('/figures/dose-shares', { doseShares: [], version: set.body.version }).expect(200);
  });
  it('cannot be upside down or doubled', async () => {
    const { version } = (await north.get('/figures')).body;
    const upside = await north
      .put('/figures/dose-shares', { doseShares: [{ ...share, low: 0.9 }], version })
      .expect(400);
    expect(upside.body.errors[0].path).toBe('$.doseShares[0].high');
    await north.put('/figures/dose-shares', { doseShares: [share, share], version }).expect(400);
  });
});

describe('templates', () => {
  const template = {
    name: 'Descent day',
    sport: 'fell running',
    role: 'senior',
    structure: 'short-minimum',
    request: {},
    items: [ROCK],
  };
  it('are kept, changed on their version, and removed, each inside its practice', async () => {
    const { body: kept } = await north.create('/templates', template).expect(201);
    expect(kept).toMatchObject({ name: 'Descent day', version: 1, savedBy: 'R. Halloran' });
    expect((await south.get('/templates')).body.items).toEqual([]);
    await south.delete(`/templates/${kept.id}?version=1`).expect(404);
    const changed = await north
      .put(`/templates/${kept.id}`, { ...template, role: 'junior', version: 1 })
      .expect(200);
    expect(changed.body).toMatchObject({ role: 'junior', version: 2 });
    await north.put(`/templates/${kept.id}`, { ...template, version: 1 }).expect(409);
    const twice = await north.create('/templates', template).expect(409);
    expect(twice.body.detail).toContain('Descent day');
    await north.delete(`/templates/${kept.id}?version=1`).expect(409);
    await north.delete(`/templates/${kept.id}?version=2`).expect(204);
    expect((await north.get('/templates')).body.items).toEqual([]);
  });
  it('refuse drills and structures that are not there', async () => {
    const { body } = await north
      .create('/templates', { ...template, structure: 'marathon', items: [{ ...ROCK, drill: 'moon-walk' }] })
      .expect(400);
    expect(body.errors.map((e: { path: string }) => e.path)).toEqual(['$.items[0].drill', '$.structure']);
  });
});

describe('protocols of the practice', () => {
  const HOP = {
    ...ROCK,
    drill: 'pogo-hop',
    side: 'both',
    measure: 'contacts',
    amount: 10,
    sets: 1,
    setup: {},
  };
  const WORDS = { ...HOP, drill: 'own-words', measure: 'seconds', amount: 60, words: 'with the group' };
  const protocol = (over: object = {}) => ({
    name: `Protocol ${randomUUID()}`,
    structure: 'short-minimum',
    request: { minutes: 6 },
    purpose: 'before the first run of the day',
    notFor: 'the first week after a cold',
    occasion: 'before-training',
    items: [ROCK, HOP, WORDS],
    ...over,
  });
  const apply = (client: Client, id: string, body: object) =>
    client.post(`/templates/${id}/apply`, { occasion: 'before-training', how: 'word-by-word', ...body });

  it('keep every version they had, with who kept it, and their author', async () => {
    const first = protocol();
    const { body: kept } = await north.create('/templates', first).expect(201);
    expect(kept).toMatchObject({
      author: 'R. Halloran',
      purpose: first.purpose,
      variables: { level: 'athlete' },
    });
    const next = { ...first, items: [ROCK], version: 1 };
    await north.put(`/templates/${kept.id}`, next).expect(200);
    const { items } = (await north.get(`/templates/${kept.id}/versions`).expect(200)).body;
    expect(
      items.map((v: { number: number; content: { items: object[] } }) => [v.number, v.content.items.length]),
    ).toEqual([
      [2, 1],
      [1, 3],
    ]);
    await south.get(`/templates/${kept.id}/versions`).expect(404);
  });
  it('word by word become a draft with every line, but for what safety keeps out, which is said and stays as a note', async () => {
    const { body: kept } = await north.create('/templates', protocol()).expect(201);
    const { id } = await addAthlete(north);
    await north
      .create(`/athletes/${id}/precautions`, { precaution: 'no-impact', setBy: 'R. Halloran' })
      .expect(201);
    const { body } = await apply(north, kept.id, { athleteId: id }).expect(200);
    expect(body).toMatchObject({ stored: true, lines: 3 });
    expect(body.changed).toHaveLength(1);
    expect(body.changed[0]).toMatch(/hops: .*no jumping|hops: .*precaution/i);
    const { draft } = (await north.get(`/athletes/${id}/drafts/before-training`).expect(200)).body;
    expect(draft.items.map((i: { drill: string }) => i.drill)).toEqual([
      ROCK.drill,
      'own-words',
      'own-words',
    ]);
    expect(draft.items[1]).toMatchObject({ amount: 0, words: expect.stringMatching(/^Not now: /) });
    // What is being edited stays; nothing is issued.
    expect((await apply(north, kept.id, { athleteId: id }).expect(200)).body.stored).toBe(false);
    expect((await north.get(`/athletes/${id}/routines`)).body.items).toEqual([]);
  });
  it('fitted, what is said in own words stays, and another practice has no part in it', async () => {
    const { body: kept } = await north.create('/templates', protocol()).expect(201);
    const { id } = await addAthlete(north);
    const { body } = await apply(north, kept.id, { athleteId: id, how: 'fitted' }).expect(200);
    expect(body.stored).toBe(true);
    const { draft } = (await north.get(`/athletes/${id}/drafts/before-training`).expect(200)).body;
    expect(draft.items.at(-1)).toMatchObject({ words: 'with the group' });
    await apply(south, kept.id, { athleteId: id }).expect(404);
    const { id: theirs } = await addAthlete(south);
    await apply(north, kept.id, { athleteId: theirs }).expect(404);
  });
  it('as the protocol says of its levels, where it is not said how', async () => {
    const linesFor = async (level: string) => {
      const variables = { minutes: 'as-written', place: 'athlete', level };
      const { body: kept } = await north.create('/templates', protocol({ variables })).expect(201);
      const { id } = await addAthlete(north);
      await apply(north, kept.id, { athleteId: id, how: undefined }).expect(200);
      const { draft } = (await north.get(`/athletes/${id}/drafts/before-training`).expect(200)).body;
      return draft.items.map((line: { drill: string; amount: number }) => [line.drill, line.amount]);
    };
    const written = protocol().items.map(({ drill, amount }) => [drill, amount]);
    expect(await linesFor('as-written')).toEqual(written);
    expect(await linesFor('athlete')).not.toEqual(written);
  });
});
