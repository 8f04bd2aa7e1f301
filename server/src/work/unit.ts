import { createHash } from 'node:crypto';
import type { AuditChange, Role } from '@yonder/core/contracts';
import type { Reference } from '@yonder/core/reference';
import type { Connection, Query, Tables } from '../db/database.ts';
import type { Deps } from '../deps.ts';
import { ApiProblem } from '../http/problem.ts';
import type { Actor } from './actor.ts';
import { SYSTEM } from './actor.ts';
import { dayIn } from './days.ts';
import { practiceSettings } from './practice.ts';
import type { PracticeSettings } from './practice.ts';

/**
 * One unit of work: one transaction of one actor in one practice. Services take it and nothing else of the database;
 * every row they see is the practice's own.
 */
export interface Unit {
  readonly actor: Actor;
  readonly practiceId: string;
  /** Counts up with every change of what the practice decided. */
  readonly practiceRevision: number;
  readonly rows: Tables;
  readonly query: Query;
  /** Today in the practice's time zone, or the day the work is done as of. */
  readonly today: string;
  /** The reference as it ships. */
  readonly reference: Reference;
  /** What the practice set, with the reference as it uses it. */
  readonly practice: () => Promise<PracticeSettings>;
  /** Names the athlete this is about, for the audit. */
  readonly concerns: (athleteId: string) => void;
  /** The athlete it was last said to be about; null before. */
  readonly about: () => string | null;
  /** Says what a change that decides about safety was before, is now, and why; the audit of this work keeps it. */
  readonly changes: (change: AuditChange) => void;
  /** Writes down that something was seen or done. */
  readonly audit: (action: string, athleteId?: string | null) => Promise<void>;
  /** False when this very thing was done before under the same id; 409 when the id stands for something else. */
  readonly first: (id: string, operation: string, body: unknown) => Promise<boolean>;
}

interface Standing {
  readonly actor: Actor;
  readonly practiceId: string;
  readonly practiceRevision: number;
  readonly today: string;
  readonly requestId: string | null;
}

function unitOn(deps: Deps, { tables, query }: Connection, standing: Standing): Unit {
  const { actor, practiceId, practiceRevision, today, requestId } = standing;
  const rows = tables({ practiceId, actor });
  let about: string | null = null;
  let change: AuditChange | null = null;
  let settings: Promise<PracticeSettings> | null = null;
  const unit: Unit = {
    actor,
    practiceId,
    practiceRevision,
    rows,
    query,
    today,
    reference: deps.reference,
    practice: () => (settings ??= practiceSettings(unit, deps.practices)),
    concerns: (athleteId) => {
      about = athleteId;
    },
    about: () => about,
    changes: (said) => {
      change = said;
    },
    audit: async (action, athleteId = about) => {
      await query(
        `INSERT INTO audit_events (practice_id, actor_kind, actor_id, athlete_id, action, change, request_id)
         VALUES (:practiceId, :kind, :id, :athleteId, :action, CAST(:change AS jsonb), :requestId)`,
        {
          ...{ practiceId, kind: actor.kind, id: actor.id, athleteId, action, requestId },
          change: change && JSON.stringify(change),
        },
      );
    },
    first: async (id, operation, body) => {
      const bodyHash = createHash('sha256').update(JSON.stringify(body)).digest('hex');
      // A second request of the same id waits here until the first is over.
      const made = await query(
        `INSERT INTO receipts (practice_id, id, athlete_id, operation, body_hash)
         VALUES (:practiceId, :id, :about, :operation, :bodyHash) ON CONFLICT DO NOTHING RETURNING id`,
        { practiceId, id, about, operation, bodyHash },
      );
      if (made.length > 0) return true;
      const known = await rows.receipts.need({ id }, 'Receipt');
      if (known.operation !== operation || known.bodyHash !== bodyHash) throw new ApiProblem('id-taken');
      return false;
    },
  };
  return unit;
}

/**
 * Writes down that somebody was refused something, and why, in a transaction of its own: that of the attempt is gone. An
 * athlete of another practice is not named.
 */
export async function noteRefusal(
  { database }: Deps,
  attempt: {
    readonly clinicianId: string;
    readonly athleteId: string | null;
    readonly action: string;
    readonly refused: string;
    readonly requestId: string;
  },
): Promise<void> {
  await database.inTransaction(({ query }) =>
    query(
      `INSERT INTO audit_events (practice_id, actor_kind, actor_id, athlete_id, action, refused, request_id)
       SELECT c.practice_id, 'clinician', c.id, a.id, :action, :refused, :requestId FROM clinicians c
       LEFT JOIN athletes a ON a.id = CAST(:athleteId AS uuid) AND a.practice_id = c.practice_id
       WHERE c.id = :clinicianId`,
      attempt,
    ),
  );
}

interface SignedIn {
  readonly id: string;
  readonly name: string;
  readonly role: Role;
  readonly practiceId: string;
  readonly timeZone: string;
  readonly revision: number;
}

/** Runs work for a signed-in clinician; 401 when the account is closed or the session is older than its password or role. */
export function asClinician<T>(
  deps: Deps,
  { id: clinicianId, epoch }: { id: string; epoch: number },
  requestId: string | null,
  work: (unit: Unit) => Promise<T>,
): Promise<T> {
  return deps.database.inTransaction(async (connection) => {
    const [found] = await connection.query<SignedIn>(
      `SELECT c.id, c.name, c.role, p.id AS "practiceId", p.time_zone AS "timeZone", p.revision
       FROM clinicians c JOIN practices p ON p.id = c.practice_id
       WHERE c.id = :clinicianId AND c.active AND c.session_epoch = :epoch`,
      { clinicianId, epoch },
    );
    if (!found) throw new ApiProblem('not-signed-in');
    const { id, name, role, practiceId, timeZone, revision } = found;
    return work(
      unitOn(deps, connection, {
        actor: { kind: 'clinician', id, name, role },
        practiceId,
        practiceRevision: revision,
        today: dayIn(timeZone, deps.clock()),
        requestId,
      }),
    );
  });
}

/** Runs work for a practice without a person asking (jobs, laying out the demo), as of a day if one is given. */
export function inPractice<T>(
  deps: Deps,
  practiceId: string,
  work: (unit: Unit) => Promise<T>,
  { actor = SYSTEM, today }: { actor?: Actor; today?: string } = {},
): Promise<T> {
  return deps.database.inTransaction(async (connection) => {
    const [practice] = await connection.query<{ timeZone: string; revision: number }>(
      'SELECT time_zone AS "timeZone", revision FROM practices WHERE id = :practiceId',
      { practiceId },
    );
    if (!practice) throw new ApiProblem('not-found', { detail: 'Practice not found' });
    return work(
      unitOn(deps, connection, {
        actor,
        practiceId,
        practiceRevision: practice.revision,
        today: today ?? dayIn(practice.timeZone, deps.clock()),
        requestId: null,
      }),
    );
  });
}
