import { assessCase } from '../assess/index.ts';
import { buildRoutine, prepareBuild } from '../builder/index.ts';
import type { BuildReport, MipSolver, Prepared } from '../builder/index.ts';
import type { Case, Standing } from '../domain/index.ts';
import type { FindingsReport } from '../findings/index.ts';
import { decideProgress } from '../progress/index.ts';
import type { ProgressReport } from '../progress/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import type { Drill, Reference } from '../reference/index.ts';

/** The findings of a case file on a reference. */
export function judgeCase(reference: Reference, input: Case): FindingsReport {
  return assessCase(reference, input).report;
}

/** A case file prepared for building its own request. */
export function prepareCase(reference: Reference, input: Case): Prepared {
  return prepareBuild(assessCase(reference, input), input.request);
}

/** The routine of a case file's own request. */
export function buildCase(reference: Reference, input: Case, solver: MipSolver): BuildReport {
  return buildRoutine(assessCase(reference, input), input.request, solver);
}

/** The decisions on the routine in force of a case file. */
export function decideCase(reference: Reference, input: Case): ProgressReport {
  return decideProgress(assessCase(reference, input));
}

/** A case prepared for building on the reference that ships. */
export function preparedOf(input: Case): Prepared {
  return prepareCase(bundledReference, input);
}

/** A drill of the reference that ships; throws when there is none of that id. */
export function drillOf(id: string): Drill {
  const drill = bundledReference.drills.get(id);
  if (!drill) throw new Error(`no drill ${id}`);
  return drill;
}

/** The record of a case file as it stands on its day. */
export function standingOf(input: Case): Standing {
  return assessCase(bundledReference, input).standing;
}
