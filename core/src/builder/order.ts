import { isLine, kitText } from '../reference/index.ts';
import type { Drill, Reference } from '../reference/index.ts';
import type { Prepared } from './prepared.ts';
import type { RoutineItem } from '../domain/index.ts';
import { isFloor, routineTime } from '../dose/index.ts';

/** What ordering needs to know of an item: its phase place and its drill. */
export interface Orderable {
  readonly phase: number;
  readonly drill: Pick<Drill, 'id' | 'position' | 'loadClass' | 'demandIndex' | 'equipment' | 'equipmentAny'>;
}

const LOAD_RANK = { unloaded: 0, partial: 1, full: 2, impact: 3 } as const;

/**
 * Cost of doing b right after a: loaded before unloaded weighs most, then a change of kit, then what is easier after what
 * is harder, and a change of position.
 */
function stepCost(a: Orderable, b: Orderable): number {
  const heavierFirst = Math.max(0, LOAD_RANK[a.drill.loadClass] - LOAD_RANK[b.drill.loadClass]);
  const kit = kitText(a.drill) === kitText(b.drill) ? 0 : 1;
  // What went before in another phase sets no standard for how hard this one starts.
  const easier = a.phase === b.phase ? Math.max(0, a.drill.demandIndex - b.drill.demandIndex) : 0;
  return heavierFirst * 4 + kit * 2 + easier + (a.drill.position === b.drill.position ? 0 : 1);
}

/** Exact cheapest order of one block (Held–Karp over subsets); ties fall the same way whatever order is given. At most 14 items. */
function orderBlock<T extends Orderable>(block: readonly T[], before: T | null): T[] {
  const items = [...block].sort((a, b) => (a.drill.id < b.drill.id ? -1 : 1));
  if (items.length < 2 || items.length > 14) return items;
  const size = 1 << items.length;
  const cost = Array.from({ length: size }, () => items.map(() => Infinity));
  const from = Array.from({ length: size }, () => items.map(() => -1));
  items.forEach((item, i) => {
    const row = cost[1 << i];
    if (row) row[i] = before ? stepCost(before, item) : LOAD_RANK[item.drill.loadClass] * 4;
  });
  for (let set = 1; set < size; set += 1) {
    for (let last = 0; last < items.length; last += 1) {
      const here = cost[set]?.[last] ?? Infinity;
      const lastItem = items[last];
      if (here === Infinity || !lastItem) continue;
      for (let next = 0; next < items.length; next += 1) {
        const nextItem = items[next];
        if (set & (1 << next) || !nextItem) continue;
        const after = set | (1 << next);
        const value = here + stepCost(lastItem, nextItem);
        const row = cost[after];
        const back = from[after];
        if (row && back && value < (row[next] ?? Infinity)) {
          row[next] = value;
          back[next] = last;
        }
      }
    }
  }
  let set = size - 1;
  let last = items.reduce(
    (best, _, i) => ((cost[set]?.[i] ?? Infinity) < (cost[set]?.[best] ?? Infinity) ? i : best),
    0,
  );
  const order: T[] = [];
  while (last >= 0) {
    const item = items[last];
    if (item) order.unshift(item);
    const previous = from[set]?.[last] ?? -1;
    set &= ~(1 << last);
    last = previous;
  }
  return order;
}

/** Phases in order; inside a phase floor before upright, unloaded before loaded, few changes of kit and position. */
export function orderItems<T extends Orderable>(items: readonly T[]): T[] {
  const phases = [...new Set(items.map((item) => item.phase))].sort((a, b) => a - b);
  const ordered: T[] = [];
  for (const phase of phases) {
    for (const floor of [true, false]) {
      const block = items.filter((item) => item.phase === phase && isFloor(item.drill.position) === floor);
      ordered.push(...orderBlock(block, ordered.at(-1) ?? null));
    }
  }
  return ordered;
}

/** What an order costs: changes of position, of kit, seconds between drills, loaded before unloaded in a phase. */
export interface OrderCost {
  readonly positions: number;
  readonly kit: number;
  readonly betweenSeconds: number;
  readonly loadedFirst: number;
  /** The same weights that the automatic order goes by. */
  readonly total: number;
}

/** The cost of an order as it stands, by what the automatic order counts. */
export function orderCost(reference: Reference, items: readonly RoutineItem[]): OrderCost {
  const placed = items.flatMap((item) => {
    const drill = isLine(item.drill) ? undefined : reference.drills.get(item.drill);
    return drill ? [{ drill, phase: item.phase }] : [];
  });
  let positions = 0;
  let kit = 0;
  let loadedFirst = 0;
  let easier = 0;
  placed.forEach(({ drill, phase }, i) => {
    const last = placed[i - 1];
    if (!last) return;
    const before = last.drill;
    if (before.position !== drill.position) positions += 1;
    if (kitText(before) !== kitText(drill)) kit += 1;
    const samePhase = last.phase === phase;
    if (samePhase && LOAD_RANK[before.loadClass] > LOAD_RANK[drill.loadClass]) loadedFirst += 1;
    if (samePhase) easier += Math.max(0, before.demandIndex - drill.demandIndex);
  });
  const { between } = routineTime(reference, items);
  return {
    positions,
    kit,
    betweenSeconds: between,
    loadedFirst,
    total: loadedFirst * 4 + kit * 2 + easier + positions,
  };
}

/**
 * Items in the automatic order of the structure in force: phases, floor before upright, unloaded before loaded, few changes.
 * Rest and own words stay where they are, between runs of drills. Items of one circuit stay together where the first of them
 * falls; unknown phases go last.
 */
export function orderedItems(prepared: Prepared, items: readonly RoutineItem[]): RoutineItem[] {
  const line = items.findIndex((item) => isLine(item.drill));
  const own = items[line];
  if (!own) return orderedRun(prepared, items);
  return [
    ...orderedRun(prepared, items.slice(0, line)),
    own,
    ...orderedItems(prepared, items.slice(line + 1)),
  ];
}

function orderedRun(prepared: Prepared, items: readonly RoutineItem[]): RoutineItem[] {
  const { phases } = prepared.chosen;
  const blocks = items.filter((item, i) => !item.circuit || items[i - 1]?.circuit?.id !== item.circuit.id);
  const orderable = blocks.flatMap((item) => {
    const drill = prepared.reference.drills.get(item.drill);
    const place = phases.findIndex((phase) => phase.id === item.phase);
    return drill ? [{ item, drill, phase: place < 0 ? phases.length : place }] : [];
  });
  return orderItems(orderable).flatMap(({ item }) =>
    item.circuit ? items.filter((other) => other.circuit?.id === item.circuit?.id) : [item],
  );
}
