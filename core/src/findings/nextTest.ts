import type { Case } from '../domain/index.ts';
import type { Reference, Test } from '../reference/index.ts';
import { FINDING_SETTINGS } from './settings.ts';
import type { Capacity, Reason } from './types.ts';
import { recentlyInjured } from './priority.ts';

/** How open a yes/no question at probability p is: 1 at one half, 0 when certain. */
function openness(p: number): number {
  return 4 * p * (1 - p);
}

/** Chance of a shortfall on a test nobody has done: a coin where a task asks for it, else seldom (editable). */
const UNSCREENED_P = { asked: 0.5, other: 0.15 } as const;
/** Minutes that any test costs besides its own: explaining it and changing position. */
const CHANGE_MINUTES = 1;

/**
 * The single test most likely to change a decision per minute: openness of "short or not" on its sides × relevance
 * ÷ minutes. Null when nothing may be tested. Ties go to the smaller id.
 */
export function nextTest(
  reference: Reference,
  input: Case,
  offered: readonly Test[],
  capacities: readonly Capacity[],
): { test: string; why: Reason[] } | null {
  const asked = new Set(
    input.athlete.tasks.flatMap((task) => reference.demands.get(task.id)?.demands.map((d) => d.test) ?? []),
  );
  let best: { test: Test; score: number; why: Reason[] } | null = null;
  for (const test of [...offered].sort((a, b) => (a.id < b.id ? -1 : 1))) {
    const known = capacities.filter((capacity) => capacity.test === test.id);
    const sides = test.sides === 'central' ? (['central'] as const) : (['left', 'right'] as const);
    const p = sides.map(
      (side) =>
        known.find((c) => c.side === side)?.pShort ??
        (asked.has(test.id) ? UNSCREENED_P.asked : UNSCREENED_P.other),
    );
    const open = p.reduce((sum, value) => sum + openness(value), 0) / p.length;
    const relevance = asked.has(test.id) ? FINDING_SETTINGS.taskRelevance : FINDING_SETTINGS.otherRelevance;
    const injured = sides.some((side) => recentlyInjured(input, test.region, side));
    const minutes = test.timeSeconds / 60 + CHANGE_MINUTES;
    const score = (open * relevance * (injured ? FINDING_SETTINGS.injuryFactor : 1)) / minutes;
    if (!best || score > best.score + 1e-12) {
      const why: Reason[] = [
        {
          rule: known.length === 0 ? 'test-never-done' : 'test-undecided',
          openness: round2(open),
          minutes: round2(minutes),
        },
      ];
      if (asked.has(test.id)) why.push({ rule: 'task-asks-for-test', test: test.id });
      if (injured) why.push({ rule: 'region-injured', region: test.region });
      best = { test, score, why };
    }
  }
  return best && best.score > 0 ? { test: best.test.id, why: best.why } : null;
}

function round2(value: number): number {
  return Math.round(value * 100) / 100;
}
