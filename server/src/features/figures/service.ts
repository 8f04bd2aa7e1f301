import type { FigureEffect, FigureInput, FigureRow, Figures, PracticeTaskRow } from '@yonder/core/contracts';
import type { Case, DoseShare, OwnTask, ReferenceEdit } from '@yonder/core/domain';
import { judgeFindings } from '@yonder/core/findings';
import type { Finding } from '@yonder/core/findings';
import { referenceEditFaults, taskFaults } from '@yonder/core/formats';
import { practiceReference } from '@yonder/core/reference';
import type { Reference } from '@yonder/core/reference';
import type { Transaction } from 'sequelize';
import type { PracticeRecord, PracticeTaskRecord, ReferenceEditRecord } from '../../db/models.ts';
import type { Deps } from '../../deps.ts';
import type { User } from '../../http/endpoint.ts';
import { ApiProblem, notFound } from '../../http/problem.ts';
import { updateVersioned } from '../../http/versioned.ts';
import { loadCases } from '../athletes/cases.ts';
import { audit } from '../audit.ts';
import { ownDrillRow } from '../library/drills.ts';
import { editOf, NO_FIGURES, ownDrillRecords, practiceSettings, referenceOf, taskOf } from './practice.ts';

function figureRow(record: ReferenceEditRecord): FigureRow {
  const { id, oldValue, reason, by, date, endedBy, endedOn } = record;
  const ended = endedBy && endedOn ? { by: endedBy, date: endedOn } : null;
  return { ...editOf(record), id, oldValue, reason, by, date, ended };
}

function taskRow(record: PracticeTaskRecord): PracticeTaskRow {
  return { ...taskOf(record), rowId: record.id, version: record.version };
}

/** Everything the practice set, with the history of every figure. */
export async function readFigures(deps: Deps, user: User, transaction?: Transaction): Promise<Figures> {
  const { models } = deps.database;
  const { version, painLimits, figures } = await practiceSettings(
    deps.database,
    user.practiceId,
    transaction,
  );
  const edits = await models.referenceEdits.findAll({
    where: { practiceId: user.practiceId },
    order: [['createdAt', 'DESC']],
    transaction,
  });
  const tasks = await models.practiceTasks.findAll({
    where: { practiceId: user.practiceId },
    order: [['name', 'ASC']],
    transaction,
  });
  return {
    version,
    painLimits,
    edits: edits.map((row) => figureRow(row.get({ plain: true }))),
    tasks: tasks.map((row) => taskRow(row.get({ plain: true }))),
    drills: (await ownDrillRecords(deps.database, user.practiceId, transaction)).map(ownDrillRow),
    doseShares: figures.doseShares,
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

function refuse(faults: readonly { path: string; message: string }[]): void {
  if (faults.length > 0) throw new ApiProblem('invalid-request', { errors: [...faults] });
}

/** Puts a figure in place of the reference's; an earlier edit of the same figure is ended and stays on record. */
export async function setFigure(deps: Deps, user: User, input: FigureInput): Promise<Figures> {
  const { database } = deps;
  return database.inTransaction(async (transaction) => {
    const reference = await referenceOf(deps.reference, database, user.practiceId, transaction);
    refuse(referenceEditFaults(reference, input));
    const key = { practiceId: user.practiceId, test: input.test, path: input.path, task: input.task ?? '' };
    const today = deps.today();
    await database.models.referenceEdits.update(
      { endedBy: user.name, endedOn: today },
      { where: { ...key, endedOn: null }, transaction },
    );
    await database.models.referenceEdits.create(
      {
        ...key,
        value: input.value,
        oldValue: figureOf(reference, input),
        reason: input.reason,
        by: user.name,
        date: today,
      },
      { transaction },
    );
    await audit(database, user, null, 'figure.set', transaction);
    return readFigures(deps, user, transaction);
  });
}

/** Sets a figure back to the reference's own. */
export async function unsetFigure(deps: Deps, user: User, id: string): Promise<Figures> {
  const { database } = deps;
  return database.inTransaction(async (transaction) => {
    const [ended] = await database.models.referenceEdits.update(
      { endedBy: user.name, endedOn: deps.today() },
      { where: { id, practiceId: user.practiceId, endedOn: null }, transaction },
    );
    if (ended === 0) throw notFound('Figure');
    await audit(database, user, null, 'figure.unset', transaction);
    return readFigures(deps, user, transaction);
  });
}

/** Changes settings of the practice itself on the version they were read at. */
async function changePractice(
  deps: Deps,
  user: User,
  change: Partial<PracticeRecord>,
  version: number,
  action: string,
): Promise<Figures> {
  const { database } = deps;
  return database.inTransaction(async (transaction) => {
    const practice = await database.models.practices.findByPk(user.practiceId, {
      transaction,
      lock: transaction.LOCK.UPDATE,
    });
    if (!practice) throw notFound('Practice');
    if (practice.get('version') !== version)
      throw new ApiProblem('version-conflict', { current: await readFigures(deps, user, transaction) });
    await practice.update({ ...change, version: version + 1 }, { transaction });
    await audit(database, user, null, action, transaction);
    return readFigures(deps, user, transaction);
  });
}

export async function setPainLimits(
  deps: Deps,
  user: User,
  painLimits: { fine: number; stop: number } | null,
  version: number,
): Promise<Figures> {
  return changePractice(deps, user, { painLimits }, version, 'pain-limits.set');
}

/** Sets the shares of a tested maximum that the practice uses instead of the shipped ones; [] sets all back. */
export async function setDoseShares(
  deps: Deps,
  user: User,
  doseShares: readonly DoseShare[],
  version: number,
): Promise<Figures> {
  return changePractice(deps, user, { doseShares: [...doseShares] }, version, 'dose-shares.set');
}

/** A stable id of something of a practice's own, made once from its name. */
export function slugOf(name: string, taken: ReadonlySet<string>, fallback: string): string {
  const word = name
    .toLowerCase()
    .replaceAll(/[^a-z0-9]+/g, '-')
    .replaceAll(/^-+|-+$/g, '');
  const base = `own-${word || fallback}`.slice(0, 70);
  for (let n = 1; ; n += 1) {
    const slug = n === 1 ? base : `${base}-${n}`;
    if (!taken.has(slug)) return slug;
  }
}

/** Adds a task of the practice's own, or changes one on the version it was read at. */
export async function saveTask(
  deps: Deps,
  user: User,
  { version, ...task }: Omit<OwnTask, 'id'> & { version: number | null },
  rowId?: string,
): Promise<Figures> {
  refuse(taskFaults(deps.reference, { id: 'new', ...task }));
  const { database } = deps;
  const { practiceTasks } = database.models;
  return database.inTransaction(async (transaction) => {
    if (rowId === undefined) {
      const { figures } = await practiceSettings(database, user.practiceId, transaction);
      const taken = new Set([...deps.reference.demands.keys(), ...figures.tasks.map((t) => t.id)]);
      const slug = slugOf(task.name, taken, 'task');
      await practiceTasks.create({ ...task, slug, practiceId: user.practiceId }, { transaction });
    } else {
      const where = { id: rowId, practiceId: user.practiceId };
      await updateVersioned(practiceTasks, where, version ?? 0, task, taskRow, transaction);
    }
    await audit(database, user, null, 'task.save', transaction);
    return readFigures(deps, user, transaction);
  });
}

/** Removes a task of the practice's own; refused while an athlete is still assigned to it. */
export async function removeTask(deps: Deps, user: User, rowId: string): Promise<Figures> {
  const { database } = deps;
  return database.inTransaction(async (transaction) => {
    const where = { id: rowId, practiceId: user.practiceId };
    const row = await database.models.practiceTasks.findOne({ where, transaction });
    if (!row) throw notFound('Task');
    const athletes = await database.models.athletes.findAll({
      where: { practiceId: user.practiceId },
      attributes: ['name', 'tasks'],
      transaction,
    });
    const users = athletes.filter((a) =>
      (a.get('tasks') as { id: string }[]).some((t) => t.id === row.get('slug')),
    );
    if (users.length > 0) {
      const names = users.slice(0, 3).map((a) => a.get('name') as string);
      const detail = `${users.length} ${users.length === 1 ? 'athlete has' : 'athletes have'} this task (${names.join(', ')}${users.length > 3 ? ' …' : ''}); take it from them first`;
      throw new ApiProblem('already-exists', { detail });
    }
    await row.destroy({ transaction });
    await audit(database, user, null, 'task.remove', transaction);
    return readFigures(deps, user, transaction);
  });
}

interface ChangedFinding {
  restriction: string;
  side: Finding['side'];
  from: string;
  to: string;
  severityFrom: number;
  severityTo: number;
}

/** Findings whose state or severity differs between two judgements. */
function differences(before: readonly Finding[], after: readonly Finding[]): ChangedFinding[] {
  const key = (f: Finding) => `${f.restriction}/${f.side}`;
  const was = new Map(before.map((f) => [key(f), f]));
  const is = new Map(after.map((f) => [key(f), f]));
  return [...new Set([...was.keys(), ...is.keys()])].flatMap((k) => {
    const a = was.get(k);
    const b = is.get(k);
    const any = a ?? b;
    const same = a?.state === b?.state && Math.abs((a?.severity ?? 0) - (b?.severity ?? 0)) < 0.005;
    if (!any || same) return [];
    const { restriction, side } = any;
    return [
      {
        restriction,
        side,
        from: a?.state ?? 'none',
        to: b?.state ?? 'none',
        severityFrom: a?.severity ?? 0,
        severityTo: b?.severity ?? 0,
      },
    ];
  });
}

/** Athletes looked at per request: a look at everybody is a few requests, each soon answered and easy to stop. */
const LOOK = 50;

type Preview = {
  set: readonly (Omit<FigureInput, 'reason'> & { reason: string })[];
  unset: readonly string[];
  from: number;
};

/** The edits in force if a preview were saved. */
async function editsAfter(deps: Deps, user: User, { set, unset }: Preview): Promise<ReferenceEdit[]> {
  const rows = await deps.database.models.referenceEdits.findAll({
    where: { practiceId: user.practiceId, endedOn: null },
  });
  const same = (a: ReferenceEdit, b: ReferenceEdit) =>
    a.test === b.test && a.path === b.path && (a.task ?? '') === (b.task ?? '');
  const kept = rows
    .map((row) => row.get({ plain: true }))
    .filter((row) => !unset.includes(row.id))
    .map(editOf)
    .filter((edit) => !set.some((other) => same(other, edit)));
  return [...kept, ...set];
}

/**
 * Whose findings would change if figures were set or set back, for the athletes from a place in the list of names on;
 * `next` is where to go on, null at the end. Nothing is stored.
 */
export async function previewFigures(deps: Deps, user: User, input: Preview): Promise<FigureEffect> {
  const { database } = deps;
  const { practiceId } = user;
  const { figures } = await practiceSettings(database, practiceId);
  const now = practiceReference(deps.reference, figures);
  refuse(
    input.set.flatMap((edit, i) =>
      referenceEditFaults(now, edit).map((f) => ({ ...f, path: f.path.replace('$', `$.set[${i}]`) })),
    ),
  );
  const edits = await editsAfter(deps, user, input);
  const then = practiceReference(deps.reference, { ...figures, reference: edits });
  const all = await database.models.athletes.findAll({
    where: { practiceId },
    attributes: ['id'],
    order: [
      ['name', 'ASC'],
      ['id', 'ASC'],
    ],
    raw: true,
  });
  const ids = all.slice(input.from, input.from + LOOK).map((row) => (row as unknown as { id: string }).id);
  const cases = await loadCases(database, practiceId, deps.today(), ids);
  const changed = cases.flatMap(({ athleteId, name, case: own }): FigureEffect['changed'] => {
    // The figures are in both references already: applying them per athlete again would cost most of the time.
    const bare: Case = {
      ...own,
      overrides: { ...own.overrides, ...NO_FIGURES },
    };
    const changes = differences(judgeFindings(now, bare).findings, judgeFindings(then, bare).findings);
    return changes.length > 0 ? [{ athleteId, name, changes }] : [];
  });
  const end = input.from + ids.length;
  return { total: all.length, judged: ids.length, changed, next: end < all.length ? end : null };
}
