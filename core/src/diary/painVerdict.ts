import { running } from './reports.ts';
import type { Report } from './reports.ts';
import { DIARY } from './settings.ts';

/** What the pain of the last sessions of a drill asks for, what it rests on, and in how many sessions. */
export interface PainVerdict {
  readonly ask: 'refer' | 'ease' | 'keep';
  readonly because: 'above-limit' | 'above-limit-often' | 'amber' | 'worse-next-day';
  readonly times: number;
}

/**
 * The one reading of pain in a diary (rulings, "Pain and progression"). Above the stop limit: ease; twice running, or in
 * three of the last five sessions: refer. Between the limits twice running: ease. Worse next day: keep, twice ease, three
 * times refer. Null when pain asks for nothing.
 */
export function painVerdict(reports: readonly Report[]): PainVerdict | null {
  const above = running(reports, (r) => r.during === 'above-stop');
  if (above >= 2) return { ask: 'refer', because: 'above-limit', times: above };
  const { times, among } = DIARY.pattern;
  const often = reports.slice(-among).filter((r) => r.during === 'above-stop').length;
  if (often >= times) return { ask: 'refer', because: 'above-limit-often', times: often };
  const worse = running(reports, (r) => r.worseNextDay);
  if (worse >= 3) return { ask: 'refer', because: 'worse-next-day', times: worse };
  if (above === 1) return { ask: 'ease', because: 'above-limit', times: 1 };
  const amber = running(reports, (r) => r.during !== 'fine');
  if (amber >= 2) return { ask: 'ease', because: 'amber', times: amber };
  if (worse === 0) return null;
  return { ask: worse === 2 ? 'ease' : 'keep', because: 'worse-next-day', times: worse };
}
