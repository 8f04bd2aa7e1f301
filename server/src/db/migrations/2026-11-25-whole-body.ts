import type { Migration } from '../migration.ts';

/** What hurts now, protocols, own needs, what practitioners say of findings; a practice's own figures and tasks. */
export const wholeBody: Migration = {
  name: '2026-11-25-whole-body',
  up: `
    ALTER TABLE athletes
      ADD COLUMN places jsonb NOT NULL DEFAULT '[]',
      ADD COLUMN minutes_build double precision CHECK (minutes_build > 0),
      ADD COLUMN minutes_restore double precision CHECK (minutes_restore > 0),
      ADD COLUMN dislikes jsonb NOT NULL DEFAULT '[]';
    ALTER TABLE practices
      ADD COLUMN pain_limits jsonb,
      ADD COLUMN version integer NOT NULL DEFAULT 1;

    CREATE TABLE pains (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      athlete_id uuid NOT NULL,
      practice_id uuid NOT NULL,
      region text NOT NULL,
      side text NOT NULL CHECK (side IN ('left', 'right', 'central')),
      aspect text,
      feel text,
      moment text NOT NULL CHECK (moment IN ('rest', 'movement', 'end-range', 'day-after')),
      nrs double precision NOT NULL CHECK (nrs BETWEEN 0 AND 10),
      since date NOT NULL,
      ended date CHECK (ended >= since),
      created_at timestamptz NOT NULL DEFAULT now(),
      FOREIGN KEY (athlete_id, practice_id) REFERENCES athletes (id, practice_id) ON DELETE CASCADE
    );
    CREATE INDEX pains_by_athlete ON pains (athlete_id);

    CREATE TABLE protocols (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      athlete_id uuid NOT NULL,
      practice_id uuid NOT NULL,
      region text NOT NULL,
      side text NOT NULL CHECK (side IN ('left', 'right', 'central')),
      by text NOT NULL CHECK (by <> ''),
      date date NOT NULL,
      drills jsonb NOT NULL DEFAULT '[]',
      tests jsonb NOT NULL DEFAULT '[]',
      version integer NOT NULL DEFAULT 1,
      created_at timestamptz NOT NULL DEFAULT now(),
      UNIQUE (athlete_id, region, side),
      FOREIGN KEY (athlete_id, practice_id) REFERENCES athletes (id, practice_id) ON DELETE CASCADE
    );

    CREATE TABLE need_overrides (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      athlete_id uuid NOT NULL,
      practice_id uuid NOT NULL,
      test text NOT NULL,
      side text NOT NULL CHECK (side IN ('left', 'right', 'central')),
      value double precision NOT NULL,
      reason text NOT NULL CHECK (reason <> ''),
      set_by text NOT NULL,
      set_on date NOT NULL,
      created_at timestamptz NOT NULL DEFAULT now(),
      UNIQUE (athlete_id, test, side),
      FOREIGN KEY (athlete_id, practice_id) REFERENCES athletes (id, practice_id) ON DELETE CASCADE
    );

    CREATE TABLE judgements (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      athlete_id uuid NOT NULL,
      practice_id uuid NOT NULL,
      restriction text NOT NULL,
      side text NOT NULL CHECK (side IN ('left', 'right', 'central')),
      verdict text NOT NULL CHECK (verdict IN ('confirmed', 'dismissed', 'seen')),
      degree text NOT NULL DEFAULT 'clear' CHECK (degree IN ('slight', 'clear', 'marked')),
      reason text NOT NULL DEFAULT '',
      by text NOT NULL CHECK (by <> ''),
      date date NOT NULL,
      created_at timestamptz NOT NULL DEFAULT now(),
      CHECK (verdict <> 'dismissed' OR reason <> ''),
      FOREIGN KEY (athlete_id, practice_id) REFERENCES athletes (id, practice_id) ON DELETE CASCADE
    );
    CREATE INDEX judgements_by_athlete ON judgements (athlete_id, created_at);

    -- A figure set back stays on record with who set it and what it replaced.
    CREATE TABLE reference_edits (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      practice_id uuid NOT NULL REFERENCES practices ON DELETE CASCADE,
      test text NOT NULL,
      path text NOT NULL,
      task text NOT NULL DEFAULT '',
      value double precision NOT NULL,
      old_value double precision,
      reason text NOT NULL CHECK (reason <> ''),
      by text NOT NULL,
      date date NOT NULL,
      ended_by text,
      ended_on date,
      created_at timestamptz NOT NULL DEFAULT now(),
      CHECK ((ended_by IS NULL) = (ended_on IS NULL))
    );
    CREATE UNIQUE INDEX reference_edits_one_active ON reference_edits (practice_id, test, path, task)
      WHERE ended_on IS NULL;

    CREATE TABLE practice_tasks (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      practice_id uuid NOT NULL REFERENCES practices ON DELETE CASCADE,
      slug text NOT NULL,
      name text NOT NULL CHECK (name <> ''),
      sport text NOT NULL DEFAULT '',
      demands jsonb NOT NULL,
      version integer NOT NULL DEFAULT 1,
      created_at timestamptz NOT NULL DEFAULT now(),
      UNIQUE (practice_id, slug)
    );
  `,
  down: `
    DROP TABLE practice_tasks, reference_edits, judgements, need_overrides, protocols, pains;
    ALTER TABLE practices DROP COLUMN version, DROP COLUMN pain_limits;
    ALTER TABLE athletes DROP COLUMN dislikes, DROP COLUMN minutes_restore, DROP COLUMN minutes_build,
      DROP COLUMN places;
  `,
};
