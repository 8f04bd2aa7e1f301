import { daysBetween } from '../domain/index.ts';
import type { DiaryEntry, IsoDay, ItemSide, RoutineItem, Standing } from '../domain/index.ts';
import { PROGRESS } from './settings.ts';

/** What one session said about one drill and side. */
export interface Report {
  readonly date: IsoDay;
  readonly entry: DiaryEntry;
  readonly during: 'fine' | 'amber' | 'above-stop';
  readonly worseNextDay: boolean;
  /** Done in full, with quality, without pain beyond "fine", and not worse next day. */
  readonly clean: boolean;
}

type Concerned = Pick<RoutineItem, 'id' | 'drill' | 'side'>;

function sharesSide(entry: DiaryEntry, side: ItemSide): boolean {
  return entry.side === side || entry.side === 'both' || side === 'both' || side === 'central';
}

/** Was the item's own drill done, in whatever routine? */
function isOwn(entry: DiaryEntry, item: Concerned): boolean {
  return entry.drill === item.drill && sharesSide(entry, item.side);
}

/** Was another drill done in the item's place? */
function stoodIn(entry: DiaryEntry, item: Concerned): boolean {
  if (entry.swappedFor !== item.drill || entry.drill === item.drill) return false;
  return entry.item !== undefined && item.id !== undefined
    ? entry.item === item.id
    : sharesSide(entry, item.side);
}

function reportOf(date: IsoDay, entry: DiaryEntry, limits: { fine: number; stop: number }): Report {
  const during = entry.pain <= limits.fine ? 'fine' : entry.pain <= limits.stop ? 'amber' : 'above-stop';
  const worseNextDay =
    entry.nextDayPain !== null && entry.nextDayPain > entry.painBefore + PROGRESS.nextDayTolerance;
  const quality = entry.quality === null || entry.quality > PROGRESS.poorQuality;
  return {
    date,
    entry,
    during,
    worseNextDay,
    clean: entry.done === 'all' && quality && during === 'fine' && !worseNextDay,
  };
}

/** The worse of two reports of one day (left and right logged apart): pain first, then what was not clean. */
function worse(a: Report, b: Report): Report {
  if (a.entry.pain !== b.entry.pain) return a.entry.pain > b.entry.pain ? a : b;
  if (a.worseNextDay !== b.worseNextDay) return a.worseNextDay ? a : b;
  return a.clean ? b : a;
}

/** Reports on an item, oldest first, one a day: sides logged apart count as the worse of the two. */
export function reportsOf(
  input: Standing,
  item: Concerned,
  limits: { fine: number; stop: number },
): Report[] {
  const sessions = [...input.diary]
    .filter((s) => s.date <= input.today)
    .sort((a, b) => (a.date < b.date ? -1 : 1));
  const byDay = new Map<IsoDay, Report>();
  for (const session of sessions) {
    for (const entry of session.entries) {
      // A drill left out says nothing; one that was stopped for pain before its first set says a lot.
      const leftOut = entry.done === 'none' && entry.pain === 0;
      if (leftOut || (!isOwn(entry, item) && !stoodIn(entry, item))) continue;
      const report = reportOf(session.date, entry, limits);
      // A drill that stood in proves nothing of this one; what hurt in it counts for both (rulings, "Record").
      if (!isOwn(entry, item) && report.during === 'fine' && !report.worseNextDay) continue;
      const known = byDay.get(session.date);
      byDay.set(session.date, known ? worse(known, report) : report);
    }
  }
  return [...byDay.values()];
}

/** How many of the newest reports in a row satisfy a condition. */
export function running(reports: readonly Report[], holds: (report: Report) => boolean): number {
  let count = 0;
  for (let i = reports.length - 1; i >= 0; i -= 1) {
    const report = reports[i];
    if (!report || !holds(report)) break;
    count += 1;
  }
  return count;
}

/** Days since the last report; null without one. */
export function daysSinceLast(reports: readonly Report[], today: IsoDay): number | null {
  const last = reports.at(-1);
  return last ? daysBetween(last.date, today) : null;
}
