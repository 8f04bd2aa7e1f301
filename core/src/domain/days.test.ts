import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays, ageInYears, dayNumber, daysBetween, isoDay, monthsBefore } from './index.ts';
import { forAll } from '../testing/forAll.ts';

describe('calendar days', () => {
  it('adding and counting days agree over any span', () => {
    forAll(
      fc.property(
        fc.integer({ min: 0, max: 40_000 }),
        fc.integer({ min: -4000, max: 4000 }),
        (start, days) => {
          const day = isoDay(start);
          expect(dayNumber(day)).toBe(start);
          expect(daysBetween(day, addDays(day, days))).toBe(days);
        },
      ),
    );
  });
  it.each([
    ['2024-02-28', 1, '2024-02-29'],
    ['2027-12-31', 1, '2028-01-01'],
    ['2027-03-28', 1, '2027-03-29'],
  ])('%s plus %i day is %s', (day, days, expected) => {
    expect(addDays(day, days)).toBe(expected);
  });
  it.each([
    ['2001-05-02', '2027-05-01', 25],
    ['2001-05-02', '2027-05-02', 26],
    ['2004-02-29', '2027-02-28', 22],
    ['2004-02-29', '2027-03-01', 23],
  ])('born %s is %s: %i years', (birth, today, years) => {
    expect(ageInYears(birth, today)).toBe(years);
  });
  it.each([
    ['2027-03-31', 1, '2027-02-28'],
    ['2027-01-15', 12, '2026-01-15'],
    ['2027-01-15', 24, '2025-01-15'],
  ])('%s less %i months is %s', (day, months, expected) => {
    expect(monthsBefore(day, months)).toBe(expected);
  });
});
