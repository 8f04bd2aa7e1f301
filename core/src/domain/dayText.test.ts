import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays, dayText, readDay } from './index.ts';
import { forAll } from '../testing/forAll.ts';

describe('a written day', () => {
  it.each([
    ['2027-03-14', 'day-first', '2027-03-14'],
    ['14.3.2027', 'day-first', '2027-03-14'],
    ['3/4/2027', 'day-first', '2027-04-03'],
    ['3/4/2027', 'month-first', '2027-03-04'],
    ['14 March 2027', 'month-first', '2027-03-14'],
    ['14. mar 2027', 'day-first', '2027-03-14'],
    [' 1  FEB 2027 ', 'day-first', '2027-02-01'],
    ['29.2.2028', 'day-first', '2028-02-29'],
    ['29.2.2027', 'day-first', null],
    ['30.2.2027', 'day-first', null],
    ['13/13/2027', 'day-first', null],
    ['3/14/2027', 'day-first', null],
    ['14.3.27', 'day-first', null],
    ['0001-01-01', 'day-first', null],
    ['yesterday', 'day-first', null],
    ['', 'day-first', null],
    ['\u0000', 'day-first', null],
  ] as const)('%j, %s, is %s', (text, order, day) => expect(readDay(text, order)).toBe(day));

  it('may have two figures for the year only where that is asked for', () => {
    expect(readDay('14.3.27', 'day-first', { shortYear: true })).toBe('2027-03-14');
  });

  it('reads back what is shown, whatever the day', () => {
    forAll(
      fc.property(fc.integer({ min: -40_000, max: 60_000 }), (days) => {
        const day = addDays('2027-01-01', days);
        expect(readDay(dayText(day))).toBe(day);
        expect(readDay(day)).toBe(day);
      }),
    );
  });
});
