import { addDays } from '@yonder/core/domain';
import { ApiProblem } from '../http/problem.ts';

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
