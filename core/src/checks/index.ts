import type { Prepared } from '../builder/index.ts';
import type { RoutineItem } from '../domain/index.ts';
import { routineTime } from '../dose/index.ts';
import { checkAllowed } from './allowed.ts';
import { checkAction, checkCautions, checkConfirm, checkRounds, checkTurns, checkWords } from './composed.ts';
import { checkFailure, checkSets, checkWeakSide } from './dose.ts';
import { checkTime } from './overTime.ts';
import { checkLevels, checkTooHard } from './progress.ts';
import { checkLadders, checkNeighbours, checkPhases } from './sequence.ts';
import { placedOf } from './placed.ts';
import { checkMode, checkStatic, checkWarmth } from './timing.ts';
import type { Check, Checked } from './types.ts';

export { needReason } from './overrides.ts';
export type { Check, Repair } from './types.ts';

const CHECKS: readonly ((checked: Checked) => Check[])[] = [
  checkAllowed,
  checkStatic,
  checkMode,
  checkFailure,
  checkSets,
  checkTime,
  checkWarmth,
  checkPhases,
  checkLadders,
  checkWeakSide,
  checkNeighbours,
  checkLevels,
  checkTooHard,
  checkAction,
  checkConfirm,
  checkTurns,
  checkRounds,
  checkWords,
  checkCautions,
];

const ORDER = { stop: 0, warn: 1, note: 2 } as const;

/**
 * Checks a routine as it stands, built or edited by hand: what must not be, what goes against a rule or the school,
 * and what is worth knowing, most serious first, each with the repaired routine where one press can mend it. Items
 * with unknown drills are left to the caller.
 */
export function checkRoutine(prepared: Prepared, items: readonly RoutineItem[]): Check[] {
  const known = items.filter((item) => prepared.reference.drills.has(item.drill));
  const placed = placedOf(prepared.reference, known);
  const checked: Checked = { prepared, items: known, placed, time: routineTime(prepared.reference, known) };
  return CHECKS.flatMap((check) => check(checked)).sort((a, b) => ORDER[a.level] - ORDER[b.level]);
}
