import type {
  FigureInput,
  FigureRow,
  Figures,
  PainLimitsInput,
  PracticeTaskRow,
  PracticeTestRow,
} from '@yonder/core/contracts';
import type { DoseShare, OwnTask, OwnTest, ReferenceEdit } from '@yonder/core/domain';
import { referenceEditFaults, taskFaults, testFaults } from '@yonder/core/formats';
import type { Reference } from '@yonder/core/reference';
import type { RowOf } from '../../db/schema.ts';
import { ApiProblem, notFound, refuse } from '../../http/problem.ts';
import { editOf, taskOf, testOf } from '../../work/practice.ts';
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

function testRow(row: RowOf<'own_tests'>): PracticeTestRow {
  return { ...testOf(row), rowId: row.id, version: row.version };
}

/** Everything the practice set, with the history of every figure. */
export async function readFigures({ rows, practiceId }: Unit): Promise<Figures> {
  const practice = await rows.practices.need({ id: practiceId }, 'Practice');
  const edits = await rows.reference_edits.all({}, { sort: [['createdAt', 'DESC']] });
  const tasks = await rows.practice_tasks.all({}, { sort: ['name'] });
  const tests = await rows.own_tests.all({}, { sort: ['slug'] });
  const drills = await rows.own_drills.all({}, { sort: ['slug'] });
  const { version, painLimits, doseShares, painPatterns } = practice;
  return {
    version,
    painLimits,
    edits: edits.map(figureRow),
    tasks: tasks.map(taskRow),
    tests: tests.map(testRow),
    drills: drills.map(ownDrillRow),
    doseShares,
    painPatterns,
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
export async function setPainLimits(
  unit: Unit,
  { painLimits, version, why }: PainLimitsInput,
): Promise<Figures> {
  const { painLimits: before } = await holdPractice(unit);
  const said = (limits: typeof painLimits) =>
    limits ? `fine ${limits.fine}, stop ${limits.stop}` : 'those of the method';
  unit.changes({ what: 'pain limits', was: said(before), is: said(painLimits), why });
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
  refuse(taskFaults((await unit.practice()).reference, { id: 'new', ...task }));
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
  refuse(taskFaults((await unit.practice()).reference, { id: 'new', ...task }));
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

type TestFields = Omit<OwnTest, 'id'>;

/** What a practice's own test may not change once results are stored under it: they would say something else. */
const FIXED = ['sides', 'unit', 'better', 'region'] as const;

async function resultsOf(unit: Unit, slug: string): Promise<number> {
  const [row] = await unit.query<{ n: number }>(
    `SELECT count(*)::int AS n FROM results WHERE practice_id = :practiceId AND test = :slug`,
    { practiceId: unit.practiceId, slug },
  );
  return row?.n ?? 0;
}

/** Adds a test of the practice's own. */
export async function addTest(unit: Unit, { id, ...fields }: TestFields & { id: string }): Promise<Figures> {
  await holdPractice(unit);
  const { reference } = await unit.practice();
  const slug = slugOf(fields.name, new Set(reference.tests.keys()), 'test');
  const test = { ...fields, id: slug };
  refuse(testFaults(unit.reference, test));
  await unit.rows.own_tests.insert({ id, slug, test });
  return readFigures(unit);
}

/** Changes a test on the version it was read at; what its stored results mean stays. */
export async function changeTest(
  unit: Unit,
  id: string,
  { version, ...fields }: TestFields & { version: number },
): Promise<Figures> {
  const row = await unit.rows.own_tests.need({ id }, 'Test', { lock: true });
  const test = { ...fields, id: row.slug };
  const stored = await resultsOf(unit, row.slug);
  refuse([
    ...testFaults(unit.reference, test),
    ...FIXED.filter((key) => stored > 0 && test[key] !== row.test[key]).map((key) => ({
      path: `$.${key}`,
      message: `${stored} results are stored with it; make another test instead`,
    })),
  ]);
  await unit.rows.own_tests.change({ id }, version, { test }, testRow);
  return readFigures(unit);
}

/** Removes a test of the practice's own; refused while results, tasks or needs rest on it. */
export async function removeTest(unit: Unit, id: string, version: number): Promise<Figures> {
  const { slug } = await unit.rows.own_tests.need({ id }, 'Test', { lock: true });
  const { figures } = await unit.practice();
  const results = await resultsOf(unit, slug);
  const tasks = figures.tasks.filter((task) => task.demands.some((d) => d.test === slug));
  const edits = figures.reference.filter((edit) => edit.test === slug);
  const needs = await unit.rows.need_overrides.count({ test: slug });
  const uses = [
    results > 0 ? `${results} results` : null,
    ...tasks.map((task) => `the task "${task.name}"`),
    edits.length > 0 ? 'figures of its own' : null,
    needs > 0 ? `${needs} own needs` : null,
  ].filter((use) => use !== null);
  if (uses.length > 0)
    throw new ApiProblem('in-use', { detail: `It is used by ${uses.join(', ')}; take it from there first` });
  await unit.rows.own_tests.remove({ id }, version, testRow);
  return readFigures(unit);
}
