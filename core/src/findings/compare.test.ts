import { describe, expect, it } from 'vitest';
import { bundledReference } from '../reference/bundled.ts';
import { caseOf, result } from '../testing/cases.ts';
import { compareDates } from './index.ts';
import { judgeCase, standingOf } from '../testing/prepared.ts';

const visit = (date: string, lunge: number, reps?: number) => ({
  date,
  results: [
    result('wblt-distance', 'left', lunge),
    ...(reps === undefined ? [] : [result('heel-raise-reps', 'left', reps)]),
  ],
});
// MDC95 of the lunge is 1.66 cm.
const input = caseOf({
  screenings: [visit('2026-10-01', 6, 20), visit('2026-12-01', 7), visit('2027-02-01', 9, 20)],
});
const compare = (a: string, b: string) => compareDates(bundledReference, standingOf(input), a, b);

describe('two dates compared', () => {
  it('takes the newest visit up to each day and says whether the change is real', () => {
    expect(compare('2026-10-15', '2027-02-15')).toMatchObject([
      { test: 'wblt-distance', fromDate: '2026-10-01', toDate: '2027-02-01', difference: 3, real: 'yes' },
      { test: 'heel-raise-reps', difference: 0, real: 'no' },
    ]);
    expect(compare('2026-10-01', '2026-12-31')).toMatchObject([{ difference: 1, real: 'no' }]);
  });

  it('does not care which day is named first, and finds nothing where nothing was done anew', () => {
    expect(compare('2027-02-15', '2026-10-15')).toEqual(compare('2026-10-15', '2027-02-15'));
    expect(compare('2026-12-02', '2026-12-30')).toEqual([]);
    expect(compare('2026-01-01', '2027-02-15')).toEqual([]);
  });

  it('agrees with the changes since the last time', () => {
    const { changes } = judgeCase(bundledReference, input);
    const lunge = changes.find((c) => c.test === 'wblt-distance');
    expect(compare('2026-12-01', '2027-02-01').find((c) => c.test === 'wblt-distance')).toEqual(lunge);
  });
});
