import { dayText, readDay } from '@yonder/core/domain';
import dayjs from 'dayjs';
import timezone from 'dayjs/plugin/timezone';
import utc from 'dayjs/plugin/utc';
import { practiceZone } from './practiceZone.ts';

dayjs.extend(utc);
dayjs.extend(timezone);

export { dayText };

/** A moment on the practice's clock; before anybody is signed in, on this device's. */
function local(instant?: string): dayjs.Dayjs {
  const zone = practiceZone();
  return zone ? dayjs(instant).tz(zone) : dayjs(instant);
}

/** Today as an ISO day in the practice's time zone; before anybody is signed in, on this device's calendar. */
export function today(): string {
  return local().format('YYYY-MM-DD');
}

/** The ISO day of something typed ("14 Mar 2027", "14.3.27", "2027-03-14"); null when it is none. */
export const parseDay = (text: string): string | null => readDay(text, 'day-first', { shortYear: true });

/** An instant in the practice's time zone: "14 Mar 2027, 09:05". */
export function timeText(instant: string): string {
  return local(instant).format('D MMM YYYY, HH:mm');
}

/** A day that something is due on, or since when it has been. */
export function dueText(due: string, on: string): string {
  return due <= on ? `due since ${dayText(due)}` : dayText(due);
}

/** The day of the week and of the month: "Friday 27 November". */
export function weekdayText(day: string): string {
  return dayjs(day).format('dddd D MMMM');
}

/** "14 Mar". */
export function shortDay(day: string): string {
  return dayjs(day).format('D MMM');
}
