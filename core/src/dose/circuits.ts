import type { RoutineItem } from '../domain/index.ts';

/** One visit to an item, in which round of how many; from the second round on its set-up still stands. */
export interface Visit {
  readonly index: number;
  /** From 0. */
  readonly round: number;
  readonly rounds: number;
}

/** Runs of neighbouring items that share a circuit, as [first, last]; every other item is a run of its own. */
function runs(items: readonly Pick<RoutineItem, 'circuit'>[]): [number, number][] {
  const found: [number, number][] = [];
  items.forEach((item, index) => {
    const last = found.at(-1);
    const before = items[index - 1]?.circuit;
    if (last && item.circuit && before?.id === item.circuit.id) last[1] = index;
    else found.push([index, index]);
  });
  return found;
}

/**
 * The order in which items are visited: a circuit's neighbours one after the other, round after round (as many rounds
 * as its first item says), everything else once.
 */
export function visits(items: readonly Pick<RoutineItem, 'circuit'>[]): Visit[] {
  return runs(items).flatMap(([first, last]) => {
    const rounds = items[first]?.circuit?.rounds ?? 1;
    return Array.from({ length: rounds }, (_r, round) =>
      Array.from({ length: last - first + 1 }, (_i, at): Visit => ({ index: first + at, round, rounds })),
    ).flat();
  });
}

/** How often an item is done in the routine. */
export function roundsOf(items: readonly Pick<RoutineItem, 'circuit'>[], index: number): number {
  return visits(items).find((visit) => visit.index === index)?.rounds ?? 1;
}
