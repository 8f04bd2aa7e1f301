import { addDays, inForceOf } from '../domain/index.ts';
import type { Hardened, IsoDay, Region, RoutineItem, Standing } from '../domain/index.ts';
import { regionsWorked } from '../reference/index.ts';
import type { Reference } from '../reference/index.ts';
import { PROGRESS } from './settings.ts';

const total = ({ sets, amount, perSide }: RoutineItem): readonly [sets: number, amount: number] =>
  perSide
    ? [Math.max(perSide.left.sets, perSide.right.sets), Math.max(perSide.left.amount, perSide.right.amount)]
    : [sets, amount];

/** Is an item harder than another of the same ladder: a higher level, a set-up step further, more of it, or a set more? */
export function isHarder(reference: Reference, from: RoutineItem, to: RoutineItem): boolean {
  const drill = reference.drills.get(to.drill);
  const ladder = drill && reference.ladders.get(drill.ladder);
  if (!drill || !ladder) return false;
  if (from.drill !== to.drill) {
    const before = ladder.drills.indexOf(from.drill);
    return before >= 0 && ladder.drills.indexOf(to.drill) > before;
  }
  const [setsBefore, amountBefore] = total(from);
  const [sets, amount] = total(to);
  return (
    sets > setsBefore ||
    amount > amountBefore ||
    (to.holdSeconds ?? 0) > (from.holdSeconds ?? to.holdSeconds ?? 0) ||
    drill.setupVariables.some((variable) => {
      const step = (item: RoutineItem) => variable.steps.indexOf(item.setup[variable.id] ?? variable.default);
      return step(to) > step(from);
    })
  );
}

/**
 * What a version makes harder than the one before it, to be kept with it: what was made harder in the last days stays on the
 * list, so that a version issued soon after does not forget it.
 */
export function hardenedIn(
  reference: Reference,
  before: { readonly items: readonly RoutineItem[]; readonly hardened?: readonly Hardened[] } | null,
  items: readonly RoutineItem[],
  on: IsoDay,
): Hardened[] {
  if (!before) return [];
  const isStepFrom = (item: RoutineItem) => (old: RoutineItem) => isHarder(reference, old, item);
  const fresh = items.flatMap((item): Hardened[] => {
    // Where the drill was there already, with itself alone: a level below that stands beside it is no step before it.
    const same = before.items.filter(({ drill }) => drill === item.drill);
    const own = same.find(({ id }) => id !== undefined && id === item.id);
    const olds = own ? [own] : same.length > 0 ? same : before.items;
    const harder = same.length > 0 ? olds.every(isStepFrom(item)) : olds.some(isStepFrom(item));
    return harder ? [{ drill: item.drill, on }] : [];
  });
  const from = addDays(on, -PROGRESS.hardenedDays);
  return [...(before.hardened ?? []).filter((one) => one.on > from), ...fresh];
}

/** Drills of a routine that kept no list, which the diary shows harder since it was issued than they were done before. */
function hardenedByDiary(reference: Reference, { routine, diary }: Standing): Hardened[] {
  if (!routine || routine.hardened) return [];
  const before = diary
    .filter(({ date }) => date < routine.issued)
    .sort((a, b) => (a.date < b.date ? -1 : 1))
    .flatMap(({ entries }) => entries.filter(({ done }) => done === 'all'));
  return routine.items.flatMap((item): Hardened[] => {
    const own = before.findLast(({ drill }) => drill === item.drill);
    const [sets, amount] = total(item);
    const below = reference.drills.get(item.drill)?.easeTo;
    const harder = own
      ? own.amounts.length > 0 && (sets > own.amounts.length || amount > Math.max(...own.amounts))
      : below !== undefined && before.some(({ drill }) => drill === below);
    return harder ? [{ drill: item.drill, on: routine.issued }] : [];
  });
}

/** Regions in which something was made harder within the last days, in whatever routine, with the day of the last. */
export function hardenedRegions(reference: Reference, standing: Standing): Map<Region, IsoDay> {
  const from = addDays(standing.today, -PROGRESS.hardenedDays);
  const all = [
    ...inForceOf(standing).flatMap((routine) => routine.hardened ?? []),
    ...hardenedByDiary(reference, standing),
  ].filter(({ on }) => on > from && on <= standing.today);
  const regions = new Map<Region, IsoDay>();
  for (const { drill: id, on } of all.sort((a, b) => (a.on < b.on ? -1 : 1))) {
    const drill = reference.drills.get(id);
    for (const region of drill ? regionsWorked(drill) : []) regions.set(region, on);
  }
  return regions;
}
