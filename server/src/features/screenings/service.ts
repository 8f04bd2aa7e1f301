import type { ResultRow, ScreeningRow } from '@yonder/core/contracts';
import type { ScreeningResult, Side } from '@yonder/core/domain';
import { resultFaults } from '@yonder/core/formats';
import { isBlocked, safetyState, testAllowed } from '@yonder/core/safety';
import type { SafetyState } from '@yonder/core/safety';
import type { Transaction } from 'sequelize';
import type { ResultRecord, ScreeningRecord } from '../../db/models.ts';
import type { Deps } from '../../deps.ts';
import type { User } from '../../http/endpoint.ts';
import { ApiProblem, notFound } from '../../http/problem.ts';
import { updateVersioned } from '../../http/versioned.ts';
import { athleteOf } from '../athletes/cases.ts';
import { loadStory } from '../athletes/repository.ts';
import { audit } from '../audit.ts';
import { checkWorkingDay } from '../workingDay.ts';

function resultRow(record: ResultRecord): ResultRow {
  return {
    ...(record.value as ScreeningResult),
    test: record.test,
    side: record.side as Side,
    version: record.version,
  };
}

async function screeningRow(
  deps: Deps,
  screening: ScreeningRecord,
  transaction?: Transaction,
): Promise<ScreeningRow> {
  const results = await deps.database.models.results.findAll({
    where: { screeningId: screening.id, practiceId: screening.practiceId },
    order: [
      ['test', 'ASC'],
      ['side', 'ASC'],
    ],
    transaction,
  });
  return {
    id: screening.id,
    date: screening.date,
    finished: screening.finished,
    version: screening.version,
    results: results.map((row) => resultRow(row.get({ plain: true }))),
  };
}

async function findScreening(
  deps: Deps,
  user: User,
  screeningId: string,
  transaction?: Transaction,
): Promise<ScreeningRecord> {
  const found = await deps.database.models.screenings.findOne({
    where: { id: screeningId, practiceId: user.practiceId },
    transaction,
  });
  if (!found) throw notFound('Screening');
  return found.get({ plain: true });
}

export async function listScreenings(deps: Deps, user: User, athleteId: string): Promise<ScreeningRow[]> {
  await loadStory(deps.database, user.practiceId, athleteId);
  const rows = await deps.database.models.screenings.findAll({
    where: { athleteId, practiceId: user.practiceId },
    order: [['date', 'DESC']],
  });
  return Promise.all(rows.map((row) => screeningRow(deps, row.get({ plain: true }))));
}

/** Opens the visit of a day, or resumes it when there is one already. */
export async function openScreening(
  deps: Deps,
  user: User,
  athleteId: string,
  date: string,
): Promise<ScreeningRow> {
  checkWorkingDay('$.date', date, deps.today());
  const { database } = deps;
  return database.inTransaction(async (transaction) => {
    const { athlete } = await loadStory(database, user.practiceId, athleteId, transaction);
    if (date < athlete.birthDate) {
      throw new ApiProblem('invalid-request', {
        errors: [{ path: '$.date', message: 'before the birth date' }],
      });
    }
    const [row] = await database.models.screenings.findOrCreate({
      where: { athleteId, practiceId: user.practiceId, date },
      defaults: {
        athleteId,
        practiceId: user.practiceId,
        date,
        createdBy: user.clinicianId,
        finished: false,
      },
      transaction,
    });
    await audit(database, user, athleteId, 'screening.open', transaction);
    return screeningRow(deps, row.get({ plain: true }), transaction);
  });
}

/** Why a test may not be done today: a blocked region, or one that a protocol has not ticked; null when it may. */
function refusalOf(deps: Deps, safety: SafetyState, result: ScreeningResult): string | null {
  const test = deps.reference.tests.get(result.test);
  if (!test) return null;
  const block = safety.blocks.find(
    (b) => b.level !== 'P' && (b.region === 'all' || b.region === test.region),
  );
  if (block && isBlocked(safety.blocks, test.region)) return block.action;
  return testAllowed(safety.gates, test, result.side)
    ? null
    : 'After an operation only the tests that the treating clinician ticked are done.';
}

async function safetyToday(deps: Deps, user: User, athleteId: string): Promise<SafetyState> {
  const story = await loadStory(deps.database, user.practiceId, athleteId);
  return safetyState(deps.reference, athleteOf(story), deps.today());
}

/** Stores many results of one visit in one go, new or in place of the stored ones; all of them or none. */
export async function putResults(
  deps: Deps,
  user: User,
  screening: Pick<ScreeningRecord, 'id' | 'athleteId'>,
  results: readonly ScreeningResult[],
  transaction: Transaction,
): Promise<void> {
  const safety = await safetyToday(deps, user, screening.athleteId);
  const errors = results.flatMap((result, i) => {
    const refused = refusalOf(deps, safety, result);
    return [
      ...resultFaults(deps.reference, result).map((f) => ({ ...f, path: f.path.replace('$', `$[${i}]`) })),
      ...(refused === null ? [] : [{ path: `$[${i}].test`, message: refused }]),
    ];
  });
  if (errors.length > 0) throw new ApiProblem('implausible-value', { errors });
  const { models } = deps.database;
  const own = { screeningId: screening.id, practiceId: user.practiceId };
  const stored = await models.results.findAll({ where: own, transaction });
  const key = (row: { test: string; side: string }) => `${row.test}/${row.side}`;
  const known = new Map(stored.map((row) => [key(row.get({ plain: true })), row]));
  const fresh: (typeof own & { test: string; side: string; value: object })[] = [];
  for (const { test, side, ...value } of results) {
    const row = known.get(key({ test, side }));
    if (row) await row.update({ value, version: (row.get('version') as number) + 1 }, { transaction });
    else fresh.push({ ...own, test, side, value });
  }
  await models.results.bulkCreate(fresh, { transaction });
  await audit(deps.database, user, screening.athleteId, 'results.put', transaction);
}

/** Stores one result; a version that is not the stored one gives 409 with the stored result. */
export async function putResult(
  deps: Deps,
  user: User,
  screeningId: string,
  result: ScreeningResult,
  version: number | null,
): Promise<ResultRow> {
  const faults = resultFaults(deps.reference, result);
  if (faults.length > 0) throw new ApiProblem('implausible-value', { errors: faults });
  const screening = await findScreening(deps, user, screeningId);
  const refused = refusalOf(deps, await safetyToday(deps, user, screening.athleteId), result);
  if (refused !== null) throw new ApiProblem('blocked', { detail: refused });
  const { test, side, ...value } = result;
  const { database } = deps;
  return database.inTransaction(async (transaction) => {
    const where = { screeningId, practiceId: user.practiceId, test, side };
    await audit(database, user, screening.athleteId, 'result.put', transaction);
    if (version !== null) {
      const changed = await updateVersioned(
        database.models.results,
        where,
        version,
        { value },
        resultRow,
        transaction,
      );
      return resultRow(changed);
    }
    const existing = await database.models.results.findOne({ where, transaction });
    if (existing)
      throw new ApiProblem('version-conflict', { current: resultRow(existing.get({ plain: true })) });
    const created = await database.models.results.create({ ...where, value }, { transaction });
    return resultRow(created.get({ plain: true }));
  });
}

export async function removeResult(
  deps: Deps,
  user: User,
  screeningId: string,
  test: string,
  side: Side,
): Promise<void> {
  const screening = await findScreening(deps, user, screeningId);
  await deps.database.inTransaction(async (transaction) => {
    const where = { screeningId, practiceId: user.practiceId, test, side };
    const removed = await deps.database.models.results.destroy({ where, transaction });
    if (removed === 0) throw notFound('Result');
    await audit(deps.database, user, screening.athleteId, 'result.remove', transaction);
  });
}

/** Closes a visit; it stays readable and can be opened again by entering results. */
export async function finishScreening(
  deps: Deps,
  user: User,
  screeningId: string,
  version: number,
): Promise<ScreeningRow> {
  const { database } = deps;
  return database.inTransaction(async (transaction) => {
    const where = { id: screeningId, practiceId: user.practiceId };
    const show = (row: ScreeningRecord) => screeningRow(deps, row, transaction);
    const row = await updateVersioned(
      database.models.screenings,
      where,
      version,
      { finished: true },
      show,
      transaction,
    );
    await audit(database, user, row.athleteId, 'screening.finish', transaction);
    return show(row);
  });
}
