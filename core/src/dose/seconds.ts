import type { ItemSide, RoutineItem } from '../domain/index.ts';
import type { Drill } from '../reference/index.ts';
import { TIMING } from './settings.ts';

/** The part of an item that decides its time. */
export type DosedItem = Pick<
  RoutineItem,
  | 'side'
  | 'sets'
  | 'amount'
  | 'holdSeconds'
  | 'restSeconds'
  | 'tempo'
  | 'perSide'
  | 'holdBreaths'
  | 'bothWays'
  | 'cadence'
>;

/** Is a drill counted, so that a cadence sets its pace? */
export function hasCadence({ dose }: Pick<Drill, 'dose'>): boolean {
  return dose.measure === 'reps' || dose.measure === 'contacts';
}

/** Seconds of one repetition from a tempo such as "3-1-1"; null when it is not one. */
export function tempoSeconds(tempo: string | null): number | null {
  if (tempo === null || !/^\d+(\.\d+)?(-\d+(\.\d+)?)+$/.test(tempo)) return null;
  return tempo.split('-').reduce((sum, part) => sum + Number(part), 0);
}

/** Seconds that each repetition is held: breaths at their usual length, else the item's own, else the drill's. */
function heldSeconds(drill: Drill, item: Pick<DosedItem, 'holdSeconds' | 'holdBreaths'>): number {
  if (item.holdBreaths !== undefined) return item.holdBreaths * TIMING.breath;
  return item.holdSeconds ?? drill.dose.holdSeconds ?? 0;
}

/**
 * Seconds per repetition with the item's own hold and tempo: each changes it by its difference (rulings). A cadence says
 * it outright.
 */
export function secondsPerRep(
  drill: Drill,
  item: Pick<DosedItem, 'holdSeconds' | 'tempo' | 'holdBreaths' | 'cadence'>,
): number {
  if (item.cadence !== undefined && hasCadence(drill)) return 60 / item.cadence;
  const holdChange = heldSeconds(drill, item) - (drill.dose.holdSeconds ?? 0);
  const own = tempoSeconds(item.tempo ?? drill.dose.tempo);
  const usual = tempoSeconds(drill.dose.tempo);
  const tempoChange = own !== null && usual !== null ? own - usual : 0;
  return Math.max(0.1, drill.dose.secondsPerRep + holdChange + tempoChange);
}

/** Sides done one after the other: two for a unilateral drill on both sides, else one. */
export function sidesDone(drill: Pick<Drill, 'unilateral'>, side: ItemSide): 1 | 2 {
  return drill.unilateral && side === 'both' ? 2 : 1;
}

/** Sets and amount of each side that is done, in the order they are done. */
export function sideDoses(
  drill: Pick<Drill, 'unilateral'>,
  item: Pick<DosedItem, 'side' | 'sets' | 'amount' | 'perSide'>,
): { side: ItemSide; sets: number; amount: number }[] {
  const even = { sets: item.sets, amount: item.amount };
  if (sidesDone(drill, item.side) === 1) return [{ side: item.side, ...even }];
  const { left, right } = item.perSide ?? { left: even, right: even };
  return [
    { side: 'left', ...left },
    { side: 'right', ...right },
  ];
}

/** Seconds of work alone, both sides and both ways round, without set-up and rest: what the load count uses. */
export function workSeconds(drill: Drill, item: DosedItem): number {
  const amount = sideDoses(drill, item).reduce((sum, dose) => sum + dose.sets * dose.amount, 0);
  return amount * secondsPerRep(drill, item) * (item.bothWays ? 2 : 1);
}

/** Seconds of an item's work, side switches and rests in one round, without set-up. */
export function roundSeconds(drill: Drill, item: DosedItem): number {
  const sets = sideDoses(drill, item).map((dose) => dose.sets);
  const switches = sets.length === 2 ? Math.min(...sets) * TIMING.sideSwitch : 0;
  return workSeconds(drill, item) + switches + (Math.max(...sets) - 1) * item.restSeconds;
}

/**
 * Exact seconds of an item done once: setup + sets × sides × amount × secondsPerRep + sets × (sides − 1) × sideSwitch +
 * (sets − 1) × rest, rounded up (rulings, "Seconds"). Uneven sides count each side's own sets and amount; a drill done
 * both ways round counts its amount twice.
 */
export function itemSeconds(drill: Drill, item: DosedItem): number {
  return roundUp(drill.setupSeconds + roundSeconds(drill, item));
}

/** Rounds up, forgiving binary fractions such as 12.000000000000002. */
export function roundUp(seconds: number): number {
  return Math.ceil(seconds - 1e-9);
}
