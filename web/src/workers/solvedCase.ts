import { assessCase } from '@yonder/core/assess';
import type { Assessment } from '@yonder/core/assess';
import { prepareBuild, relaxationOf, solvePlan } from '@yonder/core/builder';
import type { MipSolver, Prepared, Relaxation, SolvedPlan } from '@yonder/core/builder';
import type { BuildRequest } from '@yonder/core/domain';
import type { Reference } from '@yonder/core/reference';
import type { Subject } from './protocol.ts';

/** A request prepared and solved at most once, for the many questions that are asked about the same one. */
class SolvedCase {
  private solved: { plan: SolvedPlan; relaxation: Relaxation } | null | undefined;
  readonly prepared: Prepared;
  private readonly solver: MipSolver;

  constructor(assessment: Assessment, request: BuildRequest, solver: MipSolver) {
    this.prepared = prepareBuild(assessment, request);
    this.solver = solver;
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

/** One athlete's record judged once, and the last few requests that were asked of it. */
export class HeldRecord {
  readonly assessment: Assessment;
  readonly solver: MipSolver;
  private readonly recent = new Map<string, SolvedCase>();

  constructor(reference: Reference, subject: Subject, solver: MipSolver) {
    this.assessment = assessCase(reference, subject.case);
    this.solver = solver;
  }

  /** A request of this record, prepared; what was solved of it is kept. */
  solved(request: BuildRequest): SolvedCase {
    const key = JSON.stringify(request);
    const known = this.recent.get(key);
    if (known) return known;
    const fresh = new SolvedCase(this.assessment, request, this.solver);
    this.recent.set(key, fresh);
    if (this.recent.size > KEPT) this.recent.delete(this.recent.keys().next().value ?? '');
    return fresh;
  }
}
