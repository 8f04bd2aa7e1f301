import { Worker } from 'node:worker_threads';
import type { BuildReport, SolvedPlan } from '@yonder/core/builder';
import type { Case } from '@yonder/core/domain';

/** What a build thread tells while and after it solves. */
export type BuildMessage =
  | { readonly kind: 'interim'; readonly stage: SolvedPlan['stage']; readonly report: BuildReport }
  | { readonly kind: 'done'; readonly report: BuildReport }
  | { readonly kind: 'failed'; readonly message: string };

/** Builds at once; the others wait their turn. Each holds a thread, since a solve blocks it. */
const MOST_AT_ONCE = 2;

interface Waiting {
  readonly start: () => void;
}

/** Routine builds off the main thread: warm threads are used again, an aborted build ends its thread. */
export class Builds {
  private readonly idle: Worker[] = [];
  private readonly queue: Waiting[] = [];
  private running = 0;

  private thread(): Worker {
    const warm = this.idle.pop();
    if (warm) return warm;
    const worker = new Worker(new URL('./startBuildThread.mjs', import.meta.url));
    worker.unref();
    return worker;
  }

  private next(): void {
    this.running -= 1;
    this.queue.shift()?.start();
  }

  private turn(signal: AbortSignal): Promise<void> {
    if (this.running < MOST_AT_ONCE) {
      this.running += 1;
      return Promise.resolve();
    }
    return new Promise((resolve, reject) => {
      const waiting: Waiting = {
        start: () => {
          this.running += 1;
          resolve();
        },
      };
      this.queue.push(waiting);
      signal.addEventListener(
        'abort',
        () => {
          const at = this.queue.indexOf(waiting);
          if (at < 0) return;
          this.queue.splice(at, 1);
          reject(signal.reason as Error);
        },
        { once: true },
      );
    });
  }

  /** Builds a case; `onInterim` gets every better answer. Aborting rejects and ends the thread. */
  async run(
    input: Case,
    onInterim: (message: Extract<BuildMessage, { kind: 'interim' }>) => void,
    signal: AbortSignal,
  ): Promise<BuildReport> {
    await this.turn(signal);
    const worker = this.thread();
    try {
      const report = await new Promise<BuildReport>((resolve, reject) => {
        const stop = () => {
          void worker.terminate();
          reject(signal.reason as Error);
        };
        if (signal.aborted) {
          stop();
          return;
        }
        signal.addEventListener('abort', stop, { once: true });
        worker.removeAllListeners('message').removeAllListeners('error');
        worker.on('message', (message: BuildMessage) => {
          if (message.kind === 'interim') {
            onInterim(message);
            return;
          }
          signal.removeEventListener('abort', stop);
          if (message.kind === 'done') resolve(message.report);
          else reject(new Error(message.message));
        });
        worker.on('error', reject);
        worker.postMessage(input);
      });
      this.idle.push(worker);
      return report;
    } finally {
      this.next();
    }
  }

  /** Ends every idle thread. */
  async close(): Promise<void> {
    await Promise.all(this.idle.splice(0).map((worker) => worker.terminate()));
  }
}
