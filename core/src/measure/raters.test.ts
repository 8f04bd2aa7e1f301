import { describe, expect, it } from 'vitest';
import { bundledReference } from '../reference/bundled.ts';
import type { ScreeningResult } from '../domain/index.ts';
import { compareRaters } from './index.ts';

const stepDown = bundledReference.tests.get('step-down-quality');
if (!stepDown?.faults) throw new Error('the step-down lists its faults');
const [first, second, third] = stepDown.faults.map((fault) => fault.id) as [string, string, string];
const of = (result: Partial<ScreeningResult>) => compareRaters(stepDown, result);

describe('two raters', () => {
  it('agree wholly on the same marks', () => {
    const marks = [{ id: first, mark: 'clear' as const }];
    expect(of({ faults: marks, second: { by: 'K. Moss', faults: marks } })).toMatchObject({
      agreement: 1,
      differing: [],
    });
  });

  it('are set side by side, with what each marked and the grade that follows from it', () => {
    const compared = of({
      faults: [],
      second: {
        by: 'K. Moss',
        faults: [first, second, third].map((id) => ({ id, mark: 'clear' as const })),
      },
    });
    const listed = stepDown.faults?.length ?? 0;
    expect(compared?.agreement).toBeCloseTo(1 - 3 / listed, 10);
    expect(compared?.differing[0]).toEqual({ id: first, first: null, second: 'clear' });
    expect(compared?.grades.first).toBe(3);
    expect(compared?.grades.second).toBeLessThan(3);
  });

  it('slight against clear is a difference; one rater alone is no comparison', () => {
    const differing = of({
      faults: [{ id: first, mark: 'slight' }],
      second: { by: 'K. Moss', faults: [{ id: first, mark: 'clear' }] },
    })?.differing;
    expect(differing).toEqual([{ id: first, first: 'slight', second: 'clear' }]);
    expect(of({ faults: [] })).toBeNull();
  });
});
