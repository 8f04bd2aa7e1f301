import { createHighsSolver } from '@yonder/core/builder';
import loadHighs from 'highs';
import wasmUrl from 'highs/runtime?url';
import { loadReference } from '../app/referenceData.ts';
import { handlers, warm } from './handlers.ts';
import type { Message, Reply } from './protocol.ts';
import { HeldRecord } from './solvedCase.ts';

const tools = Promise.all([loadReference(), loadHighs({ locateFile: () => wasmUrl })]).then(
  ([reference, highs]) => ({ reference, solver: createHighsSolver(highs) }),
);

let held: HeldRecord | null = null;

self.addEventListener('message', async ({ data }: MessageEvent<Message>) => {
  const reply = (message: Reply) => self.postMessage(message);
  const id = 'id' in data ? data.id : 0;
  try {
    const { reference, solver } = await tools;
    if ('hold' in data) {
      held = new HeldRecord(reference, data.hold, solver);
      return;
    }
    const { call, ask } = data;
    if (call === 'warm') {
      reply({ id, kind: 'done', answer: warm(solver) });
      return;
    }
    if (!held) throw new Error('asked before any record was given');
    const handler = handlers[call] as (
      record: HeldRecord,
      asked: unknown,
      onInterim: (interim: unknown) => void,
    ) => unknown;
    const answer = handler(held, ask, (interim) => reply({ id, kind: 'interim', interim }));
    reply({ id, kind: 'done', answer });
  } catch (error) {
    reply({ id, kind: 'failed', message: error instanceof Error ? error.message : String(error) });
  }
});
