import type { AuditChange, AuditFilter, AuditRow, Page, PageQuery } from '@yonder/core/contracts';
import Papa from 'papaparse';
import { cursorOf, pageOfRows } from '../../http/page.ts';
import type { Unit } from '../../work/unit.ts';

interface Event {
  readonly id: string;
  readonly at: Date;
  readonly actorKind: string;
  readonly actorId: string | null;
  readonly actorName: string | null;
  readonly athleteId: string | null;
  readonly athleteName: string | null;
  readonly action: string;
  readonly change: AuditChange | null;
  readonly refused: string | null;
}

const show = ({
  id,
  at,
  actorKind,
  actorId,
  actorName,
  athleteId,
  athleteName,
  action,
  change,
  refused,
}: Event): AuditRow => ({
  id: String(id),
  at: at.toISOString(),
  actor: { kind: actorKind, id: actorId, name: actorName },
  athlete: athleteId === null ? null : { id: athleteId, name: athleteName },
  action,
  change,
  refused,
});

/** A page of the practice's audit, newest first, as far as it fits a filter. Days are the practice's own. */
export async function listAudit(unit: Unit, filter: AuditFilter, page: PageQuery): Promise<Page<AuditRow>> {
  const { timeZone } = await unit.practice();
  const rows = await unit.query<Event>(
    `SELECT e.id, e.at, e.actor_kind AS "actorKind", e.actor_id AS "actorId", c.name AS "actorName",
            e.athlete_id AS "athleteId", a.name AS "athleteName", e.action, e.change, e.refused
     FROM audit_events e LEFT JOIN clinicians c ON c.id = e.actor_id LEFT JOIN athletes a ON a.id = e.athlete_id
     WHERE e.practice_id = :practiceId AND e.id < :before
       AND (:athlete IS NULL OR e.athlete_id = CAST(:athlete AS uuid))
       AND (:actor IS NULL OR e.actor_id = CAST(:actor AS uuid))
       AND (:action IS NULL OR e.action = :action OR starts_with(e.action, :action || '.'))
       AND (:from IS NULL OR e.at >= CAST(:from AS timestamp) AT TIME ZONE :timeZone)
       AND (:to IS NULL OR e.at < (CAST(:to AS timestamp) + interval '1 day') AT TIME ZONE :timeZone)
     ORDER BY e.id DESC LIMIT :limit`,
    {
      practiceId: unit.practiceId,
      before: Number(cursorOf(page, 1)?.[0] ?? Number.MAX_SAFE_INTEGER) || 0,
      athlete: filter.athlete ?? null,
      actor: filter.actor ?? null,
      action: filter.action ?? null,
      from: filter.from ?? null,
      to: filter.to ?? null,
      timeZone,
      limit: page.limit + 1,
    },
  );
  return pageOfRows(rows, page, (row) => [String(row.id)], show);
}

const CSV_MOST = 50_000;

/** The audit as a file, as far as it fits a filter: at most fifty thousand rows, newest first. */
export async function auditCsv(unit: Unit, filter: AuditFilter): Promise<string> {
  const { items } = await listAudit(unit, filter, { limit: CSV_MOST });
  const rows = items.map(({ at, actor, action, athlete, change, refused }) => ({
    at,
    who: actor.name ?? actor.kind,
    action,
    refused: refused ?? '',
    what: change?.what ?? '',
    was: change?.was ?? '',
    is: change?.is ?? '',
    why: change?.why ?? '',
    athlete: athlete ? (athlete.name ?? 'erased') : '',
    athleteId: athlete?.id ?? '',
  }));
  return Papa.unparse(rows, { escapeFormulae: true });
}
