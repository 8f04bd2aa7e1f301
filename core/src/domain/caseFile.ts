import { z } from 'zod';
import { categorySchema, ownDrillSchema } from '../reference/schema.ts';
import { daysBetween } from './days.ts';
import {
  isoDaySchema,
  itemSideSchema,
  measureSchema,
  modeSchema,
  occasionSchema,
  painAspectSchema,
  painFeelSchema,
  painWhenSchema,
  painScoreSchema,
  regionSchema,
  sideSchema,
} from './vocabulary.ts';

const id = z.string().min(1).max(80);
const person = z.string().min(1).max(120);
const text = z.string().max(2000);
const pairSide = z.enum(['left', 'right']);
const nullable = <T extends z.ZodType>(schema: T) => schema.nullable().default(null);

/** Who lifted a gate, when, and in which written scope. */
export const clearanceSchema = z.strictObject({
  by: person,
  date: isoDaySchema,
  scope: z.string().min(1).max(2000),
});

/** Leg length in cm (front of pelvis to inner ankle) or arm length in cm (C7 to fingertip). */
const limbPair = z.strictObject({ left: z.number().min(20).max(150), right: z.number().min(20).max(150) });

/** A sport task an athlete does, by id, with the side that leads. */
export const taskSchema = z.strictObject({ id, lead: z.enum(['left', 'right', 'either']).default('either') });

/** A past injury: where, on which day, whether it was operated, and in words what happened. */
export const injurySchema = z.strictObject({
  region: regionSchema,
  side: sideSchema,
  date: isoDaySchema,
  operated: z.boolean().default(false),
  what: text.optional(),
});

/** Something to avoid: who set it, why, when it is to be looked at again, and how it ended. */
export const precautionSchema = z.strictObject({
  id,
  since: isoDaySchema.optional(),
  until: nullable(isoDaySchema).describe('review date; the precaution binds past it until ended'),
  setBy: person.optional(),
  reason: text.optional(),
  region: regionSchema.optional().describe('of a precaution that binds one region alone'),
  side: sideSchema.optional(),
  clearance: nullable(clearanceSchema),
  ended: nullable(z.strictObject({ by: person, date: isoDaySchema })),
});

/** Whether a stop-and-refer sign is there, and who cleared it in which scope. */
export const redFlagAnswerSchema = z.strictObject({
  id,
  answer: z.boolean(),
  region: nullable(regionSchema),
  side: nullable(sideSchema),
  clearance: nullable(clearanceSchema),
});

/** Stop-and-refer questions of a topic that were answered on a day, and the last day that answer holds. */
const askedSchema = z.strictObject({
  topic: id,
  on: isoDaySchema,
  until: isoDaySchema,
  signs: z
    .array(id)
    .optional()
    .describe('signs that were read out; one added since is asked anew; not kept of answers in older files'),
});

/** What the treating clinician ticked after an operation; nothing else is shown for that region and side. */
export const protocolSchema = z.strictObject({
  region: regionSchema,
  side: sideSchema,
  by: person,
  date: isoDaySchema,
  drills: z.array(id).default([]),
  tests: z.array(id).default([]),
});

/** What a practitioner saw of a level: it and all below it are fine, or it and all above it are too hard. */
export const placementSchema = z.strictObject({
  ladder: id,
  side: itemSideSchema,
  drill: id,
  verdict: z.enum(['fine', 'too-hard']).default('fine'),
  by: nullable(person),
  date: nullable(isoDaySchema),
});
export type Placement = z.infer<typeof placementSchema>;

/** How often a week the athlete does an action, and how hard: what levels it opens (rulings, "Level placement"). */
const exposureSchema = z.strictObject({
  action: id,
  perWeek: z.number().min(0).max(21).describe('sessions a week'),
  effort: z.enum(['easy', 'hard']),
});

/** What hurts now, as the athlete tells it; `since` and `ended` are days. */
export const currentPainSchema = z.strictObject({
  region: regionSchema,
  side: sideSchema,
  aspect: painAspectSchema.optional(),
  feel: painFeelSchema.optional(),
  when: painWhenSchema,
  nrs: painScoreSchema,
  since: isoDaySchema,
  ended: nullable(isoDaySchema),
});
export type CurrentPain = z.infer<typeof currentPainSchema>;

/** What was said before a session of a day: how it was slept, what hurts, what there is today. It counts on that day alone. */
export const checkInSchema = z.strictObject({
  date: isoDaySchema,
  slept: nullable(z.enum(['badly', 'so-so', 'well'])),
  tension: nullable(z.enum(['calm', 'tense', 'very-tense'])),
  news: z.string().trim().max(500).default('').describe('anything new since the last time'),
  minutes: nullable(z.number().int().min(1).max(120)).describe('minutes there are today'),
  space: nullable(z.enum(['mat', 'lane'])).describe('room there is today'),
  warmMinutesAgo: nullable(z.number().int().min(0).max(600)).describe(
    'minutes since the athlete was last warm, when it was said',
  ),
  sore: z
    .array(
      currentPainSchema
        .pick({ region: true, side: true, aspect: true, feel: true, nrs: true })
        .extend({ when: painWhenSchema.optional() }),
    )
    .max(20)
    .default([]),
});
export type CheckIn = z.infer<typeof checkInSchema>;

/** A practitioner's word that a rule of the day for a region and side does not hold, for pain no higher than it was then. */
export const liftSchema = z.strictObject({
  region: regionSchema,
  side: sideSchema,
  nrs: painScoreSchema.describe('the pain that was there when it was lifted'),
  referral: z.boolean().default(false).describe('ends what a diary asked to refer there'),
  places: nullable(
    z.array(z.strictObject({ aspect: painAspectSchema.optional(), feel: painFeelSchema.optional() })).max(20),
  ).describe(
    'where and how it hurt when it was lifted: it covers that and nothing else; null = whatever hurts there',
  ),
  reason: z.string().trim().min(3, 'say why').max(1000),
  by: person,
  date: isoDaySchema,
});
export type Lift = z.infer<typeof liftSchema>;

/** Longest span that can be marked light, in days: what is longer is another plan. */
const LONGEST_LIGHT_DAYS = 42;

/** A span marked light, before a competition or after travel: nothing gets harder from its first day to its last. */
const lightSpanSchema = z
  .strictObject({
    from: isoDaySchema,
    until: isoDaySchema,
    why: z.string().trim().min(3, 'say why').max(200),
  })
  .refine(({ from, until }) => from <= until, { path: ['until'], message: 'before it begins' })
  .refine(({ from, until }) => daysBetween(from, until) <= LONGEST_LIGHT_DAYS, {
    path: ['until'],
    message: `at most ${LONGEST_LIGHT_DAYS} days`,
  });

/** Everything of an athlete that the judgement reads; masses in kg, lengths in cm. */
export const athleteSchema = z.strictObject({
  birthDate: isoDaySchema,
  bodyMassKg: nullable(z.number().min(15).max(250)).describe('kg'),
  limbLengthCm: z
    .strictObject({ leg: limbPair.optional(), arm: limbPair.optional() })
    .default({})
    .describe('cm'),
  dominantHand: nullable(pairSide),
  dominantLeg: nullable(pairSide),
  trainingYears: z.number().min(0).max(80).default(0),
  tasks: z.array(taskSchema).default([]),
  exposure: z.array(exposureSchema).max(60).default([]).describe('what the athlete does week by week'),
  injuries: z.array(injurySchema).default([]),
  precautions: z.array(precautionSchema).default([]),
  redFlags: z.array(redFlagAnswerSchema).default([]),
  asked: nullable(z.array(askedSchema)).describe(
    'topics whose stop-and-refer questions were answered; null where that is kept elsewhere, and nothing is asked',
  ),
  protocols: z.array(protocolSchema).default([]),
  placements: z.array(placementSchema).default([]),
  pains: z.array(currentPainSchema).default([]),
  lifts: z.array(liftSchema).default([]).describe('amber rules of the day that were lifted'),
  dislikes: z.array(id).default([]).describe('drills the athlete does not want; never chosen'),
  loadLimits: z
    .array(z.strictObject({ region: regionSchema, perWeek: z.number().gt(0).max(2000) }))
    .default([])
    .describe('most load-minutes of drills per region in seven days, set by the practitioner'),
  lightSpans: z.array(lightSpanSchema).max(20).default([]).describe('spans in which nothing gets harder'),
});
export type Athlete = z.infer<typeof athleteSchema>;

/** Pain told during a test, 0–10, with its place and feel where they were asked. */
export const testPainSchema = z.strictObject({
  nrs: painScoreSchema,
  aspect: painAspectSchema.optional(),
  feel: painFeelSchema.optional(),
});

/** A movement fault and how much of it was seen. */
export const faultMarkSchema = z.strictObject({ id, mark: z.enum(['slight', 'clear']) });

/** Characters of raw readings kept with a result: a device's ten seconds, several times over. */
const MOST_RAW = 20_000;

/** What was measured of one test and side on one visit: trials in the unit of the test, or marked faults. */
export const resultSchema = z.strictObject({
  test: id,
  side: sideSchema,
  trials: z.array(z.number()).max(10).optional().describe('in the unit of the test'),
  struck: z
    .array(
      z.strictObject({ trial: z.number().int().min(0).max(9), reason: z.string().trim().min(3).max(200) }),
    )
    .max(9)
    .optional()
    .describe('trials that do not count, by their place from 0, and why'),
  grade: z.number().int().min(0).max(5).optional().describe('grade or points tests'),
  faults: z.array(faultMarkSchema).optional(),
  unable: z.boolean().optional().describe('could not do it, or stopped for pain: grade 0'),
  raw: z
    .record(z.string().max(100), z.unknown())
    .refine((raw) => JSON.stringify(raw).length <= MOST_RAW, `at most ${MOST_RAW} characters as JSON`)
    .optional()
    .describe('raw readings, kept but not used'),
  pain: testPainSchema.optional(),
  second: z
    .strictObject({
      by: person,
      grade: z.number().int().min(0).max(5).optional(),
      faults: z.array(faultMarkSchema).default([]),
    })
    .optional()
    .describe('what a second rater saw; compared, never averaged'),
});
export type ScreeningResult = z.infer<typeof resultSchema>;

/** A dated visit with its results. */
export const screeningSchema = z.strictObject({
  date: isoDaySchema,
  results: z.array(resultSchema).default([]),
});
export type Screening = z.infer<typeof screeningSchema>;

/** Figures of a reference test that a practice can replace; `demand` is what one sport task asks of it. */
export const EDITABLE_FIGURES = [
  'sem',
  'processSdPerWeek',
  'deficitBelow',
  'deficitAbove',
  'asymmetry',
  'spreadLimit',
  'cvLimitPercent',
  'demand',
] as const;

/** A figure of a reference test that the practice replaced, in the unit of the test (CV in percent). */
export const referenceEditSchema = z.strictObject({
  test: id,
  path: z.enum(EDITABLE_FIGURES),
  task: id.optional().describe('with path "demand": the task whose demand is replaced'),
  value: z.number(),
  reason: text.optional(),
  by: person.optional(),
  date: isoDaySchema.optional(),
});
export type ReferenceEdit = z.infer<typeof referenceEditSchema>;

/** A sport task of the practice's own; values in the unit of their test. */
export const ownTaskSchema = z.strictObject({
  id,
  name: z.string().min(1).max(120),
  sport: z.string().max(80).default(''),
  demands: z
    .array(
      z.strictObject({
        test: id,
        value: z.number(),
        side: z.enum(['lead', 'trail', 'both']).default('both'),
      }),
    )
    .min(1)
    .max(40),
});
export type OwnTask = z.infer<typeof ownTaskSchema>;

/**
 * A test of the practice's own, in a unit that tests have. `cutOff` is where it counts as short, below it when higher is
 * better; null leaves that to tasks and needs.
 */
export const ownTestSchema = z.strictObject({
  id,
  name: z.string().trim().min(2).max(120),
  region: regionSchema,
  quantity: z.enum(['range', 'strength', 'endurance-reps', 'endurance-hold', 'power', 'balance']),
  sides: z.enum(['per-side', 'central']),
  unit: z.enum(['deg', 'cm', 's', 'N', 'N/kg', 'Nm/kg', 'reps', '%limb-length']),
  better: z.enum(['higher', 'lower']),
  procedure: z.string().trim().min(3, 'how is it done?').max(1000),
  plausible: z.strictObject({ min: z.number(), max: z.number() }),
  sem: z.number().gt(0).describe('standard error of measurement, in the unit'),
  cutOff: nullable(z.number()),
  informs: z.array(id).min(1, 'what does it say something about?').max(10),
});
export type OwnTest = z.infer<typeof ownTestSchema>;

/** Upper end of "fine" pain and the stop limit, 0–10, of the practice's own. */
export const painLimitsSchema = z
  .strictObject({ fine: painScoreSchema, stop: painScoreSchema })
  .refine((limits) => limits.fine <= limits.stop, {
    path: ['stop'],
    message: 'the stop limit cannot lie below the fine limit',
  });

/** The share of a tested maximum that a mode uses, in place of the shipped one; fractions of 1. */
export const doseShareSchema = z
  .strictObject({
    category: categorySchema,
    mode: modeSchema,
    of: z.enum(['hold', 'reps']),
    low: z.number().min(0.05).max(1),
    high: z.number().min(0.05).max(1),
  })
  .refine((share) => share.low <= share.high, {
    path: ['high'],
    message: 'the upper share cannot lie below the lower',
  });
export type DoseShare = z.infer<typeof doseShareSchema>;

/** Where and how it hurts, and the precautions that hold on that day; null = anywhere, however it feels. */
export const painPatternSchema = z.strictObject({
  region: regionSchema,
  aspects: nullable(z.array(painAspectSchema).min(1)),
  feels: nullable(z.array(painFeelSchema).min(1)),
  precautions: z.array(id).min(1, 'which precautions hold?').max(6),
  aboveOnly: z.boolean().default(false).describe('only above the stop limit'),
});
export type PainPattern = z.infer<typeof painPatternSchema>;

/** What a practice set in place of, or beside, the reference: its figures, tasks, drills and shares of a maximum. */
export const practiceFiguresSchema = z.strictObject({
  reference: z.array(referenceEditSchema).default([]),
  tasks: z.array(ownTaskSchema).default([]),
  tests: z.array(ownTestSchema).default([]),
  drills: z.array(ownDrillSchema).default([]),
  doseShares: z.array(doseShareSchema).default([]),
  painPatterns: nullable(z.array(painPatternSchema).max(80)).describe('in place of those that ship'),
});

/** What a practitioner says of a finding: agreed, set aside with a reason, or seen by eye. */
export const judgementSchema = z.strictObject({
  restriction: id,
  side: sideSchema,
  verdict: z.enum(['confirmed', 'dismissed', 'seen']),
  degree: z.enum(['slight', 'clear', 'marked']).default('clear').describe('of a finding seen by eye'),
  reason: text.default(''),
  by: person,
  date: isoDaySchema,
});
export type Judgement = z.infer<typeof judgementSchema>;

/** A need of the practitioner’s own for a test and side, in the unit of the test; it replaces task and floor. */
export const needOverrideSchema = z.strictObject({
  test: id,
  side: sideSchema,
  value: z.number(),
  reason: text.optional(),
});

/** What a build is asked for: mode, minutes, kit, joints, pins and bans. */
export const requestSchema = z.strictObject({
  mode: modeSchema.default('prepare'),
  minutes: nullable(z.number().min(1).max(120)),
  maxDrills: nullable(z.number().int().min(1).max(30)),
  fatigueCap: nullable(z.number().min(0).max(100)),
  kit: z.array(id).default([]),
  focus: z
    .array(regionSchema)
    .max(9)
    .default([])
    .describe('joints to look after today; none = by the findings'),
  space: z
    .enum(['mat', 'lane'])
    .nullable()
    .default(null)
    .describe('room there is; null = as the drills need'),
  partner: z.boolean().default(false).describe('somebody is there to help'),
  excludePositions: z.array(id).default([]),
  structure: nullable(id),
  pattern: nullable(id),
  pins: z.array(id).default([]),
  bans: z.array(id).default([]),
  prefer: z
    .array(id)
    .default([])
    .describe('drills to keep where they fit, such as those of a template; a wish, not a pin'),
  schools: z.record(id, id).default({}).describe('options chosen for this routine alone'),
});
export type BuildRequest = z.infer<typeof requestSchema>;

const amountFrom = z
  .number()
  .min(1)
  .max(1000)
  .optional()
  .describe('the least of a range such as 8–12; `amount` is the most, and what time and load count');

const setsAndAmount = z.strictObject({
  sets: z.number().int().min(1).max(20),
  amount: z.number().min(1).max(1000),
  amountFrom,
});

/** Most lines of a routine. */
export const MOST_ITEMS = 60;

/** How a circuit is paced: by the clock at stations, or a new start every so many seconds; left out = as long as it takes. */
const paceSchema = z.discriminatedUnion('by', [
  z.strictObject({
    by: z.literal('clock'),
    work: z.number().int().min(5).max(300).describe('seconds at each station'),
    rest: z.number().int().min(0).max(300).describe('seconds to the next one'),
  }),
  z.strictObject({
    by: z.literal('every'),
    seconds: z.number().int().min(20).max(300).describe('each item starts so long after the one before'),
  }),
]);

/** Rounds that neighbouring lines belong to, and how often they go round. */
export const circuitSchema = z.strictObject({
  id,
  rounds: z.number().int().min(1).max(20),
  pace: paceSchema.optional(),
  step: z
    .number()
    .int()
    .min(-10)
    .max(10)
    .optional()
    .describe('a ladder: what the amount grows by from round to round'),
  restSeconds: z.number().int().min(0).max(600).optional().describe('rest between rounds'),
});
export type Circuit = z.infer<typeof circuitSchema>;

/** A part of a routine that a practitioner named. */
export const sectionSchema = z.strictObject({
  id,
  name: z.string().trim().min(1, 'name the section').max(80),
  minutes: nullable(z.number().min(0.5).max(120)),
});
export type Section = z.infer<typeof sectionSchema>;

/** How an item came from the one it goes on from. */
const ORIGINS = ['dose', 'set-up', 'level', 'swap'] as const;

/** One drill with its dose. `amount` is per side for unilateral drills, in the unit of `measure`. */
export const itemSchema = z.strictObject({
  id: z
    .uuid()
    .optional()
    .describe('made where the item is made; lives on through versions while its line goes on'),
  from: z
    .strictObject({ by: z.enum(ORIGINS), drill: id })
    .optional()
    .describe('the drill it came from and by what change'),
  drill: id,
  side: itemSideSchema,
  phase: nullable(id),
  sets: z.number().int().min(1).max(20),
  amount: z.number().min(0).max(1000).describe('0 only for own words that take no time'),
  amountFrom,
  asMany: z.boolean().optional().describe('as many as stay clean, up to the amount'),
  measure: measureSchema,
  holdSeconds: nullable(z.number().min(0).max(600)),
  restSeconds: z.number().min(0).max(600).default(0),
  tempo: nullable(z.string().max(20)),
  setup: z.record(z.string(), z.union([z.string(), z.number()])).default({}),
  perSide: z.strictObject({ left: setsAndAmount, right: setsAndAmount }).optional(),
  holdBreaths: z
    .number()
    .int()
    .min(1)
    .max(60)
    .optional()
    .describe('the hold of each repetition counted in breaths, in place of holdSeconds'),
  bothWays: z.boolean().optional().describe('the amount is done once each way round'),
  grip: z.string().trim().min(1).max(60).optional(),
  cadence: z
    .number()
    .min(5)
    .max(240)
    .optional()
    .describe('repetitions or contacts a minute, in place of the tempo'),
  words: z
    .string()
    .trim()
    .min(1)
    .max(300)
    .optional()
    .describe('what a line of own words says, or what a rest is for'),
  caution: z.boolean().optional().describe('words that warn: read before the drills, never done'),
  ledBy: z.string().trim().min(1).max(80).optional().describe('who leads a part that is said in own words'),
  note: z.string().trim().min(1).max(500).optional().describe('a word of the practitioner beside the line'),
  circuit: circuitSchema
    .optional()
    .describe('neighbouring items of one circuit are done one after the other, round after round'),
});
export type RoutineItem = z.infer<typeof itemSchema>;

/** A drill that a version made harder: more of it, a set-up step further, or a level up. */
export const hardenedSchema = z.strictObject({ drill: id, on: isoDaySchema });
export type Hardened = z.infer<typeof hardenedSchema>;

/** An issued version: its day, mode and items. */
export const routineSchema = z.strictObject({
  issued: isoDaySchema,
  decided: isoDaySchema.nullable().optional().describe('day of the last verdicts on it'),
  mode: modeSchema,
  items: z.array(itemSchema),
  schools: z.record(id, id).optional().describe('options chosen for this routine alone'),
  occasion: occasionSchema.optional().describe('what it is for; left out, its mode says so'),
  perWeek: z.number().min(0).max(70).optional().describe('how often a week it is meant to be done'),
  hardened: z
    .array(hardenedSchema)
    .max(200)
    .optional()
    .describe('what was made harder of late, in whatever version'),
});
export type IssuedRoutine = z.infer<typeof routineSchema>;

/** What happened for one item in a session: how much was done, pain 0–10, effort 0–10, quality 0–3. */
export const entrySchema = z.strictObject({
  item: z.uuid().optional().describe('the routine item it stands for'),
  drill: id,
  side: itemSideSchema,
  done: z.enum(['all', 'part', 'none']),
  amounts: z.array(z.number().min(0)).default([]),
  painBefore: painScoreSchema.default(0),
  pain: painScoreSchema.default(0),
  nextDayPain: nullable(painScoreSchema),
  effort: nullable(z.number().min(0).max(10)),
  quality: nullable(z.number().int().min(0).max(3)),
  swappedFor: id.optional(),
  bothWays: z.boolean().optional().describe('each amount was done once each way round'),
});
export type DiaryEntry = z.infer<typeof entrySchema>;

/** Pain of the movement that hurts, scored before the drills and after them. */
export const provokedSchema = z.strictObject({
  region: regionSchema,
  side: sideSchema,
  before: nullable(painScoreSchema),
  after: nullable(painScoreSchema),
});
export type Provoked = z.infer<typeof provokedSchema>;

/** One session of the diary with an entry for each drill. */
export const diarySessionSchema = z.strictObject({
  date: isoDaySchema,
  entries: z.array(entrySchema).default([]),
  provoked: z.array(provokedSchema).optional(),
});
export type DiarySession = z.infer<typeof diarySessionSchema>;

/** One athlete with everything the core needs to judge: see docs/case-format.md. */
export const caseSchema = z.strictObject({
  format: z.literal('yonder-ridge-case/1'),
  today: isoDaySchema,
  athlete: athleteSchema,
  overrides: z
    .strictObject({
      ...practiceFiguresSchema.shape,
      needs: z.array(needOverrideSchema).default([]),
      painLimits: nullable(painLimitsSchema),
    })
    .prefault({}),
  judgements: z.array(judgementSchema).default([]),
  schools: z.record(id, id).default({}),
  screenings: z.array(screeningSchema).default([]),
  request: requestSchema.prefault({}),
  routine: nullable(routineSchema).describe('the routine at hand'),
  others: z.array(routineSchema).max(12).default([]).describe('routines in force for other occasions'),
  diary: z.array(diarySessionSchema).default([]),
  checkIns: z.array(checkInSchema).default([]),
});
export type Case = z.infer<typeof caseSchema>;
