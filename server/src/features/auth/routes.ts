import { verify } from '@node-rs/argon2';
import { meSchema, signInSchema } from '@yonder/core/contracts';
import type { Me } from '@yonder/core/contracts';
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
  const { id: practiceId, name: practiceName, schools, timeZone } = practice;
  return {
    clinician: { id, name, email, role },
    practice: { id: practiceId, name: practiceName, schools, timeZone },
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
        const matches = await verify(account?.clinician.passwordHash ?? (await decoy), body.password);
        if (!account || !matches) throw new ApiProblem('wrong-credentials');
        const token = await startSession(request, account.clinician.id);
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
