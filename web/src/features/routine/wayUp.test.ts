import { routineTime } from '@yonder/core/dose';
import { bundledReference } from '@yonder/core/reference/bundled';
import type { RoutineItem } from '@yonder/core/domain';
import { item } from '@yonder/core/testing/cases';
import { describe, expect, it } from 'vitest';
import { wayUp } from './wayUp.ts';

const ITEMS = [
  item('brisk-walk-build', { phase: 'general-raise', measure: 'seconds', sets: 1, amount: 150 }),
  item('knee-to-wall-rock', { phase: 'general-mobilise', side: 'left' }),
  item('single-leg-heel-raise', { phase: 'specific-prehab', sets: 5, amount: 20 }),
];
const way = (items: readonly RoutineItem[], minutes: number) =>
  wayUp(
    bundledReference,
    { structure: 'two-block-general-to-specific', sections: [], items },
    'prepare',
    minutes,
  );

describe('a routine as a way up', () => {
  it('has the seconds of the routine, drill by drill, with nothing lost between them', () => {
    const { total, summits, ground } = way(ITEMS, 15);
    const time = routineTime(bundledReference, ITEMS);
    expect(total).toBe(time.total);
    summits.forEach(({ start, end, item: place }) =>
      expect(end - start).toBeCloseTo(time.items[place] ?? 0, 6),
    );
    expect(ground.map(({ at }) => at)).toEqual([...ground.map(({ at }) => at)].sort((a, b) => a - b));
    expect(summits.map(({ height }) => height)).toEqual([...summits.map(({ height }) => height)].sort());
  });
  it('names its parts, says from when enough is warmed, and what one drill takes too long', () => {
    const { parts, warm, long, longest } = way(ITEMS, 15);
    expect(parts.map(({ id }) => id)).toEqual(['general-raise', 'general-mobilise', 'specific-prehab']);
    expect(warm?.wanted).toBe(135);
    expect(warm?.has).toBe(routineTime(bundledReference, ITEMS).items[0]);
    expect(warm?.reached).toBe(135);
    expect(longest).toBe(180);
    expect(long.map(({ summit }) => summit.item)).toEqual([2]);
  });
  it('of a circuit comes to each drill as often as it is done', () => {
    const circuit = { id: 'a', rounds: 2 };
    const { summits } = way([item('cat-camel', { circuit }), item('bird-dog', { circuit })], 10);
    expect(summits.map((s) => s.item)).toEqual([0, 1, 0, 1]);
  });
  it('without drills is flat', () => {
    expect(way([], 10)).toMatchObject({ total: 0, summits: [], parts: [] });
  });
});
