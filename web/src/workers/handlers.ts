import {
  benefitCurve,
  buildRoutine,
  explainItems,
  minutesUntilIn,
  nearestMisses,
  orderCost,
  orderedItems,
  prepareBuild,
  refitChanges,
  swapsFor,
  uncoveredBy,
  whatIf,
  whyNotBound,
  whyNotExact,
  whyNotRange,
} from '@yonder/core/builder';
import { checkRoutine } from '@yonder/core/checks';
import { failureDistance } from '@yonder/core/dose';
import type { CallName, Calls, InterimOf } from './protocol.ts';
import { solvedCase } from './solvedCase.ts';
import type { Tools } from './solvedCase.ts';

/** Drills that are answered when none is named. */
const NEAREST = 10;

type Handlers = {
  readonly [Name in CallName]: (
    tools: Tools,
    ask: Calls[Name]['ask'],
    onInterim: (interim: InterimOf<Name>) => void,
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
  explain: (tools, { case: input, items }) => {
    const { prepared } = solvedCase(tools, input);
    const explained = explainItems(prepared, items);
    const known = items.filter((item) => prepared.reference.drills.has(item.drill));
    const best = orderedItems(prepared, known);
    return {
      items: explained,
      failure: items.map((item) => {
        const drill = prepared.reference.drills.get(item.drill);
        return drill ? failureDistance(prepared.dose, drill, item) : null;
      }),
      uncovered: uncoveredBy(prepared, explained),
      checks: checkRoutine(prepared, items),
      order: orderCost(prepared.reference, known),
      best: { items: best, cost: orderCost(prepared.reference, best) },
    };
  },
  swaps: (tools, { case: input, items, index, reason }) =>
    swapsFor(solvedCase(tools, input).prepared, items, index, reason),
  whyNot: (tools, { case: input, drills }, onInterim) => {
    const solved = solvedCase(tools, input);
    const answer = solved.answer();
    if (!answer) return {};
    const { plan, relaxation } = answer;
    const asked = drills.length > 0 ? drills : nearestMisses(solved.prepared, plan, NEAREST);
    const each = (ask: typeof whyNotBound) =>
      Object.fromEntries(asked.map((drill) => [drill, ask(solved.prepared, plan, relaxation, drill)]));
    onInterim(each(whyNotBound));
    return each(whyNotRange);
  },
  whyNotExact: (tools, { case: input, drill }) => {
    const solved = solvedCase(tools, input);
    const answer = solved.answer();
    if (!answer) return { why: { kind: 'clashes' }, minutes: null };
    const why = whyNotExact(solved.prepared, answer.plan, tools.solver, drill);
    const minutes = why.kind === 'costs' ? minutesUntilIn(solved.prepared, tools.solver, drill) : null;
    return { why, minutes };
  },
  whatIf: ({ reference, solver }, { case: input, change }) => {
    const now = buildRoutine(reference, input, solver);
    return { ...whatIf(reference, input, now, change, solver), now };
  },
  curve: (tools, { case: input, minutes }, onInterim) =>
    benefitCurve(solvedCase(tools, input).prepared, tools.solver, minutes, { onPoint: onInterim }),
  refit: ({ reference, solver }, { case: input, from }) => {
    const wanted = { ...input, request: { ...input.request, prefer: [...from] } };
    const report = buildRoutine(reference, wanted, solver);
    const items = from.map((drill) => ({ drill }));
    return { report, changes: refitChanges(prepareBuild(reference, wanted), items, report) };
  },
};
