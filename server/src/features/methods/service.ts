import type { ChoiceInput, ChoiceRow, Methods } from '@yonder/core/contracts';
import type { PainPattern } from '@yonder/core/domain';
import { painPatternsFaults, schoolFaults } from '@yonder/core/formats';
import type { RowOf } from '../../db/schema.ts';
import { ApiProblem, notFound, refuse } from '../../http/problem.ts';
import type { Unit } from '../../work/unit.ts';
import { needAthlete } from '../athletes/stories.ts';
import { holdPractice } from '../figures/service.ts';

/** Whose method it is: an athlete's, or the practice's (null). */
type Owner = string | null;

function choiceRow(row: RowOf<'method_choices'>): ChoiceRow {
  const { id, version, school, option, reason, by, date, endedBy, endedOn, endedReason } = row;
  const ended = endedBy && endedOn ? { by: endedBy, date: endedOn, reason: endedReason } : null;
  return { id, version, school, option, reason, by, date, ended };
}

/** What the practice chose, and an athlete where one is named; with everything chosen before. */
export async function readMethods(unit: Unit, athleteId: Owner): Promise<Methods> {
  const { rows, practiceId } = unit;
  if (athleteId !== null) await needAthlete(unit, athleteId);
  const practice = await rows.practices.need({ id: practiceId }, 'Practice');
  const of = async (owner: Owner) =>
    (await rows.method_choices.all({ athleteId: owner }, { sort: [['createdAt', 'DESC']] })).map(choiceRow);
  return {
    version: practice.version,
    practice: await of(null),
    athlete: athleteId === null ? [] : await of(athleteId),
    painPatterns: practice.painPatterns,
  };
}

/** Chooses an option of a school; the choice it replaces is ended and stays on record. */
export async function chooseMethod(
  unit: Unit,
  athleteId: Owner,
  { id, school, option, reason, replaces }: ChoiceInput,
): Promise<Methods> {
  const { rows, actor, today } = unit;
  if (athleteId === null) await holdPractice(unit);
  else await needAthlete(unit, athleteId, true);
  refuse(
    schoolFaults(unit.reference, { [school]: option }).map(({ message }) => ({
      path: unit.reference.schools.has(school) ? '$.option' : '$.school',
      message,
    })),
  );
  const current = await rows.method_choices.one({ athleteId, school, endedOn: null }, { lock: true });
  if ((current?.id ?? null) !== replaces)
    throw new ApiProblem('version-conflict', { current: current ? choiceRow(current) : null });
  if (current) await rows.method_choices.update({ id: current.id }, { endedBy: actor.name, endedOn: today });
  await rows.method_choices.insert({
    id,
    athleteId,
    school,
    option,
    reason,
    by: actor.name,
    date: today,
    endedBy: null,
    endedOn: null,
    endedReason: null,
  });
  return readMethods(unit, athleteId);
}

/** Takes a choice back, with why: the practice's, or the default, holds again. */
export async function endMethod(
  unit: Unit,
  athleteId: Owner,
  id: string,
  { reason, version }: { reason: string; version: number },
): Promise<Methods> {
  const { rows, actor, today } = unit;
  const where = { id, athleteId, endedOn: null };
  if (!(await rows.method_choices.one(where))) throw notFound('Choice');
  const ended = { endedBy: actor.name, endedOn: today, endedReason: reason };
  await rows.method_choices.change(where, version, ended, choiceRow);
  return readMethods(unit, athleteId);
}

/** Sets which precautions hold where and how it hurts; null takes those that ship. */
export async function setPainPatterns(
  unit: Unit,
  painPatterns: PainPattern[] | null,
  version: number,
): Promise<Methods> {
  refuse(
    painPatternsFaults(unit.reference, painPatterns ?? []).map(({ path, message }) => ({
      path: path.replace('$', '$.painPatterns'),
      message,
    })),
  );
  await unit.rows.practices.change({ id: unit.practiceId }, version, { painPatterns }, () =>
    readMethods(unit, null),
  );
  return readMethods(unit, null);
}
