export { REGIONS, SIDES, MODES, MEASURES, PAIN_ASPECTS, PAIN_FEELS, otherSide } from './vocabulary.ts';
export type { Region, Side, ItemSide, Mode, Measure, IsoDay } from './vocabulary.ts';
export { dayNumber, isoDay, daysBetween, addDays, ageInYears, monthsBefore } from './days.ts';
export { dayText, readDay } from './dayText.ts';
export type { DayOrder } from './dayText.ts';
export { sameJson } from './sameJson.ts';
export type {
  Athlete,
  BuildRequest,
  Case,
  CheckIn,
  Circuit,
  CurrentPain,
  DiaryEntry,
  DiarySession,
  DoseShare,
  IssuedRoutine,
  Judgement,
  Lift,
  Placement,
  Provoked,
  OwnTask,
  OwnTest,
  PainPattern,
  ReferenceEdit,
  RoutineItem,
  Screening,
  ScreeningResult,
  Section,
} from './caseFile.ts';
export type { AthleteRecord, PracticeStance, Standing } from './standing.ts';
