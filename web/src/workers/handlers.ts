import {
  benefitCurve,
  buildRoutine,
  completeAround,
  choicesShown,
  elementsAsked,
  explainItems,
  heldToday,
  minutesUntilIn,
  nearestMisses,
  orderCost,
  orderedItems,
  prepareBuild,
  refitChanges,
  sideBySide,
  swapsFor,
  unservedBy,
  whatIf,
  whyNotBound,
  whyNotExact,
  whyNotRange,
  fitLines,
} from '@yonder/core/builder';
import type { MipSolver } from '@yonder/core/builder';
import { todaysCopy } from '@yonder/core/checkin';
import { checkRoutine } from '@yonder/core/checks';
import { dosedItem, failureDistance, setsFor } from '@yonder/core/dose';
import { asTyped, inOwnWords, takeOver, wordByWord } from '@yonder/core/takeover';
import type { CallName, Calls, InterimOf } from './protocol.ts';
import type { HeldRecord } from './solvedCase.ts';

/** Drills that are answered when none is named. */
const NEAREST = 10;

type Handlers = {
  readonly [Name in Exclude<CallName, 'warm'>]: (
    record: HeldRecord,
    ask: Calls[Name]['ask'],
    onInterim: (interim: InterimOf<Name>) => void,
  ) => Calls[Name]['answer'];
};

/** The first solve pays for compiling the WebAssembly: let it be one that nobody waits for. */
export function warm(solver: MipSolver): Calls['warm']['answer'] {
  const model = { cost: [1], lower: [0], upper: [1], integer: [true], rows: [], offset: 0 };
  solver.solve(model, { relativeGap: 0, nodeLimit: 1 });
  return { ready: true };
}

/** Plain functions over the core, one per call; the worker file only connects them to messages. */
export const handlers: Handlers = {
  build: ({ assessment, solver }, { request }, onInterim) =>
    buildRoutine(assessment, request, solver, { onReport: (report, stage) => onInterim({ report, stage }) }),
  explain: (record, { request, items }) => {
    const { prepared } = record.solved(request);
    const explained = explainItems(prepared, items);
    const known = items.filter((item) => prepared.reference.drills.has(item.drill));
    const best = orderedItems(prepared, known);
    return {
      items: explained,
      failure: items.map((item) => {
        const drill = prepared.reference.drills.get(item.drill);
        return drill ? failureDistance(prepared.dose, drill, item) : null;
      }),
      unserved: unservedBy(prepared, items),
      asked: elementsAsked(prepared, items),
      choices: choicesShown(prepared, items),
      checks: checkRoutine(prepared, items),
      order: orderCost(prepared.reference, known),
      best: { items: best, cost: orderCost(prepared.reference, best) },
    };
  },
  swaps: (record, { request, items, index, reason }) =>
    swapsFor(record.solved(request).prepared, items, index, reason),
  whyNot: (record, { request, drills }, onInterim) => {
    const solved = record.solved(request);
    const answer = solved.answer();
    if (!answer) return {};
    const { plan, relaxation } = answer;
    const asked = drills.length > 0 ? drills : nearestMisses(solved.prepared, plan, NEAREST);
    const each = (ask: typeof whyNotBound) =>
      Object.fromEntries(asked.map((drill) => [drill, ask(solved.prepared, plan, relaxation, drill)]));
    onInterim(each(whyNotBound));
    return each(whyNotRange);
  },
  whyNotExact: (record, { request, drill }) => {
    const solved = record.solved(request);
    const answer = solved.answer();
    if (!answer) return { why: { kind: 'clashes' }, minutes: null };
    const why = whyNotExact(solved.prepared, answer.plan, record.solver, drill);
    const minutes = why.kind === 'costs' ? minutesUntilIn(solved.prepared, record.solver, drill) : null;
    return { why, minutes };
  },
  whatIf: ({ assessment, solver }, { request, change }) => {
    const now = buildRoutine(assessment, request, solver);
    return { ...whatIf(assessment, request, now, change, solver), now };
  },
  curve: (record, { request, minutes }, onInterim) =>
    benefitCurve(record.solved(request).prepared, record.solver, minutes, { onPoint: onInterim }),
  offer: (record, { request, drill: id, text }) => {
    const { prepared } = record.solved(request);
    const { reference, dose } = prepared;
    const drill = reference.drills.get(id);
    if (!drill) throw new RangeError(`unknown drill ${id}`);
    const usual = () => dosedItem(dose, drill, 'both', setsFor(dose, drill)[0] ?? 1, null).item;
    const item = text === undefined ? usual() : asTyped(prepared, id, text);
    return { item, held: heldToday(prepared, item) };
  },
  ownWords: (record, { request, text }) => inOwnWords(record.solved(request).prepared, text),
  takeOver: (record, { request, text }) => takeOver(record.solved(request).prepared, text),
  fit: (record, { request, items }) => fitLines(record.solved(request).prepared, items),
  wordByWord: (record, { request, items }) => wordByWord(record.solved(request).prepared, items),
  complete: (record, { request, items }) =>
    completeAround(record.solved(request).prepared, items, record.solver),
  sideBySide: (record, { request, items }) => {
    const free = { ...request, pins: [], prefer: [] };
    const { routine } = buildRoutine(record.assessment, free, record.solver);
    const built = routine?.items.map(({ seconds: _s, serves: _v, reasons: _r, ...item }) => item) ?? null;
    return sideBySide(record.solved(free).prepared, items, built);
  },
  today: (record, { request, items, said, undone }) =>
    todaysCopy(record.solved(request).prepared, items, said, new Set(undone)),
  refit: ({ assessment, solver }, { request, from }) => {
    const wanted = { ...request, prefer: [...from] };
    const report = buildRoutine(assessment, wanted, solver);
    const items = from.map((drill) => ({ drill }));
    return { report, changes: refitChanges(prepareBuild(assessment, wanted), items, report) };
  },
};
