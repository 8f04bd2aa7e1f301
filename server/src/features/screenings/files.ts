import type { Imported, ImportScreenings } from '@yonder/core/contracts';
import type { ScreeningResult } from '@yonder/core/domain';
import { CSV_FIELDS, screeningCsvRow } from '@yonder/core/formats';
import { safetyState } from '@yonder/core/safety';
import Papa from 'papaparse';
import { notFound, refuse } from '../../http/problem.ts';
import type { FieldFault } from '../../http/problem.ts';
import { newId } from '../../work/newId.ts';
import type { Unit } from '../../work/unit.ts';
import { athleteOf } from '../athletes/record.ts';
import { loadStories } from '../athletes/stories.ts';
import { checkResults, storeResults } from './service.ts';

type Row = ImportScreenings['rows'][0];

const visitKey = ({ athleteId, date }: Pick<Row, 'athleteId' | 'date'>) => `${athleteId}/${date}`;

/** Faults of rows against the athletes and the calendar, each at its own path. */
function rowFaults(rows: readonly Row[], births: ReadonlyMap<string, string>, today: string): FieldFault[] {
  const seen = new Map<string, number>();
  return rows.flatMap(({ athleteId, date, result }, i) => {
    const place = `${athleteId}/${date}/${result.test}/${result.side}`;
    const before = seen.get(place);
    if (before !== undefined)
      return [{ path: `$.rows[${i}].result`, message: `stands in row ${before + 1} of the file already` }];
    seen.set(place, i);
    const born = births.get(athleteId);
    if (born === undefined) return [{ path: `$.rows[${i}].athleteId`, message: 'no such athlete' }];
    if (date > today) return [{ path: `$.rows[${i}].date`, message: `${date} is after today, ${today}` }];
    return date < born ? [{ path: `$.rows[${i}].date`, message: 'before the birth date' }] : [];
  });
}

/** The visits of rows by athlete and day: those that are there, and new ones. */
async function visitsOf(unit: Unit, rows: readonly Row[]): Promise<Map<string, string>> {
  const wanted = new Map(rows.map((row) => [visitKey(row), row]));
  const known = await unit.rows.screenings.all({
    athleteId: [...new Set(rows.map((row) => row.athleteId))],
    date: [...new Set(rows.map((row) => row.date))],
  });
  const ids = new Map(known.filter((v) => wanted.has(visitKey(v))).map((v) => [visitKey(v), v.id]));
  const missing = [...wanted].filter(([key]) => !ids.has(key));
  for (const [key] of missing) ids.set(key, newId());
  await unit.rows.screenings.insertAll(
    missing.map(([key, { athleteId, date }]) => ({
      id: ids.get(key) ?? '',
      athleteId,
      date,
      finished: true,
      createdBy: unit.actor.id,
    })),
  );
  return ids;
}

const counts = (rows: readonly Row[], stored = { replaced: 0, unchanged: 0 }): Imported => ({
  ...stored,
  results: rows.length,
  visits: new Set(rows.map(visitKey)).size,
  athletes: new Set(rows.map((row) => row.athleteId)).size,
});

/** What an import came to, when it is asked for again. */
export async function importedBefore({ rows }: ImportScreenings): Promise<Imported> {
  return counts(rows);
}

/** Stores rows of a file as visits: results of a day go into its visit, new ones or in place of stored ones. All or none. */
export async function importScreenings(unit: Unit, { rows }: ImportScreenings): Promise<Imported> {
  const ids = [...new Set(rows.map((row) => row.athleteId))].sort();
  const athletes = await unit.rows.athletes.all({ id: ids }, { columns: ['id', 'birthDate'] });
  refuse(rowFaults(rows, new Map(athletes.map((a) => [a.id, a.birthDate])), unit.today));
  // Held in one order, so that two imports never wait for each other in a circle.
  await unit.query(
    'SELECT id FROM athletes WHERE practice_id = :practiceId AND id IN (:ids) ORDER BY id FOR NO KEY UPDATE',
    { practiceId: unit.practiceId, ids },
  );
  const safetyOf = new Map(
    (await loadStories(unit, ids)).map((story) => [
      story.athlete.id,
      safetyState(unit.reference, athleteOf(story), unit.today),
    ]),
  );
  await checkResults(
    unit,
    rows.flatMap(({ athleteId, result }, i) => {
      const safety = safetyOf.get(athleteId);
      return safety ? [{ result, safety, at: `$.rows[${i}].result` }] : [];
    }),
  );
  const visits = await visitsOf(unit, rows);
  const stored = await storeResults(
    unit,
    rows.map((row) => ({ screeningId: visits.get(visitKey(row)) ?? '', result: row.result })),
  );
  return counts(rows, stored);
}

interface Exported {
  readonly name: string;
  readonly date: string;
  readonly test: string;
  readonly side: ScreeningResult['side'];
  readonly value: object;
}

/** Screenings of the practice (or of one athlete) as a CSV file, in the columns that are read back. */
export async function exportScreenings(unit: Unit, athleteId?: string): Promise<string> {
  if (athleteId !== undefined) {
    const known = await unit.rows.athletes.count({ id: athleteId });
    if (known === 0) throw notFound('Athlete');
    unit.concerns(athleteId);
  }
  const results = await unit.query<Exported>(
    `SELECT a.name, s.date, r.test, r.side, r.value FROM results r
     JOIN screenings s ON s.id = r.screening_id JOIN athletes a ON a.id = s.athlete_id
     WHERE r.practice_id = :practiceId AND (:athleteId IS NULL OR a.id = CAST(:athleteId AS uuid))
     ORDER BY s.date, a.name, r.test, r.side`,
    { practiceId: unit.practiceId, athleteId: athleteId ?? null },
  );
  const { reference } = await unit.practice();
  const data = results.map(({ name, date, test, side, value }) =>
    screeningCsvRow(reference, name, date, { ...(value as ScreeningResult), test, side }),
  );
  return Papa.unparse({ fields: [...CSV_FIELDS], data }, { escapeFormulae: /^[=@\t\r]/ });
}
