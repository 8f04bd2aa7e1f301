import type { Model, ModelStatic, Transaction } from 'sequelize';
import type { Database } from '../../db/database.ts';
import type { AthleteRecord, OfAthlete } from '../../db/models.ts';
import { notFound } from '../../http/problem.ts';
import type { StoryRecords } from './records.ts';

/** Rows by a key, each group in the order given. */
export function groupBy<T>(rows: readonly T[], keyOf: (row: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const row of rows) {
    const group = groups.get(keyOf(row));
    if (group) group.push(row);
    else groups.set(keyOf(row), [row]);
  }
  return groups;
}

/** Stories of a practice's athletes (of some, when ids are given) in a query per table, sorted by name. */
export async function loadStories(
  { models }: Database,
  practiceId: string,
  ids?: readonly string[],
  transaction?: Transaction,
): Promise<StoryRecords[]> {
  const scope = { transaction, raw: true } as const;
  const own = ids ? { practiceId, athleteId: [...ids] } : { practiceId };
  // One after the other: inside a transaction they share one connection.
  const athletes = (await models.athletes.findAll({
    where: ids ? { practiceId, id: [...ids] } : { practiceId },
    order: [
      ['name', 'ASC'],
      ['id', 'ASC'],
    ],
    ...scope,
  })) as unknown as AthleteRecord[];
  const rowsOf = async <Row extends OfAthlete>(table: ModelStatic<Model<Row, Partial<Row>>>, by: string) => {
    const order = [
      [by, 'ASC'],
      ['id', 'ASC'],
    ] as [string, string][];
    const rows = await table.findAll({ where: own as never, order, ...scope });
    return groupBy(rows as unknown as Row[], (row) => row.athleteId);
  };
  const injuries = await rowsOf(models.injuries, 'date');
  const precautions = await rowsOf(models.precautions, 'since');
  const redFlags = await rowsOf(models.redFlags, 'createdAt');
  const pains = await rowsOf(models.pains, 'since');
  const protocols = await rowsOf(models.protocols, 'region');
  const needs = await rowsOf(models.needs, 'test');
  const judgements = await rowsOf(models.judgements, 'createdAt');
  return athletes.map((athlete) => ({
    athlete,
    injuries: injuries.get(athlete.id) ?? [],
    precautions: precautions.get(athlete.id) ?? [],
    redFlags: redFlags.get(athlete.id) ?? [],
    pains: pains.get(athlete.id) ?? [],
    protocols: protocols.get(athlete.id) ?? [],
    needs: needs.get(athlete.id) ?? [],
    judgements: judgements.get(athlete.id) ?? [],
  }));
}

/** One athlete's story; 404 when the practice has no such athlete. */
export async function loadStory(
  database: Database,
  practiceId: string,
  athleteId: string,
  transaction?: Transaction,
): Promise<StoryRecords> {
  const [story] = await loadStories(database, practiceId, [athleteId], transaction);
  if (!story) throw notFound('Athlete');
  return story;
}
