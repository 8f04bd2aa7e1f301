import type { IsoDay, Screening, Side } from '../domain/index.ts';
import type { Reference } from '../reference/index.ts';

/** A finding that is said to be short: likely or certain, and not set aside. The one count of panel, trail and list. */
export function isShort({ priority, state }: { priority: number; state: string }): boolean {
  return priority > 0 && (state === 'short' || state === 'likely-short');
}

/**
 * Was a restriction measured on this side after one day and up to another? Only then can it be said to have changed: an
 * estimate that grew uncertain with time is no change.
 */
export function measuredBetween(
  reference: Reference,
  screenings: readonly Screening[],
  { restriction, side }: { readonly restriction: string; readonly side: Side },
  after: IsoDay,
  until: IsoDay,
): boolean {
  const tests = new Set(reference.restrictions.get(restriction)?.tests ?? []);
  return screenings.some(
    ({ date, results }) =>
      date > after &&
      date <= until &&
      results.some((result) => tests.has(result.test) && (result.side === side || side === 'central')),
  );
}
