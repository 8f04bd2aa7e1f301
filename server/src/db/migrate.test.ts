import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { bundledReference } from '@yonder/core/reference/bundled';
import { loadRecord } from '../features/athletes/record.ts';
import { createTestApp, ROCK } from '../testing/testApp.ts';
import type { TestApp } from '../testing/testApp.ts';
import { inPractice } from '../work/unit.ts';
import { migrate, missingMigrations, withMigrator } from './migrate.ts';

let app: TestApp;
beforeAll(async () => {
  app = await createTestApp();
});
afterAll(() => app.close());

const SECOND_SHAPE = '2026-11-27-second-shape';
const { id: _id, ...ROCK_AS_IT_WAS } = { ...ROCK, phase: null, holdSeconds: null, tempo: null };
const CAMEL = { ...ROCK_AS_IT_WAS, drill: 'cat-camel', side: 'both', setup: {} };
const entry = (drill: string, over: object = {}) => ({
  drill,
  side: 'left',
  done: 'all',
  amounts: [8, 8],
  painBefore: 0,
  pain: 2,
  nextDayPain: 1,
  effort: 3,
  quality: 3,
  ...over,
});

/** Rows as they were stored before items had ids: two versions, three sessions, a decision, a draft. */
async function layOut() {
  const [practice] = await app.stored<{ id: string }>("SELECT id FROM practices WHERE name = 'north'");
  const athlete = randomUUID();
  const versions = [randomUUID(), randomUUID()];
  const sessions = [randomUUID(), randomUUID(), randomUUID()];
  await app.stored('INSERT INTO athletes (id, practice_id, name, birth_date) VALUES ($1, $2, $3, $4)', [
    athlete,
    practice?.id,
    'Ada Fellgate',
    '2000-01-01',
  ]);
  for (const { signs } of bundledReference.data.gate)
    await app.stored(
      `INSERT INTO red_flag_answers (practice_id, athlete_id, red_flag, answer, asked_for, answered_on, answered_by)
       VALUES ($1, $2, $3, false, '["ankle-foot", "lumbopelvic", "thoracic"]', '2027-01-04', 'R. Halloran')`,
      [practice?.id, athlete, Object.keys(signs)[0]],
    );
  for (const [n, items] of [[ROCK_AS_IT_WAS], [{ ...ROCK_AS_IT_WAS, amount: 10 }, CAMEL]].entries())
    await app.stored(
      `INSERT INTO routines (id, practice_id, athlete_id, number, mode, structure, issued_on, issued_by, items, total_seconds,
         request, findings, changes)
       VALUES ($1, $2, $3, $4, 'prepare', 'short-minimum', $5, 'R. Halloran', $6, 90, '{}', '[]', $7)`,
      [
        versions[n],
        practice?.id,
        athlete,
        n + 1,
        `2027-02-0${n + 1}`,
        JSON.stringify(items),
        JSON.stringify(n === 0 ? [] : ['Knee-to-wall rock left: 2 × 8 → 2 × 10', 'Added: Cat-camel']),
      ],
    );
  const told: [string, object[], boolean, object][] = [
    ['2027-02-03', [entry(ROCK.drill)], true, { segment: 5, elapsed: 0 }],
    [
      '2027-02-04',
      [entry(ROCK.drill), entry('half-kneeling-ankle-rock', { swappedFor: 'cat-camel', pain: 4 })],
      true,
      { segment: 9, elapsed: 0 },
    ],
    ['2027-02-05', [], false, { segment: 2, elapsed: 7.5, skipped: [1] }],
  ];
  for (const [n, [date, entries, finished, progress]] of told.entries())
    await app.stored(
      `INSERT INTO sessions (id, practice_id, athlete_id, routine_id, date, finished, entries, progress)
       VALUES ($1, $2, $3, $4, $5, $6, $7, $8)`,
      [
        sessions[n],
        practice?.id,
        athlete,
        versions[n === 0 ? 0 : 1],
        date,
        finished,
        JSON.stringify(entries),
        JSON.stringify(progress),
      ],
    );
  await app.stored(
    `INSERT INTO decisions (id, practice_id, athlete_id, routine_id, item_index, drill, decision, reasons, verdict, decided_by,
       decided_on)
     VALUES ($1, $2, $3, $4, 0, $5, 'advance-dose', '[]', 'accepted', 'R. Halloran', '2027-02-02')`,
    [randomUUID(), practice?.id, athlete, versions[0], ROCK.drill],
  );
  return { practice: practice?.id ?? '', athlete, versions, sessions };
}

const old = () =>
  Promise.all([
    app.stored('SELECT id, items, changes FROM routines ORDER BY id'),
    app.stored('SELECT id, finished, entries FROM sessions ORDER BY id'),
    app.stored('SELECT id, routine_id, item_index, drill, verdict FROM decisions ORDER BY id'),
    app.stored(
      'SELECT id, red_flag, answer, jsonb_array_length(asked_for) AS asked FROM red_flag_answers ORDER BY id',
    ),
  ]);

describe('the second shape', () => {
  it('carries what is stored, and takes it back as it was', async () => {
    await withMigrator(app.databaseUrl, (migrator) => migrator.down({ to: SECOND_SHAPE }));
    expect(await missingMigrations(app.databaseUrl)).toEqual([
      SECOND_SHAPE,
      '2026-11-27-one-door',
      '2026-11-27-levels-seen',
      '2026-11-27-exposure',
      '2026-11-27-own-tests',
      '2026-11-27-methods',
      '2026-11-28-occasions',
      '2026-11-28-today',
      '2026-12-01-pain-state',
      '2026-11-28-protocols',
      '2026-12-01-light-weeks',
      '2026-12-01-signs-read',
      '2026-12-02-guarded-audit',
      '2026-12-02-frozen-drills',
    ]);
    const { practice, athlete, versions, sessions } = await layOut();
    await app.stored(`UPDATE practices SET schools = '{"release-first": "skip"}' WHERE id = $1`, [practice]);
    const before = await old();
    // Two processes at once: one migrates, the other waits and finds it done.
    await Promise.all([migrate(app.databaseUrl), migrate(app.databaseUrl)]);

    const [first, second] = (
      await app.stored<{ items: { id: string; drill: string }[] }>(
        'SELECT items FROM routines WHERE athlete_id = $1 ORDER BY number',
        [athlete],
      )
    ).map(({ items }) => items);
    const rock = first?.[0]?.id;
    expect(rock).toMatch(/^[0-9a-f-]{36}$/);
    expect(second?.[0]?.id).toBe(rock); // the same line in both versions
    expect(await app.stored('SELECT item_id FROM decisions')).toEqual([{ item_id: rock }]);
    expect(await app.stored('SELECT count(*)::int AS n FROM session_events')).toEqual([{ n: 8 }]);
    const entries = await app.stored(
      'SELECT item_id, drill, swapped_for, pain FROM session_entries WHERE session_id = $1 ORDER BY place',
      [sessions[1]],
    );
    expect(entries).toEqual([
      { item_id: rock, drill: ROCK.drill, swapped_for: null, pain: 2 },
      { item_id: second?.[1]?.id, drill: 'half-kneeling-ankle-rock', swapped_for: 'cat-camel', pain: 4 },
    ]);
    const { case: loaded } = await inPractice(app.deps, practice, (unit) =>
      loadRecord(unit, athlete, '2027-02-10'),
    );
    expect(loaded.diary.map((day) => [day.date, day.entries.length])).toEqual([
      ['2027-02-03', 1],
      ['2027-02-04', 2],
    ]);
    expect(loaded.schools).toEqual({ 'release-first': 'skip' });
    // Answers that stood question by question stand topic by topic: the gate is not asked again.
    const topics = [
      ...bundledReference.data.gate.map((group) => group.id),
      'ankle-foot',
      'lumbopelvic',
      'thoracic',
    ];
    expect(loaded.athlete.asked?.map(({ topic }) => topic).sort()).toEqual(topics.sort());
    // What was added to a topic since is asked, and nothing else; then the unfinished one goes on where it was.
    const north = await app.signIn();
    const goOn = { routineId: versions[1], date: '2027-02-05' };
    const { body: refused } = await north.create('/sessions', goOn).expect(422);
    const titles = (refused.errors as { message: string }[]).map(({ message }) => message.split(': ')[1]);
    expect(titles).toEqual(['Head, neck or back', 'Ill, hot, feverish', 'Bone pain, rising pain']);
    for (const topic of ['head-back', 'ill', 'bone-pain'])
      await north.create(`/athletes/${athlete}/gate`, { topic, outcome: 'none' }).expect(201);
    const { body } = await north.create('/sessions', goOn).expect(200);
    expect(body.id).toBe(sessions[2]);
    expect(body.events.at(-1)).toMatchObject({ type: 'carried', segment: 2, elapsed: 7.5, skipped: [1] });

    await withMigrator(app.databaseUrl, (migrator) => migrator.down({ to: SECOND_SHAPE }));
    expect(await old()).toEqual(before);
    await migrate(app.databaseUrl);
    expect(await missingMigrations(app.databaseUrl)).toEqual([]);
  });
});
