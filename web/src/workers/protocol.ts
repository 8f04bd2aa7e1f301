import type { BuildReport, ItemExplanation, SolvedPlan, Swap } from '@yonder/core/builder';
import type { Case, RoutineItem, Side } from '@yonder/core/domain';

/** How items stand: each explained, and what nobody serves. */
export interface Explained {
  readonly items: readonly ItemExplanation[];
  readonly uncovered: readonly { restriction: string; side: Side; weight: number }[];
}

/** What the worker can be asked, and what it answers. */
export interface Calls {
  /** Loads reference and solver and solves once, so that the first real solve is warm. */
  readonly warm: { ask: Record<string, never>; answer: { ready: true } };
  readonly build: { ask: { case: Case }; answer: BuildReport };
  readonly explain: { ask: { case: Case; items: readonly RoutineItem[] }; answer: Explained };
  readonly swaps: {
    ask: { case: Case; items: readonly RoutineItem[]; index: number };
    answer: readonly Swap[];
  };
}
export type CallName = keyof Calls;

/** An interim answer of a build: the best routine so far and how it was reached. */
export interface Interim {
  readonly report: BuildReport;
  readonly stage: SolvedPlan['stage'];
}

export interface Ask {
  readonly id: number;
  readonly call: CallName;
  readonly ask: Calls[CallName]['ask'];
}

export type Reply =
  | { readonly id: number; readonly kind: 'interim'; readonly interim: Interim }
  | { readonly id: number; readonly kind: 'done'; readonly answer: unknown }
  | { readonly id: number; readonly kind: 'failed'; readonly message: string };
