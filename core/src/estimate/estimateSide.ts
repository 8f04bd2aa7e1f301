import { daysBetween } from '../domain/index.ts';
import type { Athlete, IsoDay, Side } from '../domain/index.ts';
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
  readonly restarted: { date: IsoDay; because: 'injury' | 'long-break' } | null;
}

/** Weeks without a result after which the filter restarts (rulings, "Estimate", editable). */
export const RESTART_AFTER_WEEKS = 52;

function restartReason(
  test: Test,
  side: Side,
  previous: IsoDay,
  date: IsoDay,
  injuries: Athlete['injuries'],
): 'injury' | 'long-break' | null {
  const injured = injuries.some(
    (injury) =>
      injury.region === test.region &&
      (injury.side === side || injury.side === 'central' || side === 'central') &&
      injury.date > previous &&
      injury.date <= date,
  );
  if (injured) return 'injury';
  return daysBetween(previous, date) > RESTART_AFTER_WEEKS * 7 ? 'long-break' : null;
}

/**
 * Local-level filter over the dated visits of one test and side (FORMULAS 16). Visits must be sorted by date.
 * Mean and SD are in the unit of the test; the SD has grown up to `today`. Null without visits.
 */
export function estimateSide(
  test: Test,
  side: Side,
  visits: readonly Visit[],
  injuries: Athlete['injuries'],
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
  const history: { date: IsoDay; mean: number; sd: number }[] = [];
  visits.forEach((visit, index) => {
    const sem = visit.sd ?? test.sem.value;
    const previous = visits[index - 1];
    const reason = previous ? restartReason(test, side, previous.date, visit.date, injuries) : null;
    if (!state || !previous || reason) {
      state = startLevel(visit.value, sem);
      if (reason) restarted = { date: visit.date, because: reason };
    } else {
      state = updateLevel(
        predictLevel(state, q, daysBetween(previous.date, visit.date) / 7),
        visit.value,
        sem,
      );
    }
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
