import { describe, expect, it } from 'vitest';
import type { Case, RoutineItem } from '../domain/index.ts';
import { item, stiffAnkle } from '../testing/cases.ts';
import { preparedOf } from '../testing/prepared.ts';
import { checkRoutine, needReason } from './index.ts';

const needed = (input: Case, items: RoutineItem[]) => [
  ...new Set(needReason(checkRoutine(preparedOf(input), items)).map(({ reason }) => reason.rule)),
];
const rock = (over: Partial<RoutineItem> = {}) =>
  item('knee-to-wall-rock', { phase: 'general-mobilise', ...over });

const withKit = (...kit: string[]) => stiffAnkle({ request: { kit } as unknown as Case['request'] });

describe('a reason is needed', () => {
  it('for none of what a plain routine holds', () => {
    expect(needed(withKit('wall'), [rock()])).toEqual([]);
  });

  it('for kit that is not at hand, and not for a drill of another mode', () => {
    expect(needed(withKit(), [rock()])).toContain('not-at-hand');
    const other = checkRoutine(preparedOf(withKit('wall')), [rock()]).map((check) => ({
      ...check,
      level: 'warn' as const,
      reason: { ...check.reason, rule: 'not-at-hand' as const, because: 'mode' as const },
    }));
    expect(needReason(other as ReturnType<typeof checkRoutine>)).toEqual([]);
  });

  it('for a dose beyond its range, and not at the range’s end', () => {
    const input = withKit('wall');
    const max = preparedOf(input).reference.drills.get('knee-to-wall-rock')?.dose.amount.max ?? NaN;
    expect(needed(input, [rock({ amount: max })])).not.toContain('beyond-range');
    expect(needed(input, [rock({ amount: max + 1 })])).toContain('beyond-range');
  });

  it('for a drill that stands in the routine twice', () => {
    const input = withKit('wall');
    expect(needed(input, [rock(), rock()])).toContain('drill-repeated');
  });
});
