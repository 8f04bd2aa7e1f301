import type { IsoDay, Judgement, Region, Side } from '../domain/index.ts';
import type { RealChange } from '../estimate/index.ts';
import type { Reason } from '../reasons/index.ts';
import type { Block } from '../safety/index.ts';
import type { PatternHit } from './painPatterns.ts';
import type { RotationArcs } from './rotationArc.ts';

/** How sure it is that capacity lies below need (rulings, state by probability). */
export type FindingState = 'short' | 'likely-short' | 'within-error' | 'enough';

/** What a need comes from. */
export type NeedKind = 'task' | 'floor' | 'override' | 'symmetry' | 'ratio' | 'trend';

/** One test, side and need source. All figures in the unit of the test; reserve and margin are better when larger. */
export interface Evidence {
  readonly test: string;
  readonly side: Side;
  readonly estimate: number;
  readonly sd: number | null;
  readonly need: number;
  readonly needSource: { readonly kind: NeedKind; readonly id: string };
  readonly mdc95: number;
  readonly reserve: number;
  readonly margin: number;
  readonly pShort: number;
  readonly state: FindingState;
  readonly severity: number;
  /** Symmetry evidence of a side that meets its own needs: brings in no mobilise or stretch drill. */
  readonly capped: boolean;
  readonly painLimited: boolean;
  readonly date: IsoDay;
}

/** What a severity is multiplied with to give a priority. */
export interface PriorityFactors {
  readonly severity: number;
  /** 1 when a chosen task asks for one of its tests, else 0.7. */
  readonly relevance: number;
  /** 1.25 after an injury of that region and side within 24 months, else 1. */
  readonly injury: number;
}

/** A restriction of a side: state, severity, priority and the evidence for it. */
export interface Finding {
  readonly restriction: string;
  readonly region: Region;
  readonly side: Side;
  readonly severity: number;
  readonly priority: number;
  readonly factors: PriorityFactors;
  readonly margin: number;
  readonly pShort: number;
  readonly state: FindingState;
  /** Only symmetry speaks, and the side meets its own needs. */
  readonly symmetryOnly: boolean;
  /** Worst first; empty for a restriction seen by eye and not measured. */
  readonly evidence: readonly Evidence[];
  readonly reasons: readonly Reason[];
  /** What a practitioner said of it, while that holds. */
  readonly judgement: Judgement | null;
}

/** Difference of a test and side between two days, real beyond its error or not. */
export interface Change {
  readonly test: string;
  readonly side: Side;
  readonly from: number;
  readonly to: number;
  readonly fromDate: IsoDay;
  readonly toDate: IsoDay;
  /** Signed so that positive is better. */
  readonly difference: number;
  readonly real: RealChange;
}

/** Something to look at: suggested by a marked fault or a side-blind test, without severity. */
export interface Hint {
  readonly restriction: string;
  readonly side: Side;
  readonly test: string;
  readonly because: 'central-test' | 'fault';
  readonly fault: string | null;
  readonly severity: 0;
}

/** A muscle against its opposite, with its own error; explains and never ranks. */
export interface RatioRow {
  readonly id: string;
  readonly side: Side;
  readonly value: number;
  readonly limit: number | null;
  readonly low95: number;
  readonly high95: number;
  readonly state: 'below' | 'within-error' | 'enough' | 'no-limit';
}

/** A difference between sides beyond its limit but inside the error: repeat the test. */
export interface AsymmetryRow {
  readonly test: string;
  readonly weaker: 'left' | 'right';
  readonly left: number;
  readonly right: number;
  readonly difference: number;
  readonly indexPercent: number | null;
  readonly state: 'counts' | 'possible-repeat' | 'within-limit';
}

/** What a joint has in one test and side against what it needs. */
export interface Capacity {
  readonly test: string;
  readonly side: Side;
  readonly region: Region;
  readonly estimate: number;
  readonly sd: number | null;
  readonly need: number | null;
  readonly needSource: { readonly kind: NeedKind; readonly id: string } | null;
  /** The figure that would be asked of an adult, under sixteen: shown, not used. */
  readonly adultNeed: number | null;
  /** A figure in raw newtons that cannot be scaled without body mass: shown, not used. */
  readonly unusedNeed: number | null;
  readonly reserve: number | null;
  readonly margin: number | null;
  readonly pShort: number | null;
  readonly state: FindingState | null;
  readonly painLimited: boolean;
  readonly unit: string;
  readonly mdc95: number;
  readonly date: IsoDay;
  /** An injury of its region and side since: the result opens no level and gives no dose. */
  readonly beforeInjury: IsoDay | null;
  readonly value: number;
  readonly history: readonly { date: IsoDay; value: number; mean: number; sd: number | null }[];
}

/** A test that is worth doing again, from a day on. */
export interface Rescreen {
  readonly test: string;
  readonly side: Side;
  readonly due: IsoDay;
  readonly why: string;
}

/** Everything judged of an athlete on a day. */
export interface FindingsReport {
  readonly findings: readonly Finding[];
  readonly ratios: readonly RatioRow[];
  /** Total rotation arcs of the shoulders, once both sides were measured both ways. */
  readonly arcs: RotationArcs | null;
  readonly asymmetries: readonly AsymmetryRow[];
  readonly hints: readonly Hint[];
  /** Restrictions that the place and feel of a pain suggest. */
  readonly patterns: readonly PatternHit[];
  readonly changes: readonly Change[];
  readonly blocked: readonly Block[];
  readonly rescreen: readonly Rescreen[];
  readonly nextTest: { readonly test: string; readonly why: readonly Reason[] } | null;
  /** Every screened test and side, with or without a need: what the ridge draws. */
  readonly capacities: readonly Capacity[];
}
