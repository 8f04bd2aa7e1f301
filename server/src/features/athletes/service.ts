import type { AthleteFields, AthleteRow } from '@yonder/core/contracts';
import type { Transaction } from 'sequelize';
import type { Deps } from '../../deps.ts';
import type { User } from '../../http/endpoint.ts';
import { ApiProblem, notFound } from '../../http/problem.ts';
import { updateVersioned } from '../../http/versioned.ts';
import { audit } from '../audit.ts';
import { referenceOf } from '../figures/practice.ts';
import { checkAthleteFields, checkNotAfter } from './faults.ts';
import { athleteRow, precautionRow } from './records.ts';
import { loadStory } from './repository.ts';

export async function readAthlete(deps: Deps, user: User, athleteId: string): Promise<AthleteRow> {
  const row = athleteRow(await loadStory(deps.database, user.practiceId, athleteId));
  await audit(deps.database, user, athleteId, 'athlete.read');
  return row;
}

/** Checks typed fields against the reference with the practice's own tasks. */
async function checkFields(deps: Deps, user: User, fields: AthleteFields): Promise<void> {
  const reference = await referenceOf(deps.reference, deps.database, user.practiceId);
  checkAthleteFields(reference, fields, deps.today());
}

export async function createAthlete(deps: Deps, user: User, fields: AthleteFields): Promise<AthleteRow> {
  await checkFields(deps, user, fields);
  return deps.database.inTransaction(async (transaction) => {
    const created = await deps.database.models.athletes.create(
      { ...fields, practiceId: user.practiceId, placements: [] },
      { transaction },
    );
    const id = created.get('id') as string;
    await audit(deps.database, user, id, 'athlete.create', transaction);
    return athleteRow(await loadStory(deps.database, user.practiceId, id, transaction));
  });
}

export async function updateAthlete(
  deps: Deps,
  user: User,
  athleteId: string,
  { version, ...fields }: AthleteFields & { version: number },
): Promise<AthleteRow> {
  await checkFields(deps, user, fields);
  const { database } = deps;
  return database.inTransaction(async (transaction) => {
    const reread = async () => athleteRow(await loadStory(database, user.practiceId, athleteId, transaction));
    const where = { id: athleteId, practiceId: user.practiceId };
    await updateVersioned(database.models.athletes, where, version, { ...fields }, reread, transaction);
    await audit(database, user, athleteId, 'athlete.update', transaction);
    return reread();
  });
}

/** Does something to an athlete of the practice in one transaction and returns the athlete as it is then. */
export function changeStory(
  deps: Deps,
  user: User,
  athleteId: string,
  action: string,
  change: (transaction: Transaction) => Promise<unknown>,
): Promise<AthleteRow> {
  return deps.database.inTransaction(async (transaction) => {
    await loadStory(deps.database, user.practiceId, athleteId, transaction);
    await change(transaction);
    await audit(deps.database, user, athleteId, action, transaction);
    return athleteRow(await loadStory(deps.database, user.practiceId, athleteId, transaction));
  });
}

export function addInjury(
  deps: Deps,
  user: User,
  athleteId: string,
  injury: { region: string; side: string; date: string; operated: boolean; what: string },
): Promise<AthleteRow> {
  checkNotAfter('$.date', injury.date, deps.today());
  return changeStory(deps, user, athleteId, 'injury.add', (transaction) =>
    deps.database.models.injuries.create(
      { ...injury, athleteId, practiceId: user.practiceId },
      { transaction },
    ),
  );
}

export function removeInjury(
  deps: Deps,
  user: User,
  athleteId: string,
  injuryId: string,
): Promise<AthleteRow> {
  return changeStory(deps, user, athleteId, 'injury.remove', async (transaction) => {
    const where = { id: injuryId, athleteId, practiceId: user.practiceId };
    const removed = await deps.database.models.injuries.destroy({ where, transaction });
    if (removed === 0) throw notFound('Injury');
  });
}

export function addPrecaution(
  deps: Deps,
  user: User,
  athleteId: string,
  input: { precaution: string; reason: string; setBy: string; until: string | null },
): Promise<AthleteRow> {
  if (!deps.reference.precautions.has(input.precaution)) {
    throw new ApiProblem('invalid-request', {
      errors: [{ path: '$.precaution', message: 'unknown precaution' }],
    });
  }
  const since = deps.today();
  if (input.until !== null && input.until < since) {
    throw new ApiProblem('invalid-request', {
      errors: [{ path: '$.until', message: 'the review date has passed' }],
    });
  }
  return changeStory(deps, user, athleteId, 'precaution.add', (transaction) =>
    deps.database.models.precautions.create(
      { ...input, since, athleteId, practiceId: user.practiceId },
      { transaction },
    ),
  );
}

export function endPrecaution(
  deps: Deps,
  user: User,
  athleteId: string,
  precautionId: string,
  ended: { by: string; date: string },
): Promise<AthleteRow> {
  checkNotAfter('$.date', ended.date, deps.today());
  return changeStory(deps, user, athleteId, 'precaution.end', async (transaction) => {
    const row = await deps.database.models.precautions.findOne({
      where: { id: precautionId, athleteId, practiceId: user.practiceId },
      transaction,
      lock: transaction.LOCK.UPDATE,
    });
    if (!row) throw notFound('Precaution');
    const plain = row.get({ plain: true });
    // Who ended it first keeps the word; the second is shown who that was.
    if (plain.endedOn !== null) throw new ApiProblem('version-conflict', { current: precautionRow(plain) });
    await row.update({ endedBy: ended.by, endedOn: ended.date }, { transaction });
  });
}
