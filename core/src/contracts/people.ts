import { z } from 'zod';
import { isoDaySchema } from '../domain/vocabulary.ts';
import { idSchema, newIdSchema, ROLES, versionSchema } from './common.ts';

const name = z.string().trim().min(1, 'a name is needed').max(120);
const email = z.email('write an e-mail address').max(200);
/** Long enough to be worth something; nothing else is asked of it. */
export const newPasswordSchema = z.string().min(10, 'at least 10 characters').max(200);
const role = z.enum(ROLES);

export const newPersonSchema = z.strictObject({ id: newIdSchema, name, email, role });
export const changePersonSchema = z.strictObject({
  name,
  role,
  active: z.boolean().describe('false closes the account; its sessions end at once'),
  version: versionSchema,
});
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
export const askLinkSchema = z.strictObject({ id: newIdSchema });

const token = z.string().min(20).max(100);
export const lookAtLinkSchema = z.strictObject({ token });
export const linkForSchema = z.object({
  name: z.string(),
  email: z.string(),
  practice: z.string(),
  kind: z.enum(['invite', 'reset']),
});
export type LinkFor = z.infer<typeof linkForSchema>;
export const useLinkSchema = z.strictObject({ token, password: newPasswordSchema });

export const changePasswordSchema = z.strictObject({
  current: z.string().min(1).max(200),
  next: newPasswordSchema,
});
export const signInRowSchema = z
  .object({ at: z.iso.datetime(), address: z.string(), browser: z.string(), succeeded: z.boolean() })
  .meta({ id: 'SignIn' });
export type SignInRow = z.infer<typeof signInRowSchema>;

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
export const changePracticeSchema = practiceFieldsSchema.extend({ version: versionSchema });
export const practiceRowSchema = practiceFieldsSchema
  .extend({ version: versionSchema })
  .meta({ id: 'Practice' });
export type PracticeRow = z.infer<typeof practiceRowSchema>;

export const archiveSchema = z.strictObject({ archived: z.boolean(), version: versionSchema });
export const eraseSchema = z.strictObject({
  id: newIdSchema,
  name: z.string().max(120).describe('the athlete’s name, typed again'),
  reason: z.string().trim().min(3, 'say why').max(1000),
});
export const erasedSchema = z.object({ athleteId: idSchema, on: isoDaySchema }).meta({ id: 'Erased' });
