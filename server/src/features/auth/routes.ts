import { hash, verify } from '@node-rs/argon2';
import { meSchema, signInSchema } from '@yonder/core/contracts';
import type { Me } from '@yonder/core/contracts';
import type { Deps } from '../../deps.ts';
import { endpoint } from '../../http/endpoint.ts';
import type { Endpoint } from '../../http/endpoint.ts';
import { ApiProblem } from '../../http/problem.ts';
import { endSession, startSession, userOf } from '../../http/session.ts';

/** argon2id with the parameters OWASP lists first for it: 19 MiB, two passes. */
export function hashPassword(password: string): Promise<string> {
  return hash(password, { algorithm: 2, memoryCost: 19_456, timeCost: 2, parallelism: 1 });
}

/** Verified against when no such account exists, so that both answers take the same time. */
const decoy = hashPassword('no such account');

async function meOf(deps: Deps, clinicianId: string, csrfToken: string): Promise<Me> {
  const clinician = await deps.database.models.clinicians.findByPk(clinicianId);
  const practice =
    clinician && (await deps.database.models.practices.findByPk(clinician.get('practiceId') as string));
  if (!clinician || !practice) throw new ApiProblem('not-signed-in');
  const { id, name, email } = clinician.get({ plain: true });
  const { id: practiceId, name: practiceName, schools } = practice.get({ plain: true });
  return {
    clinician: { id, name, email },
    practice: { id: practiceId, name: practiceName, schools },
    csrfToken,
  };
}

/** Sign in, sign out, who am I. */
export function authEndpoints(deps: Deps): Endpoint[] {
  return [
    endpoint({
      method: 'post',
      path: '/auth/sign-in',
      summary: 'Sign in',
      access: 'public',
      body: signInSchema,
      response: meSchema,
      handler: async ({ body, request }) => {
        const found = await deps.database.models.clinicians.findOne({
          where: { email: body.email.toLowerCase() },
        });
        const account = found?.get({ plain: true });
        const matches = await verify(account?.passwordHash ?? (await decoy), body.password);
        if (!account || !matches) throw new ApiProblem('wrong-credentials');
        const user = { clinicianId: account.id, practiceId: account.practiceId, name: account.name };
        const token = await startSession(request, user);
        return meOf(deps, account.id, token);
      },
    }),
    endpoint({
      method: 'post',
      path: '/auth/sign-out',
      summary: 'Sign out',
      status: 204,
      handler: ({ request }) => endSession(request),
    }),
    endpoint({
      method: 'get',
      path: '/auth/me',
      summary: 'Who is signed in',
      response: meSchema,
      handler: ({ request }) => meOf(deps, userOf(request).clinicianId, request.session.csrfToken ?? ''),
    }),
  ];
}
