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

describe('internal rotation of a throwing shoulder, under the school that looks at the whole arc', () => {
  const counts = (
    right: [number, number],
    left: [number, number] | null,
    over: { lead?: 'left' | 'right' | 'either'; task?: string; option?: string } = {},
  ) => {
    const { lead = 'right', task = 'overhead-throw', option = 'by-arc' } = over;
    const results = [
      result('shoulder-ir-range', 'right', right[0]),
      result('shoulder-er-range', 'right', right[1]),
      ...(left
        ? [result('shoulder-ir-range', 'left', left[0]), result('shoulder-er-range', 'left', left[1])]
        : []),
    ];
    const input = caseOf({
      athlete: { tasks: [{ id: task, lead }] },
      schools: { 'throwing-shoulder-range': option },
      screenings: [{ date: '2027-03-01', results }],
    });
    return judgeCase(bundledReference, input).findings.some(
      (f) => f.side === 'right' && f.evidence.some((row) => row.test === 'shoulder-ir-range'),
    );
  };
  it('counts only where the whole arc is smaller beyond its error', () => {
    expect(counts([30, 120], [60, 90])).toBe(false);
    expect(counts([30, 110], [60, 90])).toBe(false); // 10° less: inside 10.8°
    expect(counts([30, 109], [60, 90])).toBe(true); // 11° less
  });
  it('does not count while the other shoulder was not measured', () => {
    expect(counts([30, 90], null)).toBe(false);
  });
  it('always counts for the arm that does not throw, another task, and under the other school', () => {
    expect(counts([30, 120], [60, 90], { lead: 'left' })).toBe(true);
    expect(counts([30, 120], [60, 90], { lead: 'either' })).toBe(false);
    expect(counts([30, 120], [60, 90], { task: 'fell-running-descent' })).toBe(true);
    expect(counts([30, 120], [60, 90], { option: 'stretch' })).toBe(true);
  });
});
