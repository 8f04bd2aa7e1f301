import type { OccasionRow, PutOccasion } from '@yonder/core/contracts';
import { OCCASIONS } from '@yonder/core/domain';
import type { Occasion } from '@yonder/core/domain';
import type { RowOf } from '../../db/schema.ts';
import { ApiProblem } from '../../http/problem.ts';
import { newId } from '../../work/newId.ts';
import type { Unit } from '../../work/unit.ts';
import { needAthlete } from '../athletes/stories.ts';

type InForce = NonNullable<OccasionRow['routine']>;

/** Every occasion of an athlete with its version in force, its draft and its frequency, in three queries. */
export async function listOccasions(unit: Unit, athleteId: string): Promise<{ items: OccasionRow[] }> {
  await needAthlete(unit, athleteId);
  const { practiceId } = unit;
  const routines = await unit.query<InForce & { occasion: Occasion }>(
    `SELECT DISTINCT ON (occasion) occasion, id, number, issued_on AS "issuedOn", mode, total_seconds AS "totalSeconds",
            jsonb_array_length(items) AS lines
     FROM routines WHERE practice_id = :practiceId AND athlete_id = :athleteId ORDER BY occasion, number DESC`,
    { practiceId, athleteId },
  );
  const drafts = await unit.rows.routine_drafts.all({ athleteId });
  const kept = await unit.rows.occasions.all({ athleteId });
  return {
    items: OCCASIONS.map((occasion) => {
      const own = kept.find((row) => row.occasion === occasion);
      const ended = own !== undefined && own.endedOn !== null && own.endedOn <= unit.today;
      const found = ended ? undefined : routines.find((row) => row.occasion === occasion);
      const draft = drafts.find((row) => row.occasion === occasion);
      const { occasion: _own, ...routine } = found ?? { occasion };
      return {
        occasion,
        routine: found ? (routine as InForce) : null,
        draft: draft ? { lines: draft.draft.items.length, version: draft.version } : null,
        days: own?.days ?? [],
        timesPerDay: own?.timesPerDay ?? 1,
        endedOn: own?.endedOn ?? null,
        endedBy: own?.endedBy ?? null,
        version: own?.version ?? null,
      };
    }),
  };
}

async function occasionOf(unit: Unit, athleteId: string, occasion: Occasion): Promise<OccasionRow> {
  const { items } = await listOccasions(unit, athleteId);
  const row = items.find((one) => one.occasion === occasion);
  if (!row) throw new RangeError(`no occasion ${occasion}`);
  return row;
}

/** How often an occasion is meant, and whether its routine is in force at all; nothing of its history changes. */
export async function putOccasion(
  unit: Unit,
  athleteId: string,
  occasion: Occasion,
  { ended, version, ...frequency }: PutOccasion,
): Promise<OccasionRow> {
  await needAthlete(unit, athleteId, true);
  const table = unit.rows.occasions;
  const existing = await table.one({ athleteId, occasion });
  const end = ended
    ? {
        endedOn: existing?.endedOn ?? unit.today,
        endedBy: existing?.endedBy ?? unit.actor.name,
      }
    : { endedOn: null, endedBy: null };
  const show = () => occasionOf(unit, athleteId, occasion);
  if (version !== null) await table.change({ athleteId, occasion }, version, { ...frequency, ...end }, show);
  else if (existing) throw new ApiProblem('version-conflict', { current: await show() });
  else await table.insert({ id: newId(), athleteId, occasion, ...frequency, ...end });
  return show();
}

/** An occasion whose routine was taken out of force has one again. */
export async function backInForce(unit: Unit, athleteId: string, occasion: Occasion): Promise<void> {
  const row = await unit.rows.occasions.one({ athleteId, occasion });
  if (!row || row.endedOn === null) return;
  const open: Partial<RowOf<'occasions'>> = { endedOn: null, endedBy: null, version: row.version + 1 };
  await unit.rows.occasions.update({ id: row.id }, open);
}
