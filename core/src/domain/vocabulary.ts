import { z } from 'zod';

/** The kinetic chain from toes to fingertips; `whole-body` is a label for patterns, not a joint. */
export const REGIONS = [
  'ankle-foot',
  'knee',
  'hip-groin',
  'lumbopelvic',
  'thoracic',
  'shoulder',
  'elbow',
  'wrist-hand',
  'whole-body',
] as const;
/** A region of the body (product words), whole-body included. */
export const regionSchema = z.enum(REGIONS);
export type Region = z.infer<typeof regionSchema>;

/** Sides of a result or finding. `central` is for tests and restrictions without sides. */
export const SIDES = ['left', 'right', 'central'] as const;
/** Where a test or finding lies: left, right or central. */
export const sideSchema = z.enum(SIDES);
export type Side = z.infer<typeof sideSchema>;

/** Sides of a routine item; `both` counts the dose once per side for unilateral drills. */
export const itemSideSchema = z.enum(['left', 'right', 'both', 'central']);
export type ItemSide = z.infer<typeof itemSideSchema>;

/** What a routine is for: before activity, training of its own, or afterwards. */
export const MODES = ['prepare', 'build', 'restore'] as const;
/** One of the modes. */
export const modeSchema = z.enum(MODES);
export type Mode = z.infer<typeof modeSchema>;

/** What a routine is for in an athlete's week; each has a routine in force of its own. The first is looked at first. */
export const OCCASIONS = [
  'before-training',
  'before-competition',
  'called-in',
  'between-efforts',
  'at-competition',
  'after',
  'on-its-own',
  'at-home',
  'travel',
] as const;
/** When a routine is done: before training, at home, while travelling… */
export const occasionSchema = z.enum(OCCASIONS);
export type Occasion = z.infer<typeof occasionSchema>;

/** What a routine of an occasion does, until it is asked for otherwise. */
export const OCCASION_MODE: Readonly<Record<Occasion, Mode>> = {
  'before-training': 'prepare',
  'before-competition': 'prepare',
  'called-in': 'prepare',
  'between-efforts': 'prepare',
  'at-competition': 'prepare',
  after: 'restore',
  'on-its-own': 'build',
  'at-home': 'build',
  travel: 'restore',
};

/** Days of the week from Monday on. */
export const WEEKDAYS = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'] as const;
/** One of the days of the week. */
export type Weekday = (typeof WEEKDAYS)[number];

/** What an amount counts: repetitions, seconds, breaths, contacts… */
export const MEASURES = ['reps', 'hold-seconds', 'seconds', 'metres', 'contacts'] as const;
/** One of the measures. */
export const measureSchema = z.enum(MEASURES);
export type Measure = z.infer<typeof measureSchema>;

/** Sides of a joint on which it can hurt. */
export const PAIN_ASPECTS = ['front', 'back', 'inner', 'outer', 'deep'] as const;
/** One of the aspects of a pain. */
export const painAspectSchema = z.enum(PAIN_ASPECTS);
/** When it hurts: at rest, in movement, afterwards… */
export const painWhenSchema = z.enum(['rest', 'movement', 'end-range', 'day-after']);
/** How a pain can feel. */
export const PAIN_FEELS = ['stretch', 'pinch', 'ache', 'sharp', 'giving-way', 'locking', 'numb'] as const;
/** One of the feels of a pain. */
export const painFeelSchema = z.enum(PAIN_FEELS);

/** The first and last day that anything on record can have. */
const FIRST_DAY = '1900-01-01';
const LAST_DAY = '2199-12-31';

/** A calendar day, ISO 8601, without a time of day, between 1900 and 2199. */
export const isoDaySchema = z.iso
  .date('write a day as YYYY-MM-DD')
  .refine((day) => day >= FIRST_DAY && day <= LAST_DAY, `must be between ${FIRST_DAY} and ${LAST_DAY}`);
/** A day as YYYY-MM-DD. */
export type IsoDay = string;

/** Pain on the 0 (none) to 10 (worst) numeric rating scale. */
export const painScoreSchema = z.number().min(0).max(10);

/** The other side of a pair; central stays central. */
export function otherSide(side: Side): Side {
  if (side === 'left') return 'right';
  return side === 'right' ? 'left' : 'central';
}
