import type { BuildReport } from '@yonder/core/builder';
import type { BuildRequest } from '@yonder/core/domain';
import type { Interims } from '../../workers/protocol.ts';

type Line =
  | ({ readonly kind: 'interim' } & Interims['build'])
  | { readonly kind: 'done'; readonly report: BuildReport }
  | { readonly kind: 'failed'; readonly message: string };

/** The lines of a streamed answer, each parsed as soon as it is whole. */
export async function* linesOf(stream: ReadableStream<Uint8Array>): AsyncGenerator<Line> {
  const reader = stream
    .pipeThrough(new TextDecoderStream() as ReadableWritablePair<string, Uint8Array>)
    .getReader();
  let rest = '';
  for (;;) {
    const { value, done } = await reader.read();
    rest += value ?? '';
    const lines = rest.split('\n');
    rest = lines.pop() ?? '';
    for (const line of lines) if (line !== '') yield JSON.parse(line) as Line;
    if (done) return;
  }
}

interface Ask {
  readonly athleteId: string;
  readonly on: string;
  readonly request: BuildRequest;
  readonly csrfToken: string;
  readonly signal: AbortSignal;
  readonly onInterim: (interim: Interims['build']) => void;
}

/** Builds on the server, where the browser cannot: the same core, streamed; aborting ends it there as well. */
export async function buildOnServer(ask: Ask): Promise<BuildReport> {
  const { athleteId, on, request, csrfToken, signal, onInterim } = ask;
  const response = await fetch(`/api/v1/athletes/${athleteId}/build`, {
    method: 'POST',
    credentials: 'same-origin',
    headers: { 'Content-Type': 'application/json', 'X-CSRF-Token': csrfToken },
    body: JSON.stringify({ on, request }),
    signal,
  });
  if (!response.ok || !response.body)
    throw new Error('The routine could not be built here or on the server.');
  for await (const line of linesOf(response.body)) {
    if (line.kind === 'interim') onInterim({ report: line.report, stage: line.stage });
    else if (line.kind === 'done') return line.report;
    else throw new Error(line.message);
  }
  throw new Error('The server stopped answering. Try again.');
}
