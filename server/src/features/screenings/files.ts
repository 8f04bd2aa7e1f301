import type { Imported, ImportScreenings } from '@yonder/core/contracts';
import type { ScreeningResult, Side } from '@yonder/core/domain';
import { CSV_FIELDS, screeningCsvRow } from '@yonder/core/formats';
import Papa from 'papaparse';
import type { ResultRecord, ScreeningRecord } from '../../db/models.ts';
import type { Deps } from '../../deps.ts';
import type { User } from '../../http/endpoint.ts';
import { ApiProblem } from '../../http/problem.ts';
import type { FieldFault } from '../../http/problem.ts';
import { groupBy, loadStories } from '../athletes/repository.ts';
import { audit } from '../audit.ts';
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

/** Stores rows of a file as visits: results of a day go into its visit, new ones or in place of stored ones. All or none. */
export async function importScreenings(
  deps: Deps,
  user: User,
  { rows }: ImportScreenings,
): Promise<Imported> {
  const { database } = deps;
  const ids = [...new Set(rows.map((row) => row.athleteId))];
  const stories = await loadStories(database, user.practiceId, ids);
  const births = new Map(stories.map(({ athlete }) => [athlete.id, athlete.birthDate]));
  const errors = rowFaults(rows, births, deps.today());
  if (errors.length > 0) throw new ApiProblem('invalid-request', { errors });
  const visits = groupBy(
    rows.map((row, index) => ({ ...row, index })),
    (row) => `${row.athleteId}/${row.date}`,
  );
  return database.inTransaction(async (transaction) => {
    // Always in the same order, so that two imports never wait for each other.
    for (const [, group] of [...visits].sort(([a], [b]) => (a < b ? -1 : 1))) {
      const { athleteId, date } = group[0] as Row;
      const [visit] = await database.models.screenings.findOrCreate({
        where: { athleteId, practiceId: user.practiceId, date },
        defaults: {
          athleteId,
          practiceId: user.practiceId,
          date,
          createdBy: user.clinicianId,
          finished: true,
        },
        transaction,
      });
      const results = group.map((row) => row.result);
      try {
        await putResults(deps, user, { id: visit.get('id') as string, athleteId }, results, transaction);
      } catch (error) {
        if (!(error instanceof ApiProblem)) throw error;
        throw new ApiProblem('implausible-value', {
          errors: error.errors?.map((f) => atRow(f, group)) ?? [],
        });
      }
    }
    await audit(database, user, null, 'screenings.import', transaction);
    return { results: rows.length, visits: visits.size, athletes: ids.length };
  });
}

/** Screenings of the practice (or of one athlete) as a CSV file, in the columns that are read back. */
export async function exportScreenings(deps: Deps, user: User, athleteId?: string): Promise<string> {
  const { models } = deps.database;
  const { practiceId } = user;
  const stories = await loadStories(deps.database, practiceId, athleteId ? [athleteId] : undefined);
  const names = new Map(stories.map(({ athlete }) => [athlete.id, athlete.name]));
  const screenings = (await models.screenings.findAll({
    where: { practiceId, athleteId: [...names.keys()] },
    order: [['date', 'ASC']],
    raw: true,
  })) as unknown as ScreeningRecord[];
  const results = (await models.results.findAll({
    where: { practiceId, screeningId: screenings.map((s) => s.id) },
    order: [
      ['test', 'ASC'],
      ['side', 'ASC'],
    ],
    raw: true,
  })) as unknown as ResultRecord[];
  const ofVisit = groupBy(results, (row) => row.screeningId);
  const rows = screenings.flatMap((screening) =>
    (ofVisit.get(screening.id) ?? []).map(({ test, side, value }) =>
      screeningCsvRow(deps.reference, names.get(screening.athleteId) ?? '', screening.date, {
        ...(value as ScreeningResult),
        test,
        side: side as Side,
      }),
    ),
  );
  await audit(deps.database, user, athleteId ?? null, 'screenings.export');
  // A name that begins like a formula must not run in a spreadsheet.
  return Papa.unparse({ fields: [...CSV_FIELDS], data: rows }, { escapeFormulae: /^[=@\t\r]/ });
}
