import type { Standing, Side } from '../domain/index.ts';
import { isContinuous, NEWTON_REFERENCE_MASS_KG } from '../measure/index.ts';
import type { Reference, Test } from '../reference/index.ts';
import { YOUTH_AGE } from '../safety/index.ts';
import type { NeedKind } from './types.ts';

/** A need of one side with its source, in the unit of the test. */
export interface Need {
  readonly value: number;
  readonly source: { readonly kind: NeedKind; readonly id: string };
}

/** What a side needs of a test, by source; the greatest counts. */
export interface NeedsOfSide {
  readonly needs: readonly Need[];
  /** The most demanding need, or the override; null when none applies. */
  readonly decisive: Need | null;
  /** A floor or demand in raw newtons that needs body mass to be scaled: shown, not used. */
  readonly unused: number | null;
  /** What is asked of the age the figure is for, where the athlete is younger or older: not used. */
  readonly adult: number | null;
}

function demandApplies(
  demandSide: 'lead' | 'trail' | 'both',
  lead: 'left' | 'right' | 'either',
  side: Side,
): boolean {
  if (side === 'central' || demandSide === 'both' || lead === 'either') return true;
  return demandSide === 'lead' ? side === lead : side !== lead;
}

/** The more demanding of two needs: higher for "more is better" and band tests, lower where less is better. */
function moreDemanding(test: Test, a: Need, b: Need): Need {
  return test.better === 'lower' ? (b.value < a.value ? b : a) : b.value > a.value ? b : a;
}

function taskNeed(
  reference: Reference,
  test: Test,
  side: Side,
  tasks: Standing['athlete']['tasks'],
): Need | null {
  const needs = tasks.flatMap((task) =>
    (reference.demands.get(task.id)?.demands ?? [])
      .filter((demand) => demand.test === test.id && demandApplies(demand.side, task.lead, side))
      .map((demand): Need => ({ value: demand.value, source: { kind: 'task', id: task.id } })),
  );
  return needs.length === 0 ? null : needs.reduce((a, b) => moreDemanding(test, a, b));
}

function floorNeed(test: Test): Need | null {
  const deficit = test.flag.deficit;
  const value = test.better === 'lower' ? deficit?.above : deficit?.below;
  return value === undefined ? null : { value, source: { kind: 'floor', id: test.id } };
}

/** Raw newtons are scaled by body mass ÷ 75 kg; null when the mass is unknown. */
function scaled(test: Test, need: Need | null, bodyMassKg: number | null): Need | null {
  if (!need || test.unit !== 'N') return need;
  return bodyMassKg === null
    ? null
    : { ...need, value: (need.value * bodyMassKg) / NEWTON_REFERENCE_MASS_KG };
}

/** Is somebody older than those a test's figures are for? What a task asks is asked at any age. */
export function isBeyondNorm(test: Test, age: number): boolean {
  const { ages } = test.reference;
  return ages !== undefined && age > ages.to;
}

/**
 * Needs of one test and side: an override replaces task and floor. Under the youth age there is no adult demand, and
 * a floor only for grades, points and pain; beyond the age a floor is for there is no floor. Symmetry is judged beside it.
 */
export function needsOfSide(
  reference: Reference,
  test: Test,
  side: Side,
  input: Standing,
  age: number,
): NeedsOfSide {
  const override = input.needs.find((o) => o.test === test.id && o.side === side);
  if (override) {
    const need: Need = { value: override.value, source: { kind: 'override', id: test.id } };
    return { needs: [need], decisive: need, unused: null, adult: null };
  }
  const youth = age < YOUTH_AGE;
  const task = taskNeed(reference, test, side, input.athlete.tasks);
  const floor = floorNeed(test);
  const asked = [task, floor];
  const raw = [youth ? null : task, (youth && isContinuous(test)) || isBeyondNorm(test, age) ? null : floor];
  const adults = asked.filter((need, i) => need !== null && raw[i] === null);
  const adult = adults
    .map((need) => scaled(test, need, input.athlete.bodyMassKg))
    .filter((need) => need !== null);
  const needs = raw
    .map((need) => scaled(test, need, input.athlete.bodyMassKg))
    .filter((need) => need !== null);
  const lost =
    raw.find((need) => need !== null && scaled(test, need, input.athlete.bodyMassKg) === null) ?? null;
  return {
    needs,
    decisive: needs.length === 0 ? null : needs.reduce((a, b) => moreDemanding(test, a, b)),
    unused: lost?.value ?? null,
    adult: adult.length === 0 ? null : adult.reduce((a, b) => moreDemanding(test, a, b)).value,
  };
}
