import { dayText, readDay } from '@yonder/core/domain';
import dayjs from 'dayjs';
import timezone from 'dayjs/plugin/timezone';
import utc from 'dayjs/plugin/utc';

dayjs.extend(utc);
dayjs.extend(timezone);

export { dayText };

let practiceZone: string | undefined;

/** From now on today is what it is in this time zone (IANA name): the practice’s, not the device’s. */
export function setTimeZone(zone: string): void {
  practiceZone = zone;
}

/** Today as an ISO day in the practice's time zone; before anybody is signed in, on this device's calendar. */
export function today(): string {
  return (practiceZone ? dayjs().tz(practiceZone) : dayjs()).format('YYYY-MM-DD');
}

/** The ISO day of something typed ("14 Mar 2027", "14.3.27", "2027-03-14"); null when it is none. */
export const parseDay = (text: string): string | null => readDay(text, 'day-first', { shortYear: true });

/** An instant in the practice's time zone: "14 Mar 2027, 09:05". */
export function timeText(instant: string): string {
  const at = practiceZone ? dayjs(instant).tz(practiceZone) : dayjs(instant);
  return at.format('D MMM YYYY, HH:mm');
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
