import type { DoseShare, OwnTask, ReferenceEdit } from '@yonder/core/domain';
import { practiceReference } from '@yonder/core/reference';
import type { OwnDrill, PracticeFigures, Reference } from '@yonder/core/reference';
import type { Transaction } from 'sequelize';
import type { Database } from '../../db/database.ts';
import type { OwnDrillRecord, PracticeTaskRecord, ReferenceEditRecord } from '../../db/models.ts';

/** What a practice set for all its athletes. */
export interface PracticeSettings {
  readonly schools: Record<string, string>;
  readonly painLimits: { fine: number; stop: number } | null;
  readonly version: number;
  /** Edited figures in force and the practice's own tasks. */
  readonly figures: Required<PracticeFigures>;
}

/** No figures of a practice's own: for cases judged with a reference that has them in place already. */
export const NO_FIGURES = { reference: [], tasks: [], drills: [], doseShares: [] };

/** A stored edit as the core reads it. */
export function editOf(record: ReferenceEditRecord): ReferenceEdit {
  const { test, path, task, value, reason, by, date } = record;
  return { test, path: path as ReferenceEdit['path'], ...(task ? { task } : {}), value, reason, by, date };
}

/** A stored task as the core reads it. */
export function taskOf({ slug, name, sport, demands }: PracticeTaskRecord): OwnTask {
  return { id: slug, name, sport, demands: demands as OwnTask['demands'] };
}

/** The practice's own drills by id. */
export async function ownDrillRecords(
  { models }: Database,
  practiceId: string,
  transaction?: Transaction,
): Promise<OwnDrillRecord[]> {
  const rows = await models.ownDrills.findAll({
    where: { practiceId },
    order: [['slug', 'ASC']],
    transaction,
  });
  return rows.map((row) => row.get({ plain: true }));
}

/** The settings of a practice, edits and tasks in a stable order. */
export async function practiceSettings(
  database: Database,
  practiceId: string,
  transaction?: Transaction,
): Promise<PracticeSettings> {
  const { models } = database;
  const practice = await models.practices.findByPk(practiceId, { transaction });
  const edits = await models.referenceEdits.findAll({
    where: { practiceId, endedOn: null },
    order: [
      ['test', 'ASC'],
      ['path', 'ASC'],
      ['task', 'ASC'],
    ],
    transaction,
  });
  const tasks = await models.practiceTasks.findAll({
    where: { practiceId },
    order: [['slug', 'ASC']],
    transaction,
  });
  const drills = await ownDrillRecords(database, practiceId, transaction);
  const plain = practice?.get({ plain: true });
  return {
    schools: plain?.schools ?? {},
    painLimits: plain?.painLimits ?? null,
    version: plain?.version ?? 1,
    figures: {
      reference: edits.map((row) => editOf(row.get({ plain: true }))),
      tasks: tasks.map((row) => taskOf(row.get({ plain: true }))),
      drills: drills.map((row) => ({ ...(row.drill as OwnDrill), id: row.slug })),
      doseShares: (plain?.doseShares ?? []) as DoseShare[],
    },
  };
}

/** The reference as a practice uses it: with its edited figures and its own tasks. */
export async function referenceOf(
  bundled: Reference,
  database: Database,
  practiceId: string,
  transaction?: Transaction,
): Promise<Reference> {
  const { figures } = await practiceSettings(database, practiceId, transaction);
  return practiceReference(bundled, figures);
}
