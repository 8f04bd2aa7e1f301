import type { Mode } from '../domain/index.ts';
import { TIMING } from '../dose/index.ts';
import type { Phase } from '../reference/index.ts';
import type { Option } from './options.ts';
import { BUILDER } from './settings.ts';
import type { WeightedRestriction } from './weights.ts';

/** A linear limit over the chosen options: Σ weight(option) ≤ most. */
interface Limit {
  readonly id: string;
  readonly most: number;
  readonly weight: (option: Option) => number;
}

/** The selection problem: options, what they serve, and every limit. All times in seconds. */
export interface Problem {
  readonly options: readonly Option[];
  readonly weights: readonly WeightedRestriction[];
  readonly phases: readonly Phase[];
  readonly seconds: number;
  readonly maxDrills: number;
  readonly limits: readonly Limit[];
  /** Minimum drills per phase that the options can meet at all. */
  readonly phaseMinimum: readonly number[];
  /** Weighted restrictions at or above the coverage mark that some option covers. */
  readonly coverWanted: readonly number[];
  readonly pins: readonly string[];
}

/** Everything a problem is made from. */
export interface ProblemInput {
  readonly options: readonly Option[];
  readonly weights: readonly WeightedRestriction[];
  readonly phases: readonly Phase[];
  readonly minutes: number;
  readonly maxDrills: number;
  readonly fatigueCap: number;
  readonly mode: Mode;
  readonly stretchOption: string;
  readonly pins: readonly string[];
}

function phaseLimits(phases: readonly Phase[]): Limit[] {
  return phases.flatMap((phase, index): Limit[] => [
    { id: `phase-max:${phase.id}`, most: phase.maxDrills, weight: (o) => (o.phase === index ? 1 : 0) },
    ...(phase.maxContacts === undefined
      ? []
      : [
          {
            id: `phase-contacts:${phase.id}`,
            most: phase.maxContacts,
            weight: (o: Option) => (o.phase === index ? o.contacts : 0),
          },
        ]),
  ]);
}

function schoolLimits(mode: Mode, stretchOption: string): Limit[] {
  if (mode !== 'prepare') return [];
  const count = (category: Option['category']) => (o: Option) => (o.category === category ? 1 : 0);
  return [
    { id: 'release-most', most: 2, weight: count('release') },
    { id: 'strengthen-most', most: 2, weight: count('strengthen') },
    ...(stretchOption === 'short-then-dynamic'
      ? [{ id: 'static-seconds', most: 30, weight: (o: Option) => o.staticSeconds }]
      : []),
  ];
}

/** Puts the limits together. Unavoidable penalties are taken out here, so that the gap speaks of benefit alone. */
export function createProblem(input: ProblemInput): Problem {
  const available = input.phases.map((_, index) => {
    const ladders = new Set(input.options.filter((o) => o.phase === index).map((o) => o.ladder));
    return ladders.size;
  });
  return {
    options: input.options,
    weights: input.weights,
    phases: input.phases,
    seconds: Math.floor(input.minutes * 60),
    maxDrills: input.maxDrills,
    limits: [
      ...phaseLimits(input.phases),
      { id: 'fatigue', most: input.fatigueCap, weight: (o) => o.fatigue },
      ...schoolLimits(input.mode, input.stretchOption),
    ],
    phaseMinimum: input.phases.map((phase, index) => Math.min(phase.minDrills, available[index] ?? 0)),
    coverWanted: input.weights
      .map((weighted, need) => ({ weighted, need }))
      .filter(
        ({ weighted, need }) =>
          weighted.priority >= BUILDER.coverWanted &&
          input.options.some((o) => o.benefit.some((b) => b.need === need)),
      )
      .map(({ need }) => need),
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
  if (new Set(chosen.map((option) => option.ladder)).size < chosen.length) return 'ladder';
  for (const limit of problem.limits) {
    if (chosen.reduce((sum, option) => sum + limit.weight(option), 0) > limit.most + 1e-9) return limit.id;
  }
  if (problem.pins.some((pin) => !chosen.some((option) => option.drill === pin))) return 'pin';
  return planSeconds(problem, chosen) > problem.seconds ? 'time' : null;
}

/** What a plan is worth, and of what parts. */
export interface PlanValue {
  /** Severity-weighted benefit with diminishing returns, without costs and penalties. */
  readonly benefit: number;
  readonly objective: number;
}

/** Value of a plan: ranks 1, 0.55, 0.30 per restriction, minus fatigue, kit, uncovered and phase-minimum penalties. */
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
  for (const need of problem.coverWanted) {
    if (!perNeed.has(need)) costs += BUILDER.uncoveredPenalty * (problem.weights[need]?.weight ?? 0);
  }
  problem.phaseMinimum.forEach((minimum, phase) => {
    const here = chosen.filter((option) => option.phase === phase).length;
    costs += BUILDER.phaseMinimumPenalty * Math.max(0, minimum - here);
  });
  return { benefit, objective: benefit - costs };
}
