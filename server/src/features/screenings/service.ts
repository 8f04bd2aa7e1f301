import { sameJson } from '@yonder/core/domain';
import type { Page, PageQuery, ResultRow, ScreeningRow } from '@yonder/core/contracts';
import type { ScreeningResult, Side } from '@yonder/core/domain';
import { resultFaults } from '@yonder/core/formats';
import type { Reference } from '@yonder/core/reference';
import { isBlocked, safetyState, testAllowed } from '@yonder/core/safety';
import type { SafetyState } from '@yonder/core/safety';
import type { RowOf } from '../../db/schema.ts';
import { cursorOf, pageOfRows } from '../../http/page.ts';
import { ApiProblem, refuse } from '../../http/problem.ts';
import { checkWorkingDay } from '../../work/days.ts';
import { newId } from '../../work/newId.ts';
import type { Unit } from '../../work/unit.ts';
import { athleteOf } from '../athletes/record.ts';
import { groupBy, loadStory, needAthlete } from '../athletes/stories.ts';

type Visit = Pick<RowOf<'screenings'>, 'id' | 'date' | 'finished' | 'version'>;

function resultRow({ value, test, side, version }: RowOf<'results'>): ResultRow {
  return { ...(value as unknown as ScreeningResult), test, side, version };
}

function screeningRow(
  { id, date, finished, version }: Visit,
  results: readonly RowOf<'results'>[],
): ScreeningRow {
  return { id, date, finished, version, results: results.map(resultRow) };
}

/** A visit with its results. */
async function showScreening({ rows }: Unit, visit: Visit): Promise<ScreeningRow> {
  return screeningRow(visit, await rows.results.all({ screeningId: visit.id }, { sort: ['test', 'side'] }));
}

async function needScreening(unit: Unit, id: string): Promise<RowOf<'screenings'>> {
  const screening = await unit.rows.screenings.need({ id }, 'Screening');
  unit.concerns(screening.athleteId);
  return screening;
}

/** A page of an athlete's visits with their results, newest first, in three queries. */
export async function listScreenings(
  unit: Unit,
  athleteId: string,
  page: PageQuery,
): Promise<Page<ScreeningRow>> {
  await needAthlete(unit, athleteId);
  const [before = null] = cursorOf(page, 1) ?? [];
  const visits = await unit.query<Visit>(
    `SELECT id, date, finished, version FROM screenings
     WHERE practice_id = :practiceId AND athlete_id = :athleteId AND (:before IS NULL OR date < CAST(:before AS date))
     ORDER BY date DESC LIMIT :limit`,
    { practiceId: unit.practiceId, athleteId, before, limit: page.limit + 1 },
  );
  const results = await unit.rows.results.all(
    { screeningId: visits.map((visit) => visit.id) },
    { sort: ['test', 'side'] },
  );
  const ofVisit = groupBy(results, (row) => row.screeningId);
  return pageOfRows(
    visits,
    page,
    (visit) => [visit.date],
    (visit) => screeningRow(visit, ofVisit.get(visit.id) ?? []),
  );
}

/** Opens the visit of a day, or resumes it when there is one already. */
export async function openScreening(
  unit: Unit,
  athleteId: string,
  { id, date }: { id: string; date: string },
): Promise<ScreeningRow> {
  checkWorkingDay('$.date', date, unit.today);
  const athlete = await needAthlete(unit, athleteId, true);
  refuse(date < athlete.birthDate ? [{ path: '$.date', message: 'before the birth date' }] : []);
  const visit =
    (await unit.rows.screenings.one({ athleteId, date })) ??
    (await unit.rows.screenings.insert({ id, athleteId, date, finished: false, createdBy: unit.actor.id }));
  return showScreening(unit, visit);
}

/** The visit of a day as it is now. */
export async function readScreeningOf(unit: Unit, athleteId: string, date: string): Promise<ScreeningRow> {
  return showScreening(unit, await unit.rows.screenings.need({ athleteId, date }, 'Screening'));
}

/** Why a test may not be done today: a blocked region, or one that a protocol has not ticked; null when it may. */
function refusalOf(reference: Reference, safety: SafetyState, result: ScreeningResult): string | null {
  const test = reference.tests.get(result.test);
  if (!test) return null;
  const block = safety.blocks.find(
    (b) => b.level !== 'P' && (b.region === 'all' || b.region === test.region),
  );
  if (block && isBlocked(safety.blocks, test.region)) return block.action;
  return testAllowed(safety.gates, test, result.side)
    ? null
    : 'After an operation only the tests that the treating clinician ticked are done.';
}

async function safetyToday(unit: Unit, athleteId: string): Promise<SafetyState> {
  return safetyState(unit.reference, athleteOf(await loadStory(unit, athleteId)), unit.today);
}

/** A result on its way into a visit, with what is said of its athlete today and its place in what was sent. */
export interface Placed {
  readonly result: ScreeningResult;
  readonly safety: SafetyState;
  /** JSONPath of the result. */
  readonly at: string;
}

/** Refuses results that cannot be (400, each at its path), then those that may not be (422). */
export async function checkResults(unit: Unit, placed: readonly Placed[]): Promise<void> {
  const { reference } = await unit.practice();
  refuse(
    placed.flatMap(({ result, at }) =>
      resultFaults(reference, result).map((f) => ({ ...f, path: f.path.replace('$', at) })),
    ),
  );
  const errors = placed.flatMap(({ result, safety, at }) => {
    const refused = refusalOf(reference, safety, result);
    return refused === null ? [] : [{ path: `${at}.test`, message: refused }];
  });
  if (errors.length > 0) throw new ApiProblem('blocked', { errors });
}

/** Stores results of any number of visits in two queries, new or in place of the stored ones. */
export async function storeResults(
  unit: Unit,
  results: readonly { screeningId: string; result: ScreeningResult }[],
): Promise<{ replaced: number; unchanged: number }> {
  const stored = await unit.rows.results.all({
    screeningId: [...new Set(results.map((r) => r.screeningId))],
  });
  const key = (visit: string, row: { test: string; side: string }) => `${visit}/${row.test}/${row.side}`;
  const known = new Map(stored.map((row) => [key(row.screeningId, row), row]));
  let replaced = 0;
  const rows = results.flatMap(({ screeningId, result: { test, side, ...value } }) => {
    const old = known.get(key(screeningId, { test, side }));
    if (old && sameJson(old.value, value)) return [];
    if (old) replaced += 1;
    return [{ id: old?.id ?? newId(), screeningId, test, side, value, version: (old?.version ?? 0) + 1 }];
  });
  await unit.rows.results.put(rows, ['value', 'version', 'actorKind', 'actorId']);
  return { replaced, unchanged: results.length - rows.length };
}

/** Stores many results of one visit in one go; all of them or none. */
export async function putResults(
  unit: Unit,
  { id: screeningId, athleteId }: Pick<RowOf<'screenings'>, 'id' | 'athleteId'>,
  results: readonly ScreeningResult[],
): Promise<void> {
  const safety = await safetyToday(unit, athleteId);
  await checkResults(
    unit,
    results.map((result, i) => ({ result, safety, at: `$[${i}]` })),
  );
  await storeResults(
    unit,
    results.map((result) => ({ screeningId, result })),
  );
}

/** Stores one result; a version that is not the stored one gives 409 with the stored result. */
export async function putResult(
  unit: Unit,
  screeningId: string,
  result: ScreeningResult,
  version: number | null,
): Promise<ResultRow> {
  const { reference } = await unit.practice();
  refuse(resultFaults(reference, result));
  const screening = await needScreening(unit, screeningId);
  const refused = refusalOf(reference, await safetyToday(unit, screening.athleteId), result);
  if (refused !== null) throw new ApiProblem('blocked', { detail: refused });
  const { test, side, ...value } = result;
  const where = { screeningId, test, side };
  const table = unit.rows.results;
  if (version !== null) return resultRow(await table.change(where, version, { value }, resultRow));
  await unit.rows.screenings.need({ id: screeningId }, 'Screening', { lock: true });
  const existing = await table.one(where);
  if (existing) throw new ApiProblem('version-conflict', { current: resultRow(existing) });
  return resultRow(await table.insert({ id: newId(), ...where, value }));
}

/** Takes a result back, on its version. */
export async function removeResult(
  unit: Unit,
  screeningId: string,
  place: { test: string; side: Side },
  version: number,
): Promise<void> {
  await needScreening(unit, screeningId);
  await unit.rows.results.remove({ screeningId, ...place }, version, resultRow);
}

/** Closes a visit; it stays readable and can be opened again by entering results. */
export async function finishScreening(unit: Unit, id: string, version: number): Promise<ScreeningRow> {
  await needScreening(unit, id);
  const show = (row: RowOf<'screenings'>) => showScreening(unit, row);
  return show(await unit.rows.screenings.change({ id }, version, { finished: true }, show));
}
