import dayjs from 'dayjs';
import customParseFormat from 'dayjs/plugin/customParseFormat.js';
import type { IsoDay } from './vocabulary.ts';

dayjs.extend(customParseFormat);

/** Which of two numbers is the day where the month is a number too and the year comes last. */
export type DayOrder = 'day-first' | 'month-first';

const WRITTEN = ['YYYY-MM-DD', 'YYYY-M-D', 'D MMM YYYY', 'D MMMM YYYY', 'D. MMM YYYY', 'D. MMMM YYYY'];
const NUMBERED: Readonly<Record<DayOrder, readonly string[]>> = {
  'day-first': ['D.M.YYYY', 'D/M/YYYY', 'D-M-YYYY'],
  'month-first': ['M.D.YYYY', 'M/D/YYYY', 'M-D-YYYY'],
};
/** With two figures for the year: only typed, where it is seen at once what was understood. */
const SHORT_YEAR = ['D MMM YY', 'D.M.YY', 'D/M/YY'];

/**
 * The ISO day of something written: 2027-03-14, 14.3.2027, 14/3/2027, 14 Mar 2027; with `shortYear` 14.3.27 too. Null when it
 * is none, or no day of the calendar.
 */
export function readDay(
  text: string,
  order: DayOrder = 'day-first',
  { shortYear = false } = {},
): IsoDay | null {
  // The library knows months with a capital and the rest small.
  const plain = text
    .trim()
    .replace(/\s+/g, ' ')
    .replace(/[a-z]+/i, (word) => word.charAt(0).toUpperCase() + word.slice(1).toLowerCase());
  const day = dayjs(plain, [...WRITTEN, ...NUMBERED[order], ...(shortYear ? SHORT_YEAR : [])], true);
  return day.isValid() ? day.format('YYYY-MM-DD') : null;
}

/** A day as it is shown everywhere: "14 Mar 2027". */
export function dayText(day: IsoDay): string {
  return dayjs(day).format('D MMM YYYY');
}
