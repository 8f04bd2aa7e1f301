import type { AthleteRow } from '@yonder/core/contracts';
import { ApiProblem, refuse } from '../../http/problem.ts';
import { checkNotAfter } from '../../work/days.ts';
import type { Unit } from '../../work/unit.ts';
import { painRow, precautionRow, redFlagRow } from './rows.ts';
import { showAthlete } from './stories.ts';

/** Throws when something ends before it began. */
function checkNotBefore(path: string, day: string, began: string): void {
  refuse(day < began ? [{ path, message: `before it began, ${began}` }] : []);
}

interface Signature {
  by: string;
  date: string;
  version: number;
}

/** A named person ends a precaution; who ended it first keeps the word, the second is shown who that was. */
export async function endPrecaution(
  unit: Unit,
  athleteId: string,
  id: string,
  { by, date, version }: Signature,
): Promise<AthleteRow> {
  checkNotAfter('$.date', date, unit.today);
  const where = { id, athleteId };
  const row = await unit.rows.precautions.need(where, 'Precaution', { lock: true });
  if (row.endedOn !== null) throw new ApiProblem('version-conflict', { current: precautionRow(row) });
  checkNotBefore('$.date', date, row.since);
  await unit.rows.precautions.change(where, version, { endedBy: by, endedOn: date }, precautionRow);
  return showAthlete(unit, athleteId);
}

/** It no longer hurts: the entry stays on record with the day it ended. */
export async function endPain(
  unit: Unit,
  athleteId: string,
  id: string,
  { date, version }: Pick<Signature, 'date' | 'version'>,
): Promise<AthleteRow> {
  checkNotAfter('$.date', date, unit.today);
  const where = { id, athleteId };
  const row = await unit.rows.pains.need(where, 'Pain', { lock: true });
  checkNotBefore('$.date', date, row.since);
  await unit.rows.pains.change(where, version, { ended: date }, painRow);
  return showAthlete(unit, athleteId);
}

/** Records a clearance, the only thing that lifts a positive answer; never of a day before the answer. */
export async function clearRedFlag(
  unit: Unit,
  athleteId: string,
  id: string,
  { by, date, scope, version }: Signature & { scope: string },
): Promise<AthleteRow> {
  checkNotAfter('$.date', date, unit.today);
  const where = { id, athleteId, answer: true };
  const row = await unit.rows.red_flag_answers.need(where, 'Stop-and-refer answer', { lock: true });
  if (row.clearanceOn !== null) throw new ApiProblem('version-conflict', { current: redFlagRow(row) });
  checkNotBefore('$.date', date, row.answeredOn);
  const clearance = { clearanceBy: by, clearanceOn: date, clearanceScope: scope };
  await unit.rows.red_flag_answers.change(where, version, clearance, redFlagRow);
  return showAthlete(unit, athleteId);
}
