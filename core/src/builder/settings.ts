import type { Mode } from '../domain/index.ts';
import { COVER_MATCH } from '../reference/index.ts';

/** Weights and limits of the builder (shared study of the model; editable where a practice would differ). */
export const BUILDER = {
  /** A match below this only breaks ties (rulings: cover means match ≥ 0.4). */
  coverMatch: COVER_MATCH,
  /** Coverage is wanted for restrictions at or above this weight. */
  coverWanted: 0.6,
  /** What the first, second and third drill for one restriction are worth. */
  ranks: [1, 0.55, 0.3],
  /** Share of the remaining benefit that each further set leaves. */
  setDecay: 0.45,
  /** Each ladder level below the highest open one keeps this share of the benefit. */
  levelBelow: 0.9,
  bilateralForOneSide: 0.9,
  fatiguePenalty: 0.01,
  kitPenalty: 0.03,
  uncoveredPenalty: 10,
  phaseMinimumPenalty: 5,
  /** Cost of a drill that serves no weighted restriction, so that it only fills a phase that asks for one. */
  fillerCost: 0.02,
  weakMatchBonus: 0.002,
  fillersPerPhase: 6,
  relativeGap: 0.005,
  nodeLimit: 20_000,
  /** Weights without any screening: what the tasks ask for, and what was injured. */
  generalTaskWeight: 0.4,
  generalInjuryWeight: 0.6,
  defaultMaxDrillsPrepare: 6,
  /** Share of a weight that stays for what the action of the day does not ask of. */
  elsewhereToday: 0.6,
  /** Weight of rehearsing the action of the day itself. */
  patternWeight: 0.4,
  /** Bonus of a drill that is to be kept where it fits, and of another level of its ladder. */
  preferBonus: 0.15,
  preferLadderBonus: 0.08,
  /** Difference of the weights left and right from which the heavier side may get a set more. */
  unevenFrom: 0.15,
  /** Share of the practitioner's weekly limit of a region from which no conditioning is added there. */
  nearLoadLimit: 0.85,
} as const;

/** Most fatigue points (drill fatigue × sets) a routine may hold, by mode; a convention, editable. */
export const FATIGUE_CAP: Readonly<Record<Mode, number>> = { prepare: 14, build: 40, restore: 8 };

/** Which timing tag a drill needs in a mode. */
export const MODE_TIMING = {
  prepare: 'before-activity',
  build: 'standalone',
  restore: 'after-activity',
} as const;
