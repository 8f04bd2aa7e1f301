import { addColumn, addRow, emptyModel } from './mip.ts';
import type { MipSolver } from './mip.ts';
import type { OptionSet } from './options.ts';
import type { Problem } from './problem.ts';
import { TIMING } from '../dose/index.ts';

/** Rules that clash, named so that words/ can explain them. `amount` is how much is too much. */
export interface Infeasible {
  readonly rules: readonly string[];
  readonly about: readonly string[];
  readonly amount: number | null;
}

/** Pins that cannot be used at all, each with the rule that forbids it. */
export function forbiddenPins(pins: readonly string[], options: OptionSet): Infeasible[] {
  return pins.flatMap((pin): Infeasible[] => {
    const rule = options.ineligible.get(pin);
    if (rule) return [{ rules: ['pin', rule.rule], about: [pin, rule.about], amount: null }];
    return options.options.some((o) => o.drill === pin)
      ? []
      : [{ rules: ['pin', 'no-option'], about: [pin], amount: null }];
  });
}

interface Elastic {
  readonly rule: string;
  readonly about: string;
  readonly column: number;
}

/**
 * Which limits the pins break together: a small model with the pinned drills alone and a slack on every limit. Ladders
 * and phases are named by id, time in seconds.
 */
export function clashingPins(problem: Problem, solver: MipSolver): Infeasible[] {
  const model = emptyModel();
  const own = problem.options.filter((option) => problem.pins.includes(option.drill));
  const x = own.map(() => addColumn(model, 0, 0, 1, true));
  const slacks: Elastic[] = [];
  const slack = (rule: string, about: string, cost: number): number => {
    const column = addColumn(model, -cost, 0, Infinity, false);
    slacks.push({ rule, about, column });
    return column;
  };
  for (const pin of problem.pins) {
    addRow(
      model,
      own.flatMap((o, i) => (o.drill === pin ? [[x[i] ?? 0, 1] as const] : [])),
      1,
      1,
    );
  }
  for (const limit of problem.limits) {
    const entries = own.map((o, i) => [x[i] ?? 0, limit.weight(o)] as const).filter(([, w]) => w !== 0);
    const [rule = limit.id, about = ''] = limit.id.split(':');
    if (entries.length > 0)
      addRow(
        model,
        [...entries, [slack(rule, about, rule === 'one-per-ladder' ? 100 : 10), -1]],
        -Infinity,
        limit.most,
      );
  }
  addRow(
    model,
    [...x.map((c) => [c, 1] as const), [slack('max-drills', '', 10), -1]],
    -Infinity,
    problem.maxDrills,
  );
  addRow(
    model,
    [...own.map((o, i) => [x[i] ?? 0, o.seconds + TIMING.changeover] as const), [slack('time', '', 0.1), -1]],
    -Infinity,
    problem.seconds + TIMING.changeover,
  );
  const solved = solver.solve(model, { relativeGap: 0, nodeLimit: 5000 });
  const broken = slacks.filter(({ column }) => (solved.values[column] ?? 0) > 1e-6);
  const clashes = broken.map(({ rule, about, column }): Infeasible => {
    const amount = Math.ceil((solved.values[column] ?? 0) - 1e-6);
    const drills = own.filter((o) => rule !== 'one-per-ladder' || o.ladder === about).map((o) => o.drill);
    return { rules: ['pin', rule], about: [...new Set(drills)], amount };
  });
  return clashes.length > 0 ? clashes : [{ rules: ['pin', 'time'], about: [...problem.pins], amount: null }];
}
