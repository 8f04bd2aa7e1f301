import type { AthleteRow } from '@yonder/core/contracts';
import type { RowOf, TableName } from '../../db/schema.ts';
import { notFound } from '../../http/problem.ts';
import type { Unit } from '../../work/unit.ts';
import { athleteRow } from './rows.ts';
import type { Story } from './rows.ts';

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

type OfAthlete = {
  [Name in TableName]: RowOf<Name> extends { athleteId: string | null; id: string } ? Name : never;
}[TableName];

/** Stories of the practice's athletes (of some, when ids are given) in a query per table, sorted by name. */
export async function loadStories(unit: Unit, ids?: readonly string[]): Promise<Story[]> {
  const { rows } = unit;
  const { seasonStarts } = await unit.practice();
  const athletes = await rows.athletes.all(ids ? { id: ids } : {}, { sort: ['name', 'id'] });
  const of = async <Name extends OfAthlete>(name: Name, by: keyof RowOf<Name> & string) => {
    const table = rows[name] as unknown as {
      all: (where: object, options: object) => Promise<RowOf<Name>[]>;
    };
    const found = await table.all(ids ? { athleteId: ids } : {}, { sort: [by, 'id'] });
    return groupBy(found, (row) => (row as unknown as { athleteId: string | null }).athleteId ?? '');
  };
  const injuries = await of('injuries', 'date');
  const precautions = await of('precautions', 'since');
  const redFlags = await of('red_flag_answers', 'createdAt');
  const gate = await of('gate_answers', 'createdAt');
  const pains = await of('pains', 'since');
  const protocols = await of('protocols', 'region');
  const needs = await of('need_overrides', 'test');
  const placements = await of('placements', 'saidAt');
  const judgements = await of('judgements', 'createdAt');
  const lifts = await of('lifts', 'createdAt');
  const choices = await of('method_choices', 'createdAt');
  return athletes.map((athlete) => ({
    athlete,
    seasonStarts,
    gate: gate.get(athlete.id) ?? [],
    injuries: injuries.get(athlete.id) ?? [],
    precautions: precautions.get(athlete.id) ?? [],
    redFlags: redFlags.get(athlete.id) ?? [],
    pains: pains.get(athlete.id) ?? [],
    protocols: protocols.get(athlete.id) ?? [],
    needs: needs.get(athlete.id) ?? [],
    placements: placements.get(athlete.id) ?? [],
    judgements: judgements.get(athlete.id) ?? [],
    lifts: lifts.get(athlete.id) ?? [],
    choices: choices.get(athlete.id) ?? [],
  }));
}

/** One athlete's story; 404 when the practice has no such athlete. */
export async function loadStory(unit: Unit, athleteId: string): Promise<Story> {
  const [story] = await loadStories(unit, [athleteId]);
  if (!story) throw notFound('Athlete');
  return story;
}

/** The athlete as the API shows it; 404 when the practice has no such athlete. */
export async function showAthlete(unit: Unit, athleteId: string): Promise<AthleteRow> {
  return athleteRow(await loadStory(unit, athleteId));
}

/** Makes sure that the practice has such an athlete; `lock` holds the row, so that two changes wait for each other. */
export function needAthlete(unit: Unit, athleteId: string, lock = false): Promise<RowOf<'athletes'>> {
  return unit.rows.athletes.need({ id: athleteId }, 'Athlete', { lock });
}
