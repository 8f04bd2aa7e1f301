import type { Imported, ImportScreenings } from '@yonder/core/contracts';
import type { ScreeningResult } from '@yonder/core/domain';
import { CSV_FIELDS, screeningCsvRow } from '@yonder/core/formats';
import Papa from 'papaparse';
import { ApiProblem, notFound, refuse } from '../../http/problem.ts';
import type { FieldFault } from '../../http/problem.ts';
import { newId } from '../../work/newId.ts';
import type { Unit } from '../../work/unit.ts';
import { groupBy } from '../athletes/stories.ts';
import { putResults } from './service.ts';

type Row = ImportScreenings['rows'][0];

/** Faults of rows against the athletes and the calendar, each at its own path. */
function rowFaults(rows: readonly Row[], births: ReadonlyMap<string, string>, today: string): FieldFault[] {
  return rows.flatMap(({ athleteId, date }, i) => {
    const born = births.get(athleteId);
    if (born === undefined) return [{ path: `$.rows[${i}].athleteId`, message: 'no such athlete' }];
    if (date > today) return [{ path: `$.rows[${i}].date`, message: `${date} is after today, ${today}` }];
    return date < born ? [{ path: `$.rows[${i}].date`, message: 'before the birth date' }] : [];
  });
}

/** A fault of one visit's results, at the path of its row in the file. */
function atRow(fault: FieldFault, rows: readonly { index: number }[]): FieldFault {
  const path = fault.path.replace(
    /^\$\[(\d+)\]\.?/,
    (_, at: string) => `$.rows[${rows[Number(at)]?.index}].result.`,
  );
  return { ...fault, path: path.replace(/\.$/, '') };
}

async function importVisit(unit: Unit, group: readonly (Row & { index: number })[]): Promise<void> {
  const [first] = group;
  if (!first) return;
  const { athleteId, date } = first;
  const visit =
    (await unit.rows.screenings.one({ athleteId, date })) ??
    (await unit.rows.screenings.insert({
      id: newId(),
      athleteId,
      date,
      finished: true,
      createdBy: unit.actor.id,
    }));
  try {
    await putResults(
      unit,
      visit,
      group.map((row) => row.result),
    );
  } catch (error) {
    if (!(error instanceof ApiProblem) || error.errors.length === 0) throw error;
    throw new ApiProblem(error.code, { errors: error.errors.map((f) => atRow(f, group)) });
  }
}

const counts = (rows: readonly Row[]): Imported => ({
  results: rows.length,
  visits: new Set(rows.map((row) => `${row.athleteId}/${row.date}`)).size,
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
    'SELECT id FROM athletes WHERE practice_id = :practiceId AND id IN (:ids) ORDER BY id FOR UPDATE',
    { practiceId: unit.practiceId, ids },
  );
  const visits = groupBy(
    rows.map((row, index) => ({ ...row, index })),
    (row) => `${row.athleteId}/${row.date}`,
  );
  for (const [, group] of [...visits].sort(([a], [b]) => (a < b ? -1 : 1))) await importVisit(unit, group);
  return counts(rows);
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
  const data = results.map(({ name, date, test, side, value }) =>
    screeningCsvRow(unit.reference, name, date, { ...(value as ScreeningResult), test, side }),
  );
  // A name that begins like a formula must not run in a spreadsheet.
  return Papa.unparse({ fields: [...CSV_FIELDS], data }, { escapeFormulae: /^[=@\t\r]/ });
}
