import type { AthleteFields } from '@yonder/core/contracts';
import type { CurrentPain, Judgement, Occasion, Region, Weekday } from '@yonder/core/domain';

/** A made-up athlete with what happened over the last weeks. Days count back from the day of the start. */
export interface DemoPerson {
  readonly fields: AthleteFields;
  /** Years on the day of the start; given, it sets the birth date. */
  readonly age?: number;
  /** What the treating clinician ticked after an operation; drills are the easiest of a region. */
  readonly protocol?: {
    region: Region;
    side: 'left' | 'right';
    by: string;
    daysAgo: number;
    tests: readonly string[];
    drillsOf: Region;
  };
  readonly pains?: readonly (Omit<CurrentPain, 'since' | 'ended'> & { daysAgo: number })[];
  /** Restrictions seen by eye, confirmed or set aside. */
  readonly said?: readonly (Omit<Judgement, 'by' | 'date'> & { daysAgo: number })[];
  readonly injuries?: readonly {
    region: string;
    side: 'left' | 'right';
    daysAgo: number;
    what: string;
    operated?: boolean;
  }[];
  readonly precautions?: readonly {
    precaution: string;
    reason: string;
    daysAgo: number;
    reviewInDays: number;
  }[];
  /** Stop-and-refer sign answered with yes, and how long ago. */
  readonly stopSign?: { redFlag: string; daysAgo: number };
  readonly regions: readonly string[];
  readonly screenings: readonly { daysAgo: number }[];
  /** Value of each test and side on the first visit, and its change per week of training; noise comes on top. */
  readonly capacity: Readonly<Record<string, { left: number; right: number; weekly?: number }>>;
  /** Routines: built on a day, then run this many times until the next one. */
  readonly routines: readonly { daysAgo: number; runs: number; pain: number; mode: 'prepare' | 'build' }[];
  /** Routines for other occasions beside those, each with its own minutes, days of the week and runs. */
  readonly occasions?: readonly {
    occasion: Occasion;
    daysAgo: number;
    minutes: number;
    days: readonly Weekday[];
    runs: number;
  }[];
}

/** Typed fields with the usual defaults. */
export const fieldsOf = (
  over: Partial<AthleteFields> & Pick<AthleteFields, 'name' | 'birthDate'>,
): AthleteFields => ({
  sport: '',
  bodyMassKg: null,
  limbLengthCm: {},
  dominantHand: 'right',
  dominantLeg: 'right',
  trainingYears: 5,
  tasks: [],
  exposure: [],
  kit: ['wall', 'step', 'mini-band', 'long-band'],
  minutes: 10,
  minutesBuild: null,
  minutesRestore: null,
  places: [],
  dislikes: [],
  loadLimits: [],
  lightSpans: [],
  ...over,
});

/** The made-up athletes of the demo academy. */
export const DEMO_PEOPLE: readonly DemoPerson[] = [
  {
    fields: fieldsOf({
      name: 'Mira Oldtown',
      birthDate: '2002-04-18',
      sport: 'fell running',
      bodyMassKg: 61,
      limbLengthCm: { leg: { left: 86, right: 86 } },
      trainingYears: 7,
      tasks: [
        { id: 'fell-running-descent', lead: 'either' },
        { id: 'uphill-running', lead: 'either' },
      ],
      exposure: [
        { action: 'run', perWeek: 3, effort: 'easy' },
        { action: 'run', perWeek: 2, effort: 'hard' },
      ],
    }),
    injuries: [{ region: 'ankle-foot', side: 'left', daysAgo: 140, what: 'sprain on a wet descent' }],
    regions: ['ankle-foot', 'knee'],
    screenings: [{ daysAgo: 80 }, { daysAgo: 52 }, { daysAgo: 17 }],
    capacity: {
      'wblt-distance': { left: 6.4, right: 10.9, weekly: 0.16 },
      'heel-raise-reps': { left: 13, right: 24, weekly: 0.9 },
      'single-leg-balance-ec': { left: 4, right: 13, weekly: 0.3 },
      'single-leg-balance-eo': { left: 38, right: 55, weekly: 0.6 },
      'ankle-eversion-strength': { left: 1.7, right: 2.2, weekly: 0.02 },
      'great-toe-extension-range': { left: 62, right: 64 },
      'active-knee-extension': { left: 24, right: 22 },
      'hamstring-bridge-reps': { left: 24, right: 27 },
    },
    routines: [
      { daysAgo: 79, runs: 7, pain: 1, mode: 'prepare' },
      { daysAgo: 50, runs: 9, pain: 0, mode: 'prepare' },
      { daysAgo: 16, runs: 4, pain: 1, mode: 'prepare' },
    ],
  },
  {
    fields: fieldsOf({
      name: 'Joss Fernleigh',
      birthDate: '1999-09-02',
      sport: 'lead climbing',
      bodyMassKg: 66,
      trainingYears: 11,
      tasks: [
        { id: 'climbing-high-step', lead: 'left' },
        { id: 'climbing-crimp', lead: 'either' },
      ],
      exposure: [{ action: 'climb', perWeek: 3, effort: 'hard' }],
      kit: ['wall', 'pull-up-bar', 'long-band', 'dumbbell'],
      minutes: 12,
    }),
    pains: [
      {
        region: 'elbow',
        side: 'right',
        aspect: 'inner',
        feel: 'ache',
        when: 'day-after',
        nrs: 3,
        daysAgo: 9,
      },
    ],
    said: [
      {
        restriction: 'scapular-control-deficit',
        side: 'right',
        verdict: 'seen',
        degree: 'slight',
        reason: 'blade lifts off on the lock-off',
        daysAgo: 20,
      },
    ],
    regions: ['ankle-foot', 'hip-groin', 'shoulder', 'wrist-hand', 'elbow'],
    screenings: [{ daysAgo: 61 }, { daysAgo: 24 }],
    capacity: {
      'wblt-angle': { left: 38, right: 41 },
      'hip-flexion-range': { left: 116, right: 124, weekly: 0.6 },
      'hip-abduction-range': { left: 40, right: 49, weekly: 0.5 },
      'hip-er-range': { left: 36, right: 44 },
      'shoulder-flexion-range': { left: 172, right: 170 },
      'finger-flexor-edge-force': { left: 6.2, right: 7.1, weekly: 0.03 },
      'grip-strength': { left: 430, right: 470 },
      'wrist-extension-range': { left: 74, right: 82, weekly: 0.4 },
    },
    routines: [{ daysAgo: 60, runs: 12, pain: 1, mode: 'prepare' }],
    occasions: [
      { occasion: 'before-competition', daysAgo: 9, minutes: 15, days: ['sat'], runs: 1 },
      { occasion: 'called-in', daysAgo: 9, minutes: 4, days: [], runs: 1 },
      { occasion: 'after', daysAgo: 8, minutes: 8, days: ['tue', 'thu'], runs: 2 },
      { occasion: 'on-its-own', daysAgo: 8, minutes: 20, days: ['mon', 'wed', 'sun'], runs: 2 },
    ],
  },
  {
    fields: fieldsOf({
      name: 'Tarn Whitlow',
      birthDate: '1996-12-20',
      sport: 'slalom kayaking',
      bodyMassKg: 78,
      trainingYears: 14,
      tasks: [
        { id: 'kayak-high-brace', lead: 'right' },
        { id: 'kayak-bow-draw', lead: 'right' },
      ],
      kit: ['wall', 'long-band'],
      minutes: 8,
    }),
    injuries: [{ region: 'shoulder', side: 'right', daysAgo: 300, what: 'overreached on a brace' }],
    regions: ['shoulder', 'thoracic'],
    screenings: [{ daysAgo: 40 }],
    capacity: {
      'shoulder-er-range': { left: 92, right: 84 },
      'shoulder-ir-range': { left: 58, right: 50 },
      'shoulder-er-strength': { left: 1.9, right: 1.45 },
      'shoulder-ir-strength': { left: 2.1, right: 2.2 },
      'thoracic-rotation-seated': { left: 52, right: 44 },
    },
    routines: [{ daysAgo: 38, runs: 10, pain: 2, mode: 'prepare' }],
  },
  {
    fields: fieldsOf({
      name: 'Ada Brackenridge',
      birthDate: '1993-07-11',
      sport: 'ski mountaineering',
      bodyMassKg: 58,
      trainingYears: 12,
      tasks: [{ id: 'uphill-running', lead: 'either' }],
    }),
    injuries: [
      { region: 'ankle-foot', side: 'right', daysAgo: 55, what: 'sprain, catches when walking down' },
    ],
    stopSign: { redFlag: 'foot-locking', daysAgo: 3 },
    regions: ['ankle-foot'],
    screenings: [{ daysAgo: 75 }],
    capacity: {
      'wblt-distance': { left: 10.5, right: 9.4 },
      'heel-raise-reps': { left: 27, right: 22 },
      'single-leg-balance-ec': { left: 15, right: 11 },
    },
    routines: [],
  },
  {
    fields: fieldsOf({
      name: 'Pell Sunderby',
      birthDate: '2000-02-27',
      sport: 'cross-country skiing',
      bodyMassKg: 74,
      trainingYears: 9,
      tasks: [
        { id: 'skate-ski-push', lead: 'either' },
        { id: 'double-poling', lead: 'either' },
      ],
      minutes: 15,
    }),
    precautions: [
      {
        precaution: 'no-impact',
        reason: 'shin soreness after the autumn camp',
        daysAgo: 42,
        reviewInDays: 28,
      },
      {
        precaution: 'achilles-insertional-irritation',
        reason: 'sore heel bone on the right',
        daysAgo: 20,
        reviewInDays: 45,
      },
    ],
    regions: ['ankle-foot', 'hip-groin', 'lumbopelvic'],
    screenings: [{ daysAgo: 84 }, { daysAgo: 30 }],
    capacity: {
      'wblt-distance': { left: 9.2, right: 9.0, weekly: 0.03 },
      'heel-raise-reps': { left: 22, right: 17, weekly: 0.1 },
      'single-leg-balance-ec': { left: 9, right: 8 },
      'hip-abduction-strength': { left: 2.0, right: 2.25 },
      'side-bridge-hold': { left: 62, right: 71 },
    },
    routines: [{ daysAgo: 29, runs: 6, pain: 2, mode: 'build' }],
  },
  {
    fields: fieldsOf({
      name: 'Wren Hollis',
      birthDate: '2011-08-30',
      sport: 'fell running',
      bodyMassKg: 47,
      trainingYears: 1,
      tasks: [{ id: 'fell-running-descent', lead: 'either' }],
      kit: ['wall'],
    }),
    regions: [],
    screenings: [],
    capacity: {},
    routines: [],
  },
];
