import type { Drill } from './types.ts';

/** Ids of the two lines of a routine that are no drill: rest, and what is said in somebody's own words. */
export const PAUSE = 'pause';
/** Id of a line in own words, which is no drill. */
export const OWN_WORDS = 'own-words';

function line(id: string, name: string, seconds: number): Drill {
  return {
    id,
    name,
    ladder: '',
    level: 1,
    category: 'raise',
    regions: { primary: [], secondary: [] },
    serves: [],
    contraction: 'passive',
    position: 'standing',
    loadClass: 'unloaded',
    demandIndex: 0,
    intensityClass: 'low',
    loadRegions: [],
    equipment: [],
    optionalEquipment: [],
    space: 'mat',
    unilateral: false,
    alternating: false,
    needsPartner: false,
    dose: {
      measure: 'seconds',
      sets: { default: 1, min: 1, max: 1 },
      amount: { default: seconds, min: 1, max: 1000 },
      holdSeconds: null,
      restSeconds: { default: 0 },
      tempo: null,
      secondsPerRep: 1,
      timesPerWeek: { min: 0, max: 21 },
      intensity: '',
    },
    setupVariables: [],
    setupSeconds: 0,
    estimatedSeconds: { default: seconds, min: 1, max: 1000 },
    fatigue: 0,
    raisesTemperature: 0,
    skill: 0,
    contraindications: [],
    precautionOverrides: [],
    entryCriteria: [],
    progressWhen: {
      amountReached: null,
      holdReached: null,
      setsCompleted: 1,
      bothSides: false,
      maxPain: 0,
      maxRpe: 0,
      sessions: 1,
      noListedFault: false,
    },
    easeTo: null,
    progressTo: null,
    equivalents: [],
    cues: [],
    faults: [],
    feelsLike: '',
    athleteText: '',
    youthOk: true,
    youthNote: null,
    timing: [],
    staticStretchSeconds: null,
  };
}

/**
 * Lines that a routine can hold beside drills. They are found by id like drills, so that time, runner and handout treat
 * them alike; they are in no ladder, serve nothing, and are never chosen, searched or judged.
 */
export const LINES: readonly Drill[] = [line(PAUSE, 'Rest', 60), line(OWN_WORDS, 'Own words', 60)];

/** Is it a line of a routine that is no drill? */
export function isLine(id: string): boolean {
  return id === PAUSE || id === OWN_WORDS;
}
