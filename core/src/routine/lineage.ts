import { sameJson } from '../domain/index.ts';
import type { RoutineItem } from '../domain/index.ts';
import { isLine } from '../reference/index.ts';
import type { Reference } from '../reference/index.ts';

type Origin = NonNullable<RoutineItem['from']>;

function ladderOf(reference: Reference, drill: string): string {
  return reference.drills.get(drill)?.ladder ?? drill;
}

/** The item of an earlier version that an item goes on from: the same id, else (without ids) the same drill or ladder. */
export function predecessorOf(
  reference: Reference,
  before: readonly RoutineItem[],
  item: RoutineItem,
): RoutineItem | undefined {
  // Where both carry ids the id alone decides: a drill taken out and put in anew begins a new line.
  if (item.id !== undefined && before.some((old) => old.id !== undefined))
    return before.find((old) => old.id === item.id);
  // Words of one's own are nobody's next level.
  if (isLine(item.drill)) return undefined;
  return (
    before.find((old) => old.drill === item.drill) ??
    before.find((old) => ladderOf(reference, old.drill) === ladderOf(reference, item.drill))
  );
}

/** How an item came from the one before it: another drill, another set-up, another dose; null when nothing changed. */
function stepBetween(reference: Reference, before: RoutineItem, after: RoutineItem): Origin['by'] | null {
  if (before.drill !== after.drill)
    return ladderOf(reference, before.drill) === ladderOf(reference, after.drill) ? 'level' : 'swap';
  if (!sameJson(before.setup, after.setup)) return 'set-up';
  const dose = ({ id: _i, from: _f, phase: _p, setup: _s, circuit, ...dosed }: RoutineItem) => ({
    ...dosed,
    circuit: circuit && { ...circuit, id: '' },
  });
  return sameJson(dose(before), dose(after)) ? null : 'dose';
}

/**
 * Items of a next version, each saying what it came from in the version before: an item keeps its id for as long as its
 * line goes on through changes of dose, set-up, level and swaps. What did not change keeps the origin it had.
 */
export function withOrigins(
  reference: Reference,
  before: readonly RoutineItem[],
  after: readonly RoutineItem[],
): RoutineItem[] {
  return after.map((item) => {
    const { from: _claimed, ...own } = item;
    const old = predecessorOf(reference, before, item);
    if (!old) return own;
    const by = stepBetween(reference, old, item);
    const from = by ? { by, drill: old.drill } : old.from;
    return from ? { ...own, from } : own;
  });
}
