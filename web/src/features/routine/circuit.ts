import type { Circuit, RoutineItem } from '@yonder/core/domain';

/** A circuit id that no item has yet. */
function freeId(items: readonly RoutineItem[]): string {
  const taken = new Set(items.map((item) => item.circuit?.id));
  return ['a', 'b', 'c', 'd', 'e', 'f', 'g', 'h'].find((id) => !taken.has(id)) ?? `c${items.length}`;
}

/** Changes how a circuit goes, for all its items. */
export function changeCircuit(
  items: readonly RoutineItem[],
  id: string,
  change: Partial<Omit<Circuit, 'id'>>,
): RoutineItem[] {
  return items.map((item) => {
    if (item.circuit?.id !== id) return item;
    const next = { ...item.circuit, ...change };
    const entries = Object.entries(next).filter(([, value]) => value !== undefined);
    return { ...item, circuit: Object.fromEntries(entries) as Circuit };
  });
}

/** Puts one item by itself on the clock, a start every minute: a circuit of its own. */
export function onTheClock(items: readonly RoutineItem[], index: number): RoutineItem[] {
  const circuit: Circuit = { id: freeId(items), rounds: 4, pace: { by: 'every', seconds: 60 } };
  return items.map((item, i) => (i === index ? { ...item, sets: 1, circuit } : item));
}

/**
 * Puts an item and the one below into one circuit of a number of rounds, gives the circuit it is in other rounds, or
 * takes that circuit apart (null).
 */
export function withCircuit(
  items: readonly RoutineItem[],
  index: number,
  rounds: number | null,
): RoutineItem[] {
  const own = items[index]?.circuit;
  const without = ({ circuit: _circuit, ...rest }: RoutineItem): RoutineItem => rest;
  if (rounds === null)
    return items.map((item) => (own && item.circuit?.id === own.id ? without(item) : item));
  if (own)
    return items.map((item) =>
      item.circuit?.id === own.id ? { ...item, circuit: { ...own, rounds } } : item,
    );
  const next = items[index + 1]?.circuit;
  const circuit = next ?? { id: freeId(items), rounds };
  return items.map((item, i) => (i === index || i === index + 1 ? { ...item, circuit } : item));
}

/**
 * Items after a move: a circuit that the move tore apart is dissolved, so that what is shown is always what is played.
 */
export function mendCircuits(items: readonly RoutineItem[]): RoutineItem[] {
  const places = new Map<string, number[]>();
  items.forEach((item, i) => {
    if (item.circuit) places.set(item.circuit.id, [...(places.get(item.circuit.id) ?? []), i]);
  });
  const torn = new Set(
    [...places]
      .filter(([, at]) => {
        const own = items[at[0] ?? 0]?.circuit;
        const alone = at.length < 2 && own?.pace === undefined && own?.step === undefined;
        return alone || (at.at(-1) ?? 0) - (at[0] ?? 0) >= at.length;
      })
      .map(([id]) => id),
  );
  return items.map((item) => {
    if (!item.circuit || !torn.has(item.circuit.id)) return item;
    const { circuit: _circuit, ...rest } = item;
    return rest;
  });
}
