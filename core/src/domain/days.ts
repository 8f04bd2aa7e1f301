import type { IsoDay } from './vocabulary.ts';

const DAY_MS = 86_400_000;

/** Whole days since 1970-01-01 of an ISO day. */
export function dayNumber(day: IsoDay): number {
  return Math.round(Date.parse(`${day}T00:00:00Z`) / DAY_MS);
}

/** ISO day of a day number, the inverse of {@link dayNumber}. */
export function isoDay(number: number): IsoDay {
  return new Date(number * DAY_MS).toISOString().slice(0, 10);
}

/** Days from `from` to `to`; negative when `to` is earlier. */
export function daysBetween(from: IsoDay, to: IsoDay): number {
  return dayNumber(to) - dayNumber(from);
}

/** The ISO day `days` later (earlier when negative). */
export function addDays(day: IsoDay, days: number): IsoDay {
  return isoDay(dayNumber(day) + days);
}

/** Completed years from `birthDate` to `today`. */
export function ageInYears(birthDate: IsoDay, today: IsoDay): number {
  const years = Number(today.slice(0, 4)) - Number(birthDate.slice(0, 4));
  return today.slice(5) < birthDate.slice(5) ? years - 1 : years; // month and day as text sort like a calendar
}

/** The ISO day `months` earlier, clamped to the end of a shorter month. */
export function monthsBefore(day: IsoDay, months: number): IsoDay {
  const [y = 0, m = 1, d = 1] = day.split('-').map(Number);
  const first = new Date(Date.UTC(y, m - 1 - months, 1));
  const last = new Date(Date.UTC(first.getUTCFullYear(), first.getUTCMonth() + 1, 0)).getUTCDate();
  return new Date(Date.UTC(first.getUTCFullYear(), first.getUTCMonth(), Math.min(d, last)))
    .toISOString()
    .slice(0, 10);
}
