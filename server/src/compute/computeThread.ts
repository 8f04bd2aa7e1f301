import type { MessagePort } from 'node:worker_threads';
import { assessCase } from '@yonder/core/assess';
import { buildRoutine, createHighsSolver } from '@yonder/core/builder';
import type { BuildReport } from '@yonder/core/builder';
import type { BuildRequest, Case } from '@yonder/core/domain';
import { bundledReference } from '@yonder/core/reference/bundled';
import loadHighs from 'highs';
import type { Interim } from './compute.ts';

const solver = loadHighs().then(createHighsSolver);

/** Builds a routine, telling every better answer on the port. */
export async function build({
  case: input,
  request,
  port,
}: {
  case: Case;
  request: BuildRequest;
  port: MessagePort;
}): Promise<BuildReport> {
  const tell = (interim: Interim) => port.postMessage(interim);
  return buildRoutine(assessCase(bundledReference, input), request, await solver, {
    onReport: (report, stage) => tell({ report, stage }),
  });
}
