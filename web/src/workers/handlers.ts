import { buildRoutine, explainItems, prepareBuild, swapsFor, uncoveredBy } from '@yonder/core/builder';
import type { MipSolver } from '@yonder/core/builder';
import type { Reference } from '@yonder/core/reference';
import type { CallName, Calls, Interim } from './protocol.ts';

/** What the handlers work with; loaded once per worker. */
interface Tools {
  readonly reference: Reference;
  readonly solver: MipSolver;
}

type Handlers = {
  readonly [Name in CallName]: (
    tools: Tools,
    ask: Calls[Name]['ask'],
    onInterim: (interim: Interim) => void,
  ) => Calls[Name]['answer'];
};

/** Plain functions over the core, one per call; the worker file only connects them to messages. */
export const handlers: Handlers = {
  warm: ({ solver }) => {
    // The first solve pays for compiling the WebAssembly: let it be one that nobody waits for.
    const model = { cost: [1], lower: [0], upper: [1], integer: [true], rows: [], offset: 0 };
    solver.solve(model, { relativeGap: 0, nodeLimit: 1 });
    return { ready: true };
  },
  build: ({ reference, solver }, { case: input }, onInterim) =>
    buildRoutine(reference, input, solver, { onReport: (report, stage) => onInterim({ report, stage }) }),
  explain: ({ reference }, { case: input, items }) => {
    const prepared = prepareBuild(reference, input);
    const explained = explainItems(prepared, items);
    return { items: explained, uncovered: uncoveredBy(prepared, explained) };
  },
  swaps: ({ reference }, { case: input, items, index }) =>
    swapsFor(prepareBuild(reference, input), items, index),
};
