import { z } from 'zod';
import { REASON_FIGURES } from './figures.ts';
import type { Reason } from './types.ts';

/** One schema per rule; unknown figures are refused. */
export const reasonSchema = z.discriminatedUnion(
  'rule',
  Object.entries(REASON_FIGURES).map(([rule, figures]) =>
    z.strictObject({ rule: z.literal(rule), ...figures }),
  ) as unknown as [z.ZodObject<{ rule: z.ZodLiteral<string> }>],
) as unknown as z.ZodType<Reason>;
