import type { RoutineItem, Side } from '../domain/index.ts';
import { routineSeconds, routineTime, TIMING } from '../dose/index.ts';
import { isLine } from '../reference/index.ts';
import { optionFor, servesByMatch } from './explain.ts';
import type { MipSolver } from './mip.ts';
import type { Option } from './options.ts';
import type { Prepared } from './prepared.ts';
import type { Problem } from './problem.ts';
import { BUILDER } from './settings.ts';
import { solvePlan } from './solvePlan.ts';
import { unservedBy } from './unserved.ts';
import type { Unserved } from './unserved.ts';

/** What an item put in by hand does for each weighted need, by its place in the list of needs. */
function valuesOf(prepared: Prepared, item: RoutineItem): { need: number; value: number }[] {
  if (isLine(item.drill)) return [];
  const option = optionFor(prepared, item);
  if (option) return [...option.benefit];
  return servesByMatch(prepared, item).flatMap(({ restriction, side, match }) => {
    const need = prepared.weights.findIndex((w) => w.restriction === restriction && w.side === side);
    const weight = prepared.weights[need]?.weight ?? 0;
    return need < 0 ? [] : [{ need, value: weight * match }];
  });
}

/**
 * Severity-weighted benefit of any of these items, ranks 1, 0.55, 0.30 per need: what the builder counts, without costs.
 * What each does is worked out once.
 */
export function benefitAmong(
  prepared: Prepared,
  items: readonly RoutineItem[],
): (some: readonly RoutineItem[]) => number {
  const values = new Map(items.map((item) => [item, valuesOf(prepared, item)]));
  return (some) => {
    const perNeed = new Map<number, number[]>();
    for (const { need, value } of some.flatMap((item) => values.get(item) ?? []))
      perNeed.set(need, [...(perNeed.get(need) ?? []), value]);
    return [...perNeed.values()].reduce((sum, own) => {
      const best = [...own].sort((a, b) => b - a);
      return sum + BUILDER.ranks.reduce((all, rank, i) => all + rank * (best[i] ?? 0), 0);
    }, 0);
  };
}

/** The benefit of all these items together. */
export const benefitOf = (prepared: Prepared, items: readonly RoutineItem[]): number =>
  benefitAmong(prepared, items)(items);

/** A fixed item as the limits and wishes count it, with the seconds it takes. */
function counted(prepared: Prepared, item: RoutineItem, seconds: number): Option | null {
  const option = isLine(item.drill) ? undefined : optionFor(prepared, item);
  return option ? { ...option, seconds } : null;
}

/** The problem that is left around items that stay: their time, fatigue and shares are spent, what they serve counts less. */
function remaining(prepared: Prepared, items: readonly RoutineItem[]): Problem {
  const { problem, reference } = prepared;
  const time = routineTime(reference, items);
  const fixed = items.flatMap((item, i) => counted(prepared, item, time.items[i] ?? 0) ?? []);
  const spent = (weight: (option: Option) => number) => fixed.reduce((sum, one) => sum + weight(one), 0);
  const served = new Map<number, number>();
  for (const { need } of items.flatMap((item) => valuesOf(prepared, item)))
    served.set(need, (served.get(need) ?? 0) + 1);
  const taken = new Set(items.map((item) => reference.drills.get(item.drill)?.ladder));
  const left = problem.options.filter(({ ladder }) => !taken.has(ladder));
  const rankOf = (need: number) => BUILDER.ranks[served.get(need) ?? 0] ?? 0;
  return {
    ...problem,
    options: left.map((option) => ({
      ...option,
      pinned: false,
      benefit: option.benefit.map((own) => ({ ...own, value: own.value * rankOf(own.need) })),
    })),
    seconds: Math.max(0, problem.seconds - time.total - TIMING.changeover),
    maxDrills: Math.max(1, problem.maxDrills - fixed.length),
    limits: problem.limits.map((limit) => ({
      ...limit,
      most: Math.max(0, limit.most - spent(limit.weight)),
    })),
    bands: problem.bands.map((band) => ({
      ...band,
      least: band.least - spent(band.weight),
      most: Math.max(0, band.most - spent(band.weight)),
    })),
    pins: [],
  };
}

/** Where a drill of a phase goes among items that stay: after the last of its phase or an earlier one, never into a circuit. */
function placeFor(prepared: Prepared, items: readonly RoutineItem[], option: Option): number {
  const { phases } = prepared.chosen;
  const known = items.map((item) => phases.findIndex((phase) => phase.id === item.phase));
  let at: number;
  if (known.some((place) => place >= 0))
    at = known.findLastIndex((place) => place >= 0 && place <= option.phase) + 1;
  else at = option.category === 'raise' ? 0 : items.length;
  while (at > 0 && items[at]?.circuit && items[at]?.circuit?.id === items[at - 1]?.circuit?.id) at += 1;
  return at;
}

/** A routine filled up, and the drills that came in. */
export interface Completed {
  readonly items: readonly RoutineItem[];
  readonly added: readonly {
    readonly drill: string;
    readonly side: RoutineItem['side'];
    readonly seconds: number;
  }[];
}

/**
 * Fills the minutes that are left around items that stay as they are, in their order: the best choice for what they do not
 * serve, by the same model as a build. Nothing is added where no time is left or nothing allowed fits.
 */
export function completeAround(
  prepared: Prepared,
  items: readonly RoutineItem[],
  solver: MipSolver,
): Completed {
  const { reference, problem: whole } = prepared;
  const problem = remaining(prepared, items);
  if (problem.seconds <= 0 || problem.options.length === 0) return { items, added: [] };
  const plan = solvePlan(problem, solver);
  const sectioned = items.some(
    ({ phase }) => phase !== null && !prepared.chosen.phases.some(({ id }) => id === phase),
  );
  let all = [...items];
  const added: Completed['added'][0][] = [];
  const byPhase = [...(plan?.chosen ?? [])].sort((a, b) => a.phase - b.phase);
  for (const option of byPhase) {
    const at = placeFor(prepared, all, option);
    const neighbour = all[at - 1] ?? all[at];
    const item = sectioned ? { ...option.item, phase: neighbour?.phase ?? null } : option.item;
    const next = all.toSpliced(at, 0, item);
    if (routineSeconds(reference, next) > whole.seconds) continue;
    all = next;
    added.push({ drill: option.drill, side: option.item.side, seconds: option.seconds });
  }
  return { items: all, added };
}

/** What one way of doing it answers and takes. */
interface Way {
  readonly items: readonly RoutineItem[];
  readonly seconds: number;
  readonly benefit: number;
  readonly unserved: readonly Unserved[];
}

/** A routine beside what would have been built for the same minutes, kit and limits. */
export interface SideBySide {
  readonly own: Way;
  readonly built: Way | null;
  /** Every finding that either answers, worst first, with the places of the drills that do. */
  readonly findings: readonly {
    readonly restriction: string;
    readonly side: Side;
    readonly own: readonly number[];
    readonly built: readonly number[];
  }[];
}

function wayOf(prepared: Prepared, items: readonly RoutineItem[]): Way {
  return {
    items,
    seconds: routineSeconds(prepared.reference, items),
    benefit: benefitOf(prepared, items),
    unserved: unservedBy(prepared, items),
  };
}

/** Lays a routine beside the one that would be built; `built` is null where none can be. */
export function sideBySide(
  prepared: Prepared,
  items: readonly RoutineItem[],
  built: readonly RoutineItem[] | null,
): SideBySide {
  const places = (list: readonly RoutineItem[], restriction: string, side: Side) =>
    list.flatMap((item, i) => {
      if (isLine(item.drill)) return [];
      const serves = servesByMatch(prepared, item);
      return serves.some((s) => s.restriction === restriction && s.side === side) ? [i] : [];
    });
  const findings = [...prepared.weights]
    .sort((a, b) => b.weight - a.weight)
    .filter(({ restriction }) => prepared.reference.restrictions.has(restriction))
    .map(({ restriction, side }) => ({
      restriction,
      side,
      own: places(items, restriction, side),
      built: places(built ?? [], restriction, side),
    }))
    .filter(({ own, built: theirs }) => own.length + theirs.length > 0);
  return { own: wayOf(prepared, items), built: built ? wayOf(prepared, built) : null, findings };
}
