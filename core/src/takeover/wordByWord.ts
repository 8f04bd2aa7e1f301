import { heldToday } from '../builder/index.ts';
import type { Held, Prepared } from '../builder/index.ts';
import type { RoutineItem } from '../domain/index.ts';
import { notNow } from '../routine/index.ts';
import { lineName } from '../words/index.ts';

/** A line that safety keeps out for this athlete today, by its place. */
export type HeldLine = Held & { readonly index: number };

/**
 * Lines taken word by word for an athlete: all as they are written, but for what safety keeps out today, which stays as a
 * note that it is not for now.
 */
export function wordByWord(
  prepared: Prepared,
  items: readonly RoutineItem[],
): { items: RoutineItem[]; held: HeldLine[] } {
  const held: HeldLine[] = [];
  const kept = items.map((item, index): RoutineItem => {
    const own = heldToday(prepared, item);
    if (!own) return item;
    held.push({ index, ...own });
    return { ...notNow(lineName(prepared.reference, item)), phase: item.phase };
  });
  return { items: kept, held };
}
