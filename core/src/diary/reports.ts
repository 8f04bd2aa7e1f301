import { daysBetween } from '../domain/index.ts';
import type { DiaryEntry, DiarySession, IsoDay, ItemSide, RoutineItem } from '../domain/index.ts';
import { DIARY } from './settings.ts';

/** Upper end of "fine" pain, and what it stops above; 0–10. */
export interface PainLimits {
  readonly fine: number;
  readonly stop: number;
}

/** What one session said about one drill and side. */
export interface Report {
  readonly date: IsoDay;
  readonly entry: DiaryEntry;
  /** Pain against the limits; a next morning above the stop limit counts as pain above it, whatever it was before. */
  readonly during: 'fine' | 'amber' | 'above-stop';
  /** The pain that decided `during`, 0–10, and whether it was the next morning's. */
  readonly nrs: number;
  readonly atMorning: boolean;
  /** Worse the next day than before; null while the morning was not asked or answered. */
  readonly worseNextDay: boolean | null;
  /** Done in full, with quality, without pain beyond "fine", and calm next morning; null while that morning is unknown. */
  readonly clean: boolean | null;
}

type Concerned = Pick<RoutineItem, 'id' | 'drill' | 'side'>;

function sharesSide(entry: DiaryEntry, side: ItemSide): boolean {
  return entry.side === side || entry.side === 'both' || side === 'both' || side === 'central';
}

/** Was the item's own drill done, in whatever routine? */
function isOwn(entry: DiaryEntry, item: Concerned): boolean {
  return entry.drill === item.drill && sharesSide(entry, item.side);
}

/** A drill left out says nothing; one that was stopped for pain before its first set says a lot. */
export function wasLeftOut({ done, pain, nextDayPain }: DiaryEntry): boolean {
  return done === 'none' && pain === 0 && (nextDayPain ?? 0) === 0;
}

/** Was another drill done in the item's place? */
function stoodIn(entry: DiaryEntry, item: Concerned): boolean {
  if (entry.swappedFor !== item.drill || entry.drill === item.drill) return false;
  return entry.item !== undefined && item.id !== undefined
    ? entry.item === item.id
    : sharesSide(entry, item.side);
}

function reportOf(date: IsoDay, entry: DiaryEntry, limits: PainLimits): Report {
  const { pain, nextDayPain, painBefore } = entry;
  const atMorning = nextDayPain !== null && nextDayPain > limits.stop && nextDayPain > pain;
  const nrs = atMorning ? nextDayPain : pain;
  const during = nrs <= limits.fine ? 'fine' : nrs <= limits.stop ? 'amber' : 'above-stop';
  const worseNextDay = nextDayPain === null ? null : nextDayPain > painBefore + DIARY.nextDayTolerance;
  const quality = entry.quality === null || entry.quality > DIARY.poorQuality;
  const good = entry.done === 'all' && quality && during === 'fine';
  const calm = nextDayPain === null ? null : !worseNextDay && nextDayPain <= limits.fine;
  return { date, entry, during, nrs, atMorning, worseNextDay, clean: good ? calm : false };
}

/** The worse of two reports of one day (left and right logged apart): pain first, then what was not clean. */
function worse(a: Report, b: Report): Report {
  if (a.nrs !== b.nrs) return a.nrs > b.nrs ? a : b;
  if (a.worseNextDay !== b.worseNextDay) return a.worseNextDay === true ? a : b.worseNextDay ? b : a;
  return a.clean === true ? b : a;
}

/** Reports on an item up to a day, oldest first, one a day: sides logged apart count as the worse of the two. */
export function reportsOf(
  { diary, today }: { readonly diary: readonly DiarySession[]; readonly today: IsoDay },
  item: Concerned,
  limits: PainLimits,
): Report[] {
  const sessions = [...diary].filter((s) => s.date <= today).sort((a, b) => (a.date < b.date ? -1 : 1));
  const byDay = new Map<IsoDay, Report>();
  for (const session of sessions) {
    for (const entry of session.entries) {
      if (wasLeftOut(entry) || (!isOwn(entry, item) && !stoodIn(entry, item))) continue;
      const report = reportOf(session.date, entry, limits);
      // A drill that stood in proves nothing of this one; what hurt in it counts for both (rulings, "Record").
      if (!isOwn(entry, item) && report.during === 'fine' && report.worseNextDay !== true) continue;
      const known = byDay.get(session.date);
      byDay.set(session.date, known ? worse(known, report) : report);
    }
  }
  return [...byDay.values()];
}

/**
 * How many of the newest reports in a row satisfy a condition. What is unknown (null) neither counts nor breaks the row:
 * a morning that nobody answered is not a calm one.
 */
export function running(reports: readonly Report[], holds: (report: Report) => boolean | null): number {
  let count = 0;
  for (let i = reports.length - 1; i >= 0; i -= 1) {
    const held = holds(reports[i] as Report);
    if (held === false) break;
    if (held === true) count += 1;
  }
  return count;
}

/** Days since the last report; null without one. */
export function daysSinceLast(reports: readonly Report[], today: IsoDay): number | null {
  const last = reports.at(-1);
  return last ? daysBetween(last.date, today) : null;
}
