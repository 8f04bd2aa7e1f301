import type { Draft, DraftRow } from '@yonder/core/contracts';
import type { Occasion } from '@yonder/core/domain';
import { itemsFaults } from '@yonder/core/formats';
import type { RowOf } from '../../db/schema.ts';
import { ApiProblem, refuse } from '../../http/problem.ts';
import type { Unit } from '../../work/unit.ts';
import { needAthlete } from '../athletes/stories.ts';

/** Whose draft, for which occasion. */
interface DraftOf {
  readonly athleteId: string;
  readonly occasion: Occasion;
}

function draftRow(row: RowOf<'routine_drafts'> | null): DraftRow {
  return { draft: row?.draft ?? null, version: row?.version ?? null };
}

/** The routine being edited for an occasion, null when there is none. */
export async function readDraft(unit: Unit, { athleteId, occasion }: DraftOf): Promise<DraftRow> {
  await needAthlete(unit, athleteId);
  return draftRow(await unit.rows.routine_drafts.one({ athleteId, occasion }));
}

/** Keeps the routine being edited; a version that is not the stored one gives 409 with the stored draft. */
export async function saveDraft(
  unit: Unit,
  { athleteId, occasion }: DraftOf,
  draft: Draft,
  version: number | null,
): Promise<DraftRow> {
  refuse(itemsFaults((await unit.practice()).reference, draft.items));
  await needAthlete(unit, athleteId, version === null);
  const table = unit.rows.routine_drafts;
  if (version !== null)
    return draftRow(await table.change({ athleteId, occasion }, version, { draft }, draftRow));
  const existing = await table.one({ athleteId, occasion });
  if (existing) throw new ApiProblem('version-conflict', { current: draftRow(existing) });
  return draftRow(await table.insert({ athleteId, occasion, draft }));
}

/** Throws the routine being edited away, on its version. */
export async function discardDraft(unit: Unit, of: DraftOf, version: number): Promise<void> {
  await unit.rows.routine_drafts.remove({ ...of }, version, draftRow);
}
