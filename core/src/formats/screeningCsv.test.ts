import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bundledReference } from '../reference/bundled.ts';
import { arbitraryCase } from '../testing/arbitraries.ts';
import { guessMapping, missingFields, readScreeningRows, screeningCsvRow } from './index.ts';
import { forAll } from '../testing/forAll.ts';

const ATHLETES = [
  { id: 'a1', name: 'Mira Oldtown' },
  { id: 'a2', name: 'Joss Fernleigh' },
  { id: 'a3', name: 'joss fernleigh' },
];
const COLUMNS = ['Athlete', 'DATE', 'Test', 'side', 'Trial_1', 'trial-2', 'Pain'];
const mapping = guessMapping(COLUMNS);
const row = (over: Record<string, string> = {}) => ({
  Athlete: 'mira oldtown',
  DATE: '2027-02-01',
  Test: 'wblt-distance',
  side: 'L',
  Trial_1: '7,2',
  'trial-2': '7.0',
  Pain: '1',
  ...over,
});
const read = (...rows: Record<string, string>[]) =>
  readScreeningRows(bundledReference, ATHLETES, rows, mapping);

describe('a file of screenings', () => {
  it('gives a name that begins like a formula a mark, and takes it off again', () => {
    const result = { test: 'wblt-distance', side: 'left' as const, trials: [7] };
    const athlete = [{ id: 'a9', name: '+Ada Fell' }];
    const made = screeningCsvRow(bundledReference, '+Ada Fell', '2027-02-01', result);
    expect(made.athlete).toBe("'+Ada Fell");
    const own = guessMapping(Object.keys(made));
    expect(readScreeningRows(bundledReference, athlete, [made], own).rows).toMatchObject([
      { athleteId: 'a9' },
    ]);
  });

  it('finds its columns whatever their case or hyphens, and says which are missing', () => {
    expect(mapping).toMatchObject({
      athlete: 'Athlete',
      'trial 1': 'Trial_1',
      'trial 2': 'trial-2',
      grade: null,
    });
    expect(missingFields(mapping)).toEqual([]);
    expect(missingFields(guessMapping(['Name', 'date']))).toEqual(['athlete', 'test', 'trial 1']);
  });

  it('reads names, letters for sides and both decimal marks', () => {
    expect(
      read(row(), row({ Test: 'Single-leg heel-raise endurance', Trial_1: '14', 'trial-2': '' })),
    ).toEqual({
      faults: [],
      rows: [
        {
          athleteId: 'a1',
          date: '2027-02-01',
          result: { test: 'wblt-distance', side: 'left', trials: [7.2, 7], pain: { nrs: 1 } },
        },
        {
          athleteId: 'a1',
          date: '2027-02-01',
          result: { test: 'heel-raise-reps', side: 'left', trials: [14], pain: { nrs: 1 } },
        },
      ],
    });
  });

  it.each([
    [{ Athlete: 'Nobody' }, 'no athlete "Nobody"'],
    [{ Athlete: 'Joss Fernleigh' }, '2 athletes "Joss Fernleigh"'],
    [{ DATE: '31.2.2027' }, 'date "31.2.2027" is no day; write 2027-03-14, 14.3.2027 or 14 Mar 2027'],
    [{ Test: 'moon walk' }, 'no test "moon walk"'],
    [{ side: 'up' }, 'side "up" is not left, right or central'],
    [{ Trial_1: 'seven' }, 'trial 1 "seven" is not a number'],
    [{ Trial_1: '72' }, '72 cm is outside -5 to 25 cm'],
    [{ side: '' }, 'wblt-distance is per side: use left or right'],
  ])('names the row of %o', (over, message) => {
    const { rows, faults } = read(row({ Test: 'heel-raise-reps' }), row(over));
    expect(rows).toHaveLength(1);
    expect(faults).toContainEqual({ row: 3, message });
  });

  it('refuses the same athlete, day, test and side twice', () => {
    expect(read(row(), row()).faults).toEqual([
      { row: 3, message: 'same athlete, day, test and side as row 2' },
    ]);
  });

  it('is read back as it was written, for any case', () => {
    forAll(
      fc.property(arbitraryCase(false), (input) => {
        const [screening] = input.screenings;
        const results = screening?.results ?? [];
        const cells = results.map((r) => screeningCsvRow(bundledReference, 'Mira Oldtown', '2027-02-20', r));
        const fields = Object.keys(cells[0] ?? {});
        const back = readScreeningRows(bundledReference, ATHLETES, cells, guessMapping(fields));
        expect(back.faults).toEqual([]);
        const value = (r: (typeof results)[0]) => [r.test, r.side, r.trials ?? [r.grade]];
        expect(back.rows.map((r) => value(r.result))).toEqual(results.map(value));
      }),
      60,
    );
  });
});
