// A practice of many athletes for timing: the demo academy and as many more by plain SQL.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import pg from 'pg';
import { root } from './paths.mjs';

/** Numeric tests with sides, and a value in the middle of the usual band of each. */
function testsAndValues(count) {
  const tests = JSON.parse(readFileSync(join(root, 'core/src/reference/data/tests.json'), 'utf8'));
  return tests
    .filter((t) => t.sides === 'per-side' && !t.derivedFrom && !t.gradingRule && t.unit !== 'nrs-0-10')
    .slice(0, count)
    .map((t) => [t.id, (t.reference.low + t.reference.high) / 2]);
}

/** Fills the database up to so many athletes, each with screenings of tests on both sides. Returns the number of results. */
export async function fillAthletes(url, { athletes, screenings, tests }) {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  const list = testsAndValues(tests);
  await client.query('ALTER TABLE results DISABLE TRIGGER USER');
  await client.query(
    `INSERT INTO athletes (id, practice_id, name, sport, birth_date, body_mass_kg)
     SELECT gen_random_uuid(), p.id, 'Athlete ' || lpad(n::text, 3, '0'), 'fell running', date '1998-01-01' + n::integer, 60
     FROM practices p, generate_series(1, $1 - (SELECT count(*) FROM athletes)) AS n`,
    [athletes],
  );
  await client.query(
    `INSERT INTO screenings (id, athlete_id, practice_id, date, finished)
     SELECT gen_random_uuid(), a.id, a.practice_id, current_date - n::integer * 30, true
     FROM athletes a, generate_series(1, $1) AS n WHERE a.name LIKE 'Athlete %'`,
    [screenings],
  );
  const { rowCount } = await client.query(
    `INSERT INTO results (screening_id, practice_id, test, side, value)
     SELECT s.id, s.practice_id, t.test, side, jsonb_build_object('trials', jsonb_build_array(
              round((t.value * (0.9 + 0.2 * random()))::numeric, 2)))
     FROM screenings s JOIN athletes a ON a.id = s.athlete_id AND a.name LIKE 'Athlete %',
          unnest($1::text[], $2::float8[]) AS t (test, value), unnest(ARRAY['left', 'right']) AS side`,
    [list.map(([id]) => id), list.map(([, value]) => value)],
  );
  await client.query('ALTER TABLE results ENABLE TRIGGER USER');
  await client.query('ANALYZE');
  await client.end();
  return rowCount;
}

/** Median milliseconds of a bare query of the rows a list shows, read by the same driver and written as JSON. */
export async function bareListMs(url, times = 15) {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  const taken = [];
  for (let i = 0; i < times; i += 1) {
    const start = performance.now();
    const { rows } = await client.query(
      `SELECT a.id, a.name, a.sport, a.birth_date, s.summary
       FROM athletes a LEFT JOIN athlete_summaries s ON s.athlete_id = a.id ORDER BY a.name`,
    );
    JSON.stringify(rows);
    taken.push(performance.now() - start);
  }
  await client.end();
  return taken.sort((a, b) => a - b)[Math.floor(times / 2)];
}
