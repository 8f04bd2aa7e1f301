import { describe, expect, it } from 'vitest';
import { bundledReference } from '../reference/bundled.ts';
import { caseOf, result } from '../testing/cases.ts';
import { judgeCase } from '../testing/prepared.ts';

const arcsOf = (left: [number, number], right?: [number, number]) =>
  judgeCase(
    bundledReference,
    caseOf({
      screenings: [
        {
          date: '2027-03-01',
          results: [
            result('shoulder-ir-range', 'left', left[0]),
            result('shoulder-er-range', 'left', left[1]),
            ...(right
              ? [
                  result('shoulder-ir-range', 'right', right[0]),
                  result('shoulder-er-range', 'right', right[1]),
                ]
              : []),
          ],
        },
      ],
    }),
  ).arcs;

describe('the rotation arcs of the shoulders', () => {
  it('are internal plus external, with the difference against its own error', () => {
    // FORMULAS 4: 42 + 112 = 154 against 60 + 98 = 158; MDC95 of the arc 1.96 · √2 · √(2.5² + 3²) = 10.8.
    const arcs = arcsOf([42, 112], [60, 98]);
    expect(arcs).toMatchObject({ left: 154, right: 158, difference: -4, beyondError: false });
    expect(arcs?.mdc95).toBeCloseTo(10.82, 1);
    expect(arcsOf([42, 100], [60, 98])?.beyondError).toBe(true);
  });

  it('are not there before both shoulders were measured both ways', () => {
    expect(arcsOf([42, 112])).toBeNull();
  });
});
