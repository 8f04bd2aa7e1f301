import { routineSeconds } from '@yonder/core/dose';
import type { RoutineItem } from '@yonder/core/domain';
import { bundledReference } from '@yonder/core/reference/bundled';
import { describe, expect, it } from 'vitest';
import { mendCircuits, withCircuit } from './circuit.ts';
import { costChange, costText } from './orderWords.ts';
import { totalsOf } from './totals.ts';

const item = (drill: string, over: Partial<RoutineItem> = {}): RoutineItem => ({
  drill,
  side: 'both',
  phase: 'mobilise',
  sets: 1,
  amount: 10,
  measure: 'reps',
  holdSeconds: null,
  restSeconds: 0,
  tempo: null,
  setup: {},
  ...over,
});
const plain = (items: readonly RoutineItem[]) => ({ structure: 'short-minimum', sections: [], items });
const ITEMS = ['cat-camel', 'dead-bug', 'glute-bridge', 'ankle-circles'].map((drill) => item(drill));
const circuits = (items: readonly RoutineItem[]) => items.map((i) => i.circuit?.id ?? '-').join('');

describe('circuits while editing', () => {
  it('join an item with the next, take in a third, change rounds together, and come apart', () => {
    const two = withCircuit(ITEMS, 0, 2);
    expect(circuits(two)).toBe('aa--');
    const other = withCircuit(two, 2, 3);
    expect(circuits(other)).toBe('aabb');
    const three = withCircuit(withCircuit(ITEMS, 1, 2), 0, 5);
    expect(circuits(three)).toBe('aaa-');
    expect(
      withCircuit(three, 2, 4)
        .slice(0, 3)
        .map((i) => i.circuit?.rounds),
    ).toEqual([4, 4, 4]);
    expect(circuits(withCircuit(three, 1, null))).toBe('----');
  });
  it('that a move tears apart, or leaves alone, dissolve; whole ones stay', () => {
    const two = withCircuit(ITEMS, 0, 2);
    const [a, b, c, d] = two as [RoutineItem, RoutineItem, RoutineItem, RoutineItem];
    expect(circuits(mendCircuits([a, c, b, d]))).toBe('----');
    expect(circuits(mendCircuits([a, c, d]))).toBe('---');
    expect(circuits(mendCircuits([c, a, b, d]))).toBe('-aa-');
  });
});

describe('totals', () => {
  it('of phases and change-overs add up to the exact seconds, with rounds', () => {
    const items = withCircuit(
      [
        item('cat-camel'),
        item('dead-bug', { phase: 'stabilise', sets: 2 }),
        item('knee-to-wall-rock', { side: 'left', phase: null }),
      ],
      0,
      3,
    );
    const totals = totalsOf(bundledReference, plain(items));
    expect(totals.seconds).toBe(routineSeconds(bundledReference, items));
    expect(totals.phases.reduce((sum, p) => sum + p.seconds, totals.between)).toBe(totals.seconds);
    expect(totals.phases.map((p) => p.name)).toEqual(['Mobilise', 'Stabilise', 'by hand']);
    const fatigue = (id: string) => bundledReference.drills.get(id)?.fatigue ?? 0;
    expect(totals.fatigue).toBe(
      3 * fatigue('cat-camel') + 6 * fatigue('dead-bug') + fatigue('knee-to-wall-rock'),
    );
  });
  it('count uneven sides by their mean', () => {
    const uneven = item('knee-to-wall-rock', {
      perSide: { left: { sets: 3, amount: 10 }, right: { sets: 1, amount: 10 } },
    });
    const even = item('knee-to-wall-rock', { sets: 2 });
    const of = (i: RoutineItem) => totalsOf(bundledReference, plain([i])).fatigue;
    expect(of(uneven)).toBe(of(even));
  });
});

describe('the cost of an order in words', () => {
  const cost = (positions: number, kit: number, betweenSeconds: number, loadedFirst = 0) => ({
    positions,
    kit,
    betweenSeconds,
    loadedFirst,
    total: 0,
  });
  it.each([
    [cost(2, 1, 40), cost(3, 1, 50), '1 change of position more, +10 s'],
    [cost(3, 2, 50), cost(2, 0, 50), '1 change of position less, 2 changes of kit less'],
    [cost(1, 1, 20, 1), cost(1, 1, 20), '1 loaded drill before an easier one less'],
    [cost(1, 1, 20), cost(1, 1, 20), 'costs nothing'],
  ])('from %o to %o: %s', (before, after, words) => {
    expect(costChange(before, after)).toBe(words);
  });
  it('names only what there is', () => {
    expect(costText(cost(2, 1, 30))).toBe('2 changes of position, 1 change of kit');
    expect(costText(cost(0, 0, 10))).toBe('no changes of position or kit');
  });
});
