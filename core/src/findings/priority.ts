import { monthsBefore } from '../domain/index.ts';
import type { Standing, Side } from '../domain/index.ts';
import type { Reference, Restriction } from '../reference/index.ts';
import { bearsOn, covers } from '../safety/index.ts';
import { FINDING_SETTINGS } from './settings.ts';
import type { PriorityFactors } from './types.ts';

/** Was what this restriction is about hurt on this side within the last 24 months? */
export function recentlyInjured(
  reference: Reference,
  input: Standing,
  restriction: Restriction,
  side: Side,
): boolean {
  const from = monthsBefore(input.today, FINDING_SETTINGS.injuryMonths);
  return input.athlete.injuries.some(
    (injury) =>
      bearsOn(reference, injury, restriction) &&
      covers(injury.side, side) &&
      injury.date >= from &&
      injury.date <= input.today,
  );
}

/** Does a chosen task ask for one of the restriction's tests? */
export function taskAsksFor(reference: Reference, input: Standing, restriction: Restriction): boolean {
  return input.athlete.tasks.some((task) =>
    reference.demands.get(task.id)?.demands.some((demand) => restriction.tests.includes(demand.test)),
  );
}

/** Severity × task relevance × injury history, at most 1, with its factors. */
export function priorityOf(
  reference: Reference,
  input: Standing,
  restriction: Restriction,
  side: Side,
  severity: number,
): { priority: number; factors: PriorityFactors } {
  const relevance = taskAsksFor(reference, input, restriction)
    ? FINDING_SETTINGS.taskRelevance
    : FINDING_SETTINGS.otherRelevance;
  const injury = recentlyInjured(reference, input, restriction, side) ? FINDING_SETTINGS.injuryFactor : 1;
  return { priority: Math.min(1, severity * relevance * injury), factors: { severity, relevance, injury } };
}
