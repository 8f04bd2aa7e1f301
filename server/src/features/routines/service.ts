import type { Decide, Decided, Draft, DraftRow, IssueRoutine, RoutineRow } from '@yonder/core/contracts';
import type { RoutineItem } from '@yonder/core/domain';
import { routineSeconds } from '@yonder/core/dose';
import { judgeFindings } from '@yonder/core/findings';
import { itemsFaults } from '@yonder/core/formats';
import { applyVerdicts, decideProgress } from '@yonder/core/progress';
import { routineChanges } from '@yonder/core/words';
import { practiceReference } from '@yonder/core/reference';
import type { Transaction } from 'sequelize';
import type { RoutineRecord } from '../../db/models.ts';
import type { Deps } from '../../deps.ts';
import type { User } from '../../http/endpoint.ts';
import { ApiProblem, notFound } from '../../http/problem.ts';
import { updateVersioned } from '../../http/versioned.ts';
import { loadCase } from '../athletes/cases.ts';
import type { LoadedCase } from '../athletes/cases.ts';
import { loadStory } from '../athletes/repository.ts';
import { audit } from '../audit.ts';
import { referenceOf } from '../figures/practice.ts';
import { checkWorkingDay } from '../workingDay.ts';
import { draftRow, routineRow } from './records.ts';
import { refuseUnsafe } from './safety.ts';

export async function listRoutines(deps: Deps, user: User, athleteId: string): Promise<RoutineRow[]> {
  await loadStory(deps.database, user.practiceId, athleteId);
  const rows = await deps.database.models.routines.findAll({
    where: { athleteId, practiceId: user.practiceId },
    order: [['number', 'DESC']],
  });
  return rows.map((row) => routineRow(row.get({ plain: true })));
}

/** A routine of the practice; 404 otherwise. */
export async function findRoutine(
  deps: Deps,
  user: User,
  routineId: string,
  transaction?: Transaction,
): Promise<RoutineRecord> {
  const where = { id: routineId, practiceId: user.practiceId };
  const found = await deps.database.models.routines.findOne({ where, transaction });
  if (!found) throw notFound('Routine');
  return found.get({ plain: true });
}

/** Holds the athlete's row until the transaction ends, so that two versions never get one number. */
async function lockAthlete(
  deps: Deps,
  user: User,
  athleteId: string,
  transaction: Transaction,
): Promise<void> {
  const row = await deps.database.models.athletes.findOne({
    where: { id: athleteId, practiceId: user.practiceId },
    transaction,
    lock: transaction.LOCK.UPDATE,
  });
  if (!row) throw notFound('Athlete');
}

interface NewVersion {
  readonly on: string;
  readonly mode: RoutineRow['mode'];
  readonly structure: string;
  readonly request: object;
  readonly items: readonly RoutineItem[];
}

/** Stores the next version with what it answered and what changed; the athlete must be locked. */
async function storeVersion(
  deps: Deps,
  user: User,
  loaded: LoadedCase,
  version: NewVersion,
  transaction: Transaction,
): Promise<RoutineRecord> {
  const newest = await deps.database.models.routines.findOne({
    where: { athleteId: loaded.athleteId, practiceId: user.practiceId },
    order: [['number', 'DESC']],
    transaction,
  });
  const previous = newest?.get({ plain: true }) ?? null;
  const report = judgeFindings(deps.reference, loaded.case);
  const reference = practiceReference(deps.reference, loaded.case.overrides);
  const created = await deps.database.models.routines.create(
    {
      athleteId: loaded.athleteId,
      practiceId: user.practiceId,
      number: (previous?.number ?? 0) + 1,
      mode: version.mode,
      structure: version.structure,
      issuedOn: version.on,
      issuedBy: user.name,
      items: [...version.items],
      totalSeconds: routineSeconds(reference, version.items),
      request: version.request,
      findings: report.findings
        .filter((f) => f.severity > 0)
        .map(({ restriction, side, severity, priority, state }) => ({
          restriction,
          side,
          severity,
          priority,
          state,
        })),
      changes: previous ? routineChanges(reference, previous.items as RoutineItem[], version.items) : [],
    },
    { transaction },
  );
  await audit(deps.database, user, loaded.athleteId, 'routine.issue', transaction);
  return created.get({ plain: true });
}

/** Issues the next version after running the safety rules again; whatever the client sent, they win. */
export async function issueRoutine(
  deps: Deps,
  user: User,
  athleteId: string,
  input: IssueRoutine,
): Promise<RoutineRow> {
  checkWorkingDay('$.on', input.on, deps.today());
  const { database } = deps;
  const reference = await referenceOf(deps.reference, database, user.practiceId);
  const faults = itemsFaults(reference, input.items);
  if (faults.length > 0) throw new ApiProblem('invalid-request', { errors: faults });
  return database.inTransaction(async (transaction) => {
    await lockAthlete(deps, user, athleteId, transaction);
    const loaded = await loadCase(database, user.practiceId, athleteId, input.on, transaction);
    refuseUnsafe(deps, loaded.case, input.items, input.on);
    const record = await storeVersion(deps, user, loaded, input, transaction);
    await database.models.drafts.destroy({ where: { athleteId, practiceId: user.practiceId }, transaction });
    return routineRow(record);
  });
}

export async function readDraft(deps: Deps, user: User, athleteId: string): Promise<DraftRow> {
  await loadStory(deps.database, user.practiceId, athleteId);
  const found = await deps.database.models.drafts.findOne({
    where: { athleteId, practiceId: user.practiceId },
  });
  return draftRow(found?.get({ plain: true }) ?? null);
}

/** Keeps the routine being edited; a version that is not the stored one gives 409 with the stored draft. */
export async function saveDraft(
  deps: Deps,
  user: User,
  athleteId: string,
  draft: Draft,
  version: number | null,
): Promise<DraftRow> {
  const { database } = deps;
  const reference = await referenceOf(deps.reference, database, user.practiceId);
  const faults = itemsFaults(reference, draft.items);
  if (faults.length > 0) throw new ApiProblem('invalid-request', { errors: faults });
  return database.inTransaction(async (transaction) => {
    await loadStory(database, user.practiceId, athleteId, transaction);
    const where = { athleteId, practiceId: user.practiceId };
    if (version !== null) {
      return draftRow(
        await updateVersioned(database.models.drafts, where, version, { draft }, draftRow, transaction),
      );
    }
    const existing = await database.models.drafts.findOne({ where, transaction });
    if (existing)
      throw new ApiProblem('version-conflict', { current: draftRow(existing.get({ plain: true })) });
    const created = await database.models.drafts.create({ ...where, draft }, { transaction });
    return draftRow(created.get({ plain: true }));
  });
}

export async function discardDraft(deps: Deps, user: User, athleteId: string): Promise<void> {
  await deps.database.models.drafts.destroy({ where: { athleteId, practiceId: user.practiceId } });
}

/**
 * Takes the practitioner's verdicts on the core's own decisions (worked out anew here), stores them, and issues the
 * next version when anything changed. 409 when another version is in force by now.
 */
export async function decide(deps: Deps, user: User, athleteId: string, input: Decide): Promise<Decided> {
  checkWorkingDay('$.on', input.on, deps.today());
  const { database } = deps;
  return database.inTransaction(async (transaction) => {
    await lockAthlete(deps, user, athleteId, transaction);
    const loaded = await loadCase(database, user.practiceId, athleteId, input.on, transaction);
    const current = loaded.routine;
    if (!current || current.id !== input.routineId) {
      throw new ApiProblem('version-conflict', { current: current ? routineRow(current) : null });
    }
    const { decisions } = decideProgress(deps.reference, loaded.case);
    const unknown = input.verdicts.findIndex((v) => v.index >= decisions.length);
    if (unknown >= 0) {
      throw new ApiProblem('invalid-request', {
        errors: [
          { path: `$.verdicts[${unknown}].index`, message: `the routine has ${decisions.length} drills` },
        ],
      });
    }
    const items = applyVerdicts(deps.reference, loaded.case, decisions, input.verdicts);
    if (items.length > 0) refuseUnsafe(deps, loaded.case, items, input.on);
    const rows = input.verdicts.map((verdict) => ({
      athleteId,
      practiceId: user.practiceId,
      routineId: current.id,
      itemIndex: verdict.index,
      drill: decisions[verdict.index]?.drill ?? '',
      decision: decisions[verdict.index]?.decision ?? 'keep',
      reasons: [...(decisions[verdict.index]?.reasons ?? [])],
      verdict: verdict.verdict,
      instead: verdict.verdict === 'overruled' ? verdict.instead : null,
      reason: verdict.verdict === 'overruled' ? verdict.reason : null,
      decidedBy: user.name,
      decidedOn: input.on,
    }));
    await database.models.decisions.bulkCreate(rows, { transaction });
    await audit(database, user, athleteId, 'decisions.record', transaction);
    // Compared as the core reads them: the database orders the keys of stored items its own way.
    const changed = JSON.stringify(items) !== JSON.stringify(loaded.case.routine?.items);
    if (!changed || items.length === 0) return { routine: null, changes: [] };
    const { mode, structure, request } = routineRowWithRequest(current);
    const record = await storeVersion(
      deps,
      user,
      loaded,
      { on: input.on, mode, structure, request, items },
      transaction,
    );
    return { routine: routineRow(record), changes: record.changes };
  });
}

function routineRowWithRequest(record: RoutineRecord) {
  return { ...routineRow(record), request: record.request };
}
