import type { IsoDay, Standing, Side } from '../domain/index.ts';
import { realChange, rescreenDue } from '../estimate/index.ts';
import type { Reference, Restriction, Test } from '../reference/index.ts';
import { emergencyOpen, lastInjury, YOUTH_AGE } from '../safety/index.ts';
import type { SafetyState } from '../safety/index.ts';
import { isContinuous } from '../measure/index.ts';
import { offeredTests } from './capacities.ts';
import type { TestSide } from './capacities.ts';
import { disagreement, isApart, outweighed, possibleShortfall, READING_95 } from './disagree.ts';
import { evidenceRow, isPainLimited } from './evidence.ts';
import { applyJudgements } from './judgements.ts';
import { needsOfSide } from './needs.ts';
import type { NeedsOfSide } from './needs.ts';
import { nextTest } from './nextTest.ts';
import { painPatterns } from './painPatterns.ts';
import { priorityOf } from './priority.ts';
import { judgeRatios } from './ratios.ts';
import { compareArcs, internalRotationCounts, ROTATION_TESTS } from './rotationArc.ts';
import { schoolOption } from './schools.ts';
import { FINDING_SETTINGS } from './settings.ts';
import { judgeSymmetry } from './symmetry.ts';
import type {
  AsymmetryRow,
  Capacity,
  Change,
  Evidence,
  Finding,
  FindingsReport,
  Hint,
  Rescreen,
} from './types.ts';
import type { Reason } from '../reasons/index.ts';
import { testSideKey } from './visits.ts';

interface Judging {
  readonly reference: Reference;
  readonly input: Standing;
  readonly safety: SafetyState;
  readonly youth: boolean;
  readonly painFine: number;
  readonly estimates: ReadonlyMap<string, TestSide>;
  readonly needs: ReadonlyMap<string, NeedsOfSide>;
}

/** Worst first: ratios last, then the largest severity, the lowest margin, and by source so that ties are stable. */
function byWorst(a: Evidence, b: Evidence): number {
  return (
    Number(a.needSource.kind === 'ratio') - Number(b.needSource.kind === 'ratio') ||
    b.severity - a.severity ||
    a.margin - b.margin ||
    (a.test < b.test ? -1 : a.test > b.test ? 1 : a.needSource.kind < b.needSource.kind ? -1 : 1)
  );
}

function ownEvidence(judging: Judging): Evidence[] {
  return [...judging.estimates.entries()].flatMap(([key, { test, side, estimate }]) =>
    (judging.needs.get(key)?.needs ?? []).map((need) =>
      evidenceRow(test, side, estimate, need, { painFine: judging.painFine }),
    ),
  );
}

/** Under sixteen a real loss since the last visit counts: the visit before is what this side is held against. */
function trendEvidence(judging: Judging): Evidence[] {
  if (!judging.youth) return [];
  return [...judging.estimates.values()].flatMap(({ test, side, estimate }) => {
    const [from, to] = estimate.visits.slice(-2);
    if (!from || !to || !isContinuous(test)) return [];
    const { difference, real } = realChange(test, from.value, to.value);
    if (real !== 'yes' || difference >= 0) return [];
    const need = { value: from.value, source: { kind: 'trend' as const, id: from.date } };
    return [
      evidenceRow(test, side, estimate, need, {
        painFine: judging.painFine,
        severityCap: FINDING_SETTINGS.youthSeverityCap,
      }),
    ];
  });
}

/** The injured side where exactly one side of the region was ever injured, for the denominator "involved". */
function involvedSide(judging: Judging, region: string): 'left' | 'right' | null {
  const sides = new Set(judging.input.athlete.injuries.filter((i) => i.region === region).map((i) => i.side));
  if (sides.size !== 1) return null;
  const [side] = sides;
  return side === 'central' || side === undefined ? null : side;
}

function symmetryEvidence(judging: Judging): { rows: AsymmetryRow[]; evidence: Evidence[] } {
  const { reference, input } = judging;
  const requireMdc = schoolOption(reference, input.schools, 'flag-inside-error') !== 'threshold';
  const byInvolved = schoolOption(reference, input.schools, 'symmetry-denominator') === 'involved-uninvolved';
  const rows: AsymmetryRow[] = [];
  const evidence: Evidence[] = [];
  for (const { test, side, estimate } of judging.estimates.values()) {
    const right = judging.estimates.get(testSideKey(test.id, 'right'));
    if (side !== 'left' || !right) continue;
    const needs = (s: Side) => judging.needs.get(testSideKey(test.id, s))?.needs ?? [];
    const judged = judgeSymmetry(
      test,
      estimate,
      right.estimate,
      { left: needs('left'), right: needs('right') },
      {
        painFine: judging.painFine,
        requireMdc,
        youth: judging.youth,
        involved:
          byInvolved && test.flag.asymmetry?.kind === 'lsi-percent'
            ? involvedSide(judging, test.region)
            : null,
      },
    );
    if (judged.row) rows.push(judged.row);
    if (judged.evidence) evidence.push(judged.evidence);
  }
  return { rows, evidence };
}

/** Does a row speak for a restriction as a finding? Central tests only hint at per-side restrictions. */
function speaksFor(restriction: Restriction, row: Evidence): boolean {
  if (row.needSource.kind === 'ratio' && restriction.kind !== 'strength-deficit') return false;
  return restriction.laterality !== 'per-side' || row.side !== 'central';
}

/** Rows that stand in for the adult figures under sixteen. */
function isYouthRow({ needSource }: Evidence): boolean {
  return needSource.kind === 'symmetry' || needSource.kind === 'trend';
}

function reasonsOf(worst: Evidence, judging: Judging): Reason[] {
  const test = judging.reference.tests.get(worst.test);
  const estimate = judging.estimates.get(testSideKey(worst.test, worst.side))?.estimate;
  const reasons: Reason[] = [
    {
      rule: worst.needSource.kind === 'symmetry' ? 'short-of-other-side' : 'short-of-need',
      test: worst.test,
      side: worst.side,
      estimate: worst.estimate,
      need: worst.need,
      source: worst.needSource.kind,
      sourceId: worst.needSource.id,
      reserve: worst.reserve,
      margin: worst.margin,
      pShort: worst.pShort,
      state: worst.state,
    },
  ];
  if (judging.youth && isYouthRow(worst)) reasons.push({ rule: 'youth-figures', age: YOUTH_AGE });
  const spread = possibleShortfall(test, worst.need);
  if (test && isContinuous(test) && spread < test.mdc95.value)
    reasons.push({ rule: 'need-inside-error', test: worst.test, need: worst.need, mdc95: test.mdc95.value });
  if (worst.capped) reasons.push({ rule: 'symmetry-capped', test: worst.test });
  if (worst.painLimited) reasons.push({ rule: 'pain-limited', test: worst.test, limit: judging.painFine });
  if (estimate?.restarted) {
    reasons.push({
      rule: 'estimate-restarted',
      because: estimate.restarted.because,
      date: estimate.restarted.date,
    });
  }
  if (estimate && test && isApart(test, estimate))
    reasons.push({
      rule: 'reading-apart',
      test: worst.test,
      value: estimate.last.value,
      estimate: estimate.mean,
      error: READING_95 * test.sem.value,
    });
  const hurt = test && injuryAfter(judging, test, worst.side, worst.date);
  if (hurt) reasons.push({ rule: 'from-before-injury', test: worst.test, date: hurt });
  if (estimate?.visits.length === 1) reasons.push({ rule: 'single-visit', test: worst.test });
  return reasons;
}

function findingOf(
  judging: Judging,
  restriction: Restriction,
  side: Side,
  rows: readonly Evidence[],
): Finding | null {
  const clash = disagreement(judging.reference, restriction, rows);
  const evidence = outweighed(judging.reference, restriction, rows, clash).sort(byWorst);
  const worst = evidence[0];
  if (!worst) return null;
  const { priority, factors } = priorityOf(
    judging.reference,
    judging.input,
    restriction,
    side,
    worst.severity,
  );
  const reasons = [...reasonsOf(worst, judging), ...(clash ? [clash] : [])];
  if (factors.relevance === 1) reasons.push({ rule: 'task-relevant', factor: 1 });
  else reasons.push({ rule: 'not-asked-by-task', factor: factors.relevance });
  if (factors.injury > 1)
    reasons.push({ rule: 'injury-history', region: restriction.region, factor: factors.injury });
  return {
    restriction: restriction.id,
    region: restriction.region,
    side,
    severity: worst.severity,
    priority,
    factors,
    margin: worst.margin,
    pShort: worst.pShort,
    state: worst.state,
    symmetryOnly: evidence.filter((row) => row.severity > 0).every((row) => row.capped) && worst.severity > 0,
    evidence,
    reasons,
    judgement: null,
  };
}

const SIDE_ORDER: Record<Side, number> = { left: 0, right: 1, central: 2 };

/** Order of findings: priority, restriction id, left before right. */
function byPriority(a: Finding, b: Finding): number {
  return (
    b.priority - a.priority ||
    (a.restriction < b.restriction
      ? -1
      : a.restriction > b.restriction
        ? 1
        : SIDE_ORDER[a.side] - SIDE_ORDER[b.side])
  );
}

function findingsOf(judging: Judging, evidence: readonly Evidence[]): Finding[] {
  const findings: Finding[] = [];
  const arcOption = schoolOption(judging.reference, judging.input.schools, 'throwing-shoulder-range');
  const counts = (row: Evidence) =>
    row.test !== ROTATION_TESTS.internal ||
    internalRotationCounts(judging.estimates, judging.input.athlete, row.side, arcOption);
  for (const restriction of judging.reference.data.restrictions) {
    const rows = evidence.filter(
      (row) =>
        judging.reference.tests.get(row.test)?.informs.includes(restriction.id) &&
        speaksFor(restriction, row) &&
        counts(row),
    );
    for (const side of ['left', 'right', 'central'] as const) {
      const finding = findingOf(
        judging,
        restriction,
        side,
        rows.filter((row) => row.side === side),
      );
      if (finding) findings.push(finding);
    }
  }
  return applyJudgements(judging.reference, judging.input, findings).sort(byPriority);
}

function centralHints(judging: Judging, evidence: readonly Evidence[]): Hint[] {
  return evidence
    .filter((row) => row.side === 'central' && row.reserve < 0)
    .flatMap((row) =>
      (judging.reference.tests.get(row.test)?.informs ?? [])
        .filter((id) => judging.reference.restrictions.get(id)?.laterality === 'per-side')
        .map((restriction): Hint => ({
          restriction,
          side: 'central',
          test: row.test,
          because: 'central-test',
          fault: null,
          severity: 0,
        })),
    );
}

function faultHints(judging: Judging): Hint[] {
  const newest = new Map<string, Hint[]>();
  const screenings = [...judging.input.screenings]
    .filter((s) => s.date <= judging.input.today)
    .sort((a, b) => (a.date < b.date ? -1 : 1));
  for (const screening of screenings) {
    for (const result of screening.results) {
      const test = judging.reference.tests.get(result.test);
      if (!test?.faults || !result.faults) continue;
      const hints = result.faults.flatMap((mark) =>
        (test.faults?.find((fault) => fault.id === mark.id)?.hintsAt ?? []).map((restriction): Hint => ({
          restriction,
          side: result.side,
          test: test.id,
          because: 'fault',
          fault: mark.id,
          severity: 0,
        })),
      );
      newest.set(testSideKey(test.id, result.side), hints);
    }
  }
  return [...newest.entries()].filter(([key]) => judging.estimates.has(key)).flatMap(([, hints]) => hints);
}

function changesOf(judging: Judging): Change[] {
  return [...judging.estimates.values()].flatMap(({ test, side, estimate }) => {
    const [from, to] = estimate.visits.slice(-2);
    if (!from || !to) return [];
    const { difference, real } = realChange(test, from.value, to.value);
    return [
      {
        test: test.id,
        side,
        from: from.value,
        to: to.value,
        fromDate: from.date,
        toDate: to.date,
        difference,
        real,
      },
    ];
  });
}

/** The day of an injury of the test's region and side that is newer than its last result; null where there is none. */
function injuryAfter({ reference, input }: Judging, test: Test, side: Side, measured: IsoDay): IsoDay | null {
  const injury = lastInjury(reference, input.athlete, test.region, side, input.today);
  return injury && injury.date > measured ? injury.date : null;
}

function capacitiesOf(judging: Judging): Capacity[] {
  return [...judging.estimates.entries()].map(([key, { test, side, estimate }]) => {
    const needs = judging.needs.get(key);
    const row = needs?.decisive
      ? evidenceRow(test, side, estimate, needs.decisive, { painFine: judging.painFine })
      : null;
    return {
      test: test.id,
      side,
      region: test.region,
      estimate: estimate.mean,
      sd: estimate.sd,
      need: row?.need ?? null,
      needSource: row?.needSource ?? null,
      adultNeed: needs?.adult ?? null,
      unusedNeed: needs?.unused ?? null,
      reserve: row?.reserve ?? null,
      margin: row?.margin ?? null,
      pShort: row?.pShort ?? null,
      state: row?.state ?? null,
      painLimited: isPainLimited(test, estimate, judging.painFine),
      unit: test.unit,
      mdc95: test.mdc95.value,
      date: estimate.last.date,
      beforeInjury: injuryAfter(judging, test, side, estimate.last.date),
      value: estimate.last.value,
      history: estimate.visits.map((visit, index) => ({
        date: visit.date,
        value: visit.value,
        mean: estimate.history[index]?.mean ?? visit.value,
        sd: estimate.history[index]?.sd ?? null,
      })),
    };
  });
}

function rescreensOf(judging: Judging, capacities: readonly Capacity[]): Rescreen[] {
  return capacities
    .flatMap((capacity) => {
      const entry = judging.estimates.get(testSideKey(capacity.test, capacity.side));
      if (!entry || entry.test.derivedFrom) return [];
      return [
        {
          test: capacity.test,
          side: capacity.side,
          ...rescreenDue(entry.test, entry.estimate, capacity.reserve),
        },
      ];
    })
    .sort((a, b) => (a.due < b.due ? -1 : a.due > b.due ? 1 : 0));
}

function byTestAndSide<T extends { test: string; side: Side }>(reference: Reference, rows: T[]): T[] {
  const order = new Map(reference.data.tests.map((test, index) => [test.id, index]));
  return rows.sort(
    (a, b) => (order.get(a.test) ?? 0) - (order.get(b.test) ?? 0) || SIDE_ORDER[a.side] - SIDE_ORDER[b.side],
  );
}

/** What a judgement works on: estimates of every side, made once, and what they are held against. */
export interface Judged {
  readonly reference: Reference;
  readonly standing: Standing;
  readonly safety: SafetyState;
  readonly painLimits: { readonly fine: number; readonly stop: number };
  readonly estimates: ReadonlyMap<string, TestSide>;
}

const NOTHING_SHOWN: Omit<FindingsReport, 'blocked'> = {
  findings: [],
  ratios: [],
  arcs: null,
  asymmetries: [],
  hints: [],
  patterns: [],
  changes: [],
  rescreen: [],
  capacities: [],
  nextTest: null,
};

function judgingOf({ reference, standing: input, safety, painLimits, estimates }: Judged): Judging {
  const youth = safety.age < YOUTH_AGE;
  const needs = new Map(
    [...estimates.entries()].map(([key, { test, side }]) => [
      key,
      needsOfSide(reference, test, side, input, safety.age),
    ]),
  );
  return { reference, input, safety, youth, painFine: painLimits.fine, estimates, needs };
}

function evidenceOf(judging: Judging) {
  const symmetry = symmetryEvidence(judging);
  const ratios = judgeRatios(judging.estimates, judging.youth);
  const own = [...ownEvidence(judging), ...trendEvidence(judging)];
  return { symmetry, ratios, evidence: [...own, ...symmetry.evidence, ...ratios.evidence] };
}

/**
 * Findings alone, held against other sport tasks than the athlete's own: the estimates stay as they are, only the needs
 * differ. Empty under an open emergency sign.
 */
export function findingsForTasks(given: Judged, tasks: Standing['athlete']['tasks']): readonly Finding[] {
  if (emergencyOpen(given.safety.blocks)) return [];
  const athlete = { ...given.standing.athlete, tasks };
  const judging = judgingOf({ ...given, standing: { ...given.standing, athlete } });
  return findingsOf(judging, evidenceOf(judging).evidence);
}

/**
 * Judges what was estimated: what each result means against need, the other side and its own error. Pure; the clock is
 * the day of the standing. Under an open emergency sign no findings are shown at all.
 */
export function judgeFindings(given: Judged): FindingsReport {
  const { reference, standing: input, safety, estimates } = given;
  if (emergencyOpen(safety.blocks)) return { ...NOTHING_SHOWN, blocked: safety.blocks };
  const judging = judgingOf(given);
  const { symmetry, ratios, evidence } = evidenceOf(judging);
  const capacities = byTestAndSide(reference, capacitiesOf(judging));
  return {
    findings: findingsOf(judging, evidence),
    ratios: ratios.rows,
    arcs: compareArcs(estimates),
    asymmetries: symmetry.rows,
    hints: [...centralHints(judging, evidence), ...faultHints(judging)],
    patterns: painPatterns(reference, input),
    changes: byTestAndSide(reference, changesOf(judging)),
    blocked: safety.blocks,
    rescreen: rescreensOf(judging, capacities),
    nextTest: nextTest(reference, input, offeredTests(reference, safety, YOUTH_AGE), capacities),
    capacities,
  };
}
