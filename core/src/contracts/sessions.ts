import { z } from 'zod';
import { todayChangeSchema } from '../checkin/schema.ts';
import { entrySchema, itemSchema, MOST_ITEMS, provokedSchema } from '../domain/caseFile.ts';
import { isoDaySchema } from '../domain/vocabulary.ts';
import { sessionEventSchema } from '../session/schema.ts';
import { idSchema, newIdSchema, versionSchema } from './common.ts';

/** Body that starts a session of a routine, with what is left out today. */
export const startSessionSchema = z.strictObject({
  id: newIdSchema,
  routineId: idSchema,
  date: isoDaySchema,
  adapt: z
    .boolean()
    .default(false)
    .describe('by today’s copy of the routine, worked out from the check-in of that day'),
  shown: z
    .array(todayChangeSchema)
    .max(120)
    .optional()
    .describe('the changes of the copy that were on the screen; refused when they are others by now'),
  undone: z
    .array(z.string().max(120))
    .max(120)
    .default([])
    .describe('changes of the copy that were put back; what safety keeps out cannot be'),
  leaveOut: z
    .array(idSchema)
    .max(MOST_ITEMS)
    .default([])
    .describe('items of the routine that are not for today'),
});

/** Sessions since a day, with who ran them and the worst pain told: what a practitioner looks at in the morning. */
export const recentSessionsSchema = z
  .object({
    since: isoDaySchema,
    items: z.array(
      z.object({
        id: idSchema,
        athleteId: idSchema,
        athlete: z.string(),
        date: isoDaySchema,
        finished: z.boolean(),
        pain: z.number().nullable().describe('worst of its drills; null when nothing was told'),
        left: z.int().describe('drills left out or done in part'),
      }),
    ),
  })
  .meta({ id: 'RecentSessions' });
export type RecentSessions = z.infer<typeof recentSessionsSchema>;

/** What the rules forbid by now of a run that is under way: all of it, or lines of it that are still to come. */
export const doorOfRunSchema = z
  .object({
    blocked: z.string().nullable().describe('why nothing of it may go on'),
    items: z.array(z.object({ item: idSchema, why: z.string() })),
  })
  .meta({ id: 'DoorOfRun' });
export type DoorOfRun = z.infer<typeof doorOfRunSchema>;

/** Events of one session, in any order; those that are known already are passed over. */
export const appendEventsSchema = z.strictObject({ events: z.array(sessionEventSchema).min(1).max(500) });

const itemEntry = entrySchema.required({ item: true });

/** A session with what happened per item, worked out from its events. */
export const sessionRowSchema = z
  .object({
    id: idSchema,
    routineId: idSchema,
    date: isoDaySchema,
    finished: z.boolean(),
    entries: z.array(itemEntry),
    provoked: z.array(provokedSchema),
    items: z
      .array(itemSchema.required({ id: true }))
      .nullable()
      .describe('the copy it was done by; null for the version as issued'),
    changes: z.array(todayChangeSchema),
    version: versionSchema,
  })
  .meta({ id: 'Session' });
export type SessionRow = z.infer<typeof sessionRowSchema>;

/** A session with its events, to go on with it. */
export const sessionWithEventsSchema = sessionRowSchema
  .extend({ events: z.array(sessionEventSchema) })
  .meta({ id: 'SessionWithEvents' });
export type SessionWithEvents = z.infer<typeof sessionWithEventsSchema>;
