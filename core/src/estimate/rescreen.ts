import { addDays } from '../domain/index.ts';
import type { IsoDay } from '../domain/index.ts';
import type { Test } from '../reference/index.ts';
import type { Estimate } from './estimateSide.ts';
import { normalCdf } from './normal.ts';

/** Limits of the rescreen interval in days, and the probability of a wrong call that makes it due (editable). */
export const RESCREEN = { minDays: 14, maxDays: 120, wrongCall: 0.2 } as const;

/** When a test is worth doing again, and why then. */
export interface RescreenDue {
  readonly due: IsoDay;
  readonly why: 'undecided' | 'call-may-have-changed' | 'oldest-allowed';
}

/**
 * The first day on which today's call (short, or enough) is wrong with a probability above 0.2 by the growing SD
 * alone, between 14 and 120 days after the last visit. `reserve` is in the unit of the test. An undecided result is
 * due at the earliest day; grades and pain, which have no SD, at the latest.
 */
export function rescreenDue(test: Test, estimate: Estimate, reserve: number | null): RescreenDue {
  const from = estimate.last.date;
  const latest: RescreenDue = { due: addDays(from, RESCREEN.maxDays), why: 'oldest-allowed' };
  const fresh = estimate.history.at(-1);
  if (estimate.sd === null || reserve === null || !fresh || fresh.sd === null) return latest;
  const pShortNow = normalCdf(-reserve / estimate.sd);
  if (pShortNow > RESCREEN.wrongCall && pShortNow < 1 - RESCREEN.wrongCall) {
    return { due: addDays(from, RESCREEN.minDays), why: 'undecided' };
  }
  const q = test.processSdPerWeek.value;
  for (let days = RESCREEN.minDays; days < RESCREEN.maxDays; days += 1) {
    const sd = Math.sqrt(fresh.sd ** 2 + (q ** 2 * days) / 7);
    if (normalCdf(-Math.abs(reserve) / sd) > RESCREEN.wrongCall) {
      return { due: addDays(from, days), why: 'call-may-have-changed' };
    }
  }
  return latest;
}
