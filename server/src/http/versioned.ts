import type { Model, ModelStatic, Transaction, WhereOptions } from 'sequelize';
import { ApiProblem, notFound } from './problem.ts';

/**
 * Changes a row if it still has the version the change was made on. Otherwise 409 with the row as it is now, so that
 * nothing is overwritten silently. Rows of another practice do not exist.
 */
export async function updateVersioned<Row extends { version: number; practiceId: string }>(
  table: ModelStatic<Model<Row, Partial<Row>>>,
  where: Partial<Row> & { practiceId: string },
  version: number,
  changes: Partial<Row>,
  current: (row: Row) => Promise<unknown> | unknown,
  transaction: Transaction,
): Promise<Row> {
  const row = await table.findOne({
    where: where as WhereOptions<Row>,
    transaction,
    lock: transaction.LOCK.UPDATE,
  });
  if (!row) throw notFound('Row');
  const plain = row.get({ plain: true });
  if (plain.version !== version) throw new ApiProblem('version-conflict', { current: await current(plain) });
  await row.update({ ...changes, version: version + 1 } as Partial<Row>, { transaction });
  return row.get({ plain: true });
}
