import { z } from 'zod';

export const idSchema = z.uuid();
export const versionSchema = z
  .int()
  .min(1)
  .describe('row version the change was made on; a mismatch gives 409');
export const dayQuerySchema = z.strictObject({
  on: z.iso.date().optional().describe('working date, default today'),
});

/** RFC 9457 problem document with a stable code and the path of each fault. */
export const problemSchema = z
  .object({
    type: z.string(),
    title: z.string(),
    status: z.int(),
    code: z.string(),
    detail: z.string().optional(),
    errors: z.array(z.object({ path: z.string(), message: z.string() })).optional(),
    current: z.unknown().optional().describe('with 409: the row as it is now'),
    requestId: z.string().optional(),
  })
  .meta({ id: 'Problem' });
export type Problem = z.infer<typeof problemSchema>;

/** Every problem code the API can give; docs/api.md explains each. */
export const PROBLEM_CODES = [
  'invalid-request',
  'malformed-json',
  'payload-too-large',
  'not-signed-in',
  'wrong-credentials',
  'csrf-token',
  'too-many-attempts',
  'not-found',
  'version-conflict',
  'already-exists',
  'safety-refused',
  'blocked',
  'implausible-value',
  'unavailable',
  'internal',
] as const;
export type ProblemCode = (typeof PROBLEM_CODES)[number];
