import { addDays } from '@yonder/core/domain';
import { ApiProblem } from '../http/problem.ts';

const formats = new Map<string, Intl.DateTimeFormat>();

/** The calendar day of an instant in a time zone (IANA name), ISO. Throws a RangeError for a zone nobody knows. */
export function dayIn(timeZone: string, instant: Date): string {
  let format = formats.get(timeZone);
  if (!format) {
    format = new Intl.DateTimeFormat('en-CA', {
      timeZone,
      year: 'numeric',
      month: '2-digit',
      day: '2-digit',
    });
    formats.set(timeZone, format);
  }
  return format.format(instant);
}

/** How far ahead of today a working date may lie, so that a planned visit can be written down. */
const DAYS_AHEAD = 60;

/** Throws when a working date is too far ahead. */
export function checkWorkingDay(path: string, day: string, today: string): void {
  const last = addDays(today, DAYS_AHEAD);
  if (day <= last) return;
  throw new ApiProblem('invalid-request', {
    errors: [{ path, message: `${day} is more than ${DAYS_AHEAD} days ahead; ${last} at the latest` }],
  });
}

/** Throws when a day lies after today. */
export function checkNotAfter(path: string, day: string, today: string): void {
  if (day <= today) return;
  throw new ApiProblem('invalid-request', { errors: [{ path, message: `${day} is after today, ${today}` }] });
}
