import type { Highs } from 'highs';
import type { MipModel, MipSolver, SolveOptions, SolveResult } from './mip.ts';

/** Options that the study of the model found faster than the defaults on it. */
const TUNED = {
  mip_heuristic_run_feasibility_jump: false,
  mip_heuristic_effort: 0,
  mip_heuristic_run_rins: false,
  mip_heuristic_run_rens: false,
  mip_heuristic_run_root_reduced_cost: false,
  mip_allow_restart: false,
  mip_detect_symmetry: false,
} as const;

function toModelData(highs: Highs, model: MipModel, relaxed: boolean) {
  const starts = [0];
  const indices: number[] = [];
  const values: number[] = [];
  for (const row of model.rows) {
    for (const [column, value] of row.entries) {
      indices.push(column);
      values.push(value);
    }
    starts.push(indices.length);
  }
  const { continuous, integer } = highs.constants.variableType;
  return {
    numCols: model.cost.length,
    numRows: model.rows.length,
    sense: highs.constants.objectiveSense.maximize,
    offset: model.offset,
    colCost: model.cost,
    colLower: model.lower,
    colUpper: model.upper,
    rowLower: model.rows.map((row) => (row.lower === -Infinity ? -highs.infinity : row.lower)),
    rowUpper: model.rows.map((row) => (row.upper === Infinity ? highs.infinity : row.upper)),
    matrix: {
      format: 'csr' as const,
      numRows: model.rows.length,
      numCols: model.cost.length,
      starts,
      indices,
      values,
    },
    ...(relaxed ? {} : { integrality: model.integer.map((flag) => (flag ? integer : continuous)) }),
  };
}

const FAILED: SolveResult = {
  status: 'failed',
  objective: -Infinity,
  bound: Infinity,
  values: [],
  reducedCosts: [],
};

/** A solver on a loaded HiGHS runtime. It blocks the thread: call it in a worker. */
export function createHighsSolver(highs: Highs): MipSolver {
  const { modelStatus, callbackType } = highs.constants;
  return {
    solve(model: MipModel, options: SolveOptions): SolveResult {
      const relaxed = options.relaxed ?? false;
      return highs.withModel(toModelData(highs, model, relaxed), (native): SolveResult => {
        native.options.set({
          output_flag: false,
          random_seed: 7,
          ...(relaxed
            ? {}
            : {
                mip_rel_gap: options.relativeGap,
                mip_max_nodes: options.nodeLimit,
                ...(options.tuned === false ? {} : TUNED),
              }),
        });
        if (options.start && !relaxed) native.setSolution({ colValue: [...options.start] });
        const { onProgress } = options;
        const run = native.run(
          onProgress && !relaxed
            ? {
                [callbackType.mipLogging]: (event) => {
                  const best = event.data.mip_primal_bound;
                  onProgress({
                    objective: best !== undefined && Number.isFinite(best) ? best : null,
                    bound: event.data.mip_dual_bound ?? Infinity,
                  });
                },
              }
            : undefined,
        );
        if (run.modelStatus === modelStatus.infeasible) return { ...FAILED, status: 'infeasible' };
        const solution = native.getSolution();
        const objective = native.getObjectiveValue();
        if (!Number.isFinite(objective)) return FAILED;
        const optimal = run.modelStatus === modelStatus.optimal;
        if (relaxed) {
          if (!optimal) return FAILED; // the objective of an unfinished relaxation bounds nothing
          return {
            status: 'optimal',
            objective,
            bound: objective,
            values: [...solution.colValue],
            reducedCosts: [...solution.colDual],
          };
        }
        const bound = Number(native.info.get('mip_dual_bound'));
        return {
          status: optimal ? 'optimal' : 'feasible',
          objective,
          bound: Number.isFinite(bound) ? bound : Infinity,
          values: [...solution.colValue],
          reducedCosts: [],
        };
      });
    },
  };
}
