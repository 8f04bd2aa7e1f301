import { TIMING } from '../dose/index.ts';
import { addColumn, addRow, emptyModel } from './mip.ts';
import type { MipModel } from './mip.ts';
import type { Option } from './options.ts';
import type { Problem } from './problem.ts';
import { BUILDER } from './settings.ts';

type Entry = readonly [number, number];

/** The problem as a mixed-integer model, with the way from a plan to a point and back. */
export interface PlanModel {
  readonly model: MipModel;
  /** Column of each option. */
  readonly optionColumn: readonly number[];
  /** The options chosen by a solution. */
  readonly chosenOf: (values: readonly number[]) => Option[];
  /** A full feasible point of a feasible plan, to start the solver from. */
  readonly pointOf: (chosen: readonly Option[]) => number[];
}

interface FloorColumns {
  readonly floor: number;
  readonly upright: number;
  readonly endsUpright: number;
  readonly down: number;
  readonly up: number;
}

interface Columns {
  readonly x: number[];
  readonly kit: Map<string, number>;
  /** need → option index → columns per rank. */
  readonly ranked: Map<number, Map<number, number[]>>;
  /** Columns of what lies below and above each band. */
  readonly bands: readonly { readonly under: number | null; readonly over: number | null }[];
  readonly startsUpright: number;
  readonly floors: FloorColumns[];
}

function group<K>(problem: Problem, key: (option: Option) => K): Map<K, number[]> {
  const groups = new Map<K, number[]>();
  problem.options.forEach((option, index) => {
    const k = key(option);
    const members = groups.get(k);
    if (members) members.push(index);
    else groups.set(k, [index]);
  });
  return groups;
}

function addOptionColumns(model: MipModel, problem: Problem): number[] {
  return problem.options.map((option) =>
    addColumn(model, option.tie - BUILDER.fatiguePenalty * option.fatigue, 0, 1, true),
  );
}

function addKit(model: MipModel, problem: Problem, x: readonly number[]): Map<string, number> {
  const kit = new Map<string, number>();
  for (const option of problem.options) {
    for (const k of option.kit)
      if (!kit.has(k)) kit.set(k, addColumn(model, -BUILDER.kitPenalty, 0, 1, false));
  }
  for (const members of group(problem, (option) => option.drill).values()) {
    for (const k of problem.options[members[0] ?? 0]?.kit ?? []) {
      const column = kit.get(k);
      if (column === undefined) continue;
      addRow(model, [...members.map((i): Entry => [x[i] ?? 0, 1]), [column, -1]], -Infinity, 0);
    }
  }
  return kit;
}

/** Rank assignment: each option takes one rank per need, each rank is taken once (study of the model, 1.2). */
function addRanks(model: MipModel, problem: Problem, x: readonly number[]): Columns['ranked'] {
  const ranked: Columns['ranked'] = new Map();
  problem.weights.forEach((_, need) => {
    const serving = problem.options
      .map((option, index) => ({ index, value: option.benefit.find((b) => b.need === need)?.value ?? 0 }))
      .filter(({ value }) => value > 0);
    if (serving.length === 0) return;
    const drills = new Set(serving.map(({ index }) => problem.options[index]?.drill)).size;
    const ranks = Math.min(BUILDER.ranks.length, drills);
    const columns = new Map<number, number[]>();
    for (const { index, value } of serving) {
      const own = Array.from({ length: ranks }, (_r, k) =>
        addColumn(model, (BUILDER.ranks[k] ?? 0) * value, 0, 1, false),
      );
      columns.set(index, own);
      addRow(model, [...own.map((c): Entry => [c, 1]), [x[index] ?? 0, -1]], -Infinity, 0);
    }
    for (let k = 0; k < ranks; k += 1) {
      addRow(
        model,
        [...columns.values()].map((own): Entry => [own[k] ?? 0, 1]),
        -Infinity,
        1,
      );
    }
    ranked.set(need, columns);
  });
  return ranked;
}

function addCounts(model: MipModel, problem: Problem, x: readonly number[]): void {
  const all = x.map((column): Entry => [column, 1]);
  addRow(model, all, -Infinity, problem.maxDrills);
  for (const limit of problem.limits) {
    const entries = problem.options
      .map((option, i): Entry => [x[i] ?? 0, limit.weight(option)])
      .filter(([, weight]) => weight !== 0);
    if (entries.length > 0) addRow(model, entries, -Infinity, limit.most);
  }
  for (const pin of problem.pins) {
    const own = problem.options.flatMap((option, i): Entry[] =>
      option.drill === pin ? [[x[i] ?? 0, 1]] : [],
    );
    addRow(model, own, 1, 1);
  }
}

function addBands(model: MipModel, problem: Problem, x: readonly number[]): Columns['bands'] {
  return problem.bands.map((band) => {
    const entries = problem.options
      .map((option, i): Entry => [x[i] ?? 0, band.weight(option)])
      .filter(([, weight]) => weight !== 0);
    let under: number | null = null;
    let over: number | null = null;
    if (band.under > 0) {
      under = addColumn(model, -band.under, 0, band.least, false);
      addRow(model, [...entries, [under, 1]], band.least, Infinity);
    }
    if (band.over > 0 && band.most < Infinity) {
      over = addColumn(model, -band.over, 0, Infinity, false);
      addRow(model, [...entries, [over, -1]], -Infinity, band.most);
    }
    return { under, over };
  });
}

/**
 * Floor changes, exactly: inside a phase the floor drills come first, so the state (upright or not) after each phase
 * follows from which kinds the phase holds. All columns are implied integral once the options are.
 */
function addFloor(
  model: MipModel,
  problem: Problem,
  x: readonly number[],
): Pick<Columns, 'startsUpright' | 'floors'> {
  const startsUpright = addColumn(model, 0, 0, 1, false);
  let before = startsUpright;
  const floors = problem.phases.map((_, phase): FloorColumns => {
    const floor = addColumn(model, 0, 0, 1, false);
    const upright = addColumn(model, 0, 0, 1, false);
    const endsUpright = addColumn(model, 0, 0, 1, false);
    const down = addColumn(model, 0, 0, 1, false);
    const up = addColumn(model, 0, 0, 1, false);
    const perDrill = new Map<string, { members: number[]; floor: boolean }>();
    problem.options.forEach((option, index) => {
      if (option.phase !== phase) return;
      const entry = perDrill.get(option.drill) ?? { members: [], floor: option.floor };
      entry.members.push(index);
      perDrill.set(option.drill, entry);
    });
    for (const { members, floor: isFloorDrill } of perDrill.values()) {
      const entries = members.map((i): Entry => [x[i] ?? 0, 1]);
      addRow(model, [...entries, [isFloorDrill ? floor : upright, -1]], -Infinity, 0);
    }
    // Neither kind may be claimed for a phase that does not hold it: half an invented stand would hide a change.
    for (const [kind, own] of [
      [floor, true],
      [upright, false],
    ] as const) {
      const members = [...perDrill.values()].filter((drill) => drill.floor === own).flatMap((d) => d.members);
      addRow(model, [[kind, 1], ...members.map((i): Entry => [x[i] ?? 0, -1])], -Infinity, 0);
    }
    addRow(
      model,
      [
        [endsUpright, 1],
        [upright, -1],
      ],
      0,
      Infinity,
    );
    addRow(
      model,
      [
        [endsUpright, 1],
        [before, -1],
        [floor, 1],
      ],
      0,
      Infinity,
    );
    addRow(
      model,
      [
        [endsUpright, 1],
        [floor, 1],
        [upright, -1],
      ],
      -Infinity,
      1,
    );
    addRow(
      model,
      [
        [endsUpright, 1],
        [before, -1],
        [upright, -1],
      ],
      -Infinity,
      0,
    );
    addRow(
      model,
      [
        [down, 1],
        [floor, -1],
        [before, -1],
      ],
      -1,
      Infinity,
    );
    addRow(
      model,
      [
        [up, 1],
        [floor, -1],
        [upright, -1],
      ],
      -1,
      Infinity,
    );
    addRow(
      model,
      [
        [up, 1],
        [upright, -1],
        [before, 1],
      ],
      0,
      Infinity,
    );
    before = endsUpright;
    return { floor, upright, endsUpright, down, up };
  });
  return { startsUpright, floors };
}

function addTime(
  model: MipModel,
  problem: Problem,
  x: readonly number[],
  floors: readonly FloorColumns[],
): void {
  const items = problem.options.map((option, i): Entry => [x[i] ?? 0, option.seconds + TIMING.changeover]);
  const changes = floors.flatMap(({ down, up }): Entry[] => [
    [down, TIMING.floorChange],
    [up, TIMING.floorChange],
  ]);
  addRow(model, [...items, ...changes], -Infinity, problem.seconds + TIMING.changeover);
}

function setFloorPoint(problem: Problem, columns: Columns, chosen: readonly Option[], point: number[]): void {
  const first = [...chosen].sort((a, b) => a.phase - b.phase || Number(b.floor) - Number(a.floor))[0];
  let upright = first ? !first.floor : true;
  point[columns.startsUpright] = upright ? 1 : 0;
  problem.phases.forEach((_, phase) => {
    const own = columns.floors[phase];
    if (!own) return;
    const here = chosen.filter((option) => option.phase === phase);
    const hasFloor = here.some((option) => option.floor);
    const hasUpright = here.some((option) => !option.floor);
    point[own.floor] = hasFloor ? 1 : 0;
    point[own.upright] = hasUpright ? 1 : 0;
    point[own.down] = hasFloor && upright ? 1 : 0;
    point[own.up] = hasUpright && (hasFloor || !upright) ? 1 : 0;
    if (hasUpright) upright = true;
    else if (hasFloor) upright = false;
    point[own.endsUpright] = upright ? 1 : 0;
  });
}

function setRankPoint(problem: Problem, columns: Columns, chosen: readonly Option[], point: number[]): void {
  for (const [need, perOption] of columns.ranked) {
    problem.options
      .map((option, index) => ({
        option,
        index,
        value: option.benefit.find((b) => b.need === need)?.value ?? 0,
      }))
      .filter(({ option, value }) => value > 0 && chosen.includes(option))
      .sort((a, b) => b.value - a.value)
      .forEach(({ index }, rank) => {
        const column = perOption.get(index)?.[rank];
        if (column !== undefined) point[column] = 1;
      });
  }
}

/** Builds the model of a problem (see docs/methods.md, "Choosing drills"). */
export function createPlanModel(problem: Problem): PlanModel {
  const model = emptyModel();
  const x = addOptionColumns(model, problem);
  const kit = addKit(model, problem, x);
  const ranked = addRanks(model, problem, x);
  addCounts(model, problem, x);
  const bands = addBands(model, problem, x);
  const { startsUpright, floors } = addFloor(model, problem, x);
  addTime(model, problem, x, floors);
  const columns: Columns = { x, kit, ranked, bands, startsUpright, floors };
  return {
    model,
    optionColumn: x,
    chosenOf: (values) => problem.options.filter((_, index) => (values[x[index] ?? 0] ?? 0) > 0.5),
    pointOf: (chosen) => {
      const point = model.cost.map(() => 0);
      problem.options.forEach((option, index) => {
        if (chosen.includes(option)) point[x[index] ?? 0] = 1;
      });
      for (const [name, column] of kit)
        if (chosen.some((option) => option.kit.includes(name))) point[column] = 1;
      setRankPoint(problem, columns, chosen, point);
      problem.bands.forEach((band, b) => {
        const { under, over } = columns.bands[b] ?? { under: null, over: null };
        const sum = chosen.reduce((total, option) => total + band.weight(option), 0);
        if (under !== null) point[under] = Math.max(0, band.least - sum);
        if (over !== null) point[over] = Math.max(0, sum - band.most);
      });
      setFloorPoint(problem, columns, chosen, point);
      return point;
    },
  };
}
