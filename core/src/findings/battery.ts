import type { Standing } from '../domain/index.ts';
import type { Reference, Test } from '../reference/index.ts';
import { YOUTH_AGE } from '../safety/index.ts';
import type { SafetyState } from '../safety/index.ts';
import { offeredTests } from './capacities.ts';
import type { Capacity } from './types.ts';
import type { Reason } from '../reasons/index.ts';
import { testWorths } from './worth.ts';
import type { TestWorth } from './worth.ts';

/** Seconds a change costs between two tests (editable). */
export const BATTERY_SECONDS = { position: 20, kit: 20 } as const;
/** A test that would tell less than this is not proposed: its answer is known well enough (editable). */
const LEAST_WORTH = 0.15;

/** The order in which an athlete goes through positions: upright first, then down to the floor, hanging last. */
const POSITION_ORDER = [
  'standing',
  'single-leg-standing',
  'moving',
  'seated',
  'half-kneeling',
  'quadruped',
  'side-lying',
  'supine',
  'prone',
  'hanging',
];
/** Within a position: what tires or provokes comes last, so that it does not spoil what follows. */
const QUANTITY_ORDER = [
  'range',
  'movement-quality',
  'balance',
  'power',
  'strength',
  'endurance-hold',
  'endurance-reps',
  'provocation',
];

/** A test of a proposed visit: minutes it takes and what it is worth. */
export interface BatteryTest {
  readonly test: string;
  readonly why: readonly Reason[];
  /** Both sides with set-up, and the change of position or kit before it. */
  readonly seconds: number;
}

/** A proposed visit: tests in their order and the minutes they take. */
export interface Battery {
  readonly tests: readonly BatteryTest[];
  readonly totalSeconds: number;
  readonly positionChanges: number;
  readonly kitChanges: number;
  /** Tests worth doing that the minutes leave no room for, most worth first. */
  readonly leftOut: readonly string[];
}

function compareInVisit(a: Test, b: Test): number {
  return (
    POSITION_ORDER.indexOf(a.position) - POSITION_ORDER.indexOf(b.position) ||
    QUANTITY_ORDER.indexOf(a.quantity) - QUANTITY_ORDER.indexOf(b.quantity) ||
    (a.equipment < b.equipment ? -1 : a.equipment > b.equipment ? 1 : a.id < b.id ? -1 : 1)
  );
}

function timed(chosen: readonly TestWorth[]): Omit<Battery, 'leftOut'> {
  const order = [...chosen].sort((a, b) => compareInVisit(a.test, b.test));
  let positionChanges = 0;
  let kitChanges = 0;
  const tests = order.map(({ test, why }, index): BatteryTest => {
    const before = order[index - 1]?.test;
    const moved = before !== undefined && before.position !== test.position;
    const otherKit = before !== undefined && before.equipment !== test.equipment;
    positionChanges += Number(moved);
    kitChanges += Number(otherKit);
    const change = (moved ? BATTERY_SECONDS.position : 0) + (otherKit ? BATTERY_SECONDS.kit : 0);
    return { test: test.id, why, seconds: test.timeSeconds + change };
  });
  const totalSeconds = tests.reduce((sum, test) => sum + test.seconds, 0);
  return { tests, totalSeconds, positionChanges, kitChanges };
}

/** The part of an assessment that proposing tests needs. */
export interface Offering {
  readonly reference: Reference;
  readonly standing: Standing;
  readonly safety: SafetyState;
  readonly report: { readonly capacities: readonly Capacity[] };
}

/**
 * The tests a visit of so many minutes should hold: most worth per minute first while they fit, then ordered so that
 * the athlete changes position and kit rarely and tiring tests come late. `done` are tests of this visit already
 * entered; they are not proposed again. Pure; the clock is the day of the standing.
 */
export function proposeBattery(
  assessed: Offering,
  minutes: number,
  done: ReadonlySet<string> = new Set(),
): Battery {
  const { reference, standing: input, safety } = assessed;
  const { capacities } = assessed.report;
  const offered = offeredTests(reference, safety, YOUTH_AGE).filter((test) => !done.has(test.id));
  const candidates = testWorths(reference, input, offered, capacities)
    .filter(({ worth }) => worth >= LEAST_WORTH && worth > 0)
    .sort((a, b) => b.worth / b.minutes - a.worth / a.minutes || (a.test.id < b.test.id ? -1 : 1));
  const chosen: TestWorth[] = [];
  const leftOut: string[] = [];
  for (const candidate of candidates) {
    if (timed([...chosen, candidate]).totalSeconds <= minutes * 60) chosen.push(candidate);
    else leftOut.push(candidate.test.id);
  }
  return { ...timed(chosen), leftOut };
}
