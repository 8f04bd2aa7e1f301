import type { Mode } from '../domain/index.ts';
import { COVER_MATCH } from '../reference/index.ts';

/** Weights and limits of the builder (shared study of the model; editable where a practice would differ). */
export const BUILDER = {
  /** A match below this only breaks ties (rulings: cover means match ≥ 0.4). */
  coverMatch: COVER_MATCH,
  /** Coverage is wanted for weighted restrictions from this weight on, and for every open finding of this severity. */
  coverWanted: 0.6,
  answeredFrom: 0.2,
  /** What the first, second and third drill for one restriction are worth. */
  ranks: [1, 0.55, 0.3],
  /** Share of the remaining benefit that each further set leaves. */
  setDecay: 0.45,
  /** Each ladder level below the highest open one keeps this share of the benefit. */
  levelBelow: 0.9,
  bilateralForOneSide: 0.9,
  fatiguePenalty: 0.01,
  kitPenalty: 0.03,
  /** What it costs a preparation to leave a piece of kit lying that was brought for it: less than any element. */
  kitWish: 1,
  /** What leaving a wanted restriction without a drill costs for each point of its weight, beside more than everything else is worth (bands.ts). */
  uncoveredByWeight: 10,
  /** Match from which a drill is made for a restriction, and what it costs that a wanted one has none: for all, and by its weight. */
  servesWell: 0.6,
  wellCost: { all: 12, byWeight: 10 },
  phaseMinimumPenalty: 8,
  /** Cost of the whole time lying outside the bands of its phases (0.5 to 1.5 of their share). */
  shareCost: 2,
  /** Share of the time that is to be used, and what using none of it would cost. */
  useShare: 0.97,
  useCost: 4,
  /** Warming: share of the time, at most so many seconds, from which warmth of a drill on it counts, cost of none. */
  warmingShare: 0.15,
  warmingMost: 240,
  warmsFrom: 2,
  warmCost: 80,
  /** Near-maximal seconds that end a preparation where the school wants it so. */
  hardFinishSeconds: 45,
  wishCost: 3,
  /** What the practitioner chose as method of today, where it is not kept. */
  promiseCost: 30,
  /** The graded drill for a painful position that is restored. */
  restoreCost: 3,
  /** No drill takes more than this share of the time; in a preparation never more seconds than this, never held below the least. */
  oneDrillShare: 0.25,
  oneDrillPrepare: 180,
  oneDrillLeast: 75,
  /** Seconds of the time for one drill when the practitioner names no number, and the bounds of that number. */
  secondsPerDrill: 80,
  fewestDrills: 3,
  mostDrills: 12,
  /** Weight of what hurts and is told, without a finding. */
  painWeight: 0.5,
  /** How near a drill has to come to the action of the day to rehearse it, and to end the preparation with it. */
  rehearses: 0.6,
  /** How near slow work has to come to it to stand as the action itself. */
  isTheAction: 0.7,
  /** A drill of this demand or less on a ladder prepares for a working rung. */
  preparesDemand: 2,
  /** Cost of a drill that serves no weighted restriction, so that it only fills a phase that asks for one. */
  fillerCost: 0.02,
  weakMatchBonus: 0.002,
  fillersPerPhase: 8,
  relativeGap: 0.005,
  nodeLimit: 20_000,
  /** Weights without any screening: what the tasks ask for, and what was injured. */
  generalTaskWeight: 0.4,
  generalInjuryWeight: 0.6,
  /** Share of a weight that stays for what the action of the day does not ask of. */
  elsewhereToday: 0.6,
  /** Weight of rehearsing the action of the day itself. */
  patternWeight: 0.6,
  /** Weight of the first element that a routine should hold, and what each further one keeps of it. */
  elementWeight: 0.9,
  elementDecay: 0.94,
  /** Cost of an element that nothing answers: warming, rehearsing and the first of each joint, and the others by their place. */
  elementFirstCost: 30,
  elementCost: { most: 20, less: 1.5, least: 8 },
  /** Cost of a drill from where neither a finding nor the action itself is: more than an element but warming and rehearsing is worth. */
  foreignCost: 60,
  /** The same of one from a region in which something is asked for. */
  besideCost: 4,
  /** What of the cost of an element stays in a session of its own and after one. */
  elementShare: 0.015,
  /** Share of its fit that a drill keeps in a session of its own where it wakes what could be strengthened. */
  wakingInBuild: 0.65,
  /** From this fit a drill may answer a second element, below so many minutes. */
  sharedFit: 0.8,
  sharedBelowMinutes: 10,
  /** Warming by what the actions warm with: share of the time, its bounds in seconds, cost of none. */
  warmthShare: 1 / 6,
  warmthLeast: 45,
  warmthMost: 180,
  warmthCost: 40,
  /** The same before running, which warms by itself: what rehearses it counts as well. */
  runShare: 0.45,
  runMost: 300,
  runCost: 100,
  /** Minutes from which running warms in two blocks, an easy one and a faster one. */
  runBlocksFrom: 10,
  /** Seconds of one bout of warming that are tried, within what the drill may take, and what it has to be able to take. */
  boutFrom: 60,
  bouts: [30, 45, 60, 90, 120, 150, 180, 240],
  /** Fit to a warm element from which a drill's seconds warm. */
  warmsFit: 0.6,
  /** Rehearsing: share of the time, most seconds, cost of none; steps of the ramp from so many minutes, cost of each. */
  rampShare: 0.2,
  rampMost: 150,
  rampCost: 24,
  rampSteps: [
    [12, 3],
    [6, 2],
  ],
  rampStepCost: 8,
  /** Drills that may wake what works, before the action, from so many minutes on. */
  wakingDrills: [
    [16, 5],
    [10, 4],
  ],
  /** Share of what a drill is worth to an unscreened athlete when it comes nowhere near what follows. */
  awayFromAction: 0.3,
  /** What a point of demand is worth at the end, and costs at the start, of a preparation. */
  rising: 0.5,
  /** What a warming drill is worth that is the action itself, and what it costs to be given with care. */
  warmsNear: 0.3,
  careCost: 2,
  /** What a drill costs for which stop-and-refer questions would have to be answered first. */
  unaskedCost: 3,
  /** What a drill costs for the share of its load that falls on a region that hurts. */
  soreCost: 4,
  /** Minutes from which warming comes in two blocks. */
  twoBlocksFrom: 15,
  /** Bonus of a drill that is to be kept where it fits, and of another level of its ladder. */
  preferBonus: 0.15,
  preferLadderBonus: 0.08,
  /** Difference of the weights left and right from which the heavier side may get a set more. */
  unevenFrom: 0.15,
  /** Share of the practitioner's weekly limit of a region from which no conditioning is added there. */
  nearLoadLimit: 0.85,
} as const;

/** Steps in which the action is rehearsed in so many minutes. */
export const rampSteps = (minutes: number): number =>
  BUILDER.rampSteps.find(([from]) => minutes >= from)?.[1] ?? 1;

/** Drills that may wake and ready before the action is rehearsed, in so many minutes. */
export const wakingDrills = (minutes: number): number =>
  BUILDER.wakingDrills.find(([from]) => minutes >= from)?.[1] ?? 0;

/** Most fatigue points (drill fatigue × sets) a routine may hold, by mode; a convention, editable. */
export const FATIGUE_CAP: Readonly<Record<Mode, number>> = { prepare: 14, build: 40, restore: 8 };

/** Minutes for which that many points are meant; a longer routine may hold more. */
export const FATIGUE_MINUTES = 20;

/** Which timing tag a drill needs in a mode. */
export const MODE_TIMING = {
  prepare: 'before-activity',
  build: 'standalone',
  restore: 'after-activity',
} as const;

/** Kit that somebody carries to a preparation to use it there; a wall, a bar or a bench stands there anyhow (judgement). */
export const BROUGHT_KIT = [
  'ball',
  'weighted-ball',
  'long-band',
  'mini-band',
  'finger-band',
  'ladder-mat',
  'low-hurdle',
  'rope',
  'slider',
  'dowel',
];
