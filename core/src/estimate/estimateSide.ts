import { daysBetween } from '../domain/index.ts';
import type { IsoDay } from '../domain/index.ts';
import { isContinuous } from '../measure/index.ts';
import type { Test } from '../reference/index.ts';
import { predictLevel, startLevel, updateLevel } from './localLevel.ts';
import type { LevelState } from './localLevel.ts';

/** One visit's aggregate of a test and side. */
export interface Visit {
  readonly date: IsoDay;
  readonly value: number;
  /** Pain 0–10 with the test, when asked. */
  readonly pain: number | null;
  /** Error of this result when its trials lay far apart; the test's SEM otherwise. */
  readonly sd?: number;
}

/** Why a filter starts anew: what was before says nothing of now. */
export type RestartReason = 'injury' | 'long-break' | 'real-loss' | 'real-change';

/** Best estimate of one test and side in the unit of the test, with its error. */
export interface Estimate {
  readonly mean: number;
  /** SD at `today`; null for grades, points and pain, whose last value counts. */
  readonly sd: number | null;
  readonly last: Visit;
  readonly visits: readonly Visit[];
  /** The filter's mean and SD right after each visit. */
  readonly history: readonly { date: IsoDay; mean: number; sd: number | null }[];
  /** Why the filter started anew, and when; null if it never did. */
  readonly restarted: { date: IsoDay; because: RestartReason } | null;
}

/** Weeks without a result after which the filter restarts (rulings, "Estimate", editable). */
export const RESTART_AFTER_WEEKS = 52;

function restartReason(previous: IsoDay, date: IsoDay, hurtOn: readonly IsoDay[]): RestartReason | null {
  if (hurtOn.some((day) => day > previous && day <= date)) return 'injury';
  return daysBetween(previous, date) > RESTART_AFTER_WEEKS * 7 ? 'long-break' : null;
}

/** Which way a result lies beyond the error of a test (MDC95 = 2.77·SEM) from what was expected: 1 better, −1 worse, 0 within. */
function beyondError(test: Test, expected: number, value: number): -1 | 0 | 1 {
  if (Math.abs(value - expected) <= 2.77 * test.sem.value) return 0;
  return value > expected === (test.better !== 'lower') ? 1 : -1;
}

/**
 * Local-level filter over the dated visits of one test and side (FORMULAS 16). Visits must be sorted by date.
 * Mean and SD are in the unit of the test; the SD has grown up to `today`. Starts anew after a day of injury, after a year,
 * at a loss beyond the error of the test, and at the second gain beyond it running. Null without visits.
 */
export function estimateSide(
  test: Test,
  visits: readonly Visit[],
  hurtOn: readonly IsoDay[],
  today: IsoDay,
): Estimate | null {
  const last = visits.at(-1);
  if (!last) return null;
  if (!isContinuous(test)) {
    const history = visits.map((visit) => ({ date: visit.date, mean: visit.value, sd: null }));
    return { mean: last.value, sd: null, last, visits, history, restarted: null };
  }
  const q = test.processSdPerWeek.value;
  let state: LevelState | null = null;
  let restarted: Estimate['restarted'] = null;
  let gains = 0;
  const history: { date: IsoDay; mean: number; sd: number }[] = [];
  visits.forEach((visit, index) => {
    const sem = visit.sd ?? test.sem.value;
    const previous = visits[index - 1];
    const expected =
      state && previous ? predictLevel(state, q, daysBetween(previous.date, visit.date) / 7) : null;
    const beyond = expected ? beyondError(test, expected.mean, visit.value) : 0;
    gains = beyond > 0 ? gains + 1 : 0;
    const changed = beyond < 0 ? 'real-loss' : gains >= 2 ? 'real-change' : null;
    const reason = previous ? (restartReason(previous.date, visit.date, hurtOn) ?? changed) : null;
    if (!expected || reason) {
      state = startLevel(visit.value, sem);
      gains = 0;
      if (reason) restarted = { date: visit.date, because: reason };
    } else state = updateLevel(expected, visit.value, sem);
    history.push({ date: visit.date, mean: state.mean, sd: Math.sqrt(state.variance) });
  });
  const latest = history.at(-1);
  if (!latest) return null;
  const now = predictLevel(
    { mean: latest.mean, variance: latest.sd ** 2 },
    q,
    daysBetween(last.date, today) / 7,
  );
  return { mean: now.mean, sd: Math.sqrt(now.variance), last, visits, history, restarted };
}
