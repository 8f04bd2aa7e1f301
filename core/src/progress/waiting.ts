import { addDays } from '../domain/index.ts';
import type { Standing } from '../domain/index.ts';
import type { Reason } from '../reasons/index.ts';
import { isLine } from '../reference/index.ts';
import type { Decision } from './decide.ts';
import { PROGRESS } from './settings.ts';
import { itemsOf } from './steps.ts';

/**
 * Places of items in the routine in force that wait for a practitioner's word: trained since the last verdicts, or to be
 * changed and not looked at for two weeks. Just issued and not trained, nothing waits.
 */
export function waitingItems(standing: Standing, decisions: readonly Decision[]): number[] {
  const { routine, diary, today } = standing;
  if (!routine) return [];
  const looked = routine.decided ?? addDays(routine.issued, -1);
  const sessions = diary.filter(({ date }) => date > looked && date >= routine.issued && date <= today);
  const stale = addDays(today, -PROGRESS.lookAgainDays) >= (routine.decided ?? routine.issued);
  return itemsOf(standing).flatMap((item, index) => {
    if (isLine(item.drill)) return [];
    const trained = sessions.some(({ entries }) =>
      entries.some(
        (entry) =>
          (entry.drill === item.drill || entry.swappedFor === item.drill) &&
          (entry.done !== 'none' || entry.pain > 0),
      ),
    );
    const decision = decisions[index]?.decision;
    const changes = decision !== undefined && decision !== 'keep' && decision !== 'maintain';
    return trained || (stale && changes) ? [index] : [];
  });
}

/** Reasons on which a proposal stands weakly: little evidence, or evidence that points both ways. */
function isWeak(reason: Reason): boolean {
  switch (reason.rule) {
    case 'guard-test':
      return reason.probability === null || reason.probability < PROGRESS.firmProbability;
    case 'screening-change':
      return reason.real === 'possibly' || (reason.real === 'yes' && reason.difference < 0);
    case 'part-done':
    case 'poor-quality':
    case 'pain-amber':
    case 'days-off':
    case 'long-break':
      return true;
    default:
      return false;
  }
}

/**
 * Does a proposal stand so firmly that it may be offered as the answer? Safety always does; an advance or an easing on
 * weak evidence does not, and the practitioner chooses without a preset.
 */
export function isFirm({ decision, reasons }: Decision): boolean {
  if (decision === 'stop-and-refer') return true;
  return !reasons.some(isWeak);
}
