import { spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { assessCase } from '@yonder/core/assess';
import { prepareBuild } from '@yonder/core/builder';
import { checkRoutine, needReason } from '@yonder/core/checks';
import { bundledReference } from '@yonder/core/reference/bundled';
import { caseSchema } from '@yonder/core/schemas';
import { routineOfLines, takeOver } from '@yonder/core/takeover';
import { PAPER_LISTS } from '@yonder/core/testing/paperLists';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addAthlete, ALL_KIT, createTestApp, DONE, ROCK, TODAY } from '../../testing/testApp.ts';
import type { Client, TestApp } from '../../testing/testApp.ts';

let app: TestApp;
let north: Client;
beforeAll(async () => {
  app = await createTestApp();
  north = await app.signIn();
});
afterAll(() => app.close());

const issueFor = (id: string, occasion: string, over: object = {}) =>
  north.create(`/athletes/${id}/routines`, {
    on: TODAY,
    occasion,
    mode: 'prepare',
    structure: 'two-block-general-to-specific',
    request: { kit: ALL_KIT },
    items: [ROCK],
    ...over,
  });
const occasionsOf = async (id: string) =>
  (await north.get(`/athletes/${id}/occasions`).expect(200)).body.items as {
    occasion: string;
    routine: { number: number } | null;
    draft: object | null;
    endedOn: string | null;
    version: number | null;
  }[];
const inForce = async (id: string) =>
  (await occasionsOf(id)).flatMap(({ occasion, routine }) =>
    routine ? [`${occasion} ${routine.number}`] : [],
  );

const FIVE = ['before-training', 'before-competition', 'called-in', 'after', 'at-home'];

describe('routines by occasion', () => {
  it('are numbered and in force each by itself; issuing one leaves rows, drafts and diaries of the others as they are', async () => {
    const { id } = await addAthlete(north);
    const ids: Record<string, string> = {};
    for (const occasion of FIVE) ids[occasion] = (await issueFor(id, occasion).expect(201)).body.id;
    const draft = { request: {}, structure: 'short-minimum', items: [ROCK], version: null };
    await north.put(`/athletes/${id}/drafts/after`, draft).expect(200);
    const session = await north
      .create('/sessions', { routineId: ids.after, date: TODAY, leaveOut: [] })
      .expect(200);
    await north.post(`/sessions/${session.body.id}/events`, { events: DONE() }).expect(200);
    const others = () =>
      Promise.all([
        app.stored(`SELECT * FROM routines WHERE athlete_id = $1 AND occasion <> 'at-home' ORDER BY id`, [
          id,
        ]),
        app.stored(`SELECT * FROM routine_drafts WHERE athlete_id = $1`, [id]),
        app.stored('SELECT * FROM session_entries WHERE athlete_id = $1', [id]),
      ]);
    const before = await others();
    await issueFor(id, 'at-home').expect(201);
    expect(await others()).toEqual(before);
    expect(await inForce(id)).toEqual([
      'before-training 1',
      'before-competition 1',
      'called-in 1',
      'after 1',
      'at-home 2',
    ]);
  });

  it('come into the record in the order of occasions, with how often a week they are meant', async () => {
    const { id } = await addAthlete(north);
    for (const occasion of ['at-home', 'before-training']) await issueFor(id, occasion).expect(201);
    await north
      .put(`/athletes/${id}/occasions/at-home`, { days: ['mon', 'thu'], timesPerDay: 2, version: null })
      .expect(200);
    const { body } = await north.get(`/athletes/${id}/case?on=${TODAY}`).expect(200);
    expect(body.case.routine.occasion).toBe('before-training');
    expect(body.case.others).toMatchObject([{ occasion: 'at-home', perWeek: 4 }]);
  });

  it('one taken out of force stays on record, and is back with its next version', async () => {
    const { id } = await addAthlete(north);
    await issueFor(id, 'travel').expect(201);
    const end = { days: [], timesPerDay: 1, ended: true };
    const { body } = await north
      .put(`/athletes/${id}/occasions/travel`, { ...end, version: null })
      .expect(200);
    expect(body).toMatchObject({ routine: null, endedBy: expect.any(String) });
    expect(await inForce(id)).toEqual([]);
    expect((await north.get(`/athletes/${id}/routines`)).body.items).toHaveLength(1);
    await north.put(`/athletes/${id}/occasions/travel`, { ...end, version: null }).expect(409);
    const days = { ...end, days: ['sun'], version: body.version };
    const changed = await north.put(`/athletes/${id}/occasions/travel`, days).expect(200);
    expect(changed.body).toMatchObject({ days: ['sun'], endedOn: body.endedOn, endedBy: body.endedBy });
    expect(await inForce(id)).toEqual([]);
    const back = { ...days, ended: false, version: changed.body.version };
    await north.put(`/athletes/${id}/occasions/travel`, back).expect(200);
    expect(await inForce(id)).toEqual(['travel 1']);
    await issueFor(id, 'travel').expect(201);
    expect(await inForce(id)).toEqual(['travel 2']);
  });

  it('decisions are taken on the one they are about, and stale ones get the one in force of that occasion', async () => {
    const { id } = await addAthlete(north);
    await issueFor(id, 'before-training').expect(201);
    const first = (await issueFor(id, 'at-home').expect(201)).body.id;
    const second = (await issueFor(id, 'at-home').expect(201)).body.id;
    const decide = (routineId: string) =>
      north.create(`/athletes/${id}/decisions`, {
        on: TODAY,
        routineId,
        verdicts: [{ item: ROCK.id, verdict: 'overruled', instead: 'ease', reason: 'sore calf' }],
      });
    const stale = await decide(first).expect(409);
    expect(stale.body.current).toMatchObject({ id: second, occasion: 'at-home' });
    await decide(second).expect(201);
    expect(await inForce(id)).toEqual(['before-training 1', 'at-home 3']);
  });

  it('an unknown occasion, a day that is none and another practice are refused', async () => {
    const { id } = await addAthlete(north);
    expect((await issueFor(id, 'birthday')).status).toBe(400);
    await north.get(`/athletes/${id}/drafts/birthday`).expect(400);
    const put = { days: ['someday'], timesPerDay: 1, version: null };
    const refused = await north.put(`/athletes/${id}/occasions/travel`, put).expect(400);
    expect(refused.body.errors[0].path).toBe('$.days[0]');
    const south = await app.signIn('south');
    await south.get(`/athletes/${id}/occasions`).expect(404);
  });
});

describe('to take along', () => {
  const read = (pdf: Buffer) =>
    spawnSync('pdftotext', ['-layout', '-', '-'], { input: pdf, encoding: 'utf8' }).stdout.replace(
      /\s+/g,
      ' ',
    );
  it('a booklet of all occasions, a card for the pocket, and the week as a calendar', async () => {
    const { id } = await addAthlete(north, { name: 'Ivo Langdale' });
    const items = [{ ...ROCK, note: 'heel stays down' }];
    const home = (await issueFor(id, 'at-home', { items }).expect(201)).body;
    await issueFor(id, 'before-training').expect(201);
    await north.get(`/athletes/${id}/week.ics`).expect(400);
    const days = { days: ['tue', 'fri'], timesPerDay: 2, version: null };
    await north.put(`/athletes/${id}/occasions/at-home`, days).expect(200);
    const booklet = read((await north.get(`/athletes/${id}/booklet.pdf`).expect(200)).body as Buffer);
    for (const words of ['Before training', 'At home', 'Tue, Fri, 2 times a day', 'heel stays down'])
      expect(booklet).toContain(words);
    const card = read((await north.get(`/routines/${home.id}/card.pdf`).expect(200)).body as Buffer);
    expect(card).toMatch(/At home.*Knee-to-wall rock.*2 × 8.*Stop a drill/);
    const { text } = await north.get(`/athletes/${id}/week.ics`).expect(200);
    expect(text).toContain('RRULE:FREQ=WEEKLY;BYDAY=TU,FR');
    expect(text).toMatch(/SUMMARY:At home: .*2 times/);
    expect(text.match(/BEGIN:VEVENT/g)).toHaveLength(1);
  });
  it('nothing of it is printed while a precaution forbids a drill of one of them', async () => {
    const { id } = await addAthlete(north);
    await issueFor(id, 'at-home').expect(201);
    await north
      .create(`/athletes/${id}/precautions`, { precaution: 'acute-ankle-sprain', setBy: 'R. Halloran' })
      .expect(201);
    const refused = await north.get(`/athletes/${id}/booklet.pdf`).expect(422);
    expect(refused.body.errors[0].path).toBe('$.at-home.items[0]');
  });
});

describe('composed lines', () => {
  const line = (over: object) => ({
    id: randomUUID(),
    drill: 'own-words',
    side: 'both',
    phase: null,
    sets: 1,
    amount: 150,
    measure: 'seconds',
    holdSeconds: null,
    restSeconds: 0,
    tempo: null,
    setup: {},
    ...over,
  });
  it('own words, a rest, sections, twice the same drill and a paced circuit are issued as they stand', async () => {
    const { id } = await addAthlete(north);
    const circuit = { id: 'a', rounds: 3, pace: { by: 'clock', work: 30, rest: 15 } };
    const items = [
      line({ words: 'Traverse on big holds', ledBy: 'coach', phase: 'wall' }),
      line({ drill: 'pause', amount: 60 }),
      line({ words: 'ice if sore', amount: 0 }),
      { ...ROCK, circuit, phase: 'legs', note: 'heel stays down' },
      { ...ROCK, id: randomUUID(), amount: 12, amountFrom: 8, circuit, phase: 'legs' },
    ];
    const sections = [
      { id: 'wall', name: 'On the wall', minutes: 3 },
      { id: 'legs', name: 'Legs', minutes: null },
    ];
    const overrides = [
      { item: items[4]?.id, rule: 'drill-repeated', why: 'second round of the season plan' },
    ];
    const { body } = await issueFor(id, 'on-its-own', { items, sections, overrides }).expect(201);
    expect(body.sections).toEqual(sections);
    expect(body.totalSeconds).toBe(150 + 60 + 6 * 30 + 5 * 15);
    expect(body.items).toMatchObject(items);
  });
  it.each([
    [{ words: undefined }, '$.items[0].words'],
    [{ words: 'a', amount: 0, circuit: { id: 'a', rounds: 2 } }, '$.items[0].circuit'],
    [{ drill: 'pause', amount: 30, circuit: { id: 'a', rounds: 2 } }, '$.items[0].circuit'],
    [{ words: 'no jumps', amount: 30, caution: true }, '$.items[0].caution'],
    [{ words: 'a', drill: 'own-words-reps' }, '$.items[0].measure'],
    [{ drill: 'pause', amount: 0 }, '$.items[0].amount'],
    [{ ...ROCK, amountFrom: 9 }, '$.items[0].amountFrom'],
  ])('refuses %o at %s', async (over, path) => {
    const { id } = await addAthlete(north);
    const response = await issueFor(id, 'travel', { items: [line(over)] }).expect(400);
    expect(response.body.errors.map((e: { path: string }) => e.path)).toContain(path);
  });
});

describe('lists as on paper', () => {
  it.each(PAPER_LISTS.map(({ name, lines }) => [name, lines] as const))(
    '%s: taken over and issued',
    async (_name, lines) => {
      const { id } = await addAthlete(north, { trainingYears: 6 });
      const { body } = await north.get(`/athletes/${id}/case?on=${TODAY}`).expect(200);
      const input = caseSchema.parse(body.case);
      const request = { ...input.request, kit: ALL_KIT };
      const prepared = prepareBuild(assessCase(bundledReference, input), request);
      const taken = takeOver(prepared, lines);
      const { items, sections } = routineOfLines(bundledReference, taken, []);
      const named = items.map((item) => ({ ...item, id: randomUUID() }));
      const against = needReason(checkRoutine(prepared, named));
      const overrides = against.map(({ reason, at }) => ({
        item: named[at.at(-1) ?? -1]?.id ?? null,
        rule: reason.rule,
        why: 'their own list',
      }));
      const issued = await issueFor(id, 'at-home', { request, items: named, sections, overrides }).expect(
        201,
      );
      expect(issued.body.items).toHaveLength(named.length);
      const kept = taken.filter(({ kind }) => !['joined', 'section', 'circuit'].includes(kind));
      expect(named).toHaveLength(kept.length);
    },
  );
});
