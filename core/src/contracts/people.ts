import { z } from 'zod';
import { isoDaySchema } from '../domain/vocabulary.ts';
import { idSchema, newIdSchema, ROLES, versionSchema } from './common.ts';

const name = z.string().trim().min(1, 'a name is needed').max(120);
const email = z.email('write an e-mail address').max(200);
/** Long enough to be worth something; nothing else is asked of it. */
export const newPasswordSchema = z.string().min(10, 'at least 10 characters').max(200);
const role = z.enum(ROLES);

/** Body that invites a colleague. */
export const newPersonSchema = z.strictObject({ id: newIdSchema, name, email, role });
/** Body that changes a colleague’s role or closes the account. */
export const changePersonSchema = z.strictObject({
  name,
  role,
  active: z.boolean().describe('false closes the account; its sessions end at once'),
  version: versionSchema,
});
/** A colleague as owners see them. */
export const personRowSchema = z
  .object({
    id: idSchema,
    version: versionSchema,
    name: z.string(),
    email: z.string(),
    role,
    active: z.boolean(),
    joined: z.boolean().describe('has chosen a password'),
    lastSignIn: z.iso.datetime().nullable(),
    linkUntil: z.iso.datetime().nullable().describe('until when an unused link of theirs holds'),
  })
  .meta({ id: 'Person' });
export type PersonRow = z.infer<typeof personRowSchema>;

/** A link is told once, to whoever asked for it; only its fingerprint is stored. */
export const oneTimeLinkSchema = z
  .object({ person: personRowSchema, token: z.string().nullable(), until: z.iso.datetime().nullable() })
  .meta({ id: 'OneTimeLink' });
export type OneTimeLink = z.infer<typeof oneTimeLinkSchema>;
/** Body that asks for a one-time link to set a password. */
export const askLinkSchema = z.strictObject({ id: newIdSchema });

const token = z.string().min(20).max(100);
/** Body that looks at a one-time link without using it. */
export const lookAtLinkSchema = z.strictObject({ token });
/** Whom a one-time link is for. */
export const linkForSchema = z.object({
  name: z.string(),
  email: z.string(),
  practice: z.string(),
  kind: z.enum(['invite', 'reset']),
});
export type LinkFor = z.infer<typeof linkForSchema>;
/** Body that uses a one-time link: the token and the new password. */
export const useLinkSchema = z.strictObject({ token, password: newPasswordSchema });

/** Body that changes one’s own password. */
export const changePasswordSchema = z.strictObject({
  current: z.string().min(1).max(200),
  next: newPasswordSchema,
});
/** One attempt to sign in to one’s account. */
export const signInRowSchema = z
  .object({ at: z.iso.datetime(), address: z.string(), browser: z.string(), succeeded: z.boolean() })
  .meta({ id: 'SignIn' });
export type SignInRow = z.infer<typeof signInRowSchema>;

/** What an owner can change of the practice. */
export const practiceFieldsSchema = z.strictObject({
  name,
  timeZone: z
    .string()
    .max(60)
    .refine(
      (zone) => Intl.supportedValuesOf('timeZone').includes(zone) || zone === 'UTC',
      'unknown time zone',
    ),
  seasonStarts: z
    .string()
    .regex(/^(0[1-9]|1[0-2])-(0[1-9]|1\d|2[0-8])$/, 'month and day as MM-DD, up to the 28th'),
});
/** Body that changes the practice, with the version that was seen. */
export const changePracticeSchema = practiceFieldsSchema.extend({ version: versionSchema });
/** The practice as the server answers. */
export const practiceRowSchema = practiceFieldsSchema
  .extend({ version: versionSchema })
  .meta({ id: 'Practice' });
export type PracticeRow = z.infer<typeof practiceRowSchema>;

/** Body that archives an athlete or brings one back. */
export const archiveSchema = z.strictObject({ archived: z.boolean(), version: versionSchema });
/** Body that erases an athlete for good, with the name typed again and why. */
export const eraseSchema = z.strictObject({
  id: newIdSchema,
  name: z.string().max(120).describe('the athlete’s name, typed again'),
  reason: z.string().trim().min(3, 'say why').max(1000),
});
/** What an erasure left: nothing but that it happened. */
export const erasedSchema = z.object({ athleteId: idSchema, on: isoDaySchema }).meta({ id: 'Erased' });
