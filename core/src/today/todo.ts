import { assessedAt } from '../assess/index.ts';
import type { Assessment } from '../assess/index.ts';
import { addDays, daysBetween, inForceOf, occasionOf } from '../domain/index.ts';
import { decideProgress, waitingItems } from '../progress/index.ts';
import { regionsInPlay, topicsDue } from '../safety/index.ts';
import { coversRestriction, reachesSide } from '../reference/index.ts';
import type { Todo } from './schema.ts';

/** Editable defaults of what is worth a practitioner's day. */
const TODAY = {
  /** Pain told within so many days is still news. */
  painDays: 2,
  /** A result younger than this is not asked for again. */
  freshDays: 14,
  /** Below this chance to turn a choice a rescreen is not asked for. */
  leastChance: 0.15,
} as const;

function blockedTodo({ safety }: Assessment): Todo[] {
  const [block] = safety.blocks
    .filter((one) => one.level !== 'P')
    .sort((a, b) => Number(b.region === 'all') - Number(a.region === 'all'));
  return block ? [{ kind: 'blocked', redFlag: block.redFlag, region: block.region }] : [];
}

function gateTodo({ reference, standing: { athlete, today } }: Assessment): Todo[] {
  const regions = regionsInPlay(reference, athlete, today).map((one) => one.region);
  const due = topicsDue(reference, athlete, regions, today).length;
  return due > 0 ? [{ kind: 'not-asked', topics: due, never: (athlete.asked ?? []).length === 0 }] : [];
}

/** What a diary asked to refer and nobody has ended: it stands here until somebody does. */
function referredTodo({ safety }: Assessment): Todo[] {
  const [rule] = safety.dayRules.filter(({ referred }) => referred.length > 0);
  if (!rule) return [];
  const { region, side, nrs, because } = rule;
  return [{ kind: 'referred', region, side, pain: nrs, since: because.since }];
}

/** The worst pain above "fine" told in a session of the last days, with whether it went over the stop limit. */
function painTodo({ standing: { diary, today }, painLimits }: Assessment): Todo[] {
  const from = addDays(today, -TODAY.painDays);
  const [worst] = diary
    .filter((session) => session.date >= from && session.date <= today)
    .flatMap(({ date, entries }) => entries.map((entry) => ({ date, ...entry })))
    .filter((entry) => entry.pain > painLimits.fine)
    .sort((a, b) => b.pain - a.pain);
  if (!worst) return [];
  const { drill, side, pain, date } = worst;
  return [{ kind: 'pain', drill, side, pain, date, above: pain > painLimits.stop }];
}

function decisionsTodo(assessment: Assessment): Todo[] {
  return inForceOf(assessment.standing).flatMap((routine): Todo[] => {
    const occasion = occasionOf(routine);
    const at = assessedAt(assessment, occasion);
    const { decisions } = decideProgress(at);
    const waiting = waitingItems(at.standing, decisions);
    const [first] = waiting
      .map((index) => decisions[index])
      .filter((decision) => decision !== undefined)
      .sort((a, b) => Number(a.decision === 'keep') - Number(b.decision === 'keep'));
    if (!first) return [];
    const { drill, decision } = first;
    return [{ kind: 'decisions', occasion, items: waiting.length, drill, decision }];
  });
}

function reviewTodos({ safety, standing: { today } }: Assessment): Todo[] {
  return safety.precautions
    .filter((one) => one.reviewDue && one.until !== null)
    .map(({ id, until }) => ({
      kind: 'review',
      precaution: id,
      until: until ?? today,
      days: daysBetween(until ?? today, today),
    }));
}

/**
 * The rescreen that could change most: the chance that what is believed of this side today is wrong, times the drills of
 * the routines in force that hang on it. An old result that could change nothing is not asked for.
 */
function rescreenTodo({ reference, report, standing }: Assessment): Todo[] {
  const { today } = standing;
  const items = inForceOf(standing).flatMap((routine) => routine.items);
  const candidates = report.capacities.flatMap((capacity) => {
    const test = reference.tests.get(capacity.test);
    if (!test || test.derivedFrom || capacity.pShort === null) return [];
    if (daysBetween(capacity.date, today) < TODAY.freshDays) return [];
    const chance = Math.min(capacity.pShort, 1 - capacity.pShort);
    const drills = items.filter((item) => {
      const drill = reference.drills.get(item.drill);
      return (
        drill &&
        reachesSide(drill, item.side, capacity.side) &&
        test.informs.some((restriction) => coversRestriction(drill, restriction))
      );
    }).length;
    if (chance < TODAY.leastChance || drills === 0) return [];
    return [{ capacity, test, chance, drills }];
  });
  const [best] = candidates.sort((a, b) => b.chance * b.drills - a.chance * a.drills);
  if (!best) return [];
  const { capacity, test, chance, drills } = best;
  return [
    {
      kind: 'rescreen',
      test: test.id,
      side: capacity.side,
      chance: Math.round(chance * 100) / 100,
      drills,
      seconds: test.timeSeconds,
      date: capacity.date,
    },
  ];
}

/** What an athlete waits for today, most urgent first; empty when nothing does. */
export function todoOf(assessment: Assessment): Todo[] {
  const blocked = blockedTodo(assessment);
  const pain = painTodo(assessment);
  return [
    ...blocked,
    ...referredTodo(assessment),
    ...pain,
    ...gateTodo(assessment),
    ...decisionsTodo(assessment),
    ...reviewTodos(assessment),
    // Nothing is screened where a stop sign is open.
    ...(blocked.length > 0 ? [] : rescreenTodo(assessment)),
  ];
}
