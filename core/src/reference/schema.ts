import { z } from 'zod';
import { solvedFigureSchema } from '../figure/schema.ts';
import {
  measureSchema,
  modeSchema,
  painAspectSchema,
  painFeelSchema,
  regionSchema,
} from '../domain/vocabulary.ts';

const id = z.string().regex(/^[a-z0-9]+(-[a-z0-9]+)*$/);
const confidence = z.enum(['low', 'medium', 'high']);
const range = z.object({ default: z.number(), min: z.number(), max: z.number() });
const band = z.object({ min: z.number(), max: z.number() });

const CATEGORIES = [
  'release',
  'raise',
  'mobilise',
  'activate',
  'stabilise',
  'strengthen',
  'neuromuscular',
  'stretch',
] as const;
/** What a drill is for, in one word. */
export const categorySchema = z.enum(CATEGORIES);
const POSITIONS = [
  'supine',
  'prone',
  'side-lying',
  'quadruped',
  'seated',
  'half-kneeling',
  'tall-kneeling',
  'standing',
  'single-leg-standing',
  'hanging',
  'moving',
] as const;
const timingSchema = z.enum(['before-activity', 'standalone', 'after-activity']);

/** A region with its names and its place in the chain from toes to fingertips. */
export const regionEntrySchema = z.object({
  id: regionSchema,
  name: z.string(),
  order: z.number(),
  covers: z.string(),
  joint: z.boolean(),
  neighbours: z.array(regionSchema),
});

/** A named shortfall that tests inform and drills serve. */
export const restrictionSchema = z.object({
  id,
  region: regionSchema,
  name: z.string(),
  kind: z.enum([
    'range-limit',
    'strength-deficit',
    'endurance-deficit',
    'motor-control',
    'balance-proprioception',
    'load-tolerance',
    'stiffness-perceived',
  ]),
  laterality: z.enum(['per-side', 'central', 'either']),
  meaning: z.string(),
  athleteWording: z.string(),
  preferredCategories: z.array(categorySchema),
  avoid: z.string(),
  neighbours: z.array(
    z.object({ restriction: id, direction: z.enum(['up', 'down', 'same']), why: z.string() }),
  ),
  tests: z.array(id),
  observedOnly: z.boolean(),
  observableSigns: z.array(z.string()).optional(),
});

/** A screening test with its error, reference figures and cut-offs, all in `unit`. */
export const testSchema = z.object({
  id,
  name: z.string(),
  region: regionSchema,
  quantity: z.enum([
    'range',
    'strength',
    'endurance-reps',
    'endurance-hold',
    'movement-quality',
    'provocation',
    'power',
    'balance',
  ]),
  movement: z.string(),
  sides: z.enum(['per-side', 'central']),
  unit: z.enum([
    'deg',
    'cm',
    's',
    'N',
    'N/kg',
    'Nm/kg',
    'reps',
    '%limb-length',
    'grade-0-3',
    'points-0-5',
    'nrs-0-10',
  ]),
  equipment: z.string(),
  procedure: z.string(),
  trials: z.object({ count: z.number().int(), aggregate: z.enum(['mean', 'best', 'worst']) }),
  better: z.enum(['higher', 'lower', 'band']),
  plausible: band,
  sem: z.object({ value: z.number().positive(), unit: z.string(), basis: z.string() }),
  mdc95: z.object({ value: z.number().positive(), unit: z.string(), derivation: z.string() }),
  reference: z.object({
    low: z.number(),
    high: z.number(),
    population: z.string(),
    /** Oldest the figures are for, in years; said with them, or our judgement (low confidence). None for grades and pain. */
    ages: z.object({ to: z.int(), basis: z.enum(['stated', 'judgement']) }).optional(),
    note: z.string(),
  }),
  flag: z.object({
    deficit: z
      .object({ below: z.number().optional(), above: z.number().optional(), unit: z.string() })
      .nullable(),
    asymmetry: z
      .object({ kind: z.enum(['absolute', 'lsi-percent']), threshold: z.number(), unit: z.string() })
      .nullable(),
    note: z.string().optional(),
  }),
  informs: z.array(id),
  cautions: z.string(),
  youthNote: z.string().nullable(),
  timeSeconds: z.number(),
  position: z.string(),
  youthOk: z.boolean(),
  trialsInSem: z.number().int(),
  processSdPerWeek: z.object({ value: z.number(), unit: z.string(), confidence, basis: z.string() }),
  cvLimitPercent: z.number().nullable(),
  spreadLimit: z.object({ value: z.number(), unit: z.string(), basis: z.string() }).nullable(),
  retrial: z.string(),
  source: z.union([
    z.literal('convention'),
    z.array(z.object({ authors: z.string(), year: z.number(), work: z.string() })),
  ]),
  sourceStatus: z.string(),
  confidence,
  confidenceBy: z.object({ error: confidence, reference: confidence, flag: confidence }),
  faults: z.array(z.object({ id, name: z.string(), phase: z.string(), hintsAt: z.array(id) })).optional(),
  gradingRule: z
    .object({
      text: z.string(),
      /** fault-count gives the grade; rating-with-floor limits a rating; two-condition is graded by eye. */
      kind: z.enum(['fault-count', 'rating-with-floor', 'two-condition']),
      levels: z.array(
        z.object({
          grade: z.number().optional(),
          minClear: z.number().optional(),
          floor: z.number().optional(),
          condition: z.string().optional(),
          maxSlight: z.number().optional(),
          maxClear: z.number().optional(),
          otherwise: z.boolean().optional(),
          when: z.string().optional(),
        }),
      ),
    })
    .optional(),
  derivedFrom: z.array(id).optional(),
});

/** A sport task with what it asks of tests, in their units. */
export const demandSchema = z.object({
  id,
  name: z.string(),
  sport: z.string(),
  sideNote: z.string(),
  demands: z.array(
    z.object({
      test: id,
      value: z.number(),
      side: z.enum(['lead', 'trail', 'both']),
      basis: z.string(),
      confidence,
      unit: z.string(),
      role: z.enum(['capacity', 'gate']),
      informs: z.array(id),
    }),
  ),
});

/** Something of a drill’s set-up that makes it easier or harder, with its steps. */
export const setupVariableSchema = z.object({
  id,
  name: z.string(),
  unit: z.string().nullable(),
  scale: z.enum(['number', 'ordered']),
  easier: z.string(),
  harder: z.string(),
  steps: z.array(z.union([z.string(), z.number()])).min(2),
  default: z.union([z.string(), z.number()]),
});

/** What has to hold before a level is open: a test’s gate or a level done before. */
export const entryCriterionSchema = z.object({
  text: z.string(),
  check: id.optional(),
  test: id.optional(),
  drill: id.optional(),
  op: z.enum(['<=', '>=', '==']).optional(),
  value: z.number().optional(),
  unit: z.string().optional(),
  sides: z.string().nullish(),
  measure: measureSchema.optional(),
  amount: z.number().nullable().optional(),
  holdSeconds: z.number().nullable().optional(),
  sets: z.number().optional(),
  maxPain: z.number().optional(),
  maxRpe: z.number().optional(),
  sessions: z.number().optional(),
  either: id
    .optional()
    .describe('criteria with the same word: one that holds is enough, one measured against keeps it closed'),
});

/** What a handling allows: the furthest step of a set-up, by its variable, the longest hold, the most sets. Its sentence is made from it. */
const handlingLimitsSchema = z.object({
  setup: z
    .record(id, z.union([z.string(), z.number()]))
    .optional()
    .describe('at most this step'),
  holdSeconds: z.number().positive().optional(),
  sets: z.int().positive().optional(),
});
export type HandlingLimits = z.infer<typeof handlingLimitsSchema>;

/** A drill. `dose.amount` is per side when unilateral, total when alternating; times are in seconds. */
export const drillSchema = z.object({
  id,
  name: z.string(),
  ladder: id,
  level: z.number().int().min(1),
  category: categorySchema,
  regions: z.object({ primary: z.array(regionSchema).min(1), secondary: z.array(regionSchema) }),
  serves: z.array(z.object({ restriction: id, match: z.number().gt(0).max(1) })).min(1),
  contraction: z.enum(['isometric-hold', 'dynamic', 'ballistic', 'passive']),
  position: z.enum(POSITIONS),
  loadClass: z.enum(['unloaded', 'partial', 'full', 'impact']),
  demandIndex: z.number().int(),
  intensityClass: z.enum(['low', 'moderate', 'high']),
  loadRegions: z.array(z.object({ region: regionSchema, weight: z.number() })),
  equipment: z.array(id),
  equipmentAny: z.array(z.array(id).min(2)).optional().describe('kit of which one of each group is enough'),
  optionalEquipment: z.array(id),
  space: z.enum(['mat', 'wall', 'lane', 'rig']),
  unilateral: z.boolean(),
  alternating: z.boolean(),
  needsPartner: z.boolean(),
  dose: z.object({
    measure: measureSchema,
    sets: range,
    amount: range,
    holdSeconds: z.number().nullable(),
    restSeconds: z.object({ default: z.number() }),
    tempo: z.string().nullable(),
    secondsPerRep: z.number().positive(),
    timesPerWeek: band,
    intensity: z.string(),
  }),
  setupVariables: z.array(setupVariableSchema),
  setupSeconds: z.number(),
  estimatedSeconds: range,
  fatigue: z.number().int(),
  raisesTemperature: z.number(),
  skill: z.number().int(),
  contraindications: z.array(id),
  precautionExcludes: z
    .array(id)
    .optional()
    .describe('precautions under which this drill is never offered, although others are with care'),
  precautionOverrides: z.array(
    z.object({
      precaution: id,
      severity: z.literal('modify'),
      handling: z.string(),
      limits: handlingLimitsSchema.optional(),
    }),
  ),
  entryCriteria: z.array(entryCriterionSchema),
  progressWhen: z.object({
    amountReached: z.number().nullable(),
    holdReached: z.number().nullable(),
    setsCompleted: z.number(),
    bothSides: z.boolean(),
    maxPain: z.number(),
    maxRpe: z.number(),
    sessions: z.number(),
    noListedFault: z.boolean(),
  }),
  easeTo: id.nullable(),
  progressTo: id.nullable(),
  equivalents: z.array(id),
  cues: z.array(z.string()),
  faults: z.array(z.string()),
  feelsLike: z.string(),
  athleteText: z.string(),
  youthOk: z.boolean(),
  youthNote: z.string().nullable(),
  timing: z.array(timingSchema),
  doseTest: id.optional().describe('the test whose maximum its dose is a share of'),
  leadSide: z.boolean().optional().describe('done on the lead side of the task that it rehearses'),
  staticStretchSeconds: z.number().nullable(),
  patterns: z
    .record(id, z.number().min(0).max(1))
    .optional()
    .describe('how nearly it rehearses a pattern, 0 to 1; else its ladder says so'),
  own: z.boolean().optional().describe('a drill of the practice’s own'),
  from: id.optional().describe('own drills: the drill it was copied from'),
  picture: solvedFigureSchema
    .optional()
    .describe('own drills: how it is drawn; else as the drill it was copied from'),
  looser: z
    .object({ reason: z.string(), by: z.string(), date: z.string(), than: id })
    .optional()
    .describe('own drills that are looser than what they come from'),
  archived: z.boolean().optional().describe('kept for the record, no longer offered'),
});

const words = z.string().trim().min(1).max(600);
const whole = (min: number, max: number) => z.number().int().min(min).max(max);
const ownRange = z
  .strictObject({ default: z.number().min(1), min: z.number().min(1), max: z.number().min(1).max(1000) })
  .refine((r) => r.min <= r.default && r.default <= r.max, { message: 'min ≤ default ≤ max' });
const matches = z
  .strictObject({ restriction: id, match: z.number().gt(0).max(1) })
  .describe('1 main purpose, 0.7 strong, 0.4 useful, less a side benefit');

/**
 * A drill of a practice's own, as it is stored and exchanged. Its demand, its estimated time and its neighbours on the
 * ladder are worked out from the rest. `level` is its place in the ladder, from 1; a ladder that does not exist yet
 * needs a `ladderName`.
 */
export const ownDrillSchema = z.strictObject({
  id,
  name: z.string().trim().min(2).max(120),
  from: id.optional().describe('the drill it was copied from; its safety traits are the least that hold'),
  looser: z
    .strictObject({
      reason: z.string().trim().min(3, 'say why').max(1000),
      by: z.string().max(120).default(''),
      date: z.string().max(10).default(''),
    })
    .optional()
    .describe('why it may be looser than what it comes from, who said so and when'),
  picture: solvedFigureSchema.optional().describe('how it is drawn; else as the drill it was copied from'),
  ladder: id,
  ladderName: z.string().trim().min(2).max(120).optional(),
  level: whole(1, 30),
  category: categorySchema,
  regions: z.strictObject({
    primary: z.array(regionSchema).min(1),
    secondary: z.array(regionSchema).default([]),
  }),
  serves: z.array(matches).min(1).max(20),
  contraction: z.enum(['isometric-hold', 'dynamic', 'ballistic', 'passive']),
  position: z.enum(POSITIONS),
  loadClass: z.enum(['unloaded', 'partial', 'full', 'impact']),
  intensityClass: z.enum(['low', 'moderate', 'high']),
  loadRegions: z
    .array(z.strictObject({ region: regionSchema, weight: z.number().gt(0).max(1) }))
    .default([])
    .describe('weights for the load count; absent = the primary regions'),
  equipment: z.array(id).default([]),
  equipmentAny: z.array(z.array(id).min(2)).max(5).optional(),
  optionalEquipment: z.array(id).default([]),
  space: z.enum(['mat', 'wall', 'lane', 'rig']).default('mat'),
  unilateral: z.boolean().default(false),
  alternating: z.boolean().default(false),
  needsPartner: z.boolean().default(false),
  dose: z.strictObject({
    measure: measureSchema,
    sets: ownRange,
    amount: ownRange,
    holdSeconds: z.number().min(1).max(300).nullable().default(null),
    restSeconds: z.strictObject({ default: z.number().min(0).max(600) }),
    tempo: z.string().max(20).nullable().default(null),
    secondsPerRep: z.number().min(0.2).max(120),
    timesPerWeek: z
      .strictObject({ min: z.number().min(1).max(21), max: z.number().min(1).max(21) })
      .default({ min: 2, max: 5 }),
    intensity: words,
  }),
  setupVariables: z
    .array(
      z
        .strictObject({
          id,
          name: words,
          unit: z.string().max(20).nullable().default(null),
          scale: z.enum(['number', 'ordered']),
          easier: words,
          harder: words,
          steps: z
            .array(z.union([z.string().min(1).max(60), z.number()]))
            .min(2)
            .max(20)
            .describe('easier to harder'),
          default: z.union([z.string(), z.number()]),
        })
        .refine((v) => v.steps.includes(v.default), {
          path: ['default'],
          message: 'must be one of the steps',
        }),
    )
    .max(6)
    .default([]),
  setupSeconds: z.number().min(0).max(300).default(10),
  fatigue: whole(0, 4),
  raisesTemperature: whole(0, 3).default(0),
  skill: whole(1, 5),
  contraindications: z.array(id).default([]),
  entryCriteria: z.array(z.strictObject(entryCriterionSchema.shape)).max(10).default([]),
  progressWhen: z
    .strictObject({
      amountReached: z.number().nullable().default(null),
      holdReached: z.number().nullable().default(null),
      setsCompleted: whole(1, 10).default(2),
      bothSides: z.boolean().default(true),
      maxPain: z.number().min(0).max(10).default(2),
      maxRpe: z.number().min(0).max(10).default(6),
      sessions: whole(1, 20).default(3),
      noListedFault: z.boolean().default(true),
    })
    .prefault({}),
  equivalents: z.array(id).default([]),
  cues: z.array(words).min(1).max(6),
  faults: z.array(words).max(6).default([]),
  feelsLike: words,
  athleteText: words,
  youthOk: z.boolean().default(true),
  youthNote: words.nullable().default(null),
  timing: z.array(timingSchema).min(1),
  patterns: z.record(id, z.number().min(0).max(1)).default({}),
  archived: z.boolean().default(false),
});

/** An action of the day: what rehearses it, and the tasks whose demands say which reserves matter. */
export const patternSchema = z.object({
  id,
  name: z.string(),
  tasks: z.array(id).min(1),
  ladders: z.record(id, z.number().gt(0).max(1)),
  basis: z.string(),
  confidence,
});

/** Drills of one family from the easiest to the hardest. */
export const ladderSchema = z.object({
  id,
  name: z.string(),
  purpose: z.string(),
  region: regionSchema,
  drills: z.array(id).min(1),
  startRule: z.string(),
  rehearsal: z.boolean().optional().describe('its drills are an action itself, and only offered before it'),
});

/** What a handling's words forbid or ask for, by a drill's own traits: every condition given has to hold. */
const drillPredicateSchema = z.object({
  position: z.array(z.string()).optional(),
  loadClass: z.array(z.string()).optional(),
  contraction: z.array(z.string()).optional(),
  category: z.array(z.string()).optional(),
  equipment: z.array(z.string()).optional().describe('any of it is needed'),
  loads: z.array(regionSchema).optional().describe('any of them carries half of the load or more'),
  ladder: z.array(id).optional(),
  drill: z.array(id).optional(),
});

/** A kind of precaution: how strict it is, what it forbids and how to handle the rest. */
export const precautionEntrySchema = z.object({
  id,
  name: z.string(),
  severity: z.enum(['exclude', 'clearance', 'modify']),
  meaning: z.string(),
  handling: z.string(),
  forbids: z.array(drillPredicateSchema).optional().describe('drills that the handling forbids'),
  forbidsSetup: z
    .array(z.object({ variable: id, steps: z.array(z.union([z.string(), z.number()])).min(1) }))
    .optional()
    .describe('set-ups that are out, of drills that stay'),
  limits: handlingLimitsSchema.optional().describe('how far the drills that carry it go'),
  asksFor: z.array(drillPredicateSchema).optional().describe('drills that the handling asks for'),
  athleteWording: z.string(),
  usualDuration: z.string(),
  regions: z.array(regionSchema),
  regional: z.boolean().optional().describe('may bind one region and side alone'),
});

/** A stop-and-refer sign: what is asked, what it blocks and what to do. */
export const redFlagSchema = z.object({
  id,
  scope: z.union([z.literal('general'), regionSchema]),
  level: z.enum(['E', 'U', 'R', 'P']),
  question: z.string(),
  ageMin: z.number().nullable(),
  ageMax: z.number().nullable(),
  action: z.string(),
  blocks: z.enum(['all', 'regions']),
  regions: z.array(regionSchema),
  askRegion: z.boolean(),
  closesImpact: z.boolean().optional().describe('nothing jolts or is hard anywhere while it is open'),
  allowOnlyTicked: z.boolean(),
  note: z.string().nullable(),
});

/** General stop-and-refer signs that are asked together, each with a short form to read aloud. */
const gateGroupSchema = z.object({
  id,
  title: z.string(),
  news: z.string().describe('what has happened when something of it is new'),
  ask: z.string(),
  expects: z.enum(['yes', 'no']).describe('the answer that says none of the signs is there'),
  signs: z.record(id, z.string()),
});

/** A part of a structure: what it holds, how many drills, which share of the time. */
export const phaseSchema = z.object({
  id,
  name: z.string(),
  shareOfTime: z.number(),
  categories: z.array(categorySchema),
  minDrills: z.number().int(),
  maxDrills: z.number().int(),
  timing: z.array(timingSchema).optional(),
  rules: z.array(z.string()).optional(),
  onlyLadders: z.array(id).optional(),
  excludeLadders: z.array(id).optional(),
  onlyRegions: z.array(regionSchema).optional(),
  onlyContraction: z.array(z.string()).optional(),
  onlyPositions: z.array(z.enum(POSITIONS)).optional(),
  minSeconds: z.number().positive().optional().describe('the phase lasts at least so long'),
  maxFatigue: z.number().optional(),
  maxContacts: z.number().optional(),
  optional: z.boolean().optional(),
  primer: z.boolean().optional().describe('rehearses what follows'),
});

/** An order of phases for a mode, with the minutes it is meant for. */
export const structureSchema = z.object({
  id,
  name: z.string(),
  use: z.string(),
  minutes: range,
  totalDrills: band,
  phases: z.array(phaseSchema),
  reasoning: z.string(),
});

/** An open question among practitioners with its options and what each does. */
export const schoolSchema = z.object({
  id,
  setting: z.string(),
  question: z.string(),
  options: z.array(
    z.object({ id, label: z.string(), reasoning: z.string(), plannerConsequence: z.string() }),
  ),
  default: id,
  defaultText: z.string(),
  confidence,
});

const share = z.object({ low: z.number(), high: z.number() }).nullable();
/** Share of a tested maximum for a category of drills in a mode, fractions of 1. */
export const doseCellSchema = z.object({
  category: categorySchema,
  mode: modeSchema,
  use: z.enum(['yes', 'optional', 'conditional', 'not-offered']),
  holdShareOfMax: share,
  repShareOfMax: share,
  sets: band,
  restSeconds: band,
  effortCue: z.string(),
  confidence,
});

const sessionCheckSchema = z.object({
  id,
  name: z.string(),
  ask: z.string(),
  unit: z.string(),
  limit: z.object({ op: z.string(), value: z.unknown() }),
  ifFailed: z.string(),
});

/**
 * Ladders and drills that were renamed or split, with what stands for them, or beside them, now; schools and their options
 * ("school/option") that are gone stand with nothing.
 */
const renamedSchema = z.record(z.string(), z.array(id));

/** What people say for what the reference calls otherwise. */
const synonymsSchema = z.object({
  saidAs: z.array(
    z.object({ said: z.string(), means: z.string().describe('as the names of drills say it') }),
  ),
  words: z.array(z.array(z.string()).min(2)).describe('single words that stand for each other in a name'),
  concepts: z.array(z.array(z.string()).min(2)).describe('what is searched for in other words'),
  positions: z.record(z.string(), z.string()).describe('how a position is said'),
});

const sayingSchema = z.object({ said: z.string().min(1), means: z.string().min(1) });

/** How people who write lists say things: judgement of use, no source. */
const sayingsSchema = z.object({
  shorthand: z.array(sayingSchema).describe('abbreviations and ways of saying, in the words of the library'),
  german: z.array(sayingSchema).describe('German words in English ones, ä as ae'),
  names: z
    .record(id, z.array(z.string().min(1)).min(1))
    .describe(
      'what else a drill, or any drill of a ladder, is called; "~" before what is near and not the same',
    ),
  absent: z.array(z.string().min(1)).describe('what people write and no drill is'),
});

/** Where and how it hurts, and the precautions that hold on that day. Judgement, low confidence (rulings, "Pain steers"). */
const painPatternEntrySchema = z.object({
  region: regionSchema,
  aspects: z.array(painAspectSchema).nullable().describe('null = anywhere there'),
  feels: z.array(painFeelSchema).nullable().describe('null = however it feels'),
  precautions: z.array(id),
  aboveOnly: z.boolean().describe('only above the stop limit'),
});

/** A part that the words of an injury name: where it runs, and what is short when it was hurt. Judgement, low confidence. */
const injuredPartSchema = z.object({
  id,
  words: z.array(z.string().min(3)).min(1),
  regions: z.array(regionSchema).min(1),
  restrictions: z.array(id).min(1),
});

/** What an element of a preparation does: its place in the order of a session. */
const READINESS_PARTS = [
  'warm',
  'open',
  'wake',
  'brace',
  'absorb',
  'drive',
  'steer',
  'rehearse',
  'after',
] as const;

/**
 * One thing that an action, a task or a joint asks a routine to hold, with how well the drills of a ladder answer it
 * (0–1; a drill by name goes before its ladder). One practitioner's judgement unless its confidence says more.
 */
export const readinessElementSchema = z.object({
  id,
  part: z.enum(READINESS_PARTS),
  /** The same need in two actions has the same word: only the first of them stays. */
  need: z.string(),
  for: z.string(),
  rank: z.int().min(1).max(5),
  ladders: z.record(id, z.number().min(0).max(1)),
  drills: z.record(id, z.number().min(0).max(1)),
  side: z.enum(['both', 'lead', 'trail', 'either']),
  regions: z.array(regionSchema).min(1),
  when: z.object({
    from: z.number().optional().describe('minutes'),
    kit: z.array(z.string()).optional().describe('one of these is at hand'),
    over: z.number().optional().describe('years'),
    under: z.number().optional().describe('years'),
    focus: z.array(regionSchema).optional(),
  }),
  confidence,
});
const elements = z.array(readinessElementSchema);
const readinessSchema = z.object({
  profiles: z.array(z.object({ action: z.string(), basis: z.string(), elements })),
  tasks: z.array(
    z.object({ task: id, first: id.nullable(), adds: elements, lifts: z.record(id, z.int().min(1).max(5)) }),
  ),
  focusWarm: elements,
  after: elements.describe('what every end of a session asks for'),
  joints: z.array(z.object({ region: regionSchema, elements })),
  youth: z.object({ keep: z.record(id, z.array(id)), exclude: z.array(id) }),
});

/** Every reference file under its own name, as one document. */
export const referenceDataSchema = z.object({
  regions: z.array(regionEntrySchema),
  restrictions: z.array(restrictionSchema),
  tests: z.array(testSchema),
  demands: z.array(demandSchema),
  drills: z.array(drillSchema),
  ladders: z.array(ladderSchema),
  injuredParts: z.array(injuredPartSchema),
  readiness: readinessSchema,
  painPatterns: z.array(painPatternEntrySchema),
  patterns: z.array(patternSchema),
  precautions: z.array(precautionEntrySchema),
  redFlags: z.array(redFlagSchema),
  gate: z.array(gateGroupSchema),
  sessionChecks: z.array(sessionCheckSchema),
  structures: z.object({ note: z.string(), structures: z.array(structureSchema) }),
  schools: z.array(schoolSchema),
  renamed: renamedSchema,
  synonyms: synonymsSchema,
  sayings: sayingsSchema,
  doseModes: z.object({
    note: z.string(),
    modes: z.array(z.object({ id: modeSchema, name: z.string(), when: z.string(), structures: z.array(id) })),
    cells: z.array(doseCellSchema),
    tendonHolds: z.object({
      appliesTo: z.array(id),
      holdSeconds: band,
      sets: band,
      restSeconds: band,
      effort: z.string(),
      confidence,
    }),
    intensityClassFactor: z.array(
      z.object({ class: z.enum(['low', 'moderate', 'high']), factor: z.number().positive() }),
    ),
  }),
});
