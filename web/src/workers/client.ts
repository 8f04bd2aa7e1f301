import type { CallName, Calls, InterimOf, Message, Reply, Subject } from './protocol.ts';

/** The part of a worker that the client uses; a test passes its own. */
export interface WorkerPort {
  postMessage: (message: Message) => void;
  terminate: () => void;
  onmessage: ((event: MessageEvent<Reply>) => void) | null;
  onerror: ((event: ErrorEvent) => void) | null;
}

interface Waiting {
  /** Sends the question to whatever worker there is. */
  readonly ask: () => void;
  readonly resolve: (answer: unknown) => void;
  readonly reject: (error: Error) => void;
  readonly onInterim: ((interim: never) => void) | undefined;
}

export interface CallOptions<Name extends CallName> {
  readonly onInterim?: (interim: InterimOf<Name>) => void;
  /** Aborting ends the worker, since a solve cannot be interrupted from outside; what else was asked is asked of a new one. */
  readonly signal?: AbortSignal;
}

/** Calls into a compute worker, with interim answers and cancellation. */
export class ComputeClient {
  private port: WorkerPort | null = null;
  /** The record that the worker holds. */
  private held: string | null = null;
  private nextId = 1;
  private readonly waiting = new Map<number, Waiting>();
  private readonly createPort: () => WorkerPort;

  constructor(createPort: () => WorkerPort) {
    this.createPort = createPort;
  }

  private open(): WorkerPort {
    if (this.port) return this.port;
    const port = this.createPort();
    port.onmessage = ({ data }) => this.receive(data);
    port.onerror = () => this.fail(new Error('The calculation stopped unexpectedly.'));
    this.port = port;
    return port;
  }

  private receive(reply: Reply): void {
    const waiting = this.waiting.get(reply.id);
    if (!waiting) return;
    if (reply.kind === 'interim') {
      waiting.onInterim?.(reply.interim as never);
      return;
    }
    this.waiting.delete(reply.id);
    if (reply.kind === 'done') waiting.resolve(reply.answer);
    else waiting.reject(new Error(reply.message));
  }

  private end(): void {
    this.port?.terminate();
    this.port = null;
    this.held = null;
  }

  /** The worker broke: nothing of what was asked can be answered. */
  private fail(reason: Error): void {
    this.end();
    const all = [...this.waiting.values()];
    this.waiting.clear();
    for (const { reject } of all) reject(reason);
  }

  /** One question is taken back and ends the worker; the others are asked again. */
  private cancel(id: number): void {
    const cancelled = this.waiting.get(id);
    this.waiting.delete(id);
    this.end();
    cancelled?.reject(new DOMException('cancelled', 'AbortError'));
    for (const { ask } of this.waiting.values()) ask();
  }

  /** Asks something of a record (none for `warm`); the record itself travels only when it is another one. */
  call<Name extends CallName>(
    call: Name,
    subject: Name extends 'warm' ? null : Subject,
    ask: Calls[Name]['ask'],
    options: CallOptions<Name> = {},
  ): Promise<Calls[Name]['answer']> {
    const { signal, onInterim } = options;
    const id = this.nextId;
    this.nextId += 1;
    return new Promise((resolve, reject) => {
      const cancel = () => this.cancel(id);
      if (signal?.aborted) {
        reject(new DOMException('cancelled', 'AbortError'));
        return;
      }
      signal?.addEventListener('abort', cancel, { once: true });
      const settle =
        <T>(then: (value: T) => void) =>
        (value: T) => {
          signal?.removeEventListener('abort', cancel);
          then(value);
        };
      const post = () => {
        const port = this.open();
        if (subject && subject.revision !== this.held) {
          this.held = subject.revision;
          port.postMessage({ hold: subject });
        }
        port.postMessage({ id, call, ask });
      };
      this.waiting.set(id, {
        ask: post,
        resolve: settle(resolve as (answer: unknown) => void),
        reject: settle(reject),
        onInterim,
      });
      post();
    });
  }
}

const createWorker = () =>
  new Worker(new URL('./compute.worker.ts', import.meta.url), { type: 'module' }) as unknown as WorkerPort;

/** For what somebody waits for. */
export const compute = new ComputeClient(createWorker);

/** For long work nobody waits for: it never stands in the way of an answer, and is ended when it is stale. */
export const background = new ComputeClient(createWorker);
