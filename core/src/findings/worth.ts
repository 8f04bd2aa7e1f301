import type { Standing, Side } from '../domain/index.ts';
import type { Reference, Test } from '../reference/index.ts';
import { recentlyInjured } from './priority.ts';
import { FINDING_SETTINGS } from './settings.ts';
import type { Capacity } from './types.ts';
import type { Reason } from '../reasons/index.ts';

/** How open a yes/no question at probability p is: 1 at one half, 0 when certain. */
function openness(p: number): number {
  return 4 * p * (1 - p);
}

/** Chance of a shortfall on a test nobody has done: a coin where a task asks for it, else seldom (editable). */
const UNSCREENED_P = { asked: 0.5, other: 0.15 } as const;
/** Minutes that any test costs besides its own: explaining it and changing position. */
export const CHANGE_MINUTES = 1;

/** How much doing a test now would tell, and why. */
export interface TestWorth {
  readonly test: Test;
  /** Openness of "short or not" on its sides × task relevance × injury history; 0 when nothing is open. */
  readonly worth: number;
  /** The test's own minutes for both sides and what any test costs besides. */
  readonly minutes: number;
  readonly why: readonly Reason[];
}

/** The sides a test is done on. */
export function sidesOfTest(test: Test): readonly Side[] {
  return test.sides === 'central' ? ['central'] : ['left', 'right'];
}

/** Tests a chosen task asks for. */
function testsAskedByTasks(reference: Reference, input: Standing): ReadonlySet<string> {
  return new Set(
    input.athlete.tasks.flatMap((task) => reference.demands.get(task.id)?.demands.map((d) => d.test) ?? []),
  );
}

/** The worth of each test, in the order of the list given. */
export function testWorths(
  reference: Reference,
  input: Standing,
  offered: readonly Test[],
  capacities: readonly Capacity[],
): TestWorth[] {
  const asked = testsAskedByTasks(reference, input);
  return offered.map((test) => {
    const isAsked = asked.has(test.id);
    const sides = sidesOfTest(test);
    const known = capacities.filter((capacity) => capacity.test === test.id);
    const open = sides.reduce((sum, side) => {
      const p = known.find((c) => c.side === side)?.pShort;
      return sum + openness(p ?? (isAsked ? UNSCREENED_P.asked : UNSCREENED_P.other));
    }, 0);
    const about = test.informs.flatMap((id) => reference.restrictions.get(id) ?? []);
    const injured = sides.some((side) => about.some((one) => recentlyInjured(reference, input, one, side)));
    const minutes = test.timeSeconds / 60 + CHANGE_MINUTES;
    const share = open / sides.length;
    const why: Reason[] = [
      {
        rule: known.length === 0 ? 'test-never-done' : 'test-undecided',
        openness: round2(share),
        minutes: round2(test.timeSeconds / 60),
      },
    ];
    if (isAsked) why.push({ rule: 'task-asks-for-test', test: test.id });
    if (injured) why.push({ rule: 'region-injured', region: test.region });
    const relevance = isAsked ? FINDING_SETTINGS.taskRelevance : FINDING_SETTINGS.otherRelevance;
    return { test, worth: share * relevance * (injured ? FINDING_SETTINGS.injuryFactor : 1), minutes, why };
  });
}

function round2(value: number): number {
  return Math.round(value * 100) / 100;
}
