/** A mixed-integer model in rows, maximised. Columns run from 0; bounds are inclusive. */
export interface MipModel {
  readonly cost: number[];
  readonly lower: number[];
  readonly upper: number[];
  readonly integer: boolean[];
  readonly rows: {
    readonly lower: number;
    readonly upper: number;
    readonly entries: readonly (readonly [number, number])[];
  }[];
  /** Constant added to the objective. */
  offset: number;
}

/** When a solve may stop: relative gap of its proof, and nodes. */
export interface SolveOptions {
  readonly relativeGap: number;
  /** Branch-and-bound nodes after which the best answer so far is returned. */
  readonly nodeLimit: number;
  /** Solve the linear relaxation only. */
  readonly relaxed?: boolean;
  /** A feasible point to start from. */
  readonly start?: readonly number[];
  readonly tuned?: boolean;
  /** Told the best value and bound while solving (in the model's own sense). */
  readonly onProgress?: (progress: { objective: number | null; bound: number }) => void;
}

/** A point, its value and the proven bound; what the solver said when there is none. */
export interface SolveResult {
  readonly status: 'optimal' | 'feasible' | 'infeasible' | 'failed';
  readonly objective: number;
  readonly bound: number;
  readonly values: readonly number[];
  /** Reduced costs of a relaxed solve, in the sense of maximisation (at most 0 at the lower bound). */
  readonly reducedCosts: readonly number[];
}

/** What the builder asks of a solver; highsSolver.ts is the one in use. */
export interface MipSolver {
  solve(model: MipModel, options: SolveOptions): SolveResult;
}

/** A model without columns or rows. */
export function emptyModel(): MipModel {
  return { cost: [], lower: [], upper: [], integer: [], rows: [], offset: 0 };
}

/** Adds a column and returns its index. */
export function addColumn(
  model: MipModel,
  cost: number,
  lower: number,
  upper: number,
  integer: boolean,
): number {
  model.cost.push(cost);
  model.lower.push(lower);
  model.upper.push(upper);
  model.integer.push(integer);
  return model.cost.length - 1;
}

/** Adds a row `lower ≤ Σ coefficient · variable ≤ upper`. */
export function addRow(
  model: MipModel,
  entries: readonly (readonly [number, number])[],
  lower: number,
  upper: number,
): void {
  model.rows.push({ lower, upper, entries });
}
