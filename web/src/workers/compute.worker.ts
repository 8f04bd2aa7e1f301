import { createHighsSolver } from '@yonder/core/builder';
import loadHighs from 'highs';
import wasmUrl from 'highs/runtime?url';
import { loadReference } from '../app/referenceData.ts';
import { handlers } from './handlers.ts';
import type { Ask, Reply } from './protocol.ts';

const tools = Promise.all([loadReference(), loadHighs({ locateFile: () => wasmUrl })]).then(
  ([reference, highs]) => ({
    reference,
    solver: createHighsSolver(highs),
  }),
);

self.addEventListener('message', async ({ data: { id, call, ask } }: MessageEvent<Ask>) => {
  const reply = (message: Reply) => self.postMessage(message);
  try {
    const handler = handlers[call] as (
      t: Awaited<typeof tools>,
      a: unknown,
      i: (interim: unknown) => void,
    ) => unknown;
    const answer = handler(await tools, ask, (interim) => reply({ id, kind: 'interim', interim }));
    reply({ id, kind: 'done', answer });
  } catch (error) {
    reply({ id, kind: 'failed', message: error instanceof Error ? error.message : String(error) });
  }
});
