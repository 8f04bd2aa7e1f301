import { verify } from '@node-rs/argon2';
import type { PersonRow, PracticeRow, Role, SignInRow } from '@yonder/core/contracts';
import { ApiProblem, notFound, refuse } from '../../http/problem.ts';
import type { Unit } from '../../work/unit.ts';
import { checkPassword, hashPassword } from '../auth/password.ts';

interface Line {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  readonly email: string;
  readonly role: Role;
  readonly active: boolean;
  readonly joined: boolean;
  readonly lastSignIn: Date | null;
  readonly linkUntil: Date | null;
}

const PEOPLE_SQL = `
  SELECT c.id, c.version, c.name, c.email, c.role, c.active, c.password_hash IS NOT NULL AS joined,
         (SELECT max(s.at) FROM sign_ins s WHERE s.clinician_id = c.id AND s.succeeded) AS "lastSignIn",
         (SELECT max(l.expires_at) FROM account_links l
          WHERE l.clinician_id = c.id AND l.used_at IS NULL AND l.expires_at > now()) AS "linkUntil"
  FROM clinicians c WHERE c.practice_id = :practiceId AND (:id IS NULL OR c.id = CAST(:id AS uuid))
  ORDER BY c.active DESC, c.name, c.id`;

async function read(unit: Unit, id: string | null): Promise<PersonRow[]> {
  const lines = await unit.query<Line>(PEOPLE_SQL, { practiceId: unit.practiceId, id });
  return lines.map((line) => ({
    ...line,
    lastSignIn: line.lastSignIn?.toISOString() ?? null,
    linkUntil: line.linkUntil?.toISOString() ?? null,
  }));
}

/** Everybody with an account in the practice, open ones first. */
export const listPeople = (unit: Unit): Promise<PersonRow[]> => read(unit, null);

/** One person of the practice; 404 otherwise. */
export async function showPerson(unit: Unit, id: string): Promise<PersonRow> {
  const [person] = await read(unit, id);
  if (!person) throw notFound('Person');
  return person;
}

/** Adds an account without a password: its link lets the person choose one. */
export async function addPerson(
  unit: Unit,
  { id, name, email, role }: { id: string; name: string; email: string; role: Role },
): Promise<void> {
  const address = email.toLowerCase();
  const taken = await unit.query('SELECT 1 AS one FROM clinicians WHERE email = :address', { address });
  refuse(taken.length > 0 ? [{ path: '$.email', message: 'this address has an account already' }] : []);
  await unit.rows.clinicians.insert({
    id,
    name,
    email: address,
    role,
    passwordHash: null,
    active: true,
    sessionEpoch: 1,
  });
}

/** Changes name and role, opens or closes an account; a new role or a closed account ends its sessions at once. */
export async function changePerson(
  unit: Unit,
  id: string,
  { version, ...change }: { name: string; role: Role; active: boolean; version: number },
): Promise<PersonRow> {
  // One after the other in a practice: two owners who close each other at once would leave none.
  await unit.rows.practices.need({ id: unit.practiceId }, 'Practice', { lock: true });
  const person = await unit.rows.clinicians.need({ id }, 'Person', { lock: true });
  const owners = await unit.rows.clinicians.count({ role: 'owner', active: true });
  const stays = change.role === 'owner' && change.active;
  if (person.role === 'owner' && person.active && !stays && owners === 1)
    throw new ApiProblem('in-use', { detail: 'This is the last owner; make somebody else an owner first.' });
  const ends = person.role !== change.role || person.active !== change.active;
  const sessionEpoch = person.sessionEpoch + (ends ? 1 : 0);
  await unit.rows.clinicians.change({ id }, version, { ...change, sessionEpoch }, () => showPerson(unit, id));
  return showPerson(unit, id);
}

/** Ends every session of the one who asks, this one too. */
export async function endAllSessions(unit: Unit): Promise<void> {
  const id = unit.actor.id ?? '';
  const { sessionEpoch } = await unit.rows.clinicians.need({ id }, 'Account', { lock: true });
  await unit.rows.clinicians.update({ id }, { sessionEpoch: sessionEpoch + 1 });
}

/** A new password for the one who asks; every other session ends. The epoch that this one has to carry from now on. */
export async function changePassword(
  unit: Unit,
  { current, next }: { current: string; next: string },
): Promise<number> {
  const id = unit.actor.id ?? '';
  const account = await unit.rows.clinicians.need({ id }, 'Account', { lock: true });
  if (!account.passwordHash || !(await verify(account.passwordHash, current)))
    refuse([{ path: '$.current', message: 'this is not your password' }]);
  checkPassword('$.next', next, account);
  const sessionEpoch = account.sessionEpoch + 1;
  await unit.rows.clinicians.update({ id }, { passwordHash: await hashPassword(next), sessionEpoch });
  return sessionEpoch;
}

const SHOWN_SIGN_INS = 30;

/** The newest sign-ins of the one who asks, failed ones too. */
export async function listSignIns(unit: Unit): Promise<SignInRow[]> {
  const rows = await unit.query<Omit<SignInRow, 'at'> & { at: Date }>(
    `SELECT at, address, browser, succeeded FROM sign_ins WHERE clinician_id = :id ORDER BY at DESC LIMIT :limit`,
    { id: unit.actor.id, limit: SHOWN_SIGN_INS },
  );
  return rows.map(({ at, ...row }) => ({ ...row, at: at.toISOString() }));
}

/** Name, time zone and season of the practice. */
export async function readPractice(unit: Unit): Promise<PracticeRow> {
  const { name, timeZone, seasonStarts, version } = await unit.rows.practices.need(
    { id: unit.practiceId },
    'Practice',
  );
  return { name, timeZone, seasonStarts, version };
}

/** Changes the practice on the version it was read at. */
export async function changePractice(unit: Unit, { version, ...fields }: PracticeRow): Promise<PracticeRow> {
  await unit.rows.practices.change({ id: unit.practiceId }, version, fields, () => readPractice(unit));
  return readPractice(unit);
}
