import { z } from 'zod';
import { reasonSchema } from '../reasons/schema.ts';

/** One thing that was otherwise in a session, with why, as it is kept. */
export const todayChangeSchema = z.object({
  id: z.string(),
  kind: z.enum(['out', 'eased', 'swapped', 'added', 'longer', 'shorter']),
  item: z.string().nullable(),
  because: reasonSchema,
  firm: z.boolean(),
  seconds: z.number(),
});
