import type { Case, DiaryEntry, Placement, RoutineItem, ScreeningResult, Side } from '../domain/index.ts';
import { caseSchema } from '../schemas/index.ts';

export type CaseInput = Partial<Omit<Case, 'athlete' | 'overrides' | 'request'>> & {
  athlete?: Partial<Case['athlete']>;
  overrides?: Partial<Case['overrides']>;
  request?: Partial<Case['request']>;
};

export const TODAY = '2027-03-01';

/** A sound case with defaults for everything not given. */
export function caseOf(input: CaseInput = {}): Case {
  const { athlete, ...rest } = input;
  return caseSchema.parse({
    format: 'yonder-ridge-case/1',
    today: TODAY,
    ...rest,
    athlete: { birthDate: '2001-05-02', bodyMassKg: 68, trainingYears: 4, ...athlete },
  });
}

/** One result of a test and side. */
export function result(test: string, side: Side, ...trials: number[]): ScreeningResult {
  return { test, side, trials };
}

/** The ankle screening of the worked example: left short of range, calf reps and balance; right enough. */
export function ankleResults(): ScreeningResult[] {
  return [
    result('wblt-distance', 'left', 7.0, 7.2, 7.1),
    result('wblt-distance', 'right', 11.0, 11.2, 11.1),
    result('heel-raise-reps', 'left', 14),
    result('heel-raise-reps', 'right', 26),
    result('single-leg-balance-ec', 'left', 3, 4, 3.5),
    result('single-leg-balance-ec', 'right', 12, 14, 13),
  ];
}

/** A fell runner with a stiff left ankle, asking for ten minutes of preparation. */
export function stiffAnkle(input: CaseInput = {}): Case {
  return caseOf({
    screenings: [{ date: '2027-02-27', results: ankleResults() }],
    ...input,
    athlete: { tasks: [{ id: 'fell-running-descent', lead: 'either' }], ...input.athlete },
    request: {
      mode: 'prepare',
      minutes: 10,
      maxDrills: 6,
      kit: ['wall'],
      ...input.request,
    } as Case['request'],
  });
}

export function item(drill: string, over: Partial<RoutineItem> = {}): RoutineItem {
  return {
    drill,
    side: 'both',
    phase: null,
    sets: 2,
    amount: 10,
    measure: 'reps',
    holdSeconds: null,
    restSeconds: 10,
    tempo: null,
    setup: {},
    ...over,
  };
}

export function entry(drill: string, over: Partial<DiaryEntry> = {}): DiaryEntry {
  return {
    drill,
    side: 'both',
    done: 'all',
    amounts: [],
    painBefore: 0,
    pain: 0,
    nextDayPain: 0,
    effort: 3,
    quality: 3,
    ...over,
  };
}

/** A level that a practitioner saw, fine unless said otherwise. */
export function placement(ladder: string, drill: string, over: Partial<Placement> = {}): Placement {
  return { ladder, drill, side: 'both', verdict: 'fine', by: 'R. Halloran', date: '2027-02-20', ...over };
}
