import { z } from 'zod';
import { itemSchema } from '../domain/caseFile.ts';
import { itemSideSchema, regionSchema, sideSchema } from '../domain/vocabulary.ts';

const id = z.string();
const words = z.string();
const n = z.number();
const drill = { drill: id };
const test = { test: id };

/** Everything that can keep a drill out; with what it is about it makes half a sentence. */
export const BARRIERS = [
  'blocked-region',
  'precaution-exclude',
  'precaution-clearance',
  'protocol',
  'youth',
  'unknown-drill',
  'kit',
  'position',
  'timing',
  'mode',
  'school',
  'ban',
  'disliked',
  'needs-partner',
  'level',
  'archived',
  'load-near-limit',
  'other-fillers',
  'structure-phase',
  'serves-nothing',
] as const;
const barrier = { because: z.enum(BARRIERS), about: id };

const shortfall = {
  ...test,
  side: sideSchema,
  estimate: n,
  need: n,
  source: z.enum(['task', 'floor', 'override', 'symmetry', 'ratio']),
  sourceId: id,
  reserve: n,
  margin: n,
  pShort: n,
  state: z.enum(['short', 'likely-short', 'within-error', 'enough']),
};
const said = { by: words, date: words };
const level = { ...drill, confirm: z.boolean() };
const halfOf = { min: n, max: n };
const painAgainst = { pain: n, limit: n, date: words };

/**
 * Every rule the product can give as a reason, with its figures: one place. Measured figures are in the unit of their
 * test, shares and probabilities are fractions of 1, times are in seconds unless the name says minutes or days.
 */
export const REASON_FIGURES = {
  // findings
  'short-of-need': shortfall,
  'short-of-other-side': shortfall,
  'symmetry-capped': test,
  'pain-limited': { ...test, limit: n },
  'estimate-restarted': { because: z.enum(['injury', 'long-break']), date: words },
  'single-visit': test,
  'task-relevant': { factor: n },
  'not-asked-by-task': { factor: n },
  'injury-history': { region: regionSchema, factor: n },
  'seen-by-eye': { ...said, degree: z.enum(['slight', 'clear', 'marked']) },
  confirmed: said,
  dismissed: { ...said, reason: words },
  'test-never-done': { openness: n, minutes: n },
  'test-undecided': { openness: n, minutes: n },
  'task-asks-for-test': test,
  'region-injured': { region: regionSchema },
  // building
  serves: {
    restriction: id,
    side: sideSchema,
    match: n,
    weight: n,
    from: z.enum(['finding', 'task', 'injury']),
  },
  rehearses: { pattern: id, match: n },
  'fills-phase': { phase: words },
  'chosen-by-hand': drill,
  pinned: drill,
  preferred: drill,
  'level-criteria': level,
  'level-placement': level,
  'level-routine': level,
  'level-first-level': level,
  'level-start-rule': level,
  'level-pin': level,
  'dose-from-maximum': { ...test, maximum: n, share: n, wanted: n },
  'dose-lower-half': halfOf,
  'dose-growing': halfOf,
  'dose-default': { amount: n },
  'dose-stretch-cap': { seconds: n },
  'short-side-only': {
    side: z.enum(['left', 'right']),
    other: z.enum(['enough', 'short', 'not-measured', 'not-offered']),
  },
  'extra-set': { side: z.enum(['left', 'right']) },
  'not-offered': { ...drill, ...barrier },
  'no-drill-known': { restriction: id },
  'no-drill-allowed': { ...drill, ...barrier, drills: n },
  'no-room': { minutes: n, maxDrills: n },
  'better-use-of-time': drill,
  'general-routine': {},
  'precaution-review-due': { precaution: id, until: words.nullable() },
  'load-near-limit': { region: regionSchema, load: n, limit: n, held: z.boolean() },
  'confirm-level': drill,
  'youth-limits': { age: n },
  'handle-with-care': { ...drill, precaution: id, text: words },
  'phase-below-minimum': { phase: words, drills: n, minimum: n },
  'phase-share': { phase: words, share: n, wanted: n },
  // progress
  'pain-above-limit': painAgainst,
  'pain-above-limit-twice': painAgainst,
  'pain-amber-twice': { ...painAgainst, fine: n },
  'pain-amber': { pain: n, fine: n },
  'worse-next-day': { times: n, before: n, after: n, tolerance: n },
  'long-break': { days: n },
  'days-off': { days: n, most: n },
  'no-sessions-yet': drill,
  'part-done': { date: words },
  'poor-quality': { quality: n },
  'effort-too-high': { effort: n, most: n },
  'clean-sessions': { done: n, wanted: n },
  'easiest-already': drill,
  'towards-criterion': { amount: n, sets: n },
  'share-of-maximum-reached': { amount: n },
  'set-up-one-step': { variable: words, to: z.union([words, n]), unit: words.nullable() },
  'level-criteria-met': drill,
  'guard-test': {
    ...test,
    gate: n.nullable(),
    probability: n.nullable(),
    wanted: n,
    holds: z.boolean(),
  },
  'top-of-ladder': { ladder: id },
  'eased-recently': { ...drill, days: n },
  'next-level-not-offered': { ...drill, ...barrier },
  'no-longer-allowed': barrier,
  'region-raised-this-week': { region: regionSchema, share: n },
  'screening-change': {
    ...test,
    side: sideSchema,
    difference: n,
    real: z.enum(['yes', 'possibly', 'no']),
  },
  'unknown-drill': drill,
  // checks and their repairs
  'forbidden-today': { ...drill, ...barrier },
  'not-at-hand': { ...drill, ...barrier },
  'static-before-activity': { ...drill, school: id },
  'static-too-long': { ...drill, seconds: n, most: n },
  'no-movement-after-hold': drill,
  'cooled-down': { ...drill, minutes: n, most: n },
  'never-warmed': {},
  'beyond-range': { ...drill, most: n },
  'too-close-to-failure': { ...drill, ...test, share: n, allowed: n.nullable() },
  'weak-side-forgotten': { ...drill, side: z.enum(['left', 'right']) },
  'same-level-again': { ...drill, next: id, by: z.enum(['criteria', 'placement']) },
  'same-tissue-twice': { ...drill, before: id },
  'phase-order': { ...drill, phase: words },
  'two-of-one-ladder': { ...drill, other: id, ladder: id },
  'over-time': { over: n, minutes: n },
  'repair-swap': { ...drill, instead: id },
  'repair-remove': drill,
  'repair-one-side': { ...drill, side: z.enum(['left', 'right']) },
  'repair-shorten': { seconds: n },
  'repair-move-before': { ...drill, before: id },
  'repair-add': drill,
  'repair-lower': { ...drill, amount: n },
  'repair-weak-side': { ...drill, side: z.enum(['left', 'right']) },
  'repair-next-level': { ...drill, next: id },
  'repair-reorder': drill,
  'repair-order': { seconds: n },
  'repair-cut': { drills: n },
  // what changed between two versions
  'item-changed': { before: itemSchema, after: itemSchema },
  'item-replaced': { before: itemSchema, after: itemSchema },
  'item-added': { item: itemSchema },
  'item-removed': { drill: id, side: itemSideSchema },
  'order-changed': {},
  /** A sentence kept from before changes were kept as data. */
  'as-written': { text: words },
} as const satisfies Record<string, z.core.$ZodShape>;
