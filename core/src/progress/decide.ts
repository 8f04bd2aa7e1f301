import { addDays } from '../domain/index.ts';
import type { IsoDay, ItemSide, Region, RoutineItem, Side, Standing } from '../domain/index.ts';
import { DIARY, daysSinceLast, painVerdict, reportsOf, running } from '../diary/index.ts';
import type { PainVerdict, Report } from '../diary/index.ts';
import { asInForce } from '../assess/index.ts';
import type { Assessment } from '../assess/index.ts';
import type { DoseContext } from '../dose/index.ts';
import { GUARD_PROBABILITY, guardProbability, hurtSince, tooHard } from '../levels/index.ts';
import type { Rescreen } from '../findings/index.ts';
import type { Reason, ReasonOf } from '../reasons/index.ts';
import { isLine, regionsWorked } from '../reference/index.ts';
import type { Drill } from '../reference/index.ts';
import {
  beyondLimits,
  closedFor,
  covers,
  drillSafety,
  involves,
  isGraded,
  withinLimits,
} from '../safety/index.ts';
import { hardenedRegions, isHarder } from './hardened.ts';
import { tendonTrial, trialReasons } from './tendonTrial.ts';
import { PROGRESS } from './settings.ts';
import {
  begunAnew,
  doseInForce,
  doseTarget,
  easier,
  easierBy,
  itemsOf,
  levelItem,
  moreDose,
  setupStep,
} from './steps.ts';

/** What can be proposed for a drill, from the most to the least. */
export const DECISIONS = [
  'advance-dose',
  'change-setup',
  'advance-level',
  'maintain',
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

/** When something of a region was made harder, or that it is in what is decided here. */
interface Hardening {
  readonly on: IsoDay;
  readonly proposed: boolean;
}

interface Deciding extends Assessment {
  readonly dose: DoseContext;
  /** Regions of which something was made harder within the week, with the day; what is decided here joins them. */
  readonly hardened: Map<Region, Hardening>;
}

type Barrier = NonNullable<ReturnType<typeof closedFor>>;

type Draft = Pick<Decision, 'decision' | 'reasons' | 'next'>;

function stop(rule: Reason): Draft {
  return { decision: 'stop-and-refer', reasons: [rule], next: null };
}

/** What closes an item on a side that it uses today; null when nothing does. */
function closedToday({ reference, safety }: Deciding, item: RoutineItem): Barrier | null {
  const drill = reference.drills.get(item.drill);
  return drill ? closedFor(drillSafety(reference, drill, safety), item.side) : null;
}

const notOffered = (drill: string, { rule }: Barrier): Reason => ({
  rule: 'next-level-not-offered',
  drill,
  because: rule.rule,
  about: rule.about,
});

function keep(item: RoutineItem, ...reasons: Reason[]): Draft {
  return { decision: 'keep', reasons, next: item };
}

function ease(
  deciding: Deciding,
  drill: Drill,
  item: RoutineItem,
  rule: Reason,
  easierItem = easier(deciding.dose, drill, item),
): Draft {
  // An easier level that is closed today is no way down.
  const shut = easierItem && easierItem.drill !== drill.id ? closedToday(deciding, easierItem) : null;
  const next = shut ? null : easierItem;
  const why: Reason[] = shut
    ? [notOffered(easierItem?.drill ?? '', shut)]
    : next
      ? []
      : [{ rule: 'easiest-already', drill: drill.id }];
  return { decision: 'ease', reasons: [rule, ...why], next };
}

/** A reading of pain in the diary with the figures it rests on. */
function painReason(
  { painLimits }: Deciding,
  { ask, because, times }: PainVerdict,
  reports: readonly Report[],
  last: Report,
): Reason {
  const { stop: limit, fine } = painLimits;
  const figures = { pain: last.nrs, limit, date: last.date, morning: last.atMorning };
  switch (because) {
    case 'above-limit':
      return { rule: ask === 'refer' ? 'pain-above-limit-twice' : 'pain-above-limit', ...figures };
    case 'above-limit-often':
      return { rule: 'pain-above-limit-often', times, among: DIARY.pattern.among, limit };
    case 'amber':
      return { rule: 'pain-amber-twice', ...figures, fine };
    case 'worse-next-day': {
      const { entry } = reports.findLast((r) => r.worseNextDay === true) ?? last;
      const [before, after] = [entry.painBefore, entry.nextDayPain ?? 0];
      return { rule: 'worse-next-day', times, before, after, tolerance: DIARY.nextDayTolerance };
    }
  }
}

/** What the pain in the diary asks for, said as a decision. */
function byPain(
  deciding: Deciding,
  drill: Drill,
  item: RoutineItem,
  reports: readonly Report[],
): Draft | null {
  const verdict = painVerdict(reports);
  const last = reports.at(-1);
  if (!verdict || !last) return null;
  const reason = painReason(deciding, verdict, reports, last);
  if (verdict.ask === 'refer') return stop(reason);
  return verdict.ask === 'ease' ? ease(deciding, drill, item, reason) : keep(item, reason);
}

function byAbsence(
  deciding: Deciding,
  drill: Drill,
  item: RoutineItem,
  reports: readonly Report[],
): Draft | null {
  const days = daysSinceLast(reports, deciding.standing.today);
  if (days === null) return keep(item, { rule: 'no-sessions-yet', drill: drill.id });
  const { one, two, anew } = PROGRESS.breakDays;
  if (days >= anew) {
    const offered = (level: Drill) =>
      drillSafety(deciding.reference, level, deciding.safety).forbidden.length === 0;
    const first = begunAnew(deciding.dose, drill, item, offered);
    return ease(deciding, drill, item, { rule: 'long-break-anew', days }, first);
  }
  if (days >= one) {
    const steps = days >= two ? 2 : 1;
    const next = easierBy(deciding.dose, drill, item, steps);
    return ease(deciding, drill, item, { rule: 'long-break', days, steps }, next);
  }
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
  if (last.entry.quality !== null && last.entry.quality <= DIARY.poorQuality) {
    return keep(item, { rule: 'poor-quality', quality: last.entry.quality });
  }
  const reached = (r: Report) =>
    reachedPrescription(item, r) && (r.entry.effort === null || r.entry.effort <= drill.progressWhen.maxRpe);
  const good = running(current, (r) => (reached(r) ? r.clean : false));
  if (good >= drill.progressWhen.sessions) return null;
  const unknown = running(current, (r) => reached(r) && r.clean !== false) - good;
  if (good + unknown >= drill.progressWhen.sessions)
    return keep(item, { rule: 'mornings-unknown', sessions: unknown });
  const effort = last.entry.effort;
  if (last.clean !== false && effort !== null && effort > drill.progressWhen.maxRpe) {
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
      const probability = guardProbability(deciding, criterion, side, hurtSince(deciding, next, side));
      // Where the diary opens the level as well, a test that was never done does not hold it back.
      if (probability === null && criterion.either !== undefined) return [];
      const reason = {
        rule: 'guard-test',
        test: criterion.test ?? '',
        gate: criterion.value ?? null,
        probability,
        wanted: GUARD_PROBABILITY,
        holds: probability !== null && probability >= GUARD_PROBABILITY,
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
  const calm = running(reports, ({ entry, worseNextDay }) =>
    entry.nextDayPain === null ? null : entry.nextDayPain <= painLimits.fine && worseNextDay !== true,
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
  const barrier = closedToday(deciding, { ...item, drill: next.id });
  if (barrier) return keep(item, notOffered(next.id, barrier));
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
  const { reference, safety } = deciding;
  const allowed = (next: RoutineItem) => !beyondLimits(reference, drill, next, safety.precautions);
  const dose = moreDose(drill, item, target);
  if (dose && allowed(dose)) {
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
  if (setup && allowed(setup.item)) {
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

const concernsSide = (side: ItemSide, other: Side) =>
  side === 'both' || side === 'central' || covers(other, side);

/** Does a change of a test tell of what this drill is for? */
function tellsOf({ reference }: Deciding, drill: Drill): (test: string) => boolean {
  const main = new Set(drill.serves.filter((s) => s.match >= 0.7).map((s) => s.restriction));
  return (test) =>
    test === drill.doseTest || (reference.tests.get(test)?.informs.some((id) => main.has(id)) ?? false);
}

/** Nothing gets harder while its region hurts, after an injury without a calm session since, or after a real loss. */
function byHoldBack(
  deciding: Deciding,
  drill: Drill,
  item: RoutineItem,
  reports: readonly Report[],
): Draft | null {
  const { safety, standing, report } = deciding;
  const regions = regionsWorked(drill);
  const sore = safety.dayRules.find(
    (rule) => rule.nrs > rule.fine && regions.includes(rule.region) && concernsSide(item.side, rule.side),
  );
  if (sore) return keep(item, { rule: 'hurts-now', region: sore.region, pain: sore.nrs, fine: sore.fine });
  const calm = reports.findLast((r) => r.clean === true)?.date ?? '';
  const hurt = standing.athlete.injuries.find(
    (injury) =>
      injury.date <= standing.today &&
      injury.date >= calm &&
      regions.some((region) => involves(deciding.reference, injury, region)) &&
      concernsSide(item.side, injury.side),
  );
  if (hurt) return keep(item, { rule: 'injury-since', region: hurt.region, date: hurt.date });
  const tells = tellsOf(deciding, drill);
  const loss = report.changes.find(
    (one) => one.real === 'yes' && one.difference < 0 && concernsSide(item.side, one.side) && tells(one.test),
  );
  if (loss)
    return keep(item, { rule: 'real-loss', test: loss.test, side: loss.side, difference: loss.difference });
  return null;
}

/** In a span marked light nothing gets harder, whatever was done cleanly. */
function byLightSpan({ standing }: Deciding, item: RoutineItem): Draft | null {
  const { athlete, today } = standing;
  const light = athlete.lightSpans.find(({ from, until }) => from <= today && today <= until);
  return light ? keep(item, { rule: 'light-span', until: light.until, why: light.why }) : null;
}

/** What is printed beside a drill that keeps up what is restored, unless the practitioner wrote there. */
const KEPT_UP = 'To keep up: once or twice a week is enough.';

/** What was short and no longer is on any side of the item: it is kept up, and gets no harder for it. */
function byRestored(deciding: Deciding, drill: Drill, item: RoutineItem): Draft | null {
  const { reference, report } = deciding;
  for (const { restriction, match } of drill.serves) {
    if (match < 0.7) continue;
    const tests = reference.restrictions.get(restriction)?.tests ?? [];
    const measured = report.capacities.filter(
      (one) =>
        tests.includes(one.test) &&
        one.need !== null &&
        one.beforeInjury === null &&
        concernsSide(item.side, one.side),
    );
    const wasShort = measured.some(({ test, need, history }) => {
      const lower = reference.tests.get(test)?.better === 'lower';
      return history.some(({ value }) => (lower ? value > (need ?? 0) : value < (need ?? 0)));
    });
    if (wasShort && measured.every(({ state }) => state === 'enough'))
      return {
        decision: 'maintain',
        reasons: [{ rule: 'restored', restriction }],
        next: { ...item, note: item.note ?? KEPT_UP },
      };
  }
  return null;
}

/** One harder thing in a region and a week: of amount, set, set-up and level, in whatever version. */
function withinWeek(deciding: Deciding, drill: Drill, item: RoutineItem, draft: Draft): Draft {
  const { reference, hardened, standing } = deciding;
  const { next } = draft;
  if (!next || !isHarder(reference, item, next)) return draft;
  const after = reference.drills.get(next.drill) ?? drill;
  const regions = [...new Set([...regionsWorked(drill), ...regionsWorked(after)])];
  for (const region of regions) {
    const lately = hardened.get(region);
    if (lately)
      return keep(item, { rule: 'hardened-lately', region, ...lately, days: PROGRESS.hardenedDays });
  }
  for (const region of regions) hardened.set(region, { on: standing.today, proposed: true });
  return draft;
}

/** Is the change on the tests behind this drill larger than their error? Said beside every decision. */
function changeReasons(deciding: Deciding, drill: Drill, side: ItemSide): Reason[] {
  const tells = tellsOf(deciding, drill);
  return deciding.report.changes
    .filter((change) => concernsSide(side, change.side) && tells(change.test))
    .map((change) => ({
      rule: 'screening-change',
      test: change.test,
      side: change.side,
      difference: change.difference,
      real: change.real,
    }));
}

/** What goes beyond the handling of a precaution comes back to it at once. */
function byLimits({ reference, safety }: Deciding, drill: Drill, item: RoutineItem): Draft | null {
  const beyond = beyondLimits(reference, drill, item, safety.precautions);
  if (!beyond) return null;
  const next = withinLimits(reference, drill, item, safety.precautions);
  const reason: Reason = { rule: 'beyond-handling', precaution: beyond.precaution, most: beyond.most };
  return { decision: 'ease', reasons: [reason], next };
}

const notAllowed = ({ rule }: Barrier): Reason => ({
  rule: 'no-longer-allowed',
  because: rule.rule,
  about: rule.about,
});

/** What lasts stops the drill; where one side of two stays open, it goes on with that. */
function byBarrier(drill: Drill, item: RoutineItem, barrier: Barrier): Draft {
  const { perSide: _uneven, ...even } = item;
  if (barrier.open === null || !drill.unilateral) return stop(notAllowed(barrier));
  return { decision: 'ease', reasons: [notAllowed(barrier)], next: { ...even, side: barrier.open } };
}

/** What a rule of the day keeps out stays in the routine as it is; the run leaves it out while that holds. */
function byDay(item: RoutineItem, barrier: Barrier | null): Draft | null {
  return barrier ? keep(item, notAllowed(barrier)) : null;
}

/** A stop with its own figures says more than that the drill is closed. */
const referring = (draft: Draft | null): Draft | null =>
  draft?.decision === 'stop-and-refer' ? draft : null;

function decide(deciding: Deciding, item: RoutineItem): Decision {
  if (isLine(item.drill)) return { drill: item.drill, side: item.side, ...keep(item) };
  const drill = deciding.reference.drills.get(item.drill);
  if (!drill)
    return { drill: item.drill, side: item.side, ...stop({ rule: 'unknown-drill', drill: item.drill }) };
  const barrier = closedToday(deciding, item);
  const reports = reportsOf(deciding.standing, item, deciding.painLimits);
  const draft =
    barrier && barrier.rule.rule !== 'day-rule'
      ? (referring(byPain(deciding, drill, item, reports)) ?? byBarrier(drill, item, barrier))
      : (byPain(deciding, drill, item, reports) ??
        byTendonTrial(deciding, drill) ??
        byLimits(deciding, drill, item) ??
        byDay(item, barrier) ??
        byAbsence(deciding, drill, item, reports) ??
        byLightSpan(deciding, item) ??
        byCleanSessions(deciding, drill, item, reports) ??
        byCalmMornings(deciding, drill, item, reports) ??
        byHoldBack(deciding, drill, item, reports) ??
        byRestored(deciding, drill, item) ??
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

/** How much of what is short a drill answers: match × priority of the finding it serves best. */
function worthOf({ reference, report }: Deciding, item: RoutineItem): number {
  const served = reference.drills.get(item.drill)?.serves ?? [];
  return report.findings
    .filter((finding) => concernsSide(item.side, finding.side))
    .reduce((most, { restriction, priority }) => {
      const match = served.find((one) => one.restriction === restriction)?.match ?? 0;
      return Math.max(most, match * priority);
    }, 0);
}

/**
 * A decision for each item of the routine in force: safety first, then pain, the next day, absence, and only then the
 * criteria for more. Pure; the practitioner accepts or overrules.
 */
export function decideProgress(given: Assessment): ProgressReport {
  const assessment = asInForce(given);
  const { standing, report } = assessment;
  const hardened = new Map<Region, Hardening>();
  for (const [region, on] of hardenedRegions(assessment.reference, standing))
    hardened.set(region, { on, proposed: false });
  const deciding: Deciding = { ...assessment, dose: doseInForce(assessment), hardened };
  const items = itemsOf(standing);
  // What a joint lacks most is the one thing of it that gets harder.
  const worth = items.map((item) => worthOf(deciding, item));
  const inTurn = items.map((_, i) => i).sort((a, b) => (worth[b] ?? 0) - (worth[a] ?? 0) || a - b);
  const decisions = new Map(inTurn.map((i) => [i, decide(deciding, items[i] as RoutineItem)]));
  return { decisions: items.flatMap((_, i) => decisions.get(i) ?? []), rescreen: report.rescreen };
}
