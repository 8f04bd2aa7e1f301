import type {
  Athlete,
  Case,
  CheckIn,
  DiarySession,
  IssuedRoutine,
  Judgement,
  Screening,
} from './caseFile.ts';
import type { IsoDay } from './vocabulary.ts';

/** Everything on record of one athlete: the story, what was measured, the routines in force, the diary. */
export interface AthleteRecord {
  readonly athlete: Athlete;
  /** Needs set for this athlete, in the unit of their test. */
  readonly needs: Case['overrides']['needs'];
  readonly judgements: readonly Judgement[];
  readonly screenings: readonly Screening[];
  /** The routine at hand; the others in force stand beside it. */
  readonly routine: IssuedRoutine | null;
  readonly others: readonly IssuedRoutine[];
  readonly diary: readonly DiarySession[];
  readonly checkIns: readonly CheckIn[];
}

/** What a practice decided for all its athletes, beside the figures of its reference. */
export interface PracticeStance {
  /** Chosen option per school; the default of the reference where none is named. */
  readonly schools: Readonly<Record<string, string>>;
  /** Pain limits 0–10 of the practice's own; null for those of the school. */
  readonly painLimits: Case['overrides']['painLimits'];
}

/** An athlete's record as it stands on a day in a practice: what every judgement works on. */
export interface Standing extends AthleteRecord, PracticeStance {
  readonly today: IsoDay;
}
