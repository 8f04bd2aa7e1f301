import type { RoutineItem } from '../domain/index.ts';
import type { Drill } from '../reference/index.ts';
import { roundSeconds, workSeconds } from './seconds.ts';

/** One visit to an item, in which round of how many; from the second round on its set-up still stands. */
export interface Visit {
  readonly index: number;
  /** From 0. */
  readonly round: number;
  readonly rounds: number;
  /** The first item of its circuit. */
  readonly first: boolean;
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
      Array.from({ length: last - first + 1 }, (_i, at): Visit => ({
        index: first + at,
        round,
        rounds,
        first: at === 0,
      })),
    ).flat();
  });
}

/** How often an item is done in the routine. */
export function roundsOf(items: readonly Pick<RoutineItem, 'circuit'>[], index: number): number {
  return visits(items).find((visit) => visit.index === index)?.rounds ?? 1;
}

/** An item as it is done in a round: on a ladder of amounts each round has its own, at least one. */
export function inRound(item: RoutineItem, round: number): RoutineItem {
  const step = (item.circuit?.step ?? 0) * round;
  if (step === 0) return item;
  const next = <T extends { amount: number; amountFrom?: number | undefined }>(dose: T): T => ({
    ...dose,
    amount: Math.max(1, dose.amount + step),
    ...(dose.amountFrom === undefined ? {} : { amountFrom: Math.max(1, dose.amountFrom + step) }),
  });
  const { perSide } = item;
  return {
    ...next(item),
    ...(perSide ? { perSide: { left: next(perSide.left), right: next(perSide.right) } } : {}),
  };
}

/** Seconds that the turn of an item takes in a round, from 0: its station's, or as long as its own dose. */
export function inTurn(drill: Drill, item: RoutineItem, round: number): number {
  const pace = item.circuit?.pace;
  return pace?.by === 'clock' ? pace.work : roundSeconds(drill, inRound(item, round));
}

/** Seconds of work alone over all rounds of an item: what the load count and the totals use. */
export function workInRounds(drill: Drill, item: RoutineItem, rounds: number): number {
  const { circuit } = item;
  if (circuit?.pace?.by === 'clock') return circuit.pace.work * rounds;
  if (!circuit?.step) return workSeconds(drill, item) * rounds;
  return Array.from({ length: rounds }, (_, round) => workSeconds(drill, inRound(item, round))).reduce(
    (sum, seconds) => sum + seconds,
    0,
  );
}
