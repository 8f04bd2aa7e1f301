import {
  askLinkSchema,
  changePasswordSchema,
  changePersonSchema,
  changePracticeSchema,
  idSchema,
  linkForSchema,
  lookAtLinkSchema,
  newPersonSchema,
  oneTimeLinkSchema,
  personRowSchema,
  practiceRowSchema,
  signInRowSchema,
  useLinkSchema,
} from '@yonder/core/contracts';
import { z } from 'zod';
import type { Deps } from '../../deps.ts';
import { endpoint, publicEndpoint } from '../../http/endpoint.ts';
import type { Endpoint } from '../../http/endpoint.ts';
import { endSession, startSession } from '../../http/session.ts';
import { newId } from '../../work/newId.ts';
import { lookAtLink, makeLink, useLink } from './links.ts';
import * as people from './people.ts';

const person = z.strictObject({ personId: idSchema });

/** The practice page: who has an account, with what role; name, time zone and season. */
function practiceEndpoints(deps: Deps): Endpoint[] {
  return [
    endpoint({
      id: 'readPractice',
      tag: 'practice',
      method: 'get',
      path: '/practice',
      summary: 'Name, time zone and season',
      least: 'read-only',
      audits: null,
      response: practiceRowSchema,
      handler: ({ unit }) => people.readPractice(unit),
    }),
    endpoint({
      id: 'changePractice',
      tag: 'practice',
      method: 'put',
      path: '/practice',
      summary: 'Change name, time zone or season',
      least: 'owner',
      audits: 'practice.change',
      body: changePracticeSchema,
      response: practiceRowSchema,
      handler: ({ unit, body }) => people.changePractice(unit, body),
    }),
    endpoint({
      id: 'listPeople',
      tag: 'practice',
      method: 'get',
      path: '/people',
      summary: 'Everybody with an account in the practice',
      least: 'owner',
      audits: 'people.read',
      response: z.object({ items: z.array(personRowSchema) }),
      handler: async ({ unit }) => ({ items: await people.listPeople(unit) }),
    }),
    endpoint({
      id: 'invitePerson',
      tag: 'practice',
      method: 'post',
      path: '/people',
      summary: 'Add an account; its one-time link is told once',
      least: 'owner',
      audits: 'person.invite',
      status: 201,
      body: newPersonSchema,
      response: oneTimeLinkSchema,
      handler: async ({ unit, body }) => {
        await people.addPerson(unit, body);
        return makeLink(unit, deps, body.id, newId());
      },
      again: async ({ unit, body }) => ({
        person: await people.showPerson(unit, body.id),
        token: null,
        until: null,
      }),
    }),
    endpoint({
      id: 'changePerson',
      tag: 'practice',
      method: 'put',
      path: '/people/:personId',
      summary: 'Change name or role, close or open an account',
      least: 'owner',
      audits: 'person.change',
      params: person,
      body: changePersonSchema,
      response: personRowSchema,
      handler: ({ unit, params, body }) => people.changePerson(unit, params.personId, body),
    }),
    endpoint({
      id: 'makeLink',
      tag: 'practice',
      method: 'post',
      path: '/people/:personId/link',
      summary: 'A new one-time link to choose a password; earlier ones end',
      least: 'owner',
      audits: 'person.link',
      status: 201,
      params: person,
      body: askLinkSchema,
      response: oneTimeLinkSchema,
      handler: ({ unit, params, body }) => makeLink(unit, deps, params.personId, body.id),
      again: async ({ unit, params }) => ({
        person: await people.showPerson(unit, params.personId),
        token: null,
        until: null,
      }),
    }),
  ];
}

/** One's own account, and the door that a link opens. */
function accountEndpoints(): Endpoint[] {
  return [
    endpoint({
      id: 'changePassword',
      tag: 'account',
      method: 'post',
      path: '/account/password',
      summary: 'A new password; every other session ends',
      least: 'read-only',
      audits: 'account.password',
      body: changePasswordSchema,
      response: z.object({ csrfToken: z.string() }),
      handler: async ({ unit, body, request }) => {
        const epoch = await people.changePassword(unit, body);
        return { csrfToken: await startSession(request, unit.actor.id ?? '', epoch) };
      },
    }),
    endpoint({
      id: 'signOutEverywhere',
      tag: 'account',
      method: 'post',
      path: '/account/sign-out-everywhere',
      summary: 'End every session of this account, this one too',
      least: 'read-only',
      audits: 'account.sign-out-everywhere',
      status: 204,
      handler: async ({ unit, request }) => {
        await people.endAllSessions(unit);
        await endSession(request);
      },
    }),
    endpoint({
      id: 'listSignIns',
      tag: 'account',
      method: 'get',
      path: '/account/sign-ins',
      summary: 'The newest sign-ins of this account, failed ones too',
      least: 'read-only',
      audits: null,
      response: z.object({ items: z.array(signInRowSchema) }),
      handler: async ({ unit }) => ({ items: await people.listSignIns(unit) }),
    }),
    publicEndpoint({
      id: 'lookAtLink',
      tag: 'account',
      method: 'post',
      path: '/auth/link/look',
      summary: 'Whose one-time link this is',
      body: lookAtLinkSchema,
      response: linkForSchema,
      handler: ({ body, deps }) => lookAtLink(deps, body.token),
    }),
    publicEndpoint({
      id: 'useLink',
      tag: 'account',
      method: 'post',
      path: '/auth/link',
      summary: 'Choose a password by a one-time link',
      status: 204,
      body: useLinkSchema,
      handler: ({ body, deps }) => useLink(deps, body.token, body.password),
    }),
  ];
}

/** Practice, people and accounts. */
export function peopleEndpoints(deps: Deps): Endpoint[] {
  return [...practiceEndpoints(deps), ...accountEndpoints()];
}
