import type { CallName, Calls, InterimOf, Message, Reply, Subject } from './protocol.ts';

/** The part of a worker that the client uses; a test passes its own. */
export interface WorkerPort {
  postMessage: (message: Message) => void;
  terminate: () => void;
  onmessage: ((event: MessageEvent<Reply>) => void) | null;
  onerror: ((event: ErrorEvent) => void) | null;
}

interface Waiting {
  readonly resolve: (answer: unknown) => void;
  readonly reject: (error: Error) => void;
  readonly onInterim: ((interim: never) => void) | undefined;
}

export interface CallOptions<Name extends CallName> {
  readonly onInterim?: (interim: InterimOf<Name>) => void;
  /** Aborting ends the worker, since a solve cannot be interrupted from outside; the next call starts a new one. */
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
    port.onerror = () => this.stop(new Error('The calculation stopped unexpectedly.'));
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

  private stop(reason: Error): void {
    this.port?.terminate();
    this.port = null;
    this.held = null;
    for (const waiting of this.waiting.values()) waiting.reject(reason);
    this.waiting.clear();
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
      const cancel = () => this.stop(new DOMException('cancelled', 'AbortError'));
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
      this.waiting.set(id, {
        resolve: settle(resolve as (answer: unknown) => void),
        reject: settle(reject),
        onInterim,
      });
      const port = this.open();
      if (subject && subject.revision !== this.held) {
        this.held = subject.revision;
        port.postMessage({ hold: subject });
      }
      port.postMessage({ id, call, ask });
    });
  }
}

const createWorker = () =>
  new Worker(new URL('./compute.worker.ts', import.meta.url), { type: 'module' }) as unknown as WorkerPort;

/** For what somebody waits for. */
export const compute = new ComputeClient(createWorker);

/** For long work nobody waits for: it never stands in the way of an answer, and is ended when it is stale. */
export const background = new ComputeClient(createWorker);
