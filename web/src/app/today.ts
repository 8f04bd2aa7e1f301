import dayjs from 'dayjs';

/** Today as an ISO day on this device's calendar. */
export function today(): string {
  return dayjs().format('YYYY-MM-DD');
}

/** "14 Mar 2027"; the year is left out within the year shown beside it. */
export function dayText(day: string): string {
  return dayjs(day).format('D MMM YYYY');
}

/** "14 Mar". */
export function shortDay(day: string): string {
  return dayjs(day).format('D MMM');
}
