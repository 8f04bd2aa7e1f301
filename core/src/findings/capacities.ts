import type { IsoDay, Standing, Side } from '../domain/index.ts';
import { estimateSide } from '../estimate/index.ts';
import type { Estimate, Visit } from '../estimate/index.ts';
import type { Reference, Test } from '../reference/index.ts';
import { covers, involves, isBlocked, testAllowed } from '../safety/index.ts';
import type { SafetyState } from '../safety/index.ts';
import { collectVisits, testSideKey } from './visits.ts';

/** A test and side with its estimate. */
export interface TestSide {
  readonly test: Test;
  readonly side: Side;
  readonly estimate: Estimate;
}

function mean(values: readonly number[]): number {
  return values.reduce((sum, v) => sum + v, 0) / values.length;
}

/** Visits on which every component was measured, with the mean of the components. */
function compositeVisits(parts: readonly Estimate[]): Visit[] {
  const [first, ...others] = parts;
  if (!first) return [];
  return first.visits.flatMap((visit) => {
    const same = others.map((part) => part.visits.find((v) => v.date === visit.date));
    if (same.some((v) => v === undefined)) return [];
    const all = [visit, ...same.filter((v) => v !== undefined)];
    const pains = all.map((v) => v.pain).filter((p) => p !== null);
    return [
      {
        date: visit.date,
        value: mean(all.map((v) => v.value)),
        pain: pains.length ? Math.max(...pains) : null,
      },
    ];
  });
}

/** Composite of several tests: mean of their estimates, sd = √Σsd² ÷ n (rulings). */
function compositeEstimate(parts: readonly Estimate[]): Estimate | null {
  const sds = parts.map((part) => part.sd);
  if (sds.some((sd) => sd === null)) return null;
  const sdOf = (list: readonly (number | null)[]) =>
    Math.sqrt(list.reduce<number>((sum, sd) => sum + (sd ?? 0) ** 2, 0)) / parts.length;
  const visits = compositeVisits(parts);
  const newest = parts.map((p) => p.last).reduce((a, b) => (b.date > a.date ? b : a));
  const pains = parts.map((p) => p.last.pain).filter((p) => p !== null);
  return {
    mean: mean(parts.map((part) => part.mean)),
    sd: sdOf(sds),
    last: {
      date: newest.date,
      value: mean(parts.map((part) => part.last.value)),
      pain: pains.length ? Math.max(...pains) : null,
    },
    visits,
    history: visits.map((visit) => {
      const at = parts.map((part) => part.history.find((h) => h.date === visit.date));
      return {
        date: visit.date,
        mean: mean(at.map((h) => h?.mean ?? 0)),
        sd: sdOf(at.map((h) => h?.sd ?? 0)),
      };
    }),
    restarted: null,
  };
}

/** Days on which a test's region was hurt on a side. */
function hurtOn(reference: Reference, { athlete }: Standing, test: Test, side: Side): IsoDay[] {
  return athlete.injuries
    .filter((one) => covers(one.side, side) && involves(reference, one, test.region))
    .map(({ date }) => date);
}

/** Estimates of every screened test and side that may be shown today, derived tests included. */
export function estimateAll(
  reference: Reference,
  input: Standing,
  safety: SafetyState,
): Map<string, TestSide> {
  const estimates = new Map<string, TestSide>();
  const shown = (test: Test, side: Side) => testAllowed(safety.gates, test, side);
  for (const { test: id, side, visits } of collectVisits(reference, input).values()) {
    const test = reference.tests.get(id);
    if (!test || test.derivedFrom || !shown(test, side)) continue;
    const estimate = estimateSide(test, visits, hurtOn(reference, input, test, side), input.today);
    if (estimate) estimates.set(testSideKey(id, side), { test, side, estimate });
  }
  for (const test of reference.data.tests) {
    if (!test.derivedFrom) continue;
    for (const side of ['left', 'right', 'central'] as const) {
      const parts = test.derivedFrom.map((part) => estimates.get(testSideKey(part, side))?.estimate);
      if (parts.some((part) => part === undefined) || !shown(test, side)) continue;
      const estimate = compositeEstimate(parts.filter((part) => part !== undefined));
      if (estimate) estimates.set(testSideKey(test.id, side), { test, side, estimate });
    }
  }
  return estimates;
}

/** Tests that may be done today: not in a blocked region, ticked where a protocol leads, youth-suitable. */
export function offeredTests(reference: Reference, safety: SafetyState, youthAge: number): Test[] {
  return reference.data.tests.filter(
    (test) =>
      !test.derivedFrom &&
      !isBlocked(safety.blocks, test.region) &&
      (safety.age >= youthAge || test.youthOk) &&
      (['left', 'right', 'central'] as const).some((side) => testAllowed(safety.gates, test, side)),
  );
}
