import type { Mode } from '../domain/index.ts';
import { TIMING } from '../dose/index.ts';
import { bandCost, bandsOf } from './bands.ts';
import type { Band, BandInput } from './bands.ts';
import type { Option } from './options.ts';
import { BUILDER } from './settings.ts';
import type { TodaysPhase } from './structures.ts';
import { isOfAction } from './weights.ts';
import { RELEASE_FIRST } from './promises.ts';
import type { WeightedRestriction } from './weights.ts';

/** What a limit is of. */
export type LimitKind =
  | 'phase-max'
  | 'phase-contacts'
  | 'release-most'
  | 'strengthen-most'
  | 'static-seconds'
  | 'one-per-ladder'
  | 'beside'
  | 'relieve-first'
  | 'release-before'
  | 'restore-one'
  | 'fatigue';

/** A linear limit over the chosen options: Σ weight(option) ≤ most. */
interface Limit {
  /** Its kind and, behind a colon, what of it: a phase, a ladder, a need, a place. */
  readonly id: LimitKind | `${LimitKind}:${string}`;
  readonly most: number;
  readonly weight: (option: Option) => number;
}

/** The selection problem: options, what they serve, every limit and every wish. All times in seconds. */
export interface Problem {
  readonly options: readonly Option[];
  readonly weights: readonly WeightedRestriction[];
  readonly phases: readonly TodaysPhase[];
  readonly seconds: number;
  readonly maxDrills: number;
  readonly limits: readonly Limit[];
  readonly bands: readonly Band[];
  readonly pins: readonly string[];
}

/** Everything a problem is made from. */
export interface ProblemInput extends BandInput {
  readonly fatigueCap: number;
  readonly pins: readonly string[];
  /** Option of the school on still holds before activity. */
  readonly stretchOption: string;
}

function phaseLimits(phases: readonly TodaysPhase[]): Limit[] {
  return phases.flatMap((phase, index): Limit[] => [
    { id: `phase-max:${phase.id}`, most: phase.maxDrills, weight: (o) => (o.phase === index ? 1 : 0) },
    ...(phase.maxContacts === undefined
      ? []
      : [
          {
            id: `phase-contacts:${phase.id}` as const,
            most: phase.maxContacts,
            weight: (o: Option) => (o.phase === index ? o.contacts : 0),
          },
        ]),
  ]);
}

function schoolLimits({ mode, stretchOption, promised }: ProblemInput): Limit[] {
  if (mode !== 'prepare') return [];
  const count = (category: Option['category']) => (o: Option) => (o.category === category ? 1 : 0);
  return [
    { id: 'release-most', most: promised.includes(RELEASE_FIRST) ? 4 : 2, weight: count('release') },
    { id: 'strengthen-most', most: 2, weight: count('strengthen') },
    ...(stretchOption === 'short-then-dynamic'
      ? [{ id: 'static-seconds' as const, most: 30, weight: (o: Option) => o.staticSeconds }]
      : []),
  ];
}

/**
 * Rungs of one ladder that may stand together: one that only prepares (mobilise, easy) beside one that works; in a build
 * two that work. Never three.
 */
function ladderLimits(options: readonly Option[], mode: Mode): Limit[] {
  const rungs = new Map<string, Set<string>>();
  for (const { ladder, drill } of options) rungs.set(ladder, (rungs.get(ladder) ?? new Set()).add(drill));
  return [...rungs].flatMap(([ladder, drills]): Limit[] => {
    const of = (wanted: (o: Option) => boolean) => (o: Option) => (o.ladder === ladder && wanted(o) ? 1 : 0);
    const working = mode === 'build' ? 2 : 1;
    return [
      { id: `one-per-ladder:${ladder}`, most: working, weight: of((o) => !o.prepares) },
      { id: `one-per-ladder:${ladder}`, most: 1, weight: of((o) => o.prepares) },
      ...(drills.size > 1
        ? [{ id: `one-per-ladder:${ladder}` as const, most: 2, weight: of(() => true) }]
        : []),
      ...(working > 1
        ? [...drills].map((drill) => ({
            id: `one-per-ladder:${ladder}` as const,
            most: 1,
            weight: of((o) => o.drill === drill),
          }))
        : []),
    ];
  });
}

/** Of a region that hurts nothing comes before a gentle drill of it; within a phase the order sees to that. */
function relieveFirst({ options, phases, relieving }: ProblemInput): Limit[] {
  return relieving.flatMap(({ id, drills, region }) => {
    if (!options.some((option) => drills.has(option.drill))) return [];
    return phases.map(({ maxDrills: most }, phase): Limit => ({
      id: `relieve-first:${id}:${phase}`,
      most: 0,
      weight: (o) => {
        if (drills.has(o.drill)) return o.phase <= phase ? -most : 0;
        return o.phase === phase && o.regions.includes(region) ? 1 : 0;
      },
    }));
  });
}

/** What only an element speaks for stands beside something that is served in its region: alone there it is a stranger. */
function besideLimits({ options, weights, maxDrills }: ProblemInput): Limit[] {
  const groups = new Map(options.map(({ beside }) => [beside.join(), beside]));
  groups.delete('');
  return [...groups].map(([id, regions]): Limit => ({
    id: `beside:${id}`,
    most: 0,
    weight: (o) => {
      if (o.beside.join() === id) return 1;
      const serves = o.benefit.some(({ need }) => {
        const weighted = weights[need];
        return weighted && !isOfAction(weighted) && regions.includes(weighted.region);
      });
      return serves ? -maxDrills : 0;
    },
  }));
}

/** School "release first": what a release drill serves as well is mobilised only with one of those before it. */
function releaseBefore({ promised, options, weights, maxDrills }: ProblemInput): Limit[] {
  if (!promised.includes(RELEASE_FIRST)) return [];
  return weights.flatMap((_, need): Limit[] => {
    const serves = (o: Option) => o.benefit.some((b) => b.need === need);
    if (!options.some((o) => o.category === 'release' && serves(o))) return [];
    return [
      {
        id: `release-before:${need}`,
        most: 0,
        weight: (o) =>
          !serves(o) ? 0 : o.category === 'release' ? -maxDrills : o.category === 'mobilise' ? 1 : 0,
      },
    ];
  });
}

/** While a painful position is amber, one graded drill goes into it and no more. */
function restoreOne({ restoring }: ProblemInput): Limit[] {
  return restoring
    .filter(({ onlyOne }) => onlyOne)
    .map(({ id, drills }) => ({
      id: `restore-one:${id}`,
      most: 1,
      weight: (o) => (drills.has(o.drill) ? 1 : 0),
    }));
}

/** Puts limits and wishes together. Wishes that nothing can meet are left out, so that the gap speaks of benefit alone. */
export function createProblem(input: ProblemInput): Problem {
  return {
    options: input.options,
    weights: input.weights,
    phases: input.phases,
    seconds: input.seconds,
    maxDrills: input.maxDrills,
    limits: [
      ...phaseLimits(input.phases),
      { id: 'fatigue', most: input.fatigueCap, weight: (o) => o.fatigue },
      ...schoolLimits(input),
      ...releaseBefore(input),
      ...ladderLimits(input.options, input.mode),
      ...besideLimits(input),
      ...relieveFirst(input),
      ...restoreOne(input),
    ],
    bands: bandsOf(input),
    pins: input.pins,
  };
}

/** Floor changes of a plan ordered by phase, floor before upright inside each phase. */
function floorChanges(problem: Problem, chosen: readonly Option[]): number {
  let changes = 0;
  let state: boolean | null = null;
  for (let phase = 0; phase < problem.phases.length; phase += 1) {
    const here = chosen.filter((option) => option.phase === phase);
    for (const floor of [true, false]) {
      if (!here.some((option) => option.floor === floor)) continue;
      if (state !== null && state !== floor) changes += 1;
      state = floor;
    }
  }
  return changes;
}

/** Exact seconds of a plan: items, change-overs and floor changes. */
export function planSeconds(problem: Problem, chosen: readonly Option[]): number {
  if (chosen.length === 0) return 0;
  const items = chosen.reduce((sum, option) => sum + option.seconds, 0);
  return items + (chosen.length - 1) * TIMING.changeover + floorChanges(problem, chosen) * TIMING.floorChange;
}

/** The hard limit a plan breaks, or null when it is feasible. */
export function brokenLimit(problem: Problem, chosen: readonly Option[]): string | null {
  if (chosen.length > problem.maxDrills) return 'max-drills';
  for (const limit of problem.limits) {
    if (chosen.reduce((sum, option) => sum + limit.weight(option), 0) > limit.most + 1e-9) return limit.id;
  }
  if (problem.pins.some((pin) => !chosen.some((option) => option.drill === pin))) return 'pin';
  return planSeconds(problem, chosen) > problem.seconds ? 'time' : null;
}

/** The limits that one option more would break, by kind and what of it; those that stand broken without it are not its own. */
export function limitsAgainst(
  { limits }: Problem,
  chosen: readonly Option[],
  option: Option,
): { kind: LimitKind; of: string }[] {
  return limits.flatMap(({ id, most, weight }) => {
    const more = weight(option);
    const sum = chosen.reduce((all, one) => all + weight(one), more);
    const [kind, of = ''] = id.split(':') as [LimitKind, string?];
    return more > 0 && sum > most + 1e-9 ? [{ kind, of }] : [];
  });
}

/** What a plan is worth, and of what parts. */
export interface PlanValue {
  /** Severity-weighted benefit with diminishing returns, without costs and penalties. */
  readonly benefit: number;
  readonly objective: number;
}

/** Value of a plan: ranks 1, 0.55, 0.30 per restriction, minus fatigue, kit and what the wishes cost. */
export function planValue(problem: Problem, chosen: readonly Option[]): PlanValue {
  const perNeed = new Map<number, number[]>();
  let costs = 0;
  const kit = new Set<string>();
  for (const option of chosen) {
    for (const { need, value } of option.benefit) perNeed.set(need, [...(perNeed.get(need) ?? []), value]);
    costs += BUILDER.fatiguePenalty * option.fatigue - option.tie;
    option.kit.forEach((k) => kit.add(k));
  }
  let benefit = 0;
  for (const values of perNeed.values()) {
    values.sort((a, b) => b - a);
    BUILDER.ranks.forEach((rank, index) => (benefit += rank * (values[index] ?? 0)));
  }
  costs += BUILDER.kitPenalty * kit.size;
  for (const band of problem.bands)
    costs += bandCost(
      band,
      chosen.reduce((sum, option) => sum + band.weight(option), 0),
    );
  return { benefit, objective: benefit - costs };
}
