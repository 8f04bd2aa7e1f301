import type { FigureInput, FigureRow, Figures, PracticeTaskRow } from '@yonder/core/contracts';
import type { DoseShare, OwnTask, ReferenceEdit } from '@yonder/core/domain';
import { referenceEditFaults, taskFaults } from '@yonder/core/formats';
import type { Reference } from '@yonder/core/reference';
import type { RowOf } from '../../db/schema.ts';
import { ApiProblem, notFound, refuse } from '../../http/problem.ts';
import { editOf, taskOf } from '../../work/practice.ts';
import type { Unit } from '../../work/unit.ts';
import { ownDrillRow } from '../library/drillRow.ts';
import { slugOf } from './slug.ts';

function figureRow(row: RowOf<'reference_edits'>): FigureRow {
  const { id, version, oldValue, reason, by, date, endedBy, endedOn, endedReason } = row;
  const ended = endedBy && endedOn ? { by: endedBy, date: endedOn, reason: endedReason } : null;
  return { ...editOf(row), id, version, oldValue, reason, by, date, ended };
}

function taskRow(row: RowOf<'practice_tasks'>): PracticeTaskRow {
  return { ...taskOf(row), rowId: row.id, version: row.version };
}

/** Everything the practice set, with the history of every figure. */
export async function readFigures({ rows, practiceId }: Unit): Promise<Figures> {
  const practice = await rows.practices.need({ id: practiceId }, 'Practice');
  const edits = await rows.reference_edits.all({}, { sort: [['createdAt', 'DESC']] });
  const tasks = await rows.practice_tasks.all({}, { sort: ['name'] });
  const drills = await rows.own_drills.all({}, { sort: ['slug'] });
  const { version, painLimits, doseShares } = practice;
  return {
    version,
    painLimits,
    edits: edits.map(figureRow),
    tasks: tasks.map(taskRow),
    drills: drills.map(ownDrillRow),
    doseShares,
  };
}

/** The figure an edit replaces, as the reference has it; null where it has none. */
function figureOf(reference: Reference, edit: Pick<ReferenceEdit, 'test' | 'path' | 'task'>): number | null {
  const test = reference.tests.get(edit.test);
  if (!test) return null;
  const demand = reference.demands.get(edit.task ?? '')?.demands.find((d) => d.test === edit.test);
  const figures: Record<ReferenceEdit['path'], number | null | undefined> = {
    sem: test.sem.value,
    processSdPerWeek: test.processSdPerWeek.value,
    deficitBelow: test.flag.deficit?.below,
    deficitAbove: test.flag.deficit?.above,
    asymmetry: test.flag.asymmetry?.threshold,
    spreadLimit: test.spreadLimit?.value,
    cvLimitPercent: test.cvLimitPercent,
    demand: demand?.value,
  };
  return figures[edit.path] ?? null;
}

/** Holds the practice, so that two changes of its settings never overtake each other. */
export function holdPractice({ rows, practiceId }: Unit): Promise<RowOf<'practices'>> {
  return rows.practices.need({ id: practiceId }, 'Practice', { lock: true });
}

/** Puts a figure in place of the reference's; an earlier edit of the same figure is ended and stays on record. */
export async function setFigure(unit: Unit, { id, task, ...input }: FigureInput): Promise<Figures> {
  const { rows, actor, today } = unit;
  await holdPractice(unit);
  const { reference } = await unit.practice();
  refuse(referenceEditFaults(reference, { ...input, task }));
  const key = { test: input.test, path: input.path, task: task ?? '' };
  await rows.reference_edits.update({ ...key, endedOn: null }, { endedBy: actor.name, endedOn: today });
  await rows.reference_edits.insert({
    id,
    ...key,
    value: input.value,
    oldValue: figureOf(reference, { ...input, task }),
    reason: input.reason,
    by: actor.name,
    date: today,
    endedBy: null,
    endedOn: null,
    endedReason: null,
  });
  return readFigures(unit);
}

/** Sets a figure back to the reference's own, with the reason. */
export async function unsetFigure(
  unit: Unit,
  id: string,
  { reason, version }: { reason: string; version: number },
): Promise<Figures> {
  const { rows, actor, today } = unit;
  const where = { id, endedOn: null };
  if (!(await rows.reference_edits.one(where))) throw notFound('Figure');
  const ended = { endedBy: actor.name, endedOn: today, endedReason: reason };
  await rows.reference_edits.change(where, version, ended, figureRow);
  return readFigures(unit);
}

/** Changes settings of the practice itself on the version they were read at. */
async function changePractice(
  unit: Unit,
  change: Partial<RowOf<'practices'>>,
  version: number,
): Promise<Figures> {
  await unit.rows.practices.change({ id: unit.practiceId }, version, change, () => readFigures(unit));
  return readFigures(unit);
}

/** Sets the practice's own pain limits; null takes them back. */
export function setPainLimits(
  unit: Unit,
  painLimits: { fine: number; stop: number } | null,
  version: number,
): Promise<Figures> {
  return changePractice(unit, { painLimits }, version);
}

/** Sets the shares of a tested maximum that the practice uses instead of the shipped ones; [] sets all back. */
export function setDoseShares(
  unit: Unit,
  doseShares: readonly DoseShare[],
  version: number,
): Promise<Figures> {
  return changePractice(unit, { doseShares: [...doseShares] }, version);
}

type TaskFields = Omit<OwnTask, 'id'>;

/** Adds a task of the practice's own. */
export async function addTask(unit: Unit, { id, ...task }: TaskFields & { id: string }): Promise<Figures> {
  refuse(taskFaults(unit.reference, { id: 'new', ...task }));
  await holdPractice(unit);
  const { figures } = await unit.practice();
  const taken = new Set([...unit.reference.demands.keys(), ...figures.tasks.map((t) => t.id)]);
  await unit.rows.practice_tasks.insert({ id, slug: slugOf(task.name, taken, 'task'), ...task });
  return readFigures(unit);
}

/** Changes a task on the version it was read at. */
export async function changeTask(
  unit: Unit,
  id: string,
  { version, ...task }: TaskFields & { version: number },
): Promise<Figures> {
  refuse(taskFaults(unit.reference, { id: 'new', ...task }));
  await unit.rows.practice_tasks.change({ id }, version, task, taskRow);
  return readFigures(unit);
}

/** Removes a task of the practice's own; refused while an athlete is still assigned to it. */
export async function removeTask(unit: Unit, id: string, version: number): Promise<Figures> {
  const { slug } = await unit.rows.practice_tasks.need({ id }, 'Task', { lock: true });
  const users = await unit.query<{ name: string }>(
    `SELECT name FROM athletes WHERE practice_id = :practiceId AND tasks @> CAST(:task AS jsonb) ORDER BY name`,
    { practiceId: unit.practiceId, task: JSON.stringify([{ id: slug }]) },
  );
  if (users.length > 0) {
    const names = users.slice(0, 3).map((a) => a.name);
    const detail = `${users.length} ${users.length === 1 ? 'athlete has' : 'athletes have'} this task (${names.join(', ')}${users.length > 3 ? ' …' : ''}); take it from them first`;
    throw new ApiProblem('in-use', { detail });
  }
  await unit.rows.practice_tasks.remove({ id }, version, taskRow);
  return readFigures(unit);
}
