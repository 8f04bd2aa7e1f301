import { MessageChannel } from 'node:worker_threads';
import { fileURLToPath } from 'node:url';
import type { BuildReport, SolvedPlan } from '@yonder/core/builder';
import type { BuildRequest, Case } from '@yonder/core/domain';
import { Piscina } from 'piscina';

/** A better answer while a build goes on. */
export interface Interim {
  readonly stage: SolvedPlan['stage'];
  readonly report: BuildReport;
}

/** Threads for heavy work: a solve never holds up other requests, and an aborted one ends. */
export class Compute {
  private readonly pool: Piscina;

  constructor(threads = 2) {
    // From sources the thread registers the TypeScript loader first; built, it is a bundle beside this one.
    const built = import.meta.url.endsWith('.js');
    this.pool = new Piscina({
      filename: fileURLToPath(new URL(built ? './computeThread.js' : './startThread.mjs', import.meta.url)),
      minThreads: 0,
      maxThreads: threads,
      idleTimeout: 60_000,
    });
  }

  /** Builds a routine; `onInterim` gets every better answer. Aborting rejects and ends the solve. */
  async build(
    input: Case,
    request: BuildRequest,
    onInterim: (interim: Interim) => void,
    signal: AbortSignal,
  ): Promise<BuildReport> {
    const { port1, port2 } = new MessageChannel();
    port1.on('message', onInterim);
    try {
      return (await this.pool.run(
        { case: input, request, port: port2 },
        { name: 'build', signal, transferList: [port2] },
      )) as BuildReport;
    } finally {
      port1.close();
    }
  }

  close(): Promise<void> {
    return this.pool.destroy();
  }
}
