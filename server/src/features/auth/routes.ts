import { verify } from '@node-rs/argon2';
import { meSchema, signInSchema } from '@yonder/core/contracts';
import type { Me } from '@yonder/core/contracts';
import type { Request } from 'express';
import type { RowOf } from '../../db/schema.ts';
import type { Deps } from '../../deps.ts';
import { endpoint, publicEndpoint } from '../../http/endpoint.ts';
import type { Endpoint } from '../../http/endpoint.ts';
import { ApiProblem, notFound } from '../../http/problem.ts';
import { endSession, startSession } from '../../http/session.ts';
import { SYSTEM } from '../../work/actor.ts';
import { hashPassword } from './password.ts';

/** Verified against when no such account exists, so that both answers take the same time. */
const decoy = hashPassword('no such account');

function meOf(clinician: RowOf<'clinicians'>, practice: RowOf<'practices'>, csrfToken: string): Me {
  const { id, name, email, role } = clinician;
  const { id: practiceId, name: practiceName, timeZone } = practice;
  return {
    clinician: { id, name, email, role },
    practice: { id: practiceId, name: practiceName, timeZone },
    csrfToken,
  };
}

/** An account and its practice by e-mail, whatever the practice; null when there is none. */
function accountOf({ database }: Deps, email: string) {
  return database.inTransaction(async ({ tables }) => {
    const everywhere = tables({ practiceId: null, actor: SYSTEM });
    const clinician = await everywhere.clinicians.one({ email });
    const practice = clinician && (await everywhere.practices.one({ id: clinician.practiceId }));
    return clinician && practice ? { clinician, practice } : null;
  });
}

const SHOWN_BROWSER = 160;

/** Writes down that somebody tried to sign in to an account, from where, and whether it worked; kept for a year. */
async function noteSignIn(
  { database }: Deps,
  { id, practiceId }: RowOf<'clinicians'>,
  request: Request,
  succeeded: boolean,
): Promise<void> {
  await database.inTransaction(({ query }) =>
    query(
      `WITH old AS (DELETE FROM sign_ins WHERE clinician_id = :id AND at < now() - interval '1 year')
       INSERT INTO sign_ins (practice_id, clinician_id, address, browser, succeeded)
       VALUES (:practiceId, :id, :address, :browser, :succeeded)`,
      {
        practiceId,
        id,
        address: request.ip ?? '',
        browser: (request.get('user-agent') ?? '').slice(0, SHOWN_BROWSER),
        succeeded,
      },
    ),
  );
}

/** Sign in, sign out, who am I. */
export function authEndpoints(): Endpoint[] {
  return [
    publicEndpoint({
      id: 'signIn',
      tag: 'account',
      method: 'post',
      path: '/auth/sign-in',
      summary: 'Sign in',
      body: signInSchema,
      response: meSchema,
      handler: async ({ body, request, deps }) => {
        const account = await accountOf(deps, body.email.toLowerCase());
        const open = account?.clinician.active ? account.clinician.passwordHash : null;
        const matches = (await verify(open ?? (await decoy), body.password)) && open !== null;
        if (account) await noteSignIn(deps, account.clinician, request, matches);
        if (!account || !matches) throw new ApiProblem('wrong-credentials');
        const { id, sessionEpoch } = account.clinician;
        const token = await startSession(request, id, sessionEpoch);
        return meOf(account.clinician, account.practice, token);
      },
    }),
    endpoint({
      id: 'signOut',
      tag: 'account',
      method: 'post',
      path: '/auth/sign-out',
      summary: 'Sign out',
      least: 'read-only',
      audits: 'account.sign-out',
      status: 204,
      handler: ({ request }) => endSession(request),
    }),
    endpoint({
      id: 'readMe',
      tag: 'account',
      method: 'get',
      path: '/auth/me',
      summary: 'Who is signed in',
      least: 'read-only',
      audits: null,
      response: meSchema,
      handler: async ({ unit, request }) => {
        const clinician = await unit.rows.clinicians.one({ id: unit.actor.id ?? '' });
        const practice = await unit.rows.practices.one({ id: unit.practiceId });
        if (!clinician || !practice) throw notFound('Account');
        return meOf(clinician, practice, request.session.csrfToken ?? '');
      },
    }),
  ];
}
