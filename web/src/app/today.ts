import dayjs from 'dayjs';
import customParseFormat from 'dayjs/plugin/customParseFormat';
import timezone from 'dayjs/plugin/timezone';
import utc from 'dayjs/plugin/utc';

dayjs.extend(customParseFormat);
dayjs.extend(utc);
dayjs.extend(timezone);

let practiceZone: string | undefined;

/** From now on today is what it is in this time zone (IANA name): the practice’s, not the device’s. */
export function setTimeZone(zone: string): void {
  practiceZone = zone;
}

/** Today as an ISO day in the practice's time zone; before anybody is signed in, on this device's calendar. */
export function today(): string {
  return (practiceZone ? dayjs().tz(practiceZone) : dayjs()).format('YYYY-MM-DD');
}

/** "14 Mar 2027"; the year is left out within the year shown beside it. */
export function dayText(day: string): string {
  return dayjs(day).format('D MMM YYYY');
}

/** Ways in which people write a day, the day before the month. */
const DAY_FORMATS = [
  'YYYY-MM-DD',
  'D MMM YYYY',
  'D MMMM YYYY',
  'D.M.YYYY',
  'D/M/YYYY',
  'D-M-YYYY',
  'D MMM YY',
  'D.M.YY',
  'D/M/YY',
];

/** The ISO day of something typed ("14 Mar 2027", "14.3.27", "2027-03-14"); null when it is none. */
export function parseDay(text: string): string | null {
  const day = dayjs(text.trim().replace(/\s+/g, ' '), DAY_FORMATS, true);
  return day.isValid() ? day.format('YYYY-MM-DD') : null;
}

/** An instant in the practice's time zone: "14 Mar 2027, 09:05". */
export function timeText(instant: string): string {
  const at = practiceZone ? dayjs(instant).tz(practiceZone) : dayjs(instant);
  return at.format('D MMM YYYY, HH:mm');
}

/** A day that something is due on, or since when it has been. */
export function dueText(due: string, on: string): string {
  return due <= on ? `due since ${dayText(due)}` : dayText(due);
}

/** "14 Mar". */
export function shortDay(day: string): string {
  return dayjs(day).format('D MMM');
}
