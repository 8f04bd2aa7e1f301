import type { Case, RoutineItem } from '../domain/index.ts';
import { indexCapacities } from '../dose/index.ts';
import { judgeFindings } from '../findings/index.ts';
import { practiceReference } from '../reference/index.ts';
import type { Reference } from '../reference/index.ts';
import { safetyState } from '../safety/index.ts';
import type { Decision } from './decide.ts';
import { easier } from './steps.ts';

/** What the practitioner made of a decision. */
export type Verdict =
  | { readonly index: number; readonly verdict: 'accepted' }
  | {
      readonly index: number;
      readonly verdict: 'overruled';
      readonly instead: 'keep' | 'ease' | 'remove';
      readonly reason: string;
    };

/**
 * The items of the next version: each decision accepted or overruled, untouched ones kept. An item whose next step is
 * "leave it out" disappears.
 */
export function applyVerdicts(
  bundled: Reference,
  input: Case,
  decisions: readonly Decision[],
  verdicts: readonly Verdict[],
): RoutineItem[] {
  const reference = practiceReference(bundled, input.overrides);
  const report = judgeFindings(bundled, input);
  const dose = {
    reference,
    today: input.today,
    age: safetyState(reference, input.athlete, input.today).age,
    mode: input.routine?.mode ?? input.request.mode,
    capacities: indexCapacities(report.capacities),
    trainingYears: input.athlete.trainingYears,
    stretchCapSeconds: null,
  };
  return (input.routine?.items ?? []).flatMap((item, index) => {
    const verdict = verdicts.find((v) => v.index === index);
    if (!verdict) return [item];
    if (verdict.verdict === 'accepted') {
      const next = decisions[index]?.next;
      return next ? [next] : [];
    }
    if (verdict.instead === 'keep') return [item];
    const drill = reference.drills.get(item.drill);
    const eased = verdict.instead === 'ease' && drill ? easier(dose, drill, item) : null;
    return eased ? [eased] : [];
  });
}
