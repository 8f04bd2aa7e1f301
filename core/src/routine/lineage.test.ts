import { describe, expect, it } from 'vitest';
import { bundledReference } from '../reference/bundled.ts';
import { item } from '../testing/cases.ts';
import { identified, routineChanges, withOrigins } from './index.ts';

const A = '00000000-0000-4000-8000-00000000000a';
const B = '00000000-0000-4000-8000-00000000000b';
const rock = item('knee-to-wall-rock', { id: A, side: 'left', setup: { 'foot-wall-distance': 6 } });
const origins = (after: Parameters<typeof withOrigins>[2]) =>
  withOrigins(bundledReference, [rock], after).map(({ id, from }) => ({ id, from }));
const counting = () => {
  let n = 0;
  return () => `00000000-0000-4000-8000-${String((n += 1)).padStart(12, '0')}`;
};

describe('the line of an item through versions', () => {
  it.each([
    ['dose', { amount: 12 }],
    ['dose', { side: 'both' as const }],
    ['set-up', { setup: { 'foot-wall-distance': 8 } }],
    ['level', { drill: 'band-ankle-mobilisation' }],
    ['swap', { drill: 'cat-camel' }],
  ])('says that it came by %s: %o', (by, change) => {
    expect(origins([{ ...rock, ...change }])).toEqual([{ id: A, from: { by, drill: rock.drill } }]);
  });
  it('keeps the origin it had while nothing changes, and has none when it is new', () => {
    const raised = { ...rock, from: { by: 'level' as const, drill: 'ankle-circles' } };
    expect(withOrigins(bundledReference, [raised], [raised])[0]?.from).toEqual(raised.from);
    expect(origins([{ ...rock, id: B, from: raised.from }])[0]?.from).toBeUndefined();
  });
  it('a drill taken out and put in anew is removed and added, not unchanged', () => {
    const rules = routineChanges(bundledReference, [rock], [{ ...rock, id: B }]).map((r) => r.rule);
    expect(rules).toEqual(['item-added', 'item-removed']);
  });
  it('a change of origin or phase alone is no change', () => {
    const moved = { ...rock, phase: 'mobilise', from: { by: 'dose' as const, drill: rock.drill } };
    expect(routineChanges(bundledReference, [rock], [moved])).toEqual([]);
  });
});

describe('ids of items', () => {
  it('go on from the routine before by drill or ladder, each once, and are new otherwise', () => {
    const { id: _own, ...bare } = rock;
    const given = identified(
      bundledReference,
      [rock],
      [item('band-ankle-mobilisation'), bare, item('cat-camel')],
      counting(),
    );
    expect(given.map((i) => i.id)).toEqual([
      A,
      ...[1, 2].map((n) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`),
    ]);
  });
  it('stay where they are given, and are never shared', () => {
    const twice = identified(bundledReference, [], [rock, { ...item('cat-camel'), id: A }], counting());
    expect(twice[0]?.id).toBe(A);
    expect(new Set(twice.map((i) => i.id)).size).toBe(2);
  });
});
