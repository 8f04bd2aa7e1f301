export {
  MEASURES,
  MODES,
  OCCASION_MODE,
  OCCASIONS,
  otherSide,
  PAIN_ASPECTS,
  PAIN_FEELS,
  REGIONS,
  SIDES,
  WEEKDAYS,
} from './vocabulary.ts';
export type { IsoDay, ItemSide, Measure, Mode, Occasion, Region, Side, Weekday } from './vocabulary.ts';
export { atOccasion, inForceOf, occasionOf, usualMinutes, usualRequest } from './occasions.ts';
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
  Hardened,
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
