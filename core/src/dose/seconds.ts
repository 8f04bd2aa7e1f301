import type { ItemSide, RoutineItem } from '../domain/index.ts';
import type { Drill } from '../reference/index.ts';
import { TIMING } from './settings.ts';

/** The part of an item that decides its time. */
export type DosedItem = Pick<
  RoutineItem,
  'side' | 'sets' | 'amount' | 'holdSeconds' | 'restSeconds' | 'tempo' | 'perSide'
>;

/** Seconds of one repetition from a tempo such as "3-1-1"; null when it is not one. */
export function tempoSeconds(tempo: string | null): number | null {
  if (tempo === null || !/^\d+(\.\d+)?(-\d+(\.\d+)?)+$/.test(tempo)) return null;
  return tempo.split('-').reduce((sum, part) => sum + Number(part), 0);
}

/** Seconds per repetition with the item's own hold and tempo: each changes it by its difference (rulings). */
export function secondsPerRep(drill: Drill, item: Pick<DosedItem, 'holdSeconds' | 'tempo'>): number {
  const holdChange = (item.holdSeconds ?? drill.dose.holdSeconds ?? 0) - (drill.dose.holdSeconds ?? 0);
  const own = tempoSeconds(item.tempo ?? drill.dose.tempo);
  const usual = tempoSeconds(drill.dose.tempo);
  const tempoChange = own !== null && usual !== null ? own - usual : 0;
  return Math.max(0.1, drill.dose.secondsPerRep + holdChange + tempoChange);
}

/** Sides done one after the other: two for a unilateral drill on both sides, else one. */
export function sidesDone(drill: Pick<Drill, 'unilateral'>, side: ItemSide): 1 | 2 {
  return drill.unilateral && side === 'both' ? 2 : 1;
}

/**
 * Exact seconds of an item: setup + sets × sides × amount × secondsPerRep + sets × (sides − 1) × sideSwitch +
 * (sets − 1) × rest, rounded up (rulings, "Seconds"). Uneven sides count each side's own sets and amount.
 */
export function itemSeconds(drill: Drill, item: DosedItem): number {
  const perRep = secondsPerRep(drill, item);
  if (item.perSide && sidesDone(drill, item.side) === 2) {
    const { left, right } = item.perSide;
    const work = (left.sets * left.amount + right.sets * right.amount) * perRep;
    const switches = Math.min(left.sets, right.sets) * TIMING.sideSwitch;
    const rests = (Math.max(left.sets, right.sets) - 1) * item.restSeconds;
    return roundUp(drill.setupSeconds + work + switches + rests);
  }
  const sides = sidesDone(drill, item.side);
  const work = item.sets * sides * item.amount * perRep;
  const switches = item.sets * (sides - 1) * TIMING.sideSwitch;
  return roundUp(drill.setupSeconds + work + switches + (item.sets - 1) * item.restSeconds);
}

/** Rounds up, forgiving binary fractions such as 12.000000000000002. */
function roundUp(seconds: number): number {
  return Math.ceil(seconds - 1e-9);
}

/** Seconds of work alone, both sides, without set-up and rest: what the load count uses. */
export function workSeconds(drill: Drill, item: DosedItem): number {
  const perRep = secondsPerRep(drill, item);
  if (item.perSide && sidesDone(drill, item.side) === 2) {
    const { left, right } = item.perSide;
    return (left.sets * left.amount + right.sets * right.amount) * perRep;
  }
  return item.sets * sidesDone(drill, item.side) * item.amount * perRep;
}
