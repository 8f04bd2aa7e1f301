import { createHash, randomBytes } from 'node:crypto';
import type { LinkFor, OneTimeLink } from '@yonder/core/contracts';
import type { Tables } from '../../db/database.ts';
import type { Deps } from '../../deps.ts';
import { ApiProblem } from '../../http/problem.ts';
import { SYSTEM } from '../../work/actor.ts';
import type { Unit } from '../../work/unit.ts';
import { checkPassword, hashPassword } from '../auth/password.ts';
import { showPerson } from './people.ts';

const HOLDS_MS = 72 * 60 * 60 * 1000;
const fingerprint = (token: string) => createHash('sha256').update(token).digest('hex');

/** Makes the one link of a person that holds: earlier ones are worth nothing from now on. Told once. */
export async function makeLink(
  unit: Unit,
  deps: Deps,
  clinicianId: string,
  id: string,
): Promise<OneTimeLink> {
  const { passwordHash } = await unit.rows.clinicians.need({ id: clinicianId }, 'Person', { lock: true });
  const token = randomBytes(32).toString('base64url');
  const now = deps.clock();
  const until = new Date(now.getTime() + HOLDS_MS);
  await unit.rows.account_links.update({ clinicianId, usedAt: null }, { usedAt: now });
  await unit.rows.account_links.insert({
    id,
    clinicianId,
    kind: passwordHash === null ? 'invite' : 'reset',
    tokenHash: fingerprint(token),
    madeBy: unit.actor.name,
    expiresAt: until,
    usedAt: null,
  });
  return { person: await showPerson(unit, clinicianId), token, until: until.toISOString() };
}

/** A link that holds, with whose it is; the same refusal for one that is unknown, used or too old. */
async function needLink(tables: Tables, token: string, now: Date) {
  const link = await tables.account_links.one({ tokenHash: fingerprint(token) }, { lock: true });
  const clinician = link && (await tables.clinicians.one({ id: link.clinicianId }));
  if (!link || !clinician?.active || link.usedAt !== null || link.expiresAt < now)
    throw new ApiProblem('not-found', {
      detail: 'This link is used, too old or replaced by a newer one. Ask for a new one.',
    });
  return { link, clinician };
}

/** Whose link this is. */
export function lookAtLink(deps: Deps, token: string): Promise<LinkFor> {
  return deps.database.inTransaction(async ({ tables }) => {
    const everywhere = tables({ practiceId: null, actor: SYSTEM });
    const { link, clinician } = await needLink(everywhere, token, deps.clock());
    const practice = await everywhere.practices.one({ id: clinician.practiceId });
    const { name, email } = clinician;
    return { name, email, practice: practice?.name ?? '', kind: link.kind };
  });
}

/** Chooses a password by a link, once; every session of the account ends. */
export async function useLink(deps: Deps, token: string, password: string): Promise<void> {
  const passwordHash = await hashPassword(password);
  await deps.database.inTransaction(async ({ tables, query }) => {
    const everywhere = tables({ practiceId: null, actor: SYSTEM });
    const { link, clinician } = await needLink(everywhere, token, deps.clock());
    checkPassword('$.password', password, clinician);
    await everywhere.account_links.update({ id: link.id }, { usedAt: deps.clock() });
    await everywhere.clinicians.update(
      { id: clinician.id },
      { passwordHash, sessionEpoch: clinician.sessionEpoch + 1 },
    );
    await query(
      `INSERT INTO audit_events (practice_id, actor_kind, actor_id, action) VALUES (:practiceId, 'clinician', :id, :action)`,
      { practiceId: clinician.practiceId, id: clinician.id, action: `account.${link.kind}-used` },
    );
  });
}
