import type { RoutineItem } from '../domain/index.ts';
import { isLine } from '../reference/index.ts';
import type { Reference } from '../reference/index.ts';
import type { Placed } from './types.ts';

/** The drills of a routine with their places; rest and own words are no drills. */
export function placedOf(reference: Reference, items: readonly RoutineItem[]): Placed[] {
  return items.flatMap((item, index) => {
    const drill = isLine(item.drill) ? undefined : reference.drills.get(item.drill);
    return drill ? [{ item, drill, index }] : [];
  });
}
