import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { RoutineItem } from '../domain/index.ts';
import { isFloor, routineSeconds } from '../dose/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { kitText } from '../reference/index.ts';
import { item, stiffAnkle } from '../testing/cases.ts';
import { drillOf, preparedOf } from '../testing/prepared.ts';
import { orderCost, orderedItems } from './index.ts';
import { forAll } from '../testing/forAll.ts';

const prepared = preparedOf(stiffAnkle({ request: { structure: 'two-block-general-to-specific' } as never }));
const phases = prepared.chosen.phases.map((phase) => phase.id);
const routine = fc
  .uniqueArray(
    fc.record({
      drill: fc.constantFrom(...bundledReference.data.drills.map((d) => d.id)),
      phase: fc.constantFrom(...phases),
    }),
    {
      minLength: 2,
      maxLength: 9,
      selector: (d) => d.drill,
    },
  )
  .map((list) => list.map(({ drill, phase }) => item(drill, { phase })));
const ids = (items: readonly RoutineItem[]) => items.map((i) => i.drill);

describe('the automatic order', () => {
  it('keeps every item, the phases, and floor before upright inside a phase', () => {
    forAll(
      fc.property(routine, (items) => {
        const ordered = orderedItems(prepared, items);
        expect(ids(ordered).sort()).toEqual(ids(items).sort());
        const places = ordered.map((i) => phases.indexOf(i.phase ?? ''));
        expect(places).toEqual([...places].sort((a, b) => a - b));
        for (const phase of phases) {
          const floor = ordered
            .filter((i) => i.phase === phase)
            .map((i) => isFloor(drillOf(i.drill).position));
          expect(floor).toEqual([...floor].sort((a, b) => Number(b) - Number(a)));
        }
      }),
      120,
    );
  });
  it('is the same whatever order the items come in, and putting it in order again changes nothing', () => {
    forAll(
      fc.property(routine, (items) => {
        const ordered = orderedItems(prepared, items);
        expect(ids(orderedItems(prepared, [...items].reverse()))).toEqual(ids(ordered));
        expect(ids(orderedItems(prepared, ordered))).toEqual(ids(ordered));
      }),
      80,
    );
  });
  it('of a few upright drills of one phase is as cheap as any of their permutations', () => {
    const rank = { unloaded: 0, partial: 1, full: 2, impact: 3 } as const;
    const cost = (order: readonly RoutineItem[]) =>
      order.reduce((sum, one, i) => {
        const drill = drillOf(one.drill);
        const before = i > 0 ? drillOf(order[i - 1]?.drill ?? '') : null;
        if (!before) return 4 * rank[drill.loadClass];
        const heavierFirst = Math.max(0, rank[before.loadClass] - rank[drill.loadClass]);
        const kit = kitText(before) === kitText(drill) ? 0 : 2;
        const easier = Math.max(0, before.demandIndex - drill.demandIndex); // all of one phase
        return sum + 4 * heavierFirst + kit + easier + (before.position === drill.position ? 0 : 1);
      }, 0);
    const permutations = (list: readonly RoutineItem[]): RoutineItem[][] =>
      list.length < 2
        ? [[...list]]
        : list.flatMap((one, i) =>
            permutations(list.filter((_, k) => k !== i)).map((rest) => [one, ...rest]),
          );
    const upright = bundledReference.data.drills.filter((d) => !isFloor(d.position)).map((d) => d.id);
    const few = fc
      .uniqueArray(fc.constantFrom(...upright), { minLength: 2, maxLength: 5 })
      .map((list) => list.map((drill) => item(drill, { phase: phases[0] ?? null })));
    forAll(
      fc.property(few, (items) => {
        const cheapest = Math.min(...permutations(items).map(cost));
        expect(cost(orderedItems(prepared, items))).toBe(cheapest);
      }),
      60,
    );
  });
  it('keeps the items of a circuit together', () => {
    const circuit = { id: 'a', rounds: 2 };
    const [first = '', second = ''] = phases;
    const items = [
      item('cat-camel', { phase: second, circuit }),
      item('wall-slide', { phase: second, circuit }),
      item('opposite-arm-march', { phase: first }),
    ];
    expect(ids(orderedItems(prepared, items))).toEqual(['opposite-arm-march', 'cat-camel', 'wall-slide']);
  });
});

describe('the cost of an order', () => {
  it('counts changes of position and kit, and the seconds between drills exactly', () => {
    const items = ['cat-camel', 'knee-to-wall-rock', 'dead-bug'].map((drill) => item(drill));
    const cost = orderCost(bundledReference, items);
    expect(cost).toMatchObject({ positions: 2, kit: 2, betweenSeconds: 2 * 10 + 2 * 10 });
    const alone = items.reduce((sum, one) => sum + routineSeconds(bundledReference, [one]), 0);
    expect(routineSeconds(bundledReference, items)).toBe(alone + cost.betweenSeconds);
  });
  it('of one item is nothing', () => {
    expect(orderCost(bundledReference, [item('cat-camel')])).toEqual({
      positions: 0,
      kit: 0,
      betweenSeconds: 0,
      loadedFirst: 0,
      total: 0,
    });
  });
});
