import type { RoutineItem } from '../domain/index.ts';
import type { Reference } from '../reference/index.ts';
import { predecessorOf } from './lineage.ts';

/** An item that can be referred to: by the diary, by decisions, by the next version. */
export type IdentifiedItem = RoutineItem & { readonly id: string };

/**
 * Gives every item an id: its own, else that of the item it goes on from (same drill, else same ladder, each used once),
 * else a new one. No two items share one.
 */
export function identified(
  reference: Reference,
  before: readonly RoutineItem[],
  items: readonly RoutineItem[],
  newId: () => string,
): IdentifiedItem[] {
  const taken = new Set<string>();
  const own = new Set(items.flatMap((item) => item.id ?? []));
  const free = () => before.filter((old) => old.id !== undefined && !own.has(old.id) && !taken.has(old.id));
  return items.map((item) => {
    const { id, ...rest } = item;
    const kept = id !== undefined && !taken.has(id) ? id : predecessorOf(reference, free(), rest)?.id;
    const chosen = kept ?? newId();
    taken.add(chosen);
    return { id: chosen, ...rest };
  });
}
