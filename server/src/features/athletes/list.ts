import { createHash } from 'node:crypto';
import type { PageQuery } from '@yonder/core/contracts';
import type { Reference } from '@yonder/core/reference';
import type { Deps } from '../../deps.ts';
import { cursorOf, pageOfRows } from '../../http/page.ts';
import { workOutLater } from '../../jobs/summaries.ts';
import type { Unit } from '../../work/unit.ts';
import { assessRecord, loadRecords } from './record.ts';
import { lineJson, summaryOf } from './summary.ts';
import type { Kept } from './summary.ts';

interface Line {
  readonly id: string;
  readonly name: string;
  readonly sport: string;
  readonly birthDate: string;
  /** The kept part as the JSON it is stored as: it is passed on as it stands. */
  readonly summary: string | null;
  /** Nothing of athlete, practice or reference changed since it was worked out; at most the day did. */
  readonly current: boolean;
  readonly day: string | null;
}

const versions = new WeakMap<Reference, string>();
/** A short name of the reference data a summary was worked out with. */
function versionOf(reference: Reference): string {
  const known = versions.get(reference);
  if (known) return known;
  const made = createHash('sha256').update(JSON.stringify(reference.data)).digest('hex').slice(0, 16);
  versions.set(reference, made);
  return made;
}

/** The lines of a page with what is kept of each, in one query. */
const LINES_SQL = `
  SELECT a.id, a.name, a.sport, a.birth_date AS "birthDate", s.summary::text AS summary, s.day,
         COALESCE(s.athlete_revision = a.revision AND s.practice_revision = :practiceRevision
                  AND s.reference = :reference, false) AS current
  FROM athletes a LEFT JOIN athlete_summaries s ON s.athlete_id = a.id
  WHERE a.practice_id = :practiceId AND (a.archived_on IS NOT NULL) = :archived
    AND (a.name, a.id) > (:name, CAST(:id AS uuid))
  ORDER BY a.name, a.id LIMIT :limit`;

const FIRST = ['', '00000000-0000-0000-0000-000000000000'] as const;

function readLines(unit: Unit, page: PageQuery, archived: boolean): Promise<Line[]> {
  const [name, id] = cursorOf(page, 2) ?? FIRST;
  return unit.query<Line>(LINES_SQL, {
    practiceId: unit.practiceId,
    practiceRevision: unit.practiceRevision,
    reference: versionOf(unit.reference),
    archived,
    name,
    id,
    limit: page.limit + 1,
  });
}

/**
 * Works out and keeps the lines of some athletes in a bounded number of queries. What changes while this goes on makes
 * them old again: each is kept under the revision that was read with its data.
 */
export async function workOut(deps: Deps, unit: Unit, ids: readonly string[]): Promise<Map<string, Kept>> {
  const made = new Map<string, Kept>();
  if (ids.length === 0) return made;
  const records = await loadRecords(unit, unit.today, ids);
  const rows = [];
  for (const record of records) {
    const { athlete, routines } = record;
    const summary = summaryOf(await assessRecord(deps, unit, record), routines[0]?.number ?? null);
    made.set(athlete.id, summary);
    rows.push({ id: athlete.id, revision: athlete.revision, summary });
    await new Promise<void>((resolve) => setImmediate(resolve)); // other requests are answered in between
  }
  await unit.query(
    `INSERT INTO athlete_summaries (athlete_id, practice_id, athlete_revision, practice_revision, reference, day, summary)
     SELECT (row->>'id')::uuid, :practiceId, (row->>'revision')::int, :practiceRevision, :reference, :day, row->'summary'
     FROM jsonb_array_elements(CAST(:rows AS jsonb)) AS row
     ON CONFLICT (athlete_id) DO UPDATE SET athlete_revision = EXCLUDED.athlete_revision,
       practice_revision = EXCLUDED.practice_revision, reference = EXCLUDED.reference, day = EXCLUDED.day,
       summary = EXCLUDED.summary
     WHERE athlete_summaries.athlete_revision <= EXCLUDED.athlete_revision`,
    {
      practiceId: unit.practiceId,
      practiceRevision: unit.practiceRevision,
      reference: versionOf(unit.reference),
      day: unit.today,
      rows: JSON.stringify(rows),
    },
  );
  return made;
}

/** Athletes whose line is older than what it shows, or of another day. */
export async function oldLines(unit: Unit, limit: number): Promise<string[]> {
  const rows = await unit.query<{ id: string }>(
    `SELECT a.id FROM athletes a LEFT JOIN athlete_summaries s ON s.athlete_id = a.id
     WHERE a.practice_id = :practiceId AND (s.athlete_id IS NULL OR s.athlete_revision <> a.revision
       OR s.practice_revision <> :practiceRevision OR s.reference <> :reference OR s.day <> :day)
     ORDER BY a.name, a.id LIMIT :limit`,
    {
      practiceId: unit.practiceId,
      practiceRevision: unit.practiceRevision,
      reference: versionOf(unit.reference),
      day: unit.today,
      limit,
    },
  );
  return rows.map((row) => row.id);
}

/** Worked out while the list waits; more than that follows as a job. */
const AT_ONCE = 24;

/**
 * A page of the practice's athletes by name, as JSON. A line is kept under the revisions it was worked out from; one that
 * is older is worked out while the list waits, a few at once, and never shown as it was: the rest is a job (`pending` of
 * them). What is kept is passed on as it is stored; reading and writing it anew would cost more than all the rest.
 */
export async function listAthletes(
  deps: Deps,
  unit: Unit,
  page: PageQuery,
  archived = false,
): Promise<string> {
  const lines = await readLines(unit, page, archived);
  const old = lines.filter((line) => !line.current).map((line) => line.id);
  const fresh = await workOut(deps, unit, old.slice(0, AT_ONCE));
  const pending = lines.filter(({ id, current, day }) => !fresh.has(id) && (!current || day !== unit.today));
  if (pending.length > 0) await workOutLater(unit);
  const show = (line: Line): string => {
    const made = fresh.get(line.id);
    const kept = made ? JSON.stringify(made) : line.current ? line.summary : null;
    return lineJson(line, kept, unit.today);
  };
  const { items, next } = pageOfRows(lines, page, (line) => [line.name, line.id], show);
  return `{"items":[${items.join(',')}],"next":${JSON.stringify(next)},"pending":${pending.length}}`;
}
