import { sameJson } from '../domain/index.ts';
import type { RoutineItem } from '../domain/index.ts';
import type { Reason } from '../reasons/index.ts';
import type { Reference } from '../reference/index.ts';
import { predecessorOf } from './lineage.ts';

/** What is done: without who it is, where it came from and which part of the routine it is in. */
const bare = ({ id: _id, from: _from, phase: _phase, ...item }: RoutineItem) => item;

/** What changed from one version to the next, one reason a drill; a line that goes on with another drill is said as such. */
export function routineChanges(
  reference: Reference,
  before: readonly RoutineItem[],
  after: readonly RoutineItem[],
): Reason[] {
  const used = new Set<RoutineItem>();
  const changes = after.flatMap((item): Reason[] => {
    const old = predecessorOf(reference, before, item);
    if (!old || used.has(old)) return [{ rule: 'item-added', item }];
    used.add(old);
    if (old.drill !== item.drill) return [{ rule: 'item-replaced', before: old, after: item }];
    return sameJson(bare(old), bare(item)) ? [] : [{ rule: 'item-changed', before: old, after: item }];
  });
  const removed = before
    .filter((old) => !used.has(old))
    .map(({ drill, side, words }): Reason => ({
      rule: 'item-removed',
      drill,
      side,
      words,
    }));
  const order = (items: readonly RoutineItem[], other: readonly RoutineItem[]) =>
    items
      .filter((i) => other.some((o) => o.drill === i.drill))
      .map((i) => i.drill)
      .join();
  const reordered: Reason[] =
    order(before, after) === order(after, before) ? [] : [{ rule: 'order-changed' }];
  return [...changes, ...removed, ...reordered];
}
