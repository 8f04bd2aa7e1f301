import { seededRandom } from '../random/index.ts';
import { TIMING } from '../dose/index.ts';
import { bandCost } from './bands.ts';
import { brokenLimit, planValue } from './problem.ts';
import type { Problem } from './problem.ts';
import type { Option } from './options.ts';
import { BUILDER } from './settings.ts';

/** A plan under construction with everything needed to price one more option quickly. */
class PartialPlan {
  readonly chosen: number[] = [];
  private readonly perNeed = new Map<number, number[]>();
  private readonly used: number[];
  private readonly floorHere: number[];
  private readonly uprightHere: number[];
  private readonly kit = new Map<string, number>();
  private seconds = 0;
  private readonly problem: Problem;
  private readonly tables: Tables;
  private readonly bandSums: number[];

  constructor(problem: Problem, tables: Tables) {
    this.problem = problem;
    this.tables = tables;
    this.used = problem.limits.map(() => 0);
    this.bandSums = problem.bands.map(() => 0);
    this.floorHere = problem.phases.map(() => 0);
    this.uprightHere = problem.phases.map(() => 0);
  }

  private option(index: number): Option {
    const option = this.problem.options[index];
    if (!option) throw new RangeError(`no option ${index}`);
    return option;
  }

  private shift(index: number, by: 1 | -1): void {
    const option = this.option(index);
    const here = option.floor ? this.floorHere : this.uprightHere;
    here[option.phase] = (here[option.phase] ?? 0) + by;
    this.seconds += by * (option.seconds + TIMING.changeover);
    for (const [l, weight] of this.tables.limits[index] ?? [])
      this.used[l] = (this.used[l] ?? 0) + by * weight;
    for (const [b, weight] of this.tables.bands[index] ?? [])
      this.bandSums[b] = (this.bandSums[b] ?? 0) + by * weight;
    for (const kit of option.kit) this.kit.set(kit, (this.kit.get(kit) ?? 0) + by);
    for (const { need, value } of option.benefit) {
      const values = this.perNeed.get(need) ?? [];
      if (by === 1) values.push(value);
      else values.splice(values.indexOf(value), 1);
      values.sort((a, b) => b - a);
      this.perNeed.set(need, values);
    }
  }

  add(index: number): void {
    this.chosen.push(index);
    this.shift(index, 1);
  }

  remove(position: number): void {
    const [index] = this.chosen.splice(position, 1);
    if (index === undefined) return;
    this.shift(index, -1);
  }

  private floorChanges(): number {
    let changes = 0;
    let state = -1;
    for (let p = 0; p < this.floorHere.length; p += 1) {
      if ((this.floorHere[p] ?? 0) > 0) {
        if (state === 0) changes += 1;
        state = 1;
      }
      if ((this.uprightHere[p] ?? 0) > 0) {
        if (state === 1) changes += 1;
        state = 0;
      }
    }
    return changes;
  }

  fits(index: number): boolean {
    const option = this.option(index);
    if (this.chosen.length >= this.problem.maxDrills) return false;
    for (const [l, weight] of this.tables.limits[index] ?? [])
      if ((this.used[l] ?? 0) + weight > (this.problem.limits[l]?.most ?? 0) + 1e-9) return false;
    const most = this.problem.seconds + TIMING.changeover;
    if (this.seconds + option.seconds + TIMING.changeover > most) return false;
    const here = option.floor ? this.floorHere : this.uprightHere;
    here[option.phase] = (here[option.phase] ?? 0) + 1;
    const floor = this.floorChanges() * TIMING.floorChange;
    here[option.phase] = (here[option.phase] ?? 1) - 1;
    return this.seconds + option.seconds + TIMING.changeover + floor <= most;
  }

  /** Change of the objective when the option is added. */
  gain(index: number): number {
    const option = this.option(index);
    let gain = option.tie - BUILDER.fatiguePenalty * option.fatigue;
    for (const kit of option.kit) if (!(this.kit.get(kit) ?? 0)) gain -= BUILDER.kitPenalty;
    for (const { need, value } of option.benefit) {
      const values = this.perNeed.get(need);
      if (!values || values.length === 0) {
        gain += value;
        continue;
      }
      gain += rankGain(values, value);
    }
    for (const [b, weight] of this.tables.bands[index] ?? []) {
      const band = this.problem.bands[b];
      const sum = this.bandSums[b] ?? 0;
      if (band) gain += bandCost(band, sum) - bandCost(band, sum + weight);
    }
    return gain;
  }

  options(): Option[] {
    return this.chosen.map((index) => this.option(index));
  }
}

/** What one more value adds to the ranked sum of values that are sorted from the highest. */
function rankGain(sorted: readonly number[], value: number): number {
  const { ranks } = BUILDER;
  let at = 0;
  while (at < sorted.length && (sorted[at] ?? 0) >= value) at += 1;
  let gain = 0;
  for (let k = at; k < ranks.length; k += 1) {
    const now = k === at ? value : (sorted[k - 1] ?? 0);
    gain += (ranks[k] ?? 0) * (now - (sorted[k] ?? 0));
  }
  return gain;
}

type Score = (gain: number, option: Option, index: number) => number;

function fill(plan: PartialPlan, problem: Problem, score: Score): void {
  for (;;) {
    let best = -1;
    let bestScore = 1e-9;
    for (let index = 0; index < problem.options.length; index += 1) {
      const option = problem.options[index];
      if (!option || !plan.fits(index)) continue;
      const gain = plan.gain(index);
      if (gain <= 1e-9) continue;
      const value = score(gain, option, index);
      if (value > bestScore) {
        best = index;
        bestScore = value;
      }
    }
    if (best < 0) return;
    plan.add(best);
  }
}

/** Places every pin at its cheapest fitting option; false when one does not fit. */
function placePins(plan: PartialPlan, problem: Problem): boolean {
  return problem.pins.every((pin) => {
    const own = problem.options
      .map((option, index) => ({ option, index }))
      .filter(({ option, index }) => option.drill === pin && plan.fits(index))
      .sort((a, b) => a.option.seconds - b.option.seconds || a.index - b.index)[0];
    if (own) plan.add(own.index);
    return own !== undefined;
  });
}

const byGain = (gain: number) => gain;
const bySecond = (gain: number, option: Option) => gain / (option.seconds + TIMING.changeover);

/** Of each option the limits and bands it counts in, by place, with how much. */
interface Tables {
  readonly limits: readonly (readonly (readonly [number, number])[])[];
  readonly bands: readonly (readonly (readonly [number, number])[])[];
}

function tablesOf(problem: Problem): Tables {
  const sparse = (rows: readonly { weight: (option: Option) => number }[]) =>
    problem.options.map((option) =>
      rows.map((row, place) => [place, row.weight(option)] as const).filter(([, weight]) => weight !== 0),
    );
  return { limits: sparse(problem.limits), bands: sparse(problem.bands) };
}

/** The plainest plan: pins, then again and again the option with the most gain per second that still fits. */
export function greedyPlan(problem: Problem): Option[] | null {
  const plan = new PartialPlan(problem, tablesOf(problem));
  if (!placePins(plan, problem)) return null;
  fill(plan, problem, bySecond);
  return plan.options();
}

const LOCAL_SEARCH_ROUNDS = 140;

/**
 * Greedy, then seeded ruin-and-recreate for a fixed number of rounds (never a time limit, so that the same input
 * gives the same plan). `onStart` hears the greedy plan that it starts from. Null when the pins do not fit together.
 */
export function localSearch(
  problem: Problem,
  rounds: number = LOCAL_SEARCH_ROUNDS,
  onStart?: (plan: Option[]) => void,
): Option[] | null {
  const table = tablesOf(problem);
  const start = (score: Score) => {
    const plan = new PartialPlan(problem, table);
    if (!placePins(plan, problem)) return null;
    fill(plan, problem, score);
    return plan;
  };
  const candidates = [start(bySecond), start(byGain)].filter((plan) => plan !== null);
  if (candidates.length === 0) return null;
  const valueOf = (plan: PartialPlan) => planValue(problem, plan.options()).objective;
  let best = candidates.reduce((a, b) => (valueOf(b) > valueOf(a) ? b : a));
  let bestValue = valueOf(best);
  onStart?.(best.options());
  const random = seededRandom(20_270_301);
  for (let round = 0; round < rounds; round += 1) {
    const trial = new PartialPlan(problem, table);
    const removable = best.chosen.filter(
      (index) => !problem.pins.includes(problem.options[index]?.drill ?? ''),
    );
    const gone = new Set<number>();
    const drops = Math.min(removable.length, 1 + Math.floor(random() * 3));
    while (gone.size < drops) gone.add(removable[Math.floor(random() * removable.length)] ?? -1);
    best.chosen.filter((index) => !gone.has(index)).forEach((index) => trial.add(index));
    fill(trial, problem, round % 2 === 0 ? byGain : bySecond);
    const value = valueOf(trial);
    if (value > bestValue + 1e-9 && brokenLimit(problem, trial.options()) === null) {
      best = trial;
      bestValue = value;
    }
  }
  return best.options();
}

const GUIDED_ROUNDS = 120;
/** How much of an option's pull stands when the relaxation does not use it. */
const UNGUIDED = 0.25;

/**
 * Goes on from a plan towards what a relaxation uses (a value 0 to 1 for each option): ruin and recreate with scores
 * that it weighs and that a seeded noise varies. Rounds are limited, never time. Never worse than the plan given.
 */
export function guidedSearch(problem: Problem, from: readonly Option[], pull: readonly number[]): Option[] {
  const table = tablesOf(problem);
  const random = seededRandom(20_270_302);
  const valueOf = (plan: PartialPlan) => planValue(problem, plan.options()).objective;
  const place = new Map(problem.options.map((option, index) => [option, index]));
  let best = new PartialPlan(problem, table);
  from.forEach((option) => best.add(place.get(option) ?? -1));
  let bestValue = valueOf(best);
  const pinned = (index: number) => problem.pins.includes(problem.options[index]?.drill ?? '');
  for (let round = 0; round < GUIDED_ROUNDS; round += 1) {
    const noise = problem.options.map(() => 0.7 + 0.6 * random());
    const score: Score = (gain, option, index) =>
      (gain * (noise[index] ?? 1) * (UNGUIDED + (pull[index] ?? 0))) /
      (round % 2 === 0 ? 1 : option.seconds + TIMING.changeover);
    const trial = new PartialPlan(problem, table);
    // What the relaxation does not use goes first; every eighth round starts anew.
    const keeps = (index: number) =>
      pinned(index) || (round % 8 !== 0 && random() < 0.35 + 0.5 * (pull[index] ?? 0));
    best.chosen.filter(keeps).forEach((index) => trial.add(index));
    fill(trial, problem, score);
    const value = valueOf(trial);
    if (value > bestValue + 1e-9 && brokenLimit(problem, trial.options()) === null) {
      best = trial;
      bestValue = value;
    }
  }
  return best.options();
}
