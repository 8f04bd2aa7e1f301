import { z } from 'zod';
import { entrySchema, itemSchema, MOST_ITEMS } from '../domain/caseFile.ts';
import { itemSideSchema, painScoreSchema, regionSchema, sideSchema } from '../domain/vocabulary.ts';

const item = z.uuid().describe('id of the routine item');
const place = z.int().min(0).max(5000);

/** Who says it, in which order, when: the same for every event. */
const stamp = {
  id: z.uuid().describe('made by the device; the same id twice is one event'),
  device: z.string().min(1).max(64).describe('the device or page that says it'),
  seq: z.int().min(0).max(1_000_000).describe('counts up on the device'),
  at: z.iso.datetime().describe('the clock of the device, UTC'),
};

/** What can happen in a session. Segments are places on the timeline of the items as they are played. */
export const sessionEventSchema = z.discriminatedUnion('type', [
  z.strictObject({ type: z.literal('started'), ...stamp }),
  z.strictObject({
    type: z.literal('answered'),
    ...stamp,
    check: z.string().min(1).max(80),
    holds: z.boolean().describe('the check is passed'),
  }),
  z.strictObject({
    type: z.literal('reached'),
    ...stamp,
    item,
    segment: place,
    set: z.int().min(1).max(200),
    side: itemSideSchema,
    amount: z.number().min(0).max(5000),
  }),
  z.strictObject({
    type: z.literal('skipped'),
    ...stamp,
    item,
    segments: z.array(place).min(1).max(2000).describe('left undone'),
    next: place.describe('where it goes on'),
  }),
  z.strictObject({ type: z.literal('went-back'), ...stamp, segment: place }),
  z.strictObject({
    type: z.literal('paused'),
    ...stamp,
    segment: place,
    elapsed: z.number().min(0).describe('seconds into the segment'),
  }),
  z.strictObject({ type: z.literal('pain'), ...stamp, item, nrs: painScoreSchema }),
  z.strictObject({
    type: z.literal('touched-down'),
    ...stamp,
    item,
    set: z.int().min(1).max(200),
    side: itemSideSchema,
  }),
  z.strictObject({ type: z.literal('swapped'), ...stamp, item, to: itemSchema }),
  z
    .strictObject({ type: z.literal('left-out'), ...stamp, items: z.array(item).min(1).max(MOST_ITEMS) })
    .describe('drills that are not for today; said at the start, by the server'),
  z.strictObject({
    type: z.literal('provoked'),
    ...stamp,
    region: regionSchema,
    side: sideSchema,
    moment: z.enum(['before', 'after']),
    nrs: painScoreSchema,
  }),
  z.strictObject({ type: z.literal('finished'), ...stamp }),
  z.strictObject({
    type: z.literal('amended'),
    ...stamp,
    item,
    painBefore: painScoreSchema.optional(),
    pain: painScoreSchema.optional(),
    nextDayPain: painScoreSchema.optional(),
    amounts: z
      .array(z.number().min(0).max(5000))
      .max(60)
      .optional()
      .describe('how many there were, where only the one who did them knows'),
    effort: z.number().min(0).max(10).nullable().optional(),
    quality: z.int().min(0).max(3).nullable().optional(),
  }),
  z
    .strictObject({
      type: z.literal('carried'),
      ...stamp,
      entries: z.array(entrySchema).max(30),
      segment: place,
      elapsed: z.number().min(0),
      skipped: z.array(place).max(2000),
      played: z.array(itemSchema).max(30).nullable(),
    })
    .describe('a session from before events were kept: its entries as they stood, and where it was'),
]);
