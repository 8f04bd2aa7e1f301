import { describe, expect, it } from 'vitest';
import { caseOf, item } from '../testing/cases.ts';
import {
  atOccasion,
  inForceOf,
  occasionOf,
  OCCASION_MODE,
  OCCASIONS,
  usualMinutes,
  usualRequest,
} from './index.ts';

const routine = (occasion: string | undefined, mode: 'prepare' | 'build' = 'prepare') => ({
  issued: '2027-02-01',
  mode,
  items: [item('cat-camel')],
  ...(occasion ? { occasion } : {}),
});
const record = caseOf({
  routine: routine('at-home'),
  others: [routine('travel'), routine('before-training')],
} as never);

describe('routines of a record by occasion', () => {
  it('one from before occasions were kept is told by what it does', () => {
    expect(occasionOf({ mode: 'prepare' })).toBe('before-training');
    expect(occasionOf({ mode: 'build' })).toBe('on-its-own');
  });
  it('stand in the order of the occasions, whichever is at hand', () => {
    expect(inForceOf(record).map(occasionOf)).toEqual(['before-training', 'at-home', 'travel']);
  });
  it('any can be at hand, with the others beside it; the same one changes nothing', () => {
    const travelling = atOccasion(record, 'travel');
    expect(travelling.routine?.occasion).toBe('travel');
    expect(travelling.others.map(occasionOf)).toEqual(['before-training', 'at-home']);
    expect(atOccasion(record, 'at-home')).toBe(record);
    expect(atOccasion(record, 'after')).toMatchObject({ routine: null });
    expect(atOccasion(record, 'after').others).toHaveLength(3);
  });
});

describe('what is asked for at first', () => {
  const athlete = { minutes: 12, minutesBuild: 20, minutesRestore: null };
  it('are the minutes of the mode, those before activity where none are kept', () => {
    expect(['prepare', 'build', 'restore'].map((mode) => usualMinutes(athlete, mode as never))).toEqual([
      12, 20, 12,
    ]);
  });
  it('is the mode of the occasion; at short notice the rapid form in five minutes', () => {
    const request = caseOf({ request: { minutes: 30, kit: ['wall'] } }).request;
    for (const occasion of OCCASIONS) {
      const asked = usualRequest(request, occasion, athlete);
      const short = occasion === 'called-in' || occasion === 'between-efforts';
      expect(asked).toMatchObject({ mode: OCCASION_MODE[occasion], kit: ['wall'] });
      expect(asked.minutes).toBe(short ? 5 : usualMinutes(athlete, asked.mode));
      expect(asked.structure === 'rapid-ready').toBe(short);
    }
  });
});
