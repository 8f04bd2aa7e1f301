import type { ResultRow, ScreeningRow } from '@yonder/core/contracts';
import type { ScreeningResult, Side } from '@yonder/core/domain';
import { resultFaults } from '@yonder/core/formats';
import { isBlocked, safetyState, testAllowed } from '@yonder/core/safety';
import type { Transaction } from 'sequelize';
import type { ResultRecord, ScreeningRecord } from '../../db/models.ts';
import type { Deps } from '../../deps.ts';
import type { User } from '../../http/endpoint.ts';
import { ApiProblem, notFound } from '../../http/problem.ts';
import { updateVersioned } from '../../http/versioned.ts';
import { loadCase } from '../athletes/cases.ts';
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

/** Refuses tests of a blocked region, and tests a protocol has not ticked. */
async function checkTestOffered(
  deps: Deps,
  user: User,
  screening: ScreeningRecord,
  result: ScreeningResult,
): Promise<void> {
  const { case: input } = await loadCase(deps.database, user.practiceId, screening.athleteId, deps.today());
  const safety = safetyState(deps.reference, input.athlete, deps.today());
  const test = deps.reference.tests.get(result.test);
  if (!test) return;
  const block = safety.blocks.find(
    (b) => b.level !== 'P' && (b.region === 'all' || b.region === test.region),
  );
  if (block && isBlocked(safety.blocks, test.region))
    throw new ApiProblem('blocked', { detail: block.action });
  if (!testAllowed(safety.gates, test, result.side)) {
    throw new ApiProblem('blocked', {
      detail: 'After an operation only the tests that the treating clinician ticked are done.',
    });
  }
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
  await checkTestOffered(deps, user, screening, result);
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
