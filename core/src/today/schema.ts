import { z } from 'zod';
import {
  isoDaySchema,
  itemSideSchema,
  occasionSchema,
  regionSchema,
  sideSchema,
} from '../domain/vocabulary.ts';

const id = z.string();

/** One thing an athlete waits for, as data; words/ says it. */
export const todoSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('blocked'), redFlag: id, region: regionSchema.or(z.literal('all')) }),
  z.object({
    kind: z.literal('referred'),
    region: regionSchema,
    side: sideSchema,
    pain: z.number(),
    since: isoDaySchema.describe('of the session that asked for it'),
  }),
  z.object({
    kind: z.literal('pain'),
    drill: id,
    side: itemSideSchema,
    pain: z.number(),
    date: isoDaySchema,
    above: z.boolean().describe('over the stop limit'),
  }),
  z.object({ kind: z.literal('not-asked'), topics: z.int(), never: z.boolean() }),
  z.object({
    kind: z.literal('decisions'),
    occasion: occasionSchema.optional(),
    items: z.int(),
    drill: id,
    decision: z.string(),
  }),
  z.object({ kind: z.literal('review'), precaution: id, until: isoDaySchema, days: z.int() }),
  z.object({
    kind: z.literal('rescreen'),
    test: id,
    side: sideSchema,
    chance: z.number().describe('that what is believed of this side today is wrong, 0–0.5'),
    drills: z.int().describe('of the routine in force that hang on it'),
    seconds: z.number(),
    date: isoDaySchema.describe('of the result that is old'),
  }),
]);
export type Todo = z.infer<typeof todoSchema>;
