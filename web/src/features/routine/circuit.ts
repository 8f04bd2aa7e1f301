import type { RoutineItem } from '@yonder/core/domain';

/** A circuit id that no item has yet. */
function freeId(items: readonly RoutineItem[]): string {
  const taken = new Set(items.map((item) => item.circuit?.id));
  return ['a', 'b', 'c', 'd', 'e', 'f', 'g', 'h'].find((id) => !taken.has(id)) ?? `c${items.length}`;
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
      item.circuit?.id === own.id ? { ...item, circuit: { id: own.id, rounds } } : item,
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
      .filter(([, at]) => at.length < 2 || (at.at(-1) ?? 0) - (at[0] ?? 0) >= at.length)
      .map(([id]) => id),
  );
  return items.map((item) => {
    if (!item.circuit || !torn.has(item.circuit.id)) return item;
    const { circuit: _circuit, ...rest } = item;
    return rest;
  });
}
