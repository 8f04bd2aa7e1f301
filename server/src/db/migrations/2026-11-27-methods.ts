import type { Migration } from '../migration.ts';

const EVENTS = ['insert', 'update', 'delete'] as const;

const touches = (table: string, by: string) =>
  EVENTS.map(
    (event) => `CREATE TRIGGER ${table}_touch_${event} AFTER ${event.toUpperCase()} ON ${table}
      REFERENCING ${event === 'delete' ? 'OLD' : 'NEW'} TABLE AS changed
      FOR EACH STATEMENT EXECUTE FUNCTION ${by}();`,
  ).join('\n');

const SINCE = `'{"focus": [], "space": null, "partner": false, "schools": {}}'::jsonb`;

const OF_ATHLETE = `
  practice_id uuid NOT NULL,
  athlete_id uuid NOT NULL,
  version integer NOT NULL DEFAULT 1,
  actor_kind text,
  actor_id uuid,
  FOREIGN KEY (athlete_id, practice_id) REFERENCES athletes (id, practice_id) ON DELETE CASCADE`;

/**
 * Methods with who chose them and why, of the practice and of one athlete (practices kept the bare options); pain patterns
 * of a practice's own; what was said before a session; rules of the day that were lifted;
 * scores of the movement that hurts, before a session and after it.
 */
export const methods: Migration = {
  name: '2026-11-27-methods',
  up: `
    CREATE TABLE method_choices (
      id uuid PRIMARY KEY,
      practice_id uuid NOT NULL REFERENCES practices ON DELETE CASCADE,
      athlete_id uuid,
      school text NOT NULL CHECK (school <> ''),
      option text NOT NULL CHECK (option <> ''),
      reason text NOT NULL,
      by text NOT NULL,
      date date NOT NULL,
      ended_by text,
      ended_on date,
      ended_reason text,
      version integer NOT NULL DEFAULT 1,
      actor_kind text,
      actor_id uuid,
      created_at timestamptz NOT NULL DEFAULT now(),
      CHECK ((ended_by IS NULL) = (ended_on IS NULL)),
      FOREIGN KEY (athlete_id, practice_id) REFERENCES athletes (id, practice_id) ON DELETE CASCADE
    );
    CREATE UNIQUE INDEX method_choices_one_active
      ON method_choices (practice_id, coalesce(athlete_id, practice_id), school) WHERE ended_on IS NULL;
    CREATE INDEX method_choices_of_athlete ON method_choices (athlete_id);
    CREATE FUNCTION touch_of_method() RETURNS trigger LANGUAGE plpgsql AS
      $$ BEGIN
        UPDATE practices SET name = name
          WHERE id IN (SELECT practice_id FROM changed WHERE athlete_id IS NULL);
        UPDATE athletes SET updated_at = now() WHERE id IN (SELECT athlete_id FROM changed);
        RETURN NULL;
      END $$;
    ${touches('method_choices', 'touch_of_method')}
    INSERT INTO method_choices (id, practice_id, school, option, reason, by, date)
      SELECT gen_random_uuid(), p.id, s.key, s.value, 'chosen before reasons were kept', 'the practice', current_date
      FROM practices p, jsonb_each_text(p.schools) s;
    ALTER TABLE practices DROP COLUMN schools, ADD COLUMN pain_patterns jsonb;

    -- What is asked for since then, in requests from before.
    ALTER TABLE routines DISABLE TRIGGER routines_immutable;
    UPDATE routines SET request = ${SINCE} || request;
    ALTER TABLE routines ENABLE TRIGGER routines_immutable;
    UPDATE templates SET request = ${SINCE} || request;
    UPDATE routine_drafts SET draft = jsonb_set(draft, '{request}', ${SINCE} || (draft -> 'request'));

    CREATE TABLE check_ins (
      id uuid PRIMARY KEY,
      date date NOT NULL,
      sore jsonb NOT NULL,
      by text NOT NULL,
      ${OF_ATHLETE},
      UNIQUE (athlete_id, date)
    );
    ${touches('check_ins', 'touch_athlete')}

    ALTER TABLE sessions ADD COLUMN provoked jsonb NOT NULL DEFAULT '[]';

    CREATE TABLE lifts (
      id uuid PRIMARY KEY,
      region text NOT NULL,
      side text NOT NULL,
      nrs double precision NOT NULL CHECK (nrs BETWEEN 0 AND 10),
      reason text NOT NULL CHECK (reason <> ''),
      by text NOT NULL,
      date date NOT NULL,
      created_at timestamptz NOT NULL DEFAULT now(),
      ${OF_ATHLETE}
    );
    CREATE INDEX lifts_of_athlete ON lifts (athlete_id);
    ${touches('lifts', 'touch_athlete')}
  `,
  down: `
    DROP TABLE lifts;
    ALTER TABLE sessions DROP COLUMN provoked;
    DROP TABLE check_ins;
    ALTER TABLE practices DROP COLUMN pain_patterns, ADD COLUMN schools jsonb NOT NULL DEFAULT '{}';
    UPDATE practices p SET schools = coalesce((
      SELECT jsonb_object_agg(c.school, c.option) FROM method_choices c
      WHERE c.practice_id = p.id AND c.athlete_id IS NULL AND c.ended_on IS NULL), '{}');
    DROP TABLE method_choices;
    DROP FUNCTION touch_of_method;
  `,
};
