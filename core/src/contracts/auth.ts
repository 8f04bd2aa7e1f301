import { z } from 'zod';
import { idSchema, ROLES } from './common.ts';

/** Body that signs in. */
export const signInSchema = z.strictObject({
  email: z.email().max(200),
  password: z.string().min(1).max(200),
});

/** Who is signed in, in which practice, with the token that changes need. */
export const meSchema = z
  .object({
    clinician: z.object({ id: idSchema, name: z.string(), email: z.string(), role: z.enum(ROLES) }),
    practice: z.object({
      id: idSchema,
      name: z.string(),
      timeZone: z.string().describe('IANA name; it decides what today is'),
    }),
    csrfToken: z.string(),
  })
  .meta({ id: 'Me' });
export type Me = z.infer<typeof meSchema>;
