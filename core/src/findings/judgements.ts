import type { Standing, Judgement } from '../domain/index.ts';
import type { Reference } from '../reference/index.ts';
import type { Reason } from '../reasons/index.ts';
import { priorityOf } from './priority.ts';
import type { Finding } from './types.ts';

/** Severity of a restriction seen by eye, by its degree (editable). */
export const SEEN_SEVERITY = { slight: 0.3, clear: 0.6, marked: 0.9 } as const;

const keyOf = (row: { restriction: string; side: string }) => `${row.restriction}/${row.side}`;

/** The newest judgement per restriction and side up to `today`. */
function newestJudgements(input: Standing): Map<string, Judgement> {
  const newest = new Map<string, Judgement>();
  for (const judgement of input.judgements) {
    if (judgement.date > input.today) continue;
    const known = newest.get(keyOf(judgement));
    if (!known || known.date <= judgement.date) newest.set(keyOf(judgement), judgement);
  }
  return newest;
}

/** A finding speaks for itself again once it was measured after the judgement. */
function holds(judgement: Judgement, finding: Finding): boolean {
  return finding.evidence.every((row) => row.date <= judgement.date);
}

function seenFinding(reference: Reference, input: Standing, judgement: Judgement): Finding | null {
  const restriction = reference.restrictions.get(judgement.restriction);
  if (!restriction) return null;
  const severity = SEEN_SEVERITY[judgement.degree];
  const { priority, factors } = priorityOf(reference, input, restriction, judgement.side, severity);
  return {
    restriction: restriction.id,
    region: restriction.region,
    side: judgement.side,
    severity,
    priority,
    factors,
    margin: -2 * severity, // the margin that has this severity
    pShort: 1,
    state: 'short',
    symmetryOnly: false,
    evidence: [],
    reasons: [{ rule: 'seen-by-eye', by: judgement.by, date: judgement.date, degree: judgement.degree }],
    judgement,
  };
}

function judged(
  reference: Reference,
  input: Standing,
  finding: Finding,
  judgement: Judgement | undefined,
): Finding {
  if (!judgement || !holds(judgement, finding)) return finding;
  const said = { by: judgement.by, date: judgement.date };
  if (judgement.verdict === 'dismissed') {
    const reason: Reason = { rule: 'dismissed', ...said, reason: judgement.reason };
    return { ...finding, priority: 0, judgement, reasons: [reason, ...finding.reasons] };
  }
  if (judgement.verdict === 'seen') {
    const seen = seenFinding(reference, input, judgement);
    if (seen && seen.severity > finding.severity) {
      return { ...seen, evidence: finding.evidence, reasons: [...seen.reasons, ...finding.reasons] };
    }
  }
  return { ...finding, judgement, reasons: [{ rule: 'confirmed', ...said }, ...finding.reasons] };
}

/**
 * Findings with what the practitioner said of them: dismissed ones keep their figures and lose their priority, ones seen
 * by eye are added. A judgement holds until the restriction is measured again after it. The list is not sorted.
 */
export function applyJudgements(
  reference: Reference,
  input: Standing,
  findings: readonly Finding[],
): Finding[] {
  const judgements = newestJudgements(input);
  const measured = findings.map((f) => judged(reference, input, f, judgements.get(keyOf(f))));
  const known = new Set(findings.map(keyOf));
  const seen = [...judgements.values()]
    .filter((judgement) => judgement.verdict === 'seen' && !known.has(keyOf(judgement)))
    .map((judgement) => seenFinding(reference, input, judgement))
    .filter((finding) => finding !== null);
  return [...measured, ...seen];
}
