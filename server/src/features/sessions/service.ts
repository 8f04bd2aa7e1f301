import { progressSchema } from '@yonder/core/contracts';
import type { SessionRow } from '@yonder/core/contracts';
import type { DiaryEntry, RoutineItem } from '@yonder/core/domain';
import type { Transaction } from 'sequelize';
import type { SessionRecord } from '../../db/models.ts';
import type { Deps } from '../../deps.ts';
import type { User } from '../../http/endpoint.ts';
import { ApiProblem, notFound } from '../../http/problem.ts';
import { updateVersioned } from '../../http/versioned.ts';
import { loadCase } from '../athletes/cases.ts';
import { loadStory } from '../athletes/repository.ts';
import { audit } from '../audit.ts';
import { findRoutine } from '../routines/service.ts';
import { refuseUnsafe } from '../routines/safety.ts';
import { checkWorkingDay } from '../workingDay.ts';

function sessionRow(record: SessionRecord): SessionRow {
  return {
    id: record.id,
    routineId: record.routineId,
    date: record.date,
    finished: record.finished,
    progress: progressSchema.parse(record.progress),
    entries: record.entries as SessionRow['entries'],
    version: record.version,
  };
}

async function findSession(
  deps: Deps,
  user: User,
  sessionId: string,
  transaction?: Transaction,
): Promise<SessionRecord> {
  const where = { id: sessionId, practiceId: user.practiceId };
  const found = await deps.database.models.sessions.findOne({ where, transaction });
  if (!found) throw notFound('Session');
  return found.get({ plain: true });
}

export async function listSessions(deps: Deps, user: User, athleteId: string): Promise<SessionRow[]> {
  await loadStory(deps.database, user.practiceId, athleteId);
  const rows = await deps.database.models.sessions.findAll({
    where: { athleteId, practiceId: user.practiceId },
    order: [
      ['date', 'DESC'],
      ['id', 'ASC'],
    ],
  });
  return rows.map((row) => sessionRow(row.get({ plain: true })));
}

/** Starts a run of a routine on a day, or goes on with an unfinished one. Refused while the rules forbid a drill. */
export async function startSession(
  deps: Deps,
  user: User,
  input: { routineId: string; date: string },
): Promise<SessionRow> {
  checkWorkingDay('$.date', input.date, deps.today());
  const { database } = deps;
  return database.inTransaction(async (transaction) => {
    const routine = await findRoutine(deps, user, input.routineId, transaction);
    const { athleteId } = routine;
    const loaded = await loadCase(database, user.practiceId, athleteId, input.date, transaction);
    refuseUnsafe(deps, loaded.case, routine.items as RoutineItem[], input.date);
    const where = {
      athleteId,
      practiceId: user.practiceId,
      routineId: routine.id,
      date: input.date,
      finished: false,
    };
    const [row] = await database.models.sessions.findOrCreate({ where, defaults: where, transaction });
    await audit(database, user, athleteId, 'session.start', transaction);
    return sessionRow(row.get({ plain: true }));
  });
}

/** Entries must be of the routine's drills; a swapped-in drill must pass the safety rules. */
async function checkEntries(
  deps: Deps,
  user: User,
  session: SessionRecord,
  entries: readonly DiaryEntry[],
): Promise<void> {
  const routine = await findRoutine(deps, user, session.routineId);
  const items = routine.items as RoutineItem[];
  const errors = entries.flatMap((entry, i) => {
    const known = items.some((item) => item.drill === entry.drill || item.drill === entry.swappedFor);
    return known ? [] : [{ path: `$.entries[${i}].drill`, message: 'not a drill of this routine' }];
  });
  if (errors.length > 0) throw new ApiProblem('invalid-request', { errors });
  const swapped = entries.filter((entry) => entry.swappedFor !== undefined);
  if (swapped.length === 0) return;
  const loaded = await loadCase(deps.database, user.practiceId, session.athleteId, session.date);
  refuseUnsafe(deps, loaded.case, swapped, session.date);
}

/** Stores how far the run is and what was done; a finished run is only added to by the morning after. */
export async function saveSession(
  deps: Deps,
  user: User,
  sessionId: string,
  input: { version: number; progress: object; entries: DiaryEntry[]; finished: boolean },
): Promise<SessionRow> {
  const session = await findSession(deps, user, sessionId);
  if (session.finished) throw new ApiProblem('version-conflict', { current: sessionRow(session) });
  await checkEntries(deps, user, session, input.entries);
  const { database } = deps;
  return database.inTransaction(async (transaction) => {
    const where = { id: sessionId, practiceId: user.practiceId };
    const { version, ...changes } = input;
    const row = await updateVersioned(
      database.models.sessions,
      where,
      version,
      changes,
      sessionRow,
      transaction,
    );
    if (input.finished) await audit(database, user, session.athleteId, 'session.finish', transaction);
    return sessionRow(row);
  });
}

/** Pain on the morning after, per drill of a finished run. */
export async function recordNextDay(
  deps: Deps,
  user: User,
  sessionId: string,
  input: { version: number; pains: { index: number; nextDayPain: number }[] },
): Promise<SessionRow> {
  const session = await findSession(deps, user, sessionId);
  const entries = session.entries as DiaryEntry[];
  const unknown = input.pains.findIndex((pain) => pain.index >= entries.length);
  if (unknown >= 0 || !session.finished) {
    const message = session.finished
      ? `the session has ${entries.length} drills`
      : 'the session is not finished';
    throw new ApiProblem('invalid-request', {
      errors: [{ path: `$.pains[${Math.max(0, unknown)}].index`, message }],
    });
  }
  const changed = entries.map((entry, index) => {
    const pain = input.pains.find((p) => p.index === index);
    return pain ? { ...entry, nextDayPain: pain.nextDayPain } : entry;
  });
  const { database } = deps;
  return database.inTransaction(async (transaction) => {
    const where = { id: sessionId, practiceId: user.practiceId };
    const row = await updateVersioned(
      database.models.sessions,
      where,
      input.version,
      { entries: changed },
      sessionRow,
      transaction,
    );
    await audit(database, user, session.athleteId, 'session.next-day', transaction);
    return sessionRow(row);
  });
}
