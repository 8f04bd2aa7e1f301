import type { Assessment } from '../assess/index.ts';
import type { RoutineItem } from '../domain/index.ts';
import type { Decision } from './decide.ts';
import { doseInForce, easier, itemsOf } from './steps.ts';

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
  assessment: Assessment,
  decisions: readonly Decision[],
  verdicts: readonly Verdict[],
): RoutineItem[] {
  const dose = doseInForce(assessment);
  return itemsOf(assessment.standing).flatMap((item, index) => {
    const verdict = verdicts.find((v) => v.index === index);
    if (!verdict) return [item];
    if (verdict.verdict === 'accepted') {
      const next = decisions[index]?.next;
      return next ? [next] : [];
    }
    if (verdict.instead === 'keep') return [item];
    const drill = assessment.reference.drills.get(item.drill);
    const eased = verdict.instead === 'ease' && drill ? easier(dose, drill, item) : null;
    return eased ? [eased] : [];
  });
}
