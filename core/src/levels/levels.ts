import { inForceOf, monthsBefore } from '../domain/index.ts';
import type { DiaryEntry, IsoDay, ItemSide, Placement, Region, Side } from '../domain/index.ts';
import { judgeNeed, testSideKey } from '../findings/index.ts';
import { doseTestOf, jolts, regionsWorked } from '../reference/index.ts';
import type { Drill, EntryCriterion, Ladder } from '../reference/index.ts';
import { lastInjury } from '../safety/index.ts';
import type { LevelContext } from './context.ts';
import { exposedBy } from './exposure.ts';
import { GUARD_PROBABILITY, START_RULE } from './settings.ts';

/** What opened a level. */
export type OpenedBy =
  'criteria' | 'harder-rung' | 'placement' | 'routine' | 'first-level' | 'start-rule' | 'exposure';

/** How a ladder level came to be open, or why it is not. */
export type LevelState =
  | {
      readonly open: true;
      readonly by: OpenedBy;
      readonly confirm: boolean;
    }
  | { readonly open: false; readonly because: string };

function sidesOf(side: ItemSide): Side[] {
  if (side === 'both') return ['left', 'right'];
  return [side];
}

/**
 * P(capacity ≥ gate) of a guard test on the worst side asked for; null when unmeasured, 0 when pain-limited. `since` is the
 * day of the last injury where the drill works: what was measured before it is not known.
 */
export function guardProbability(
  context: LevelContext,
  criterion: EntryCriterion,
  side: ItemSide,
  since: IsoDay = '',
): number | null {
  const test = criterion.test ? context.reference.tests.get(criterion.test) : undefined;
  if (!test || criterion.value === undefined) return null;
  const sides: Side[] =
    test.sides === 'central' ? ['central'] : criterion.sides === 'both' ? ['left', 'right'] : sidesOf(side);
  let worst = 1;
  for (const s of sides) {
    const capacity = context.capacities.get(testSideKey(test.id, s));
    if (!capacity || capacity.date < since) return null;
    if (capacity.painLimited) return 0;
    const exactly = criterion.op === '==' ? (capacity.estimate === criterion.value ? 1 : 0) : null;
    worst = Math.min(
      worst,
      exactly ?? 1 - judgeNeed(test, capacity.estimate, capacity.sd, criterion.value).pShort,
    );
  }
  return worst;
}

/** Does a guard test hold, with the same certainty in building and in progression? Null when a side was never measured. */
function testCriterionHolds(
  context: LevelContext,
  criterion: EntryCriterion,
  side: ItemSide,
  since: IsoDay,
): boolean | null {
  const probability = guardProbability(context, criterion, side, since);
  return probability === null ? null : probability >= GUARD_PROBABILITY;
}

function lastHurt(context: LevelContext, regions: readonly Region[], side: ItemSide): IsoDay {
  const { reference, standing } = context;
  return regions
    .flatMap((region) =>
      sidesOf(side).map(
        (one) => lastInjury(reference, standing.athlete, region, one, standing.today)?.date ?? '',
      ),
    )
    .reduce((last, day) => (day > last ? day : last), '');
}

/** The day of the last injury in a region that a drill works, on a side of it; empty without one. */
export function hurtSince(context: LevelContext, drill: Drill, side: ItemSide): IsoDay {
  return lastHurt(context, regionsWorked(drill), side);
}

function entryMeets(criterion: EntryCriterion, entry: DiaryEntry): boolean {
  const amounts =
    entry.amounts.length === 0 ||
    entry.amounts.every((a) => a >= (criterion.amount ?? criterion.holdSeconds ?? 0));
  return (
    entry.done === 'all' &&
    amounts &&
    entry.pain <= (criterion.maxPain ?? 10) &&
    (entry.effort === null || entry.effort <= (criterion.maxRpe ?? 10)) &&
    (entry.quality === null || entry.quality >= 2)
  );
}

/** Diary sessions in which the previous level was done as the criterion asks, on this side. */
function previousLevelDone(
  context: LevelContext,
  criterion: EntryCriterion,
  side: ItemSide,
  since: IsoDay,
): boolean {
  const sessions = context.standing.diary.filter(
    (session) =>
      session.date <= context.standing.today &&
      session.date > since &&
      session.entries.some(
        (entry) =>
          entry.drill === criterion.drill &&
          (entry.side === side || entry.side === 'both' || side === 'both') &&
          entryMeets(criterion, entry),
      ),
  );
  return sessions.length >= (criterion.sessions ?? 1);
}

/**
 * Was a region that the drill is for injured in the last months, on whatever side? For what runs, jumps, lands or cuts, any
 * region that it works.
 */
function injuredLately(context: LevelContext, drill: Drill): boolean {
  const from = monthsBefore(context.standing.today, START_RULE.injuryMonths);
  const regions = jolts(drill) ? regionsWorked(drill) : drill.regions.primary;
  return lastHurt(context, regions, 'both') >= from;
}

function startLimit(context: LevelContext, drill: Drill): number {
  const injured = injuredLately(context, drill);
  const trained = context.standing.athlete.trainingYears >= START_RULE.trainingYears;
  return trained && !injured ? START_RULE.trainedDemandIndex : START_RULE.demandIndex;
}

function levelIndex(ladder: Ladder, drill: string): number {
  return ladder.drills.indexOf(drill);
}

/** The practitioner's last word on a drill's level on this side; the later in the list wins within a day. */
function lastPlacement(
  context: LevelContext,
  ladder: Ladder,
  drill: Drill,
  side: ItemSide,
): Placement | undefined {
  const at = levelIndex(ladder, drill.id);
  return context.standing.athlete.placements
    .filter((p) => {
      if (p.ladder !== ladder.id) return false;
      if (p.side !== side && p.side !== 'both' && p.side !== 'central' && side !== 'central') return false;
      const level = levelIndex(ladder, p.drill);
      return p.verdict === 'fine' ? level >= at : level <= at;
    })
    .sort((a, b) => (a.date ?? '').localeCompare(b.date ?? ''))
    .at(-1);
}

/** What a practitioner said against this level on a side of the item, if that is the last word; null otherwise. */
export function tooHard(context: LevelContext, drill: Drill, side: ItemSide): Placement | null {
  const ladder = context.reference.ladders.get(drill.ladder);
  if (!ladder) return null;
  const sides: ItemSide[] = side === 'both' && drill.unilateral ? ['left', 'right'] : [side];
  for (const one of sides) {
    const said = lastPlacement(context, ladder, drill, one);
    if (said?.verdict === 'too-hard') return said;
  }
  return null;
}

/** What has to hold before a level opens: each criterion of tests and diary by itself, or one of several alternatives. */
function doorsOf(drill: Drill): EntryCriterion[][] {
  const doors = new Map<string, EntryCriterion[]>();
  drill.entryCriteria.forEach((criterion, i) => {
    if (criterion.test === undefined && criterion.drill === undefined) return;
    const door = criterion.either ?? String(i);
    doors.set(door, [...(doors.get(door) ?? []), criterion]);
  });
  return [...doors.values()];
}

/** Does a criterion hold? Null while nothing is known: a side not measured, the level before not done often enough. */
function criterionState(
  context: LevelContext,
  criterion: EntryCriterion,
  side: ItemSide,
  since: IsoDay,
): boolean | null {
  if (criterion.test !== undefined) return testCriterionHolds(context, criterion, side, since);
  return previousLevelDone(context, criterion, side, since) ? true : null;
}

/**
 * Was a maximum tested at this rung or a harder one that reaches the least dose there? A test belongs to the easiest rung
 * whose dose is a share of it.
 */
function provenAbove(
  context: LevelContext,
  ladder: Ladder,
  drill: Drill,
  side: ItemSide,
  since: IsoDay,
): boolean {
  const rungs = ladder.drills.flatMap((id) => context.reference.drills.get(id) ?? []);
  const tests = rungs.map((rung) => doseTestOf(context.reference, rung)?.id);
  return rungs.slice(levelIndex(ladder, drill.id)).some((rung) => {
    const test = tests[rungs.indexOf(rung)];
    if (test === undefined || rungs[tests.indexOf(test)] !== rung) return false;
    const least: EntryCriterion = { text: '', test, op: '>=', value: rung.dose.amount.min };
    return testCriterionHolds(context, least, side, since) === true;
  });
}

/**
 * Is this drill's level open to the athlete on this side? By the practitioner's placement or the routine in force, then by
 * tests and diary, else by a maximum at a harder rung, the start rule, what is done every week (rulings, "Level placement"). `both` needs both
 * sides.
 */
export function levelState(context: LevelContext, drill: Drill, side: ItemSide): LevelState {
  const ladder = context.reference.ladders.get(drill.ladder);
  if (!ladder) return { open: false, because: 'unknown-ladder' };
  if (side === 'both' && drill.unilateral) {
    const left = levelState(context, drill, 'left');
    const right = levelState(context, drill, 'right');
    if (!left.open) return left;
    if (!right.open) return right;
    return left.confirm ? left : right;
  }
  // What was seen, done or measured before an injury says nothing of now.
  const since = hurtSince(context, drill, side);
  const said = lastPlacement(context, ladder, drill, side);
  if (said?.verdict === 'too-hard')
    return { open: false, because: `${said.by ?? 'the practitioner'} saw it as too hard` };
  if (said && (since === '' || (said.date ?? '') > since))
    return { open: true, by: 'placement', confirm: false };
  const at = levelIndex(ladder, drill.id);
  const inRoutine = inForceOf(context.standing)
    .filter(({ issued }) => issued > since)
    .flatMap((routine) => routine.items)
    .some((item) => levelIndex(ladder, item.drill) >= at && (item.side === side || item.side === 'both'));
  if (inRoutine) return { open: true, by: 'routine', confirm: false };
  const doors = doorsOf(drill).map((criteria) => ({
    criteria,
    states: criteria.map((criterion) => criterionState(context, criterion, side, since)),
  }));
  // A test that says no holds whatever the diary says; progression goes by the same.
  const failed = doors.find(({ states }) => states.includes(false));
  if (failed) return { open: false, because: failed.criteria[failed.states.indexOf(false)]?.text ?? '' };
  if (doors.length > 0 && doors.every(({ states }) => states.includes(true)))
    return { open: true, by: 'criteria', confirm: false };
  if (provenAbove(context, ladder, drill, side, since))
    return { open: true, by: 'harder-rung', confirm: false };
  // After an injury of late no step of running, landing or cutting is a start.
  const jolted = drill.loadClass === 'impact' || (jolts(drill) && injuredLately(context, drill));
  if (!jolted && drill.demandIndex <= startLimit(context, drill)) {
    // The first level has nothing before it to prove, so there is nothing to confirm either.
    return drill.level === 1 && drill.entryCriteria.every((criterion) => criterion.test === undefined)
      ? { open: true, by: 'first-level', confirm: false }
      : { open: true, by: 'start-rule', confirm: true };
  }
  if (!injuredLately(context, drill) && exposedBy(context, drill, side) !== null)
    return { open: true, by: 'exposure', confirm: true };
  const asked = doors.flatMap(({ criteria }) => criteria);
  const diary = asked.find((criterion) => criterion.drill !== undefined);
  return { open: false, because: (diary ?? asked[0])?.text ?? 'above the start level' };
}
