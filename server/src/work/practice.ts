import type { Practice } from '@yonder/core/assess';
import type { OwnTask, OwnTest, ReferenceEdit } from '@yonder/core/domain';
import { issuedReference, practiceReference } from '@yonder/core/reference';
import type { OwnDrill, PracticeFigures, Reference } from '@yonder/core/reference';
import type { RowOf } from '../db/schema.ts';
import type { LRUCache } from 'lru-cache';
import type { Query, Tables } from '../db/database.ts';

/** What a practice set for all its athletes, with the reference as it uses it. */
export interface PracticeSettings extends Practice {
  readonly name: string;
  readonly timeZone: string;
  /** Month and day on which a season starts, MM-DD. */
  readonly seasonStarts: string;
  readonly version: number;
  /** Edited figures in force and the practice's own tasks, drills and dose shares. */
  readonly figures: Required<PracticeFigures>;
  /** The reference as it ships. */
  readonly bundled: Reference;
}

/** A stored edit as the core reads it. */
export function editOf({
  test,
  path,
  task,
  value,
  reason,
  by,
  date,
}: RowOf<'reference_edits'>): ReferenceEdit {
  return { test, path, ...(task ? { task } : {}), value, reason, by, date };
}

/** A stored task as the core reads it. */
export function taskOf({ slug, name, sport, demands }: RowOf<'practice_tasks'>): OwnTask {
  return { id: slug, name, sport, demands };
}

/** A stored test as the core reads it; the column wins over what stands in the document. */
export function testOf({ test, slug }: RowOf<'own_tests'>): OwnTest {
  return { ...test, id: slug };
}

/** A stored drill as the core reads it; the column wins over what stands in the document. */
export function drillOf({ drill, slug }: RowOf<'own_drills'>): OwnDrill {
  return { ...drill, id: slug };
}

/** Chosen options by school. */
export function optionsOf(
  choices: readonly Pick<RowOf<'method_choices'>, 'school' | 'option'>[],
): Record<string, string> {
  return Object.fromEntries(choices.map(({ school, option }) => [school, option]));
}

/** The reference with own drills as they were when something was issued; the door judges by those of today. */
export function referenceAsIssued(
  { reference, bundled, figures }: Pick<PracticeSettings, 'reference' | 'bundled' | 'figures'>,
  issued: readonly OwnDrill[],
): Reference {
  return issuedReference(reference, bundled, figures, issued);
}

/** What of a unit of work the settings are read with. */
interface Source {
  readonly practiceId: string;
  readonly practiceRevision: number;
  readonly rows: Tables;
  readonly query: Query;
  readonly reference: Reference;
}

async function load(unit: Source): Promise<PracticeSettings> {
  const { rows, practiceId, reference: bundled } = unit;
  const practice = await rows.practices.need({ id: practiceId }, 'Practice');
  const edits = await rows.reference_edits.all({ endedOn: null }, { sort: ['test', 'path', 'task'] });
  const tasks = await rows.practice_tasks.all({}, { sort: ['slug'] });
  const tests = await rows.own_tests.all({}, { sort: ['slug'] });
  const drills = await rows.own_drills.all({}, { sort: ['slug'] });
  const figures = {
    reference: edits.map(editOf),
    tasks: tasks.map(taskOf),
    tests: tests.map(testOf),
    drills: drills.map(drillOf),
    doseShares: practice.doseShares,
    painPatterns: practice.painPatterns,
  };
  const chosen = await rows.method_choices.all({ athleteId: null, endedOn: null });
  const schools = optionsOf(chosen);
  const { name, timeZone, seasonStarts, version, painLimits } = practice;
  const reference = practiceReference(bundled, figures);
  return { name, timeZone, seasonStarts, version, schools, painLimits, figures, reference, bundled };
}

/** The settings of the unit's practice; kept under its revision, so that they are read once until something changes. */
export async function practiceSettings(
  unit: Source,
  recent: LRUCache<string, PracticeSettings>,
): Promise<PracticeSettings> {
  const key = `${unit.practiceId}/${unit.practiceRevision}`;
  const known = recent.get(key);
  if (known) return known;
  const settings = await load(unit);
  // What this unit itself changed may be undone again: only what was there at its start is kept.
  const [now] = await unit.query<{ revision: number }>('SELECT revision FROM practices WHERE id = :id', {
    id: unit.practiceId,
  });
  if (now?.revision === unit.practiceRevision) recent.set(key, settings);
  return settings;
}
