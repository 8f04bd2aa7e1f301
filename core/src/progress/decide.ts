import { addDays } from '../domain/index.ts';
import type { ItemSide, RoutineItem, Standing } from '../domain/index.ts';
import { asInForce } from '../assess/index.ts';
import type { Assessment } from '../assess/index.ts';
import type { DoseContext } from '../dose/index.ts';
import { guardProbability, tooHard } from '../levels/index.ts';
import type { Rescreen } from '../findings/index.ts';
import type { Reason, ReasonOf } from '../reasons/index.ts';
import { isLine } from '../reference/index.ts';
import type { Drill } from '../reference/index.ts';
import { drillSafety, isGraded, setupForbidden } from '../safety/index.ts';
import { daysSinceLast, reportsOf, running } from './entries.ts';
import type { Report } from './entries.ts';
import { tendonTrial, trialReasons } from './tendonTrial.ts';
import { PROGRESS } from './settings.ts';
import {
  doseInForce,
  doseTarget,
  easier,
  itemsOf,
  levelItem,
  moreDose,
  setupStep,
  workIncrease,
} from './steps.ts';

/** What can be proposed for a drill, from the most to the least. */
export const DECISIONS = [
  'advance-dose',
  'change-setup',
  'advance-level',
  'keep',
  'ease',
  'stop-and-refer',
] as const;
/** One of the decisions. */
export type DecisionKind = (typeof DECISIONS)[number];

/** What should happen to one item, why, and the item that would follow (null = leave it out). */
export interface Decision {
  readonly drill: string;
  readonly side: ItemSide;
  readonly decision: DecisionKind;
  readonly reasons: readonly Reason[];
  readonly next: RoutineItem | null;
}

/** A decision for every item of the routine in force. */
export interface ProgressReport {
  readonly decisions: readonly Decision[];
  readonly rescreen: readonly Rescreen[];
}

interface Deciding extends Assessment {
  readonly dose: DoseContext;
  /** Regions that already got more than 20 % extra work this week. */
  readonly raised: Set<string>;
}

type Draft = Pick<Decision, 'decision' | 'reasons' | 'next'>;

function stop(rule: Reason): Draft {
  return { decision: 'stop-and-refer', reasons: [rule], next: null };
}

function keep(item: RoutineItem, ...reasons: Reason[]): Draft {
  return { decision: 'keep', reasons, next: item };
}

function ease(deciding: Deciding, drill: Drill, item: RoutineItem, rule: Reason): Draft {
  const next = easier(deciding.dose, drill, item);
  return {
    decision: 'ease',
    reasons: next ? [rule] : [rule, { rule: 'easiest-already', drill: drill.id }],
    next,
  };
}

/** Pain during: above the stop limit eases, twice running refers; amber twice running eases, once keeps. */
function byPainDuring(
  deciding: Deciding,
  drill: Drill,
  item: RoutineItem,
  reports: readonly Report[],
): Draft | null {
  const last = reports.at(-1);
  if (!last) return null;
  const { stop: limit, fine } = deciding.painLimits;
  const above = running(reports, (r) => r.during === 'above-stop');
  const figures = { pain: last.entry.pain, limit, date: last.date };
  if (above >= 2) return stop({ rule: 'pain-above-limit-twice', ...figures });
  if (above === 1) return ease(deciding, drill, item, { rule: 'pain-above-limit', ...figures });
  const amber = running(reports, (r) => r.during !== 'fine');
  if (amber >= 2) return ease(deciding, drill, item, { rule: 'pain-amber-twice', ...figures, fine });
  return null;
}

/** Worse next day: three times running refers, twice eases, once keeps. */
function byNextDay(
  deciding: Deciding,
  drill: Drill,
  item: RoutineItem,
  reports: readonly Report[],
): Draft | null {
  const last = reports.at(-1);
  const times = running(reports, (r) => r.worseNextDay);
  if (!last || times === 0) return null;
  const rule: Reason = {
    rule: 'worse-next-day',
    times,
    before: last.entry.painBefore,
    after: last.entry.nextDayPain ?? 0,
    tolerance: PROGRESS.nextDayTolerance,
  };
  if (times >= 3) return stop(rule);
  return times === 2 ? ease(deciding, drill, item, rule) : keep(item, rule);
}

function byAbsence(
  deciding: Deciding,
  drill: Drill,
  item: RoutineItem,
  reports: readonly Report[],
): Draft | null {
  const days = daysSinceLast(reports, deciding.standing.today);
  if (days === null) return keep(item, { rule: 'no-sessions-yet', drill: drill.id });
  if (days >= PROGRESS.longBreakDays) return ease(deciding, drill, item, { rule: 'long-break', days });
  return days > PROGRESS.freshDays ? keep(item, { rule: 'days-off', days, most: PROGRESS.freshDays }) : null;
}

function reachedPrescription(item: RoutineItem, report: Report): boolean {
  const amount = item.perSide ? Math.min(item.perSide.left.amount, item.perSide.right.amount) : item.amount;
  return report.entry.amounts.every((done) => done >= amount);
}

/** Long holds on trial that did not help by the end of it are left out. */
function byTendonTrial(deciding: Deciding, drill: Drill): Draft | null {
  const trial = tendonTrial(deciding, drill);
  return trial?.verdict === 'failed'
    ? { decision: 'ease', reasons: [], next: null } // why is said with how the trial stands
    : null;
}

/** Enough clean sessions at the present prescription? Null when there are; else why not yet. */
function byCleanSessions(
  deciding: Deciding,
  drill: Drill,
  item: RoutineItem,
  reports: readonly Report[],
): Draft | null {
  const issued = deciding.standing.routine?.issued ?? deciding.standing.today;
  const current = reports.filter((r) => r.date >= issued);
  const last = current.at(-1);
  if (!last) return keep(item, { rule: 'no-sessions-yet', drill: drill.id });
  if (last.during === 'amber') {
    return keep(item, { rule: 'pain-amber', pain: last.entry.pain, fine: deciding.painLimits.fine });
  }
  if (last.entry.done === 'part') return keep(item, { rule: 'part-done', date: last.date });
  if (last.entry.quality !== null && last.entry.quality <= PROGRESS.poorQuality) {
    return keep(item, { rule: 'poor-quality', quality: last.entry.quality });
  }
  const good = running(
    current,
    (r) =>
      r.clean &&
      reachedPrescription(item, r) &&
      (r.entry.effort === null || r.entry.effort <= drill.progressWhen.maxRpe),
  );
  if (good >= drill.progressWhen.sessions) return null;
  const effort = last.entry.effort;
  if (last.clean && effort !== null && effort > drill.progressWhen.maxRpe) {
    return keep(item, { rule: 'effort-too-high', effort, most: drill.progressWhen.maxRpe });
  }
  return keep(item, { rule: 'clean-sessions', done: good, wanted: drill.progressWhen.sessions });
}

/** Guard tests of the next level: P(capacity ≥ gate) must be high enough on every side asked for. */
function guardReasons(
  deciding: Deciding,
  next: Drill,
  side: ItemSide,
): { open: boolean; reasons: ReasonOf<'guard-test'>[] } {
  const reasons = next.entryCriteria
    .filter((criterion) => criterion.test !== undefined)
    .flatMap((criterion): ReasonOf<'guard-test'>[] => {
      const probability = guardProbability(deciding, criterion, side);
      // Where the diary opens the level as well, a test that was never done does not hold it back.
      if (probability === null && criterion.either !== undefined) return [];
      const reason = {
        rule: 'guard-test',
        test: criterion.test ?? '',
        gate: criterion.value ?? null,
        probability,
        wanted: PROGRESS.guardProbability,
        holds: probability !== null && probability >= PROGRESS.guardProbability,
      } as const;
      return [reason];
    });
  return { open: reasons.every((reason) => reason.holds), reasons };
}

function triedRecently(input: Standing, drill: string): boolean {
  const from = addDays(input.today, -PROGRESS.retryDays);
  return input.diary.some(
    (s) => s.date >= from && s.date <= input.today && s.entries.some((e) => e.drill === drill),
  );
}

/** A graded drill for a painful position goes up only after sessions that were calm the next morning. */
function byCalmMornings(
  deciding: Deciding,
  drill: Drill,
  item: RoutineItem,
  reports: readonly Report[],
): Draft | null {
  const { reference, safety, painLimits } = deciding;
  const restoring = safety.dayRules.some((rule) => isGraded(reference, rule, drill));
  const calm = running(
    reports,
    ({ entry, worseNextDay }) =>
      entry.nextDayPain !== null && entry.nextDayPain <= painLimits.fine && !worseNextDay,
  );
  if (!restoring || calm >= PROGRESS.calmMornings) return null;
  return keep(item, { rule: 'calm-mornings', done: calm, wanted: PROGRESS.calmMornings });
}

function advanceLevel(deciding: Deciding, drill: Drill, item: RoutineItem): Draft {
  const next = drill.progressTo ? deciding.reference.drills.get(drill.progressTo) : undefined;
  if (!next) return keep(item, { rule: 'top-of-ladder', ladder: drill.ladder });
  if (triedRecently(deciding.standing, next.id)) {
    return keep(item, { rule: 'eased-recently', drill: next.id, days: PROGRESS.retryDays });
  }
  const barrier = drillSafety(deciding.reference, next, deciding.safety).forbidden[0];
  if (barrier)
    return keep(item, {
      rule: 'next-level-not-offered',
      drill: next.id,
      because: barrier.rule,
      about: barrier.about,
    });
  const said = tooHard(deciding, next, item.side);
  if (said) return keep(item, { rule: 'too-hard', drill: next.id, by: said.by, date: said.date });
  const guard = guardReasons(deciding, next, item.side);
  if (!guard.open) return keep(item, ...guard.reasons.filter((r) => r.holds === false));
  const nextItem = levelItem(deciding.dose, next, item);
  const reasons: Reason[] = [{ rule: 'level-criteria-met', drill: next.id }, ...guard.reasons];
  return { decision: 'advance-level', reasons, next: nextItem };
}

/** One kind at a time: the amount towards its criterion, then the set-up, then the level. */
function advance(deciding: Deciding, drill: Drill, item: RoutineItem): Draft {
  const target = doseTarget(deciding.dose, drill, item);
  const dose = moreDose(drill, item, target);
  if (dose) {
    return {
      decision: 'advance-dose',
      reasons: [{ rule: 'towards-criterion', amount: target.amount, sets: target.sets }],
      next: dose,
    };
  }
  const capped: Reason[] = target.cappedByMaximum
    ? [{ rule: 'share-of-maximum-reached', amount: target.amount }]
    : [];
  const setup = setupStep(drill, item, 1);
  if (setup && !setupForbidden(deciding.reference, setup.item.setup, deciding.safety.precautions)) {
    const to = setup.item.setup[setup.variable.id] ?? '';
    const reason: Reason = {
      rule: 'set-up-one-step',
      variable: setup.variable.name,
      to,
      unit: setup.variable.unit,
    };
    return { decision: 'change-setup', reasons: [...capped, reason], next: setup.item };
  }
  return advanceLevel(deciding, drill, item);
}

/** Holds an advance back when its region already got more than 20 % extra work this week. */
function withinWeek(deciding: Deciding, drill: Drill, item: RoutineItem, draft: Draft): Draft {
  if (!draft.next || draft.decision === 'keep') return draft;
  const region = drill.regions.primary[0] ?? 'whole-body';
  if (deciding.raised.has(region)) {
    return keep(item, { rule: 'region-raised-this-week', region, share: PROGRESS.weeklyIncrease });
  }
  if (workIncrease(deciding.reference, item, draft.next) > PROGRESS.weeklyIncrease)
    deciding.raised.add(region);
  return draft;
}

/** Is the change on the tests behind this drill larger than their error? Said beside every decision. */
function changeReasons(deciding: Deciding, drill: Drill, side: ItemSide): Reason[] {
  const main = new Set(drill.serves.filter((s) => s.match >= 0.7).map((s) => s.restriction));
  return deciding.report.changes
    .filter(
      (change) =>
        (side === 'both' || change.side === side || change.side === 'central') &&
        deciding.reference.tests.get(change.test)?.informs.some((id) => main.has(id)),
    )
    .map((change) => ({
      rule: 'screening-change',
      test: change.test,
      side: change.side,
      difference: change.difference,
      real: change.real,
    }));
}

function decide(deciding: Deciding, item: RoutineItem): Decision {
  if (isLine(item.drill)) return { drill: item.drill, side: item.side, ...keep(item) };
  const drill = deciding.reference.drills.get(item.drill);
  if (!drill)
    return { drill: item.drill, side: item.side, ...stop({ rule: 'unknown-drill', drill: item.drill }) };
  const barrier = drillSafety(deciding.reference, drill, deciding.safety).forbidden[0];
  const reports = reportsOf(deciding.standing, item, deciding.painLimits);
  const draft = barrier
    ? stop({ rule: 'no-longer-allowed', because: barrier.rule, about: barrier.about })
    : (byPainDuring(deciding, drill, item, reports) ??
      byNextDay(deciding, drill, item, reports) ??
      byTendonTrial(deciding, drill) ??
      byAbsence(deciding, drill, item, reports) ??
      byCleanSessions(deciding, drill, item, reports) ??
      byCalmMornings(deciding, drill, item, reports) ??
      withinWeek(deciding, drill, item, advance(deciding, drill, item)));
  return {
    drill: item.drill,
    side: item.side,
    decision: draft.decision,
    reasons: [
      ...draft.reasons,
      ...trialReasons(deciding, drill),
      ...changeReasons(deciding, drill, item.side),
    ],
    next: draft.next,
  };
}

/**
 * A decision for each item of the routine in force: safety first, then pain, the next day, absence, and only then the
 * criteria for more. Pure; the practitioner accepts or overrules.
 */
export function decideProgress(given: Assessment): ProgressReport {
  const assessment = asInForce(given);
  const { standing, report } = assessment;
  const deciding: Deciding = { ...assessment, dose: doseInForce(assessment), raised: new Set() };
  return { decisions: itemsOf(standing).map((item) => decide(deciding, item)), rescreen: report.rescreen };
}
