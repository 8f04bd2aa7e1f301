import { bundledReference } from '@yonder/core/reference/bundled';
import { handlers } from '../workers/handlers.ts';
import type { Calls, Subject } from '../workers/protocol.ts';
import { HeldRecord } from '../workers/solvedCase.ts';

const noSolver = {
  solve: () => {
    throw new Error('nothing is solved here');
  },
};

/** Answers like the compute worker, in the same thread, for whatever needs no solver. */
export async function answerOf<Name extends keyof typeof handlers>(
  call: Name,
  subject: Subject,
  ask: Calls[Name]['ask'],
): Promise<Calls[Name]['answer']> {
  return handlers[call](new HeldRecord(bundledReference, subject, noSolver), ask, () => undefined);
}
