import type {
  BuildReport,
  ChoiceShown,
  Completed,
  CurvePoint,
  Held,
  ItemExplanation,
  OrderCost,
  RefitChange,
  RequestChange,
  SideBySide,
  SolvedPlan,
  Swap,
  SwapReason,
  Unserved,
  AskedElement,
  WhatIf,
  WhyNot,
  FittedLines,
} from '@yonder/core/builder';
import type { Check } from '@yonder/core/checks';
import type { TodaysCopy } from '@yonder/core/checkin';
import type { BuildRequest, Case, CheckIn, RoutineItem } from '@yonder/core/domain';
import type { IdentifiedItem } from '@yonder/core/routine';
import type { FailureDistance } from '@yonder/core/dose';
import type { TakenLine, wordByWord } from '@yonder/core/takeover';

/** How items stand: each explained, what nobody serves, what is wrong and how it is repaired, what the order costs. */
export interface Explained {
  readonly items: readonly ItemExplanation[];
  readonly failure: readonly (FailureDistance | null)[];
  readonly unserved: readonly Unserved[];
  /** What the actions that follow and the joints to look after ask for, with what answers it. */
  readonly asked: readonly AskedElement[];
  /** What was chosen for a preparation, with where it shows. */
  readonly choices: readonly ChoiceShown[];
  readonly checks: readonly Check[];
  readonly order: OrderCost;
  /** The same items in the automatic order, and what that would cost. */
  readonly best: { readonly items: readonly RoutineItem[]; readonly cost: OrderCost };
}

/** A drill that may be put in. */
interface Offer {
  readonly item: RoutineItem;
  /** What safety says against it today, with the nearest that is allowed. */
  readonly held: Held | null;
}

/** A record under a name that differs whenever anything of it does: the worker judges it once and holds the assessment. */
export interface Subject {
  readonly revision: string;
  readonly case: Case;
}

/** What is asked of a subject: the time, kit, pins and the rest. */
export interface Asked {
  readonly subject: Subject;
  readonly request: BuildRequest;
}

/** What the worker can be asked of the assessment it holds, and what it answers. */
export interface Calls {
  /** Loads reference and solver and solves once, so that the first real solve is warm. */
  readonly warm: { ask: Record<string, never>; answer: { ready: true } };
  readonly build: { ask: { request: BuildRequest }; answer: BuildReport };
  readonly explain: { ask: { request: BuildRequest; items: readonly RoutineItem[] }; answer: Explained };
  readonly swaps: {
    ask: {
      request: BuildRequest;
      items: readonly RoutineItem[];
      index: number;
      reason: SwapReason | null;
    };
    answer: readonly Swap[];
  };
  /**
   * Why drills are not in the best routine for a case: bounds first as an interim answer, then ranges. With none named,
   * the ten that come nearest.
   */
  readonly whyNot: {
    ask: { request: BuildRequest; drills: readonly string[] };
    answer: Readonly<Record<string, WhyNot>>;
  };
  /** The same for one drill, proven, with the extra minutes from which it comes in by itself. */
  readonly whyNotExact: {
    ask: { request: BuildRequest; drill: string };
    answer: { why: WhyNot; minutes: number | null };
  };
  readonly whatIf: {
    ask: { request: BuildRequest; change: RequestChange };
    answer: WhatIf & { now: BuildReport };
  };
  /** Benefit against minutes; every point as an interim answer. */
  readonly curve: {
    ask: { request: BuildRequest; minutes: readonly number[] };
    answer: readonly CurvePoint[];
  };
  /** A drill as it would be put in: its dose, as typed where it is, what safety says against it today, and the nearest that is allowed. */
  readonly offer: { ask: { request: BuildRequest; drill: string; text?: string }; answer: Offer };
  /** A typed line in its own words, with the dose that it says. */
  readonly ownWords: { ask: { request: BuildRequest; text: string }; answer: readonly RoutineItem[] };
  /** What became of each line of a written list. */
  readonly takeOver: { ask: { request: BuildRequest; text: string }; answer: readonly TakenLine[] };
  /** Lines of a protocol fitted to the athlete: the author's but for what cannot stand. */
  readonly fit: { ask: { request: BuildRequest; items: readonly RoutineItem[] }; answer: FittedLines };
  /** Lines of a protocol taken word by word, and what safety keeps out of them. */
  readonly wordByWord: {
    ask: { request: BuildRequest; items: readonly RoutineItem[] };
    answer: ReturnType<typeof wordByWord>;
  };
  /** Fills the time that is left around items that stay. */
  readonly complete: { ask: { request: BuildRequest; items: readonly RoutineItem[] }; answer: Completed };
  /** Items beside what would be built for the same request. */
  readonly sideBySide: { ask: { request: BuildRequest; items: readonly RoutineItem[] }; answer: SideBySide };
  /** A version as it is done today, by what was said before its session. */
  readonly today: {
    ask: {
      request: BuildRequest;
      items: readonly IdentifiedItem[];
      said: CheckIn;
      undone: readonly string[];
    };
    answer: TodaysCopy;
  };
  /** Builds while keeping drills where they fit, and says what became of each. */
  readonly refit: {
    ask: { request: BuildRequest; from: readonly string[] };
    answer: { report: BuildReport; changes: readonly RefitChange[] };
  };
}
export type CallName = keyof Calls;

/** Interim answers of a call, for those that have any. */
export interface Interims {
  /** The best routine so far and how it was reached. */
  readonly build: { readonly report: BuildReport; readonly stage: SolvedPlan['stage'] };
  readonly whyNot: Readonly<Record<string, WhyNot>>;
  readonly curve: CurvePoint;
}
export type InterimOf<Name extends CallName> = Name extends keyof Interims ? Interims[Name] : never;

/** Told before what is asked of it: from here on the questions are about this record. */
interface Hold {
  readonly hold: Subject;
}

export interface Ask {
  readonly id: number;
  readonly call: CallName;
  readonly ask: Calls[CallName]['ask'];
}

export type Message = Hold | Ask;

export type Reply =
  | { readonly id: number; readonly kind: 'interim'; readonly interim: unknown }
  | { readonly id: number; readonly kind: 'done'; readonly answer: unknown }
  | { readonly id: number; readonly kind: 'failed'; readonly message: string };
