import { atOccasion, MODES } from '../domain/index.ts';
import type {
  AthleteRecord,
  Case,
  IsoDay,
  Mode,
  Occasion,
  PracticeStance,
  Standing,
} from '../domain/index.ts';
import { indexCapacities, stretchCapSeconds } from '../dose/index.ts';
import type { DoseContext } from '../dose/index.ts';
import { estimateAll, judgeFindings, painLimits, schoolOption } from '../findings/index.ts';
import type { FindingsReport, Judged } from '../findings/index.ts';
import type { LevelContext } from '../levels/index.ts';
import { practiceReference } from '../reference/index.ts';
import type { Reference } from '../reference/index.ts';
import { binds, dayRules, safetyState, soreness, YOUTH_AGE } from '../safety/index.ts';
import type { SafetyState, SoreRecord } from '../safety/index.ts';

/** A practice: the reference with its own figures, tasks and drills in place, its schools and its pain limits. */
export interface Practice extends PracticeStance {
  readonly reference: Reference;
}

/**
 * What is known of an athlete on a day, judged once. Building, checking, progressing and every page take it; nothing
 * later judges again or makes a dose context of its own.
 */
export interface Assessment extends Judged, LevelContext {
  readonly report: FindingsReport;
  /** How each mode doses this athlete today. */
  readonly doses: Readonly<Record<Mode, DoseContext>>;
}

/** What binds on a day, with the rules of the day from what hurts; and the pain limits they go by. */
export function safetyOn(
  practice: Practice,
  record: SoreRecord,
  day: IsoDay,
): { safety: SafetyState; limits: { fine: number; stop: number } } {
  const { reference } = practice;
  const calm = safetyState(reference, record.athlete, day);
  const limits = painLimits(reference, practice, calm.age);
  const strategy = schoolOption(reference, practice.schools, 'modify-around-or-restore');
  const stance = { limits, strategy, lifts: record.athlete.lifts, today: day };
  const rules = dayRules(reference, soreness(reference, record, day, limits), stance);
  return { safety: { ...calm, dayRules: rules }, limits };
}

/** Restrictions of sore tendons for which the school gives long holds; none under sixteen. */
function tendonsToHold({ reference, standing, safety }: Judged): Set<string> {
  const school = schoolOption(reference, standing.schools, 'tendon-isometrics');
  if (school === 'none' || safety.age < YOUTH_AGE) return new Set();
  // On trial they are for pain that matters; where they are used, for any that is reported.
  const sore = safety.dayRules
    .filter(({ band }) => band === 'amber' || (band === 'fine' && school === 'use'))
    .map(({ region }) => region);
  const { appliesTo } = reference.data.doseModes.tendonHolds;
  return new Set(
    appliesTo.filter((id) => sore.some((region) => region === reference.restrictions.get(id)?.region)),
  );
}

/** Judges a record as of a day: stop signs and precautions, estimates, findings, dose. Pure; the day is the clock. */
export function assess(practice: Practice, record: AthleteRecord, day: IsoDay): Assessment {
  const { reference, schools, painLimits: ownLimits } = practice;
  const standing: Standing = { ...record, schools, painLimits: ownLimits, today: day };
  const { safety, limits } = safetyOn(practice, record, day);
  const judged: Judged = {
    reference,
    standing,
    safety,
    painLimits: limits,
    estimates: estimateAll(reference, standing, safety),
  };
  const report = judgeFindings(judged);
  const capacities = indexCapacities(report.capacities.filter((one) => one.beforeInjury === null));
  const stretching = schoolOption(reference, schools, 'static-stretch-before');
  const amber = new Set(safety.dayRules.filter(binds).map(({ region }) => region));
  const tendonHolds = tendonsToHold(judged);
  const doseIn = (mode: Mode): DoseContext => ({
    reference,
    today: day,
    age: safety.age,
    trainingYears: record.athlete.trainingYears,
    mode,
    capacities,
    stretchCapSeconds: stretchCapSeconds(mode, stretching),
    tendonHolds,
    amber,
    fine: limits.fine,
    precautions: safety.precautions,
  });
  const doses = Object.fromEntries(MODES.map((mode) => [mode, doseIn(mode)])) as Record<Mode, DoseContext>;
  return { ...judged, report, capacities, doses };
}

/**
 * The same record judged with options of schools chosen for one routine; the assessment itself where none differs.
 */
export function withSchools(assessment: Assessment, schools: Readonly<Record<string, string>>): Assessment {
  const { reference, standing } = assessment;
  const differs = Object.entries(schools).some(
    ([id, option]) => schoolOption(reference, standing.schools, id) !== option,
  );
  if (!differs) return assessment;
  const practice = {
    reference,
    schools: { ...standing.schools, ...schools },
    painLimits: standing.painLimits,
  };
  return assess(practice, standing, standing.today);
}

/** The record judged as the routine in force is: with the options that were chosen for it. */
export function asInForce(assessment: Assessment): Assessment {
  return withSchools(assessment, assessment.standing.routine?.schools ?? {});
}

/** The same assessment with the routine of one occasion at hand; nothing is judged again. */
export function assessedAt(assessment: Assessment, occasion: Occasion): Assessment {
  const standing = atOccasion(assessment.standing, occasion);
  return standing === assessment.standing ? assessment : { ...assessment, standing };
}

/** The practice that a case file describes, on a reference. */
export function practiceOfCase(reference: Reference, { overrides, schools }: Case): Practice {
  return { reference: practiceReference(reference, overrides), schools, painLimits: overrides.painLimits };
}

/** The record that a case file holds. */
export function recordOfCase({
  athlete,
  overrides,
  judgements,
  screenings,
  routine,
  others,
  diary,
  checkIns,
}: Case): AthleteRecord {
  return { athlete, needs: overrides.needs, judgements, screenings, routine, others, diary, checkIns };
}

/** Judges a case file as of its own day, on the reference that ships or one that has its figures already. */
export function assessCase(reference: Reference, input: Case): Assessment {
  return assess(practiceOfCase(reference, input), recordOfCase(input), input.today);
}
