import type { Transaction } from 'sequelize';
import type { Database } from '../../db/database.ts';
import type { AthleteRecord } from '../../db/models.ts';
import { notFound } from '../../http/problem.ts';
import type { StoryRecords } from './records.ts';

function groupBy<T extends { athleteId: string }>(rows: readonly T[]): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const row of rows) {
    const group = groups.get(row.athleteId);
    if (group) group.push(row);
    else groups.set(row.athleteId, [row]);
  }
  return groups;
}

/** Stories of a practice's athletes (of one, when `athleteId` is given) in four queries, sorted by name. */
export async function loadStories(
  { models }: Database,
  practiceId: string,
  athleteId?: string,
  transaction?: Transaction,
): Promise<StoryRecords[]> {
  const scope = { transaction, raw: true } as const;
  const own = athleteId ? { practiceId, athleteId } : { practiceId };
  // One after the other: inside a transaction they share one connection.
  const athletes = (await models.athletes.findAll({
    where: athleteId ? { practiceId, id: athleteId } : { practiceId },
    order: [
      ['name', 'ASC'],
      ['id', 'ASC'],
    ],
    ...scope,
  })) as unknown as AthleteRecord[];
  const injuries = await models.injuries.findAll({
    where: own,
    order: [
      ['date', 'ASC'],
      ['id', 'ASC'],
    ],
    ...scope,
  });
  const precautions = await models.precautions.findAll({
    where: own,
    order: [
      ['since', 'ASC'],
      ['id', 'ASC'],
    ],
    ...scope,
  });
  const redFlags = await models.redFlags.findAll({
    where: own,
    order: [
      ['createdAt', 'ASC'],
      ['id', 'ASC'],
    ],
    ...scope,
  });
  const injuriesOf = groupBy(injuries as unknown as StoryRecords['injuries']);
  const precautionsOf = groupBy(precautions as unknown as StoryRecords['precautions']);
  const redFlagsOf = groupBy(redFlags as unknown as StoryRecords['redFlags']);
  return athletes.map((athlete) => ({
    athlete,
    injuries: injuriesOf.get(athlete.id) ?? [],
    precautions: precautionsOf.get(athlete.id) ?? [],
    redFlags: redFlagsOf.get(athlete.id) ?? [],
  }));
}

/** One athlete's story; 404 when the practice has no such athlete. */
export async function loadStory(
  database: Database,
  practiceId: string,
  athleteId: string,
  transaction?: Transaction,
): Promise<StoryRecords> {
  const [story] = await loadStories(database, practiceId, athleteId, transaction);
  if (!story) throw notFound('Athlete');
  return story;
}
