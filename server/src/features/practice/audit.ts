import type { AuditRow, Page, PageQuery } from '@yonder/core/contracts';
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
}: Event): AuditRow => ({
  id: String(id),
  at: at.toISOString(),
  actor: { kind: actorKind, id: actorId, name: actorName },
  athlete: athleteId === null ? null : { id: athleteId, name: athleteName },
  action,
});

/** A page of the practice's audit, newest first. */
export function listAudit(
  unit: Unit,
  { athlete, ...page }: PageQuery & { athlete?: string },
): Promise<Page<AuditRow>> {
  const before = Number(cursorOf(page, 1)?.[0] ?? Number.MAX_SAFE_INTEGER) || 0;
  return unit
    .query<Event>(
      `SELECT e.id, e.at, e.actor_kind AS "actorKind", e.actor_id AS "actorId", c.name AS "actorName",
              e.athlete_id AS "athleteId", a.name AS "athleteName", e.action
       FROM audit_events e LEFT JOIN clinicians c ON c.id = e.actor_id LEFT JOIN athletes a ON a.id = e.athlete_id
       WHERE e.practice_id = :practiceId AND e.id < :before AND (:athlete IS NULL OR e.athlete_id = CAST(:athlete AS uuid))
       ORDER BY e.id DESC LIMIT :limit`,
      { practiceId: unit.practiceId, before, athlete: athlete ?? null, limit: page.limit + 1 },
    )
    .then((rows) => pageOfRows(rows, page, (row) => [String(row.id)], show));
}
