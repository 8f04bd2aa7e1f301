import { randomUUID } from 'node:crypto';
import { bundledReference } from '@yonder/core/reference/bundled';
import { reasonText } from '@yonder/core/words';
import type { Reason } from '@yonder/core/reasons';
import type { Migration, Run } from '../migration.ts';

/** Tables whose rows get a version, and those that say who wrote a row. */
const VERSIONED = [
  'injuries',
  'precautions',
  'red_flag_answers',
  'pains',
  'need_overrides',
  'judgements',
  'reference_edits',
];
const WRITTEN = [
  'athletes',
  ...VERSIONED,
  'protocols',
  'practice_tasks',
  'own_drills',
  'templates',
  'screenings',
  'results',
  'routines',
  'routine_drafts',
  'sessions',
  'decisions',
];
/** Tables whose change makes an athlete's record another one; the unfinished session and the draft are not among them. */
const OF_ATHLETE = [
  'injuries',
  'precautions',
  'red_flag_answers',
  'pains',
  'protocols',
  'need_overrides',
  'judgements',
  'screenings',
  'routines',
];
const OF_PRACTICE = ['reference_edits', 'practice_tasks', 'own_drills'];
const OLD_TOUCHED = [...OF_ATHLETE, 'sessions', 'results', ...OF_PRACTICE];

const drop = (tables: readonly string[]) =>
  tables.map((table) => `DROP TRIGGER IF EXISTS ${table}_touch ON ${table};`).join('\n');

/** Once per statement instead of once per row: a file of 2000 results counts its athletes up once each. */
const perStatement = (table: string, fn: string) =>
  (['insert', 'update', 'delete'] as const)
    .map((event) => {
      const rows = event === 'delete' ? 'OLD' : 'NEW';
      return `CREATE TRIGGER ${table}_touch_${event} AFTER ${event.toUpperCase()} ON ${table}
        REFERENCING ${rows} TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION ${fn}();`;
    })
    .join('\n');
const dropPerStatement = (table: string) =>
  (['insert', 'update', 'delete'] as const)
    .map((event) => `DROP TRIGGER ${table}_touch_${event} ON ${table};`)
    .join('\n');

interface OldItem {
  id?: string;
  drill: string;
}
interface OldRoutine {
  id: string;
  athlete_id: string;
  items: OldItem[];
  changes: unknown[];
}
interface OldEntry {
  item?: string;
  drill: string;
  side: string;
  done: string;
  amounts?: number[];
  painBefore?: number;
  pain?: number;
  nextDayPain?: number | null;
  effort?: number | null;
  quality?: number | null;
  swappedFor?: string;
}
interface OldSession {
  id: string;
  practice_id: string;
  athlete_id: string;
  routine_id: string;
  date: string;
  finished: boolean;
  entries: OldEntry[];
  progress: { segment?: number; elapsed?: number; skipped?: number[]; played?: OldItem[] | null };
  at: string;
}

/** Ids for the items of each version: the same drill in the next version goes on with its id. */
async function identifyItems(run: Run): Promise<Map<string, OldItem[]>> {
  const routines = await run<OldRoutine>(
    'SELECT id, athlete_id, items, changes FROM routines ORDER BY athlete_id, number',
  );
  const latest = new Map<string, OldItem[]>();
  const identified = new Map<string, OldItem[]>();
  for (const { id, athlete_id: athlete, items, changes } of routines) {
    const before = latest.get(athlete) ?? [];
    const free = new Set(before.map((old) => old.id));
    const next = items.map((item) => {
      const old = before.find((other) => other.drill === item.drill && free.has(other.id));
      if (old) free.delete(old.id);
      return { ...item, id: old?.id ?? randomUUID() };
    });
    latest.set(athlete, next);
    identified.set(id, next);
    const reasons = changes.map((text) => ({ rule: 'as-written', text: String(text) }));
    await run(
      'UPDATE routines SET items = CAST(:items AS jsonb), changes = CAST(:changes AS jsonb) WHERE id = :id',
      {
        id,
        items: JSON.stringify(next),
        changes: JSON.stringify(reasons),
      },
    );
  }
  const drafts = await run<{ athlete_id: string; draft: { items: OldItem[] } }>(
    'SELECT athlete_id, draft FROM routine_drafts',
  );
  for (const { athlete_id: athlete, draft } of drafts) {
    const before = latest.get(athlete) ?? [];
    const items = draft.items.map((item) => ({
      ...item,
      id: before.find((old) => old.drill === item.drill)?.id ?? randomUUID(),
    }));
    await run('UPDATE routine_drafts SET draft = CAST(:draft AS jsonb) WHERE athlete_id = :athlete', {
      athlete,
      draft: JSON.stringify({ ...draft, items }),
    });
  }
  return identified;
}

async function itemsOfDecisions(run: Run, items: ReadonlyMap<string, OldItem[]>): Promise<void> {
  const decisions = await run<{ id: string; routine_id: string; item_index: number }>(
    'SELECT id, routine_id, item_index FROM decisions',
  );
  for (const { id, routine_id: routine, item_index: index } of decisions) {
    const item = items.get(routine)?.[index]?.id ?? randomUUID();
    await run('UPDATE decisions SET item_id = :item, batch_id = id WHERE id = :id', { id, item });
  }
}

/** Every stored session becomes its entries as rows, and the events that say as much. */
async function eventsOfSessions(run: Run, items: ReadonlyMap<string, OldItem[]>): Promise<void> {
  const sessions = await run<OldSession>(
    `SELECT id, practice_id, athlete_id, routine_id, date, finished, entries, progress,
            to_char(created_at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') AS at FROM sessions`,
  );
  for (const session of sessions) {
    const own = items.get(session.routine_id) ?? [];
    const entries = session.entries.map((entry) => {
      const item = own.find((i) => i.drill === entry.drill || i.drill === entry.swappedFor);
      return {
        item: item?.id ?? randomUUID(),
        amounts: [],
        painBefore: 0,
        pain: 0,
        nextDayPain: null,
        effort: null,
        quality: null,
        ...entry,
      };
    });
    const { segment = 0, elapsed = 0, skipped = [], played = null } = session.progress;
    const stamped = (seq: number, what: object) => ({
      id: randomUUID(),
      device: 'before-events',
      seq,
      at: session.at,
      ...what,
    });
    const events = [
      stamped(0, { type: 'started' }),
      stamped(1, { type: 'carried', entries, segment, elapsed, skipped, played }),
      ...(session.finished ? [stamped(2, { type: 'finished' })] : []),
    ];
    await run(
      `INSERT INTO session_events (id, practice_id, session_id, event)
       SELECT (e->>'id')::uuid, :practice, :session, e FROM jsonb_array_elements(CAST(:events AS jsonb)) e`,
      { practice: session.practice_id, session: session.id, events: JSON.stringify(events) },
    );
    await run(
      `INSERT INTO session_entries (session_id, item_id, practice_id, athlete_id, place, date, drill, side, done, amounts,
         pain_before, pain, next_day_pain, effort, quality, swapped_for)
       SELECT :session, (e->>'item')::uuid, :practice, :athlete, n - 1, :date, e->>'drill', e->>'side', e->>'done',
              e->'amounts', (e->>'painBefore')::float, (e->>'pain')::float, (e->>'nextDayPain')::float,
              (e->>'effort')::float, (e->>'quality')::int, e->>'swappedFor'
       FROM jsonb_array_elements(CAST(:entries AS jsonb)) WITH ORDINALITY AS list(e, n)
       ON CONFLICT DO NOTHING`,
      {
        session: session.id,
        practice: session.practice_id,
        athlete: session.athlete_id,
        date: session.date,
        entries: JSON.stringify(entries),
      },
    );
  }
}

const UP_SCHEMA = `
  ALTER TABLE practices ADD COLUMN time_zone text NOT NULL DEFAULT 'UTC' CHECK (time_zone <> '');
  ALTER TABLE clinicians ADD COLUMN role text NOT NULL DEFAULT 'owner'
    CHECK (role IN ('read-only', 'assistant', 'clinician', 'owner'));
  ALTER TABLE clinicians ALTER COLUMN role DROP DEFAULT;
  ${VERSIONED.map((t) => `ALTER TABLE ${t} ADD COLUMN version integer NOT NULL DEFAULT 1;`).join('\n')}
  ${WRITTEN.map((t) => `ALTER TABLE ${t} ADD COLUMN actor_kind text, ADD COLUMN actor_id uuid;`).join('\n')}

  ALTER TABLE routines
    ADD COLUMN reasons jsonb NOT NULL DEFAULT '[]',
    ADD COLUMN decided_batch uuid;
  CREATE INDEX routines_by_batch ON routines (decided_batch) WHERE decided_batch IS NOT NULL;

  ALTER TABLE decisions ADD COLUMN item_id uuid, ADD COLUMN batch_id uuid;

  CREATE TABLE session_events (
    id uuid PRIMARY KEY,
    practice_id uuid NOT NULL REFERENCES practices ON DELETE CASCADE,
    session_id uuid NOT NULL REFERENCES sessions ON DELETE CASCADE,
    event jsonb NOT NULL CHECK (event ? 'type'),
    actor_kind text,
    actor_id uuid,
    received_at timestamptz NOT NULL DEFAULT now()
  );
  CREATE INDEX session_events_by_session ON session_events (session_id);
  CREATE TABLE session_entries (
    session_id uuid NOT NULL REFERENCES sessions ON DELETE CASCADE,
    item_id uuid NOT NULL,
    practice_id uuid NOT NULL REFERENCES practices ON DELETE CASCADE,
    athlete_id uuid NOT NULL,
    place integer NOT NULL,
    date date NOT NULL,
    drill text NOT NULL,
    side text NOT NULL,
    done text NOT NULL CHECK (done IN ('all', 'part', 'none')),
    amounts jsonb NOT NULL DEFAULT '[]',
    pain_before double precision NOT NULL DEFAULT 0,
    pain double precision NOT NULL DEFAULT 0,
    next_day_pain double precision,
    effort double precision,
    quality integer,
    swapped_for text,
    PRIMARY KEY (session_id, item_id),
    FOREIGN KEY (athlete_id, practice_id) REFERENCES athletes (id, practice_id) ON DELETE CASCADE
  );
  CREATE INDEX session_entries_by_athlete ON session_entries (athlete_id, date);
  CREATE INDEX session_entries_by_pain ON session_entries (practice_id, drill, pain) WHERE pain > 0;

  CREATE TABLE receipts (
    practice_id uuid NOT NULL REFERENCES practices ON DELETE CASCADE,
    id uuid NOT NULL,
    operation text NOT NULL,
    body_hash text NOT NULL,
    created_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (practice_id, id)
  );

  ALTER TABLE audit_events RENAME COLUMN clinician_id TO actor_id;
  ALTER TABLE audit_events ALTER COLUMN actor_id DROP NOT NULL;
  ALTER TABLE audit_events
    ADD COLUMN actor_kind text NOT NULL DEFAULT 'clinician',
    ADD COLUMN request_id text;
  ALTER TABLE audit_events ALTER COLUMN actor_kind DROP DEFAULT;
  CREATE INDEX audit_events_by_practice ON audit_events (practice_id, id);
  CREATE INDEX decisions_by_athlete ON decisions (athlete_id, decided_on);
  CREATE INDEX decisions_by_routine ON decisions (routine_id);
  CREATE INDEX sessions_by_routine ON sessions (routine_id);
  CREATE INDEX sessions_by_practice ON sessions (practice_id, date);
  DELETE FROM athlete_summaries;
`;

const UP_TRIGGERS = `
  ${drop(OLD_TOUCHED)}
  CREATE OR REPLACE FUNCTION touch_athlete() RETURNS trigger LANGUAGE plpgsql AS
    $$ BEGIN
      UPDATE athletes SET updated_at = now() WHERE id IN (SELECT athlete_id FROM changed);
      RETURN NULL;
    END $$;
  CREATE OR REPLACE FUNCTION touch_athlete_of_result() RETURNS trigger LANGUAGE plpgsql AS
    $$ BEGIN
      UPDATE athletes SET updated_at = now()
        WHERE id IN (SELECT s.athlete_id FROM screenings s JOIN changed c ON c.screening_id = s.id);
      RETURN NULL;
    END $$;
  CREATE OR REPLACE FUNCTION touch_practice() RETURNS trigger LANGUAGE plpgsql AS
    $$ BEGIN
      UPDATE practices SET name = name WHERE id IN (SELECT practice_id FROM changed);
      RETURN NULL;
    END $$;
  ${OF_ATHLETE.map((table) => perStatement(table, 'touch_athlete')).join('\n')}
  ${perStatement('results', 'touch_athlete_of_result')}
  ${OF_PRACTICE.map((table) => perStatement(table, 'touch_practice')).join('\n')}
  -- A session is part of the record once it is finished; how far an unfinished one is changes nothing that is judged.
  CREATE FUNCTION touch_athlete_of_session() RETURNS trigger LANGUAGE plpgsql AS
    $$ BEGIN
      UPDATE athletes SET updated_at = now() WHERE id = COALESCE(NEW.athlete_id, OLD.athlete_id);
      RETURN NULL;
    END $$;
  CREATE TRIGGER sessions_touch_update AFTER UPDATE ON sessions FOR EACH ROW
    WHEN (NEW.finished OR OLD.finished) EXECUTE FUNCTION touch_athlete_of_session();
  CREATE TRIGGER sessions_touch_insert AFTER INSERT ON sessions FOR EACH ROW
    WHEN (NEW.finished) EXECUTE FUNCTION touch_athlete_of_session();
  CREATE TRIGGER sessions_touch_delete AFTER DELETE ON sessions FOR EACH ROW
    WHEN (OLD.finished) EXECUTE FUNCTION touch_athlete_of_session();

  -- What happened is never changed or deleted by itself; only with the whole session, when an athlete is erased.
  CREATE FUNCTION refuse_event_change() RETURNS trigger LANGUAGE plpgsql AS
    $$ BEGIN
      IF TG_OP = 'DELETE' AND pg_trigger_depth() > 1 THEN RETURN OLD; END IF;
      RAISE EXCEPTION 'what happened in a session is never changed';
    END $$;
  CREATE TRIGGER session_events_immutable BEFORE UPDATE OR DELETE ON session_events
    FOR EACH ROW EXECUTE FUNCTION refuse_event_change();
  CREATE TRIGGER session_events_kept BEFORE TRUNCATE ON session_events
    FOR EACH STATEMENT EXECUTE FUNCTION refuse_event_change();
`;

async function up(run: Run): Promise<void> {
  await run(UP_SCHEMA);
  await run('ALTER TABLE routines DISABLE TRIGGER routines_immutable');
  const items = await identifyItems(run);
  await run('ALTER TABLE routines ENABLE TRIGGER routines_immutable');
  await itemsOfDecisions(run, items);
  await eventsOfSessions(run, items);
  await run(`
    ALTER TABLE decisions ALTER COLUMN item_id SET NOT NULL, ALTER COLUMN batch_id SET NOT NULL, DROP COLUMN item_index;
    ALTER TABLE sessions DROP COLUMN progress, DROP COLUMN entries;
    ${UP_TRIGGERS}
  `);
}

/** The sentence of a stored change, for a schema that knew sentences alone. */
const sentence = (reason: Reason) => reasonText(bundledReference, reason);

async function down(run: Run): Promise<void> {
  await run(`
    DROP TRIGGER session_events_immutable ON session_events;
    DROP TRIGGER session_events_kept ON session_events;
    DROP TRIGGER sessions_touch_update ON sessions;
    DROP TRIGGER sessions_touch_insert ON sessions;
    DROP TRIGGER sessions_touch_delete ON sessions;
    ${[...OF_ATHLETE, 'results', ...OF_PRACTICE].map(dropPerStatement).join('\n')}
    DROP FUNCTION refuse_event_change, touch_athlete_of_session;
    ALTER TABLE sessions
      ADD COLUMN progress jsonb NOT NULL DEFAULT '{"segment":0,"elapsed":0}',
      ADD COLUMN entries jsonb NOT NULL DEFAULT '[]';
    ALTER TABLE decisions ADD COLUMN item_index integer NOT NULL DEFAULT 0 CHECK (item_index >= 0);
    UPDATE sessions s SET entries = list.entries FROM (
      SELECT session_id, jsonb_agg(jsonb_strip_nulls(jsonb_build_object('swappedFor', swapped_for)) || jsonb_build_object(
        'drill', drill, 'side', side, 'done', done, 'amounts', amounts, 'painBefore', pain_before, 'pain', pain,
        'nextDayPain', next_day_pain, 'effort', effort, 'quality', quality) ORDER BY place) AS entries
      FROM session_entries GROUP BY session_id) list WHERE list.session_id = s.id;
    UPDATE sessions s SET progress = jsonb_build_object('segment', e.event->'segment', 'elapsed', e.event->'elapsed',
        'skipped', e.event->'skipped', 'played', e.event->'played')
      FROM session_events e WHERE e.session_id = s.id AND e.event->>'type' = 'carried';
    UPDATE decisions d SET item_index = place.n - 1 FROM (
      SELECT r.id, i.item->>'id' AS item, i.n FROM routines r
      CROSS JOIN LATERAL jsonb_array_elements(r.items) WITH ORDINALITY AS i(item, n)) place
      WHERE place.id = d.routine_id AND place.item = d.item_id::text;
    ALTER TABLE decisions ALTER COLUMN item_index DROP DEFAULT;
    ALTER TABLE routines DISABLE TRIGGER routines_immutable;
  `);
  const routines = await run<{ id: string; items: OldItem[]; changes: Reason[] }>(
    'SELECT id, items, changes FROM routines',
  );
  const bare = (items: readonly OldItem[]) =>
    JSON.stringify(items.map(({ id: _id, ...item }) => ({ ...item, from: undefined })));
  for (const { id, items, changes } of routines)
    await run(
      'UPDATE routines SET items = CAST(:items AS jsonb), changes = CAST(:changes AS jsonb) WHERE id = :id',
      {
        id,
        items: bare(items),
        changes: JSON.stringify(changes.map(sentence)),
      },
    );
  const drafts = await run<{ athlete_id: string; draft: { items: OldItem[] } }>(
    'SELECT athlete_id, draft FROM routine_drafts',
  );
  for (const { athlete_id: athlete, draft } of drafts)
    await run('UPDATE routine_drafts SET draft = CAST(:draft AS jsonb) WHERE athlete_id = :athlete', {
      athlete,
      draft: JSON.stringify({ ...draft, items: JSON.parse(bare(draft.items)) }),
    });
  await run(`
    ALTER TABLE routines ENABLE TRIGGER routines_immutable;
    DROP TABLE session_entries, session_events, receipts;
    DROP INDEX routines_by_batch, audit_events_by_practice, decisions_by_athlete, decisions_by_routine, sessions_by_routine,
      sessions_by_practice;
    DELETE FROM audit_events WHERE actor_id IS NULL;
    ALTER TABLE audit_events DROP COLUMN actor_kind, DROP COLUMN request_id;
    ALTER TABLE audit_events ALTER COLUMN actor_id SET NOT NULL;
    ALTER TABLE audit_events RENAME COLUMN actor_id TO clinician_id;
    ALTER TABLE decisions DROP COLUMN item_id, DROP COLUMN batch_id;
    ALTER TABLE routines DROP COLUMN reasons, DROP COLUMN decided_batch;
    ${WRITTEN.map((t) => `ALTER TABLE ${t} DROP COLUMN actor_kind, DROP COLUMN actor_id;`).join('\n')}
    ${VERSIONED.map((t) => `ALTER TABLE ${t} DROP COLUMN version;`).join('\n')}
    ALTER TABLE clinicians DROP COLUMN role;
    ALTER TABLE practices DROP COLUMN time_zone;
    DELETE FROM athlete_summaries;
    CREATE OR REPLACE FUNCTION touch_athlete() RETURNS trigger LANGUAGE plpgsql AS
      $$ BEGIN
        UPDATE athletes SET updated_at = now() WHERE id = COALESCE(NEW.athlete_id, OLD.athlete_id);
        RETURN NULL;
      END $$;
    CREATE OR REPLACE FUNCTION touch_athlete_of_result() RETURNS trigger LANGUAGE plpgsql AS
      $$ BEGIN
        UPDATE athletes SET updated_at = now() FROM screenings s
          WHERE s.id = COALESCE(NEW.screening_id, OLD.screening_id) AND athletes.id = s.athlete_id;
        RETURN NULL;
      END $$;
    CREATE OR REPLACE FUNCTION touch_practice() RETURNS trigger LANGUAGE plpgsql AS
      $$ BEGIN
        UPDATE practices SET name = name WHERE id = COALESCE(NEW.practice_id, OLD.practice_id);
        RETURN NULL;
      END $$;
    ${[...OF_ATHLETE, 'sessions']
      .map(
        (t) =>
          `CREATE TRIGGER ${t}_touch AFTER INSERT OR UPDATE OR DELETE ON ${t} FOR EACH ROW EXECUTE FUNCTION touch_athlete();`,
      )
      .join('\n')}
    CREATE TRIGGER results_touch AFTER INSERT OR UPDATE OR DELETE ON results FOR EACH ROW
      EXECUTE FUNCTION touch_athlete_of_result();
    ${OF_PRACTICE.map(
      (t) =>
        `CREATE TRIGGER ${t}_touch AFTER INSERT OR UPDATE OR DELETE ON ${t} FOR EACH ROW EXECUTE FUNCTION touch_practice();`,
    ).join('\n')}
  `);
}

/**
 * Items, events and rows with identity; who wrote what; roles and time zones; changes as data. What is stored is carried:
 * items keep one id while the same drill goes on from version to version, sessions become events and rows.
 */
export const secondShape: Migration = { name: '2026-11-27-second-shape', up, down };
