import { parentPort } from 'node:worker_threads';
import { buildRoutine, createHighsSolver } from '@yonder/core/builder';
import type { Case } from '@yonder/core/domain';
import { bundledReference } from '@yonder/core/reference/bundled';
import loadHighs from 'highs';
import type { BuildMessage } from './builds.ts';

const solver = loadHighs().then(createHighsSolver);

parentPort?.on('message', async (input: Case) => {
  const tell = (message: BuildMessage) => parentPort?.postMessage(message);
  try {
    const report = buildRoutine(bundledReference, input, await solver, {
      onReport: (interim, stage) => tell({ kind: 'interim', stage, report: interim }),
    });
    tell({ kind: 'done', report });
  } catch (error) {
    tell({ kind: 'failed', message: error instanceof Error ? error.message : String(error) });
  }
});
