import { prepareBuild, relaxationOf, solvePlan } from '@yonder/core/builder';
import type { MipSolver, Prepared, Relaxation, SolvedPlan } from '@yonder/core/builder';
import type { Case } from '@yonder/core/domain';
import type { Reference } from '@yonder/core/reference';

/** What the handlers work with; loaded once per worker. */
export interface Tools {
  readonly reference: Reference;
  readonly solver: MipSolver;
}

/** A case prepared and solved at most once, for the many questions that are asked about the same one. */
class SolvedCase {
  private solved: { plan: SolvedPlan; relaxation: Relaxation } | null | undefined;
  readonly prepared: Prepared;
  private readonly solver: MipSolver;

  constructor(tools: Tools, input: Case) {
    this.prepared = prepareBuild(tools.reference, input);
    this.solver = tools.solver;
  }

  /** The best plan and the relaxation; null when the pins cannot be kept. */
  answer(): { plan: SolvedPlan; relaxation: Relaxation } | null {
    if (this.solved === undefined) {
      const plan = solvePlan(this.prepared.problem, this.solver);
      const relaxation = relaxationOf(this.prepared.problem, this.solver);
      this.solved = plan && relaxation ? { plan, relaxation } : null;
    }
    return this.solved;
  }
}

const KEPT = 4;
const recent = new Map<string, SolvedCase>();

/** The solved case for an input, kept for the last few inputs of this worker. */
export function solvedCase(tools: Tools, input: Case): SolvedCase {
  const key = JSON.stringify(input);
  const known = recent.get(key);
  if (known) return known;
  const fresh = new SolvedCase(tools, input);
  recent.set(key, fresh);
  if (recent.size > KEPT) recent.delete(recent.keys().next().value ?? '');
  return fresh;
}
