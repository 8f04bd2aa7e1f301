import type { Standing, IsoDay } from '../domain/index.ts';
import { realChange } from '../estimate/index.ts';
import type { Reference } from '../reference/index.ts';
import type { Change } from './types.ts';
import { collectVisits } from './visits.ts';

/**
 * What changed from one day to another: per test and side the newest visit up to each of the two days, signed so that
 * positive is better, and whether the change is beyond its error. A test not done anew in between gives no row. Days
 * may come in either order.
 */
export function compareDates(reference: Reference, input: Standing, one: IsoDay, other: IsoDay): Change[] {
  const [early, late] = one <= other ? [one, other] : [other, one];
  return [...collectVisits(reference, input).values()].flatMap(({ test: id, side, visits }) => {
    const test = reference.tests.get(id);
    const from = visits.findLast((visit) => visit.date <= early);
    const to = visits.findLast((visit) => visit.date <= late);
    if (!test || !from || !to || from.date === to.date) return [];
    const { difference, real } = realChange(test, from.value, to.value);
    return [
      {
        test: id,
        side,
        from: from.value,
        to: to.value,
        fromDate: from.date,
        toDate: to.date,
        difference,
        real,
      },
    ];
  });
}
