import type { Drill } from './types.ts';

/** Id of a line that only rests. */
export const PAUSE = 'pause';
/** Id of a line in own words that is timed for both sides at once, or only said (0 s). */
export const OWN_WORDS = 'own-words';

/** What own words can be dosed in: seconds, repetitions, metres. */
export type OwnMeasure = 'seconds' | 'reps' | 'metres';

/** Seconds that one second, repetition or metre of what nobody described is taken to last: an estimate, and said as one. */
const SECONDS_EACH: Readonly<Record<OwnMeasure, number>> = { seconds: 1, reps: 3, metres: 0.7 };

/** The id of own words dosed in a measure, done a side at a time or not. */
export function ownWordsId(measure: OwnMeasure, sided: boolean): string {
  const base = measure === 'seconds' ? OWN_WORDS : `${OWN_WORDS}-${measure}`;
  return sided ? `${base}-sides` : base;
}

function line(
  id: string,
  name: string,
  seconds: number,
  measure: OwnMeasure = 'seconds',
  unilateral = false,
): Drill {
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
    unilateral,
    alternating: false,
    needsPartner: false,
    dose: {
      measure,
      sets: { default: 1, min: 1, max: 20 },
      amount: { default: seconds, min: 1, max: 1000 },
      holdSeconds: null,
      restSeconds: { default: 0 },
      tempo: null,
      secondsPerRep: SECONDS_EACH[measure],
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

const OWN = (['seconds', 'reps', 'metres'] as const).flatMap((measure) =>
  [false, true].map((sided) => line(ownWordsId(measure, sided), 'Own words', 60, measure, sided)),
);
const OWN_IDS = new Set(OWN.map(({ id }) => id));

/**
 * Lines that a routine can hold beside drills. They are found by id like drills, so that time, runner and handout treat
 * them alike; they are in no ladder, serve nothing, and are never chosen, searched or judged.
 */
export const LINES: readonly Drill[] = [line(PAUSE, 'Rest', 60), ...OWN];

/** A line as the drill it is timed like; undefined for the id of a drill. */
export function lineOf(id: string): Drill | undefined {
  return LINES.find((one) => one.id === id);
}

/** Is it a line in own words, however it is dosed? */
export function isOwnWords(id: string): boolean {
  return OWN_IDS.has(id);
}

/** Is it a line of a routine that is no drill of the library? */
export function isLine(id: string): boolean {
  return id === PAUSE || OWN_IDS.has(id);
}
