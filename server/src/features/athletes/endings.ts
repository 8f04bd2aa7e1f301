import type { AthleteRow, ClearanceInput } from '@yonder/core/contracts';
import { ApiProblem, refuse } from '../../http/problem.ts';
import { checkNotAfter } from '../../work/days.ts';
import { idWithin } from '../../work/newId.ts';
import type { Unit } from '../../work/unit.ts';
import { painRow, precautionRow, redFlagRow } from './rows.ts';
import { showAthlete } from './stories.ts';

/** Throws when something ends before it began. */
function checkNotBefore(path: string, day: string, began: string): void {
  refuse(day < began ? [{ path, message: `before it began, ${began}` }] : []);
}

/** A precaution that nobody has cleared. */
export const NOT_CLEARED = { clearanceBy: null, clearanceOn: null, clearanceScope: null } as const;

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

/** Throws when a clearance is of a later day, or what it leaves closed is no precaution or ends before it. */
function checkClearance(unit: Unit, { date, precautions }: ClearanceInput): void {
  checkNotAfter('$.date', date, unit.today);
  refuse(
    precautions.flatMap(({ precaution, until }, i) => [
      ...(unit.reference.precautions.has(precaution)
        ? []
        : [{ path: `$.precautions[${i}].precaution`, message: 'unknown precaution' }]),
      ...(until < date
        ? [{ path: `$.precautions[${i}].until`, message: `before the clearance, ${date}` }]
        : []),
    ]),
  );
}

/** A clearance as its columns. */
const clearanceColumns = ({ by, date, scope }: ClearanceInput) => ({
  clearanceBy: by,
  clearanceOn: date,
  clearanceScope: scope,
});

/**
 * What a clearance still forbids, as precautions that bind from its day on; one that binds everywhere already is kept
 * for longer.
 */
async function keepScope(
  unit: Unit,
  athleteId: string,
  cleared: { readonly id: string; readonly sign: boolean },
  { by, date, scope, precautions }: ClearanceInput,
): Promise<void> {
  const everywhere = { athleteId, endedOn: null, region: null, side: null, clearanceOn: null };
  for (const { precaution, until } of precautions) {
    const active = await unit.rows.precautions.one({ ...everywhere, precaution });
    if (active) {
      const later = active.until === null || active.until > until ? active.until : until;
      await unit.rows.precautions.update({ id: active.id }, { until: later, version: active.version + 1 });
    } else
      await unit.rows.precautions.insert({
        id: idWithin(cleared.id, precaution),
        athleteId,
        precaution,
        reason: `Left by the clearance of ${date}: ${scope}`,
        setBy: by,
        since: date,
        until,
        region: null,
        side: null,
        ...NOT_CLEARED,
        fromClearance: cleared.sign ? cleared.id : null,
        endedBy: null,
        endedOn: null,
      });
  }
}

/**
 * Records a clearance, the only thing that lifts a positive answer; never of a day before the answer. What it still
 * forbids becomes precautions, which bind until a named person ends them.
 */
export async function clearRedFlag(
  unit: Unit,
  athleteId: string,
  id: string,
  input: ClearanceInput,
): Promise<AthleteRow> {
  const { date, version } = input;
  checkClearance(unit, input);
  const where = { id, athleteId, answer: true };
  const row = await unit.rows.red_flag_answers.need(where, 'Stop-and-refer answer', { lock: true });
  if (row.clearanceOn !== null) throw new ApiProblem('version-conflict', { current: redFlagRow(row) });
  checkNotBefore('$.date', date, row.answeredOn);
  await unit.rows.red_flag_answers.change(where, version, clearanceColumns(input), redFlagRow);
  await keepScope(unit, athleteId, { id, sign: true }, input);
  return showAthlete(unit, athleteId);
}

/**
 * A named clinician clears a precaution that binds until then; it stays on record, its handling is shown, and what the
 * clearance still forbids becomes precautions.
 */
export async function clearPrecaution(
  unit: Unit,
  athleteId: string,
  id: string,
  input: ClearanceInput,
): Promise<AthleteRow> {
  const { date, version } = input;
  checkClearance(unit, input);
  const where = { id, athleteId };
  const row = await unit.rows.precautions.need(where, 'Precaution', { lock: true });
  if (row.endedOn !== null || row.clearanceOn !== null)
    throw new ApiProblem('version-conflict', { current: precautionRow(row) });
  refuse(
    unit.reference.precautions.get(row.precaution)?.severity === 'clearance'
      ? []
      : [{ path: '$.scope', message: 'this precaution knows no clearance; end it, or leave it in force' }],
  );
  checkNotBefore('$.date', date, row.since);
  await unit.rows.precautions.change(where, version, clearanceColumns(input), precautionRow);
  await keepScope(unit, athleteId, { id, sign: false }, input);
  return showAthlete(unit, athleteId);
}
