import type { Migration } from '../migration.ts';

/** Practices, clinicians, athletes and the whole path from screening to decision. */
export const foundation: Migration = {
  name: '2026-11-25-foundation',
  up: `
    CREATE TABLE practices (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      name text NOT NULL CHECK (name <> ''),
      schools jsonb NOT NULL DEFAULT '{}',
      created_at timestamptz NOT NULL DEFAULT now()
    );
    CREATE TABLE clinicians (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      practice_id uuid NOT NULL REFERENCES practices ON DELETE CASCADE,
      email text NOT NULL CHECK (email = lower(email)),
      name text NOT NULL CHECK (name <> ''),
      password_hash text NOT NULL,
      created_at timestamptz NOT NULL DEFAULT now(),
      UNIQUE (email),
      UNIQUE (id, practice_id)
    );
    CREATE TABLE login_sessions (
      sid varchar PRIMARY KEY,
      sess json NOT NULL,
      expire timestamptz NOT NULL
    );
    CREATE INDEX login_sessions_expire ON login_sessions (expire);
    CREATE TABLE rate_limits (
      key text PRIMARY KEY,
      hits integer NOT NULL,
      reset_at timestamptz NOT NULL
    );

    CREATE TABLE athletes (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      practice_id uuid NOT NULL REFERENCES practices ON DELETE CASCADE,
      name text NOT NULL CHECK (name <> ''),
      sport text NOT NULL DEFAULT '',
      birth_date date NOT NULL,
      body_mass_kg double precision CHECK (body_mass_kg BETWEEN 15 AND 250),
      limb_length_cm jsonb NOT NULL DEFAULT '{}',
      dominant_hand text CHECK (dominant_hand IN ('left', 'right')),
      dominant_leg text CHECK (dominant_leg IN ('left', 'right')),
      training_years double precision NOT NULL DEFAULT 0 CHECK (training_years >= 0),
      tasks jsonb NOT NULL DEFAULT '[]',
      kit jsonb NOT NULL DEFAULT '[]',
      minutes double precision NOT NULL DEFAULT 10 CHECK (minutes > 0),
      placements jsonb NOT NULL DEFAULT '[]',
      version integer NOT NULL DEFAULT 1,
      created_at timestamptz NOT NULL DEFAULT now(),
      updated_at timestamptz NOT NULL DEFAULT now(),
      UNIQUE (id, practice_id)
    );
    CREATE INDEX athletes_by_practice ON athletes (practice_id, name);

    CREATE TABLE injuries (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      athlete_id uuid NOT NULL,
      practice_id uuid NOT NULL,
      region text NOT NULL,
      side text NOT NULL CHECK (side IN ('left', 'right', 'central')),
      date date NOT NULL,
      operated boolean NOT NULL DEFAULT false,
      what text NOT NULL DEFAULT '',
      created_at timestamptz NOT NULL DEFAULT now(),
      FOREIGN KEY (athlete_id, practice_id) REFERENCES athletes (id, practice_id) ON DELETE CASCADE
    );
    CREATE INDEX injuries_by_athlete ON injuries (athlete_id);

    CREATE TABLE precautions (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      athlete_id uuid NOT NULL,
      practice_id uuid NOT NULL,
      precaution text NOT NULL,
      reason text NOT NULL DEFAULT '',
      set_by text NOT NULL CHECK (set_by <> ''),
      since date NOT NULL,
      until date CHECK (until >= since),
      ended_by text,
      ended_on date,
      created_at timestamptz NOT NULL DEFAULT now(),
      CHECK ((ended_by IS NULL) = (ended_on IS NULL)),
      FOREIGN KEY (athlete_id, practice_id) REFERENCES athletes (id, practice_id) ON DELETE CASCADE
    );
    CREATE UNIQUE INDEX precautions_one_active ON precautions (athlete_id, precaution) WHERE ended_on IS NULL;

    CREATE TABLE red_flag_answers (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      athlete_id uuid NOT NULL,
      practice_id uuid NOT NULL,
      red_flag text NOT NULL,
      answer boolean NOT NULL,
      region text,
      side text CHECK (side IN ('left', 'right', 'central')),
      asked_for jsonb NOT NULL DEFAULT '[]',
      answered_on date NOT NULL,
      answered_by text NOT NULL,
      clearance_by text,
      clearance_on date,
      clearance_scope text,
      created_at timestamptz NOT NULL DEFAULT now(),
      CHECK ((clearance_by IS NULL) = (clearance_on IS NULL) AND (clearance_by IS NULL) = (clearance_scope IS NULL)),
      FOREIGN KEY (athlete_id, practice_id) REFERENCES athletes (id, practice_id) ON DELETE CASCADE
    );
    CREATE INDEX red_flag_answers_by_athlete ON red_flag_answers (athlete_id, red_flag, created_at);

    CREATE TABLE screenings (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      athlete_id uuid NOT NULL,
      practice_id uuid NOT NULL,
      date date NOT NULL,
      finished boolean NOT NULL DEFAULT false,
      version integer NOT NULL DEFAULT 1,
      created_by uuid,
      created_at timestamptz NOT NULL DEFAULT now(),
      updated_at timestamptz NOT NULL DEFAULT now(),
      UNIQUE (athlete_id, date),
      UNIQUE (id, practice_id),
      FOREIGN KEY (athlete_id, practice_id) REFERENCES athletes (id, practice_id) ON DELETE CASCADE,
      FOREIGN KEY (created_by, practice_id) REFERENCES clinicians (id, practice_id)
    );
    CREATE TABLE results (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      screening_id uuid NOT NULL,
      practice_id uuid NOT NULL,
      test text NOT NULL,
      side text NOT NULL CHECK (side IN ('left', 'right', 'central')),
      value jsonb NOT NULL,
      version integer NOT NULL DEFAULT 1,
      created_at timestamptz NOT NULL DEFAULT now(),
      updated_at timestamptz NOT NULL DEFAULT now(),
      UNIQUE (screening_id, test, side),
      FOREIGN KEY (screening_id, practice_id) REFERENCES screenings (id, practice_id) ON DELETE CASCADE
    );

    CREATE TABLE routines (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      athlete_id uuid NOT NULL,
      practice_id uuid NOT NULL,
      number integer NOT NULL CHECK (number > 0),
      mode text NOT NULL CHECK (mode IN ('prepare', 'build', 'restore')),
      structure text NOT NULL,
      issued_on date NOT NULL,
      issued_by text NOT NULL,
      items jsonb NOT NULL,
      total_seconds integer NOT NULL CHECK (total_seconds > 0),
      request jsonb NOT NULL,
      findings jsonb NOT NULL,
      changes jsonb NOT NULL DEFAULT '[]',
      created_at timestamptz NOT NULL DEFAULT now(),
      UNIQUE (athlete_id, number),
      UNIQUE (id, practice_id),
      FOREIGN KEY (athlete_id, practice_id) REFERENCES athletes (id, practice_id) ON DELETE CASCADE
    );
    -- An issued version is never edited, only superseded.
    CREATE FUNCTION refuse_routine_update() RETURNS trigger LANGUAGE plpgsql AS
      $$ BEGIN RAISE EXCEPTION 'an issued routine is never edited'; END $$;
    CREATE TRIGGER routines_immutable BEFORE UPDATE ON routines
      FOR EACH ROW EXECUTE FUNCTION refuse_routine_update();

    CREATE TABLE routine_drafts (
      athlete_id uuid PRIMARY KEY,
      practice_id uuid NOT NULL,
      draft jsonb NOT NULL,
      version integer NOT NULL DEFAULT 1,
      updated_at timestamptz NOT NULL DEFAULT now(),
      FOREIGN KEY (athlete_id, practice_id) REFERENCES athletes (id, practice_id) ON DELETE CASCADE
    );

    CREATE TABLE sessions (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      athlete_id uuid NOT NULL,
      practice_id uuid NOT NULL,
      routine_id uuid NOT NULL,
      date date NOT NULL,
      finished boolean NOT NULL DEFAULT false,
      progress jsonb NOT NULL DEFAULT '{"segment":0,"elapsed":0}',
      entries jsonb NOT NULL DEFAULT '[]',
      version integer NOT NULL DEFAULT 1,
      created_at timestamptz NOT NULL DEFAULT now(),
      updated_at timestamptz NOT NULL DEFAULT now(),
      FOREIGN KEY (athlete_id, practice_id) REFERENCES athletes (id, practice_id) ON DELETE CASCADE,
      FOREIGN KEY (routine_id, practice_id) REFERENCES routines (id, practice_id) ON DELETE CASCADE
    );
    CREATE INDEX sessions_by_athlete ON sessions (athlete_id, date);

    CREATE TABLE decisions (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      athlete_id uuid NOT NULL,
      practice_id uuid NOT NULL,
      routine_id uuid NOT NULL,
      item_index integer NOT NULL CHECK (item_index >= 0),
      drill text NOT NULL,
      decision text NOT NULL,
      reasons jsonb NOT NULL,
      verdict text NOT NULL CHECK (verdict IN ('accepted', 'overruled')),
      instead text,
      reason text,
      decided_by text NOT NULL,
      decided_on date NOT NULL,
      created_at timestamptz NOT NULL DEFAULT now(),
      CHECK ((verdict = 'overruled') = (reason IS NOT NULL)),
      FOREIGN KEY (athlete_id, practice_id) REFERENCES athletes (id, practice_id) ON DELETE CASCADE,
      FOREIGN KEY (routine_id, practice_id) REFERENCES routines (id, practice_id) ON DELETE CASCADE
    );

    CREATE TABLE audit_events (
      id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
      practice_id uuid NOT NULL REFERENCES practices ON DELETE CASCADE,
      clinician_id uuid NOT NULL,
      athlete_id uuid,
      action text NOT NULL,
      at timestamptz NOT NULL DEFAULT now()
    );
    CREATE INDEX audit_events_by_athlete ON audit_events (athlete_id, at);
  `,
  down: `
    DROP TABLE audit_events, decisions, sessions, routine_drafts, routines, results, screenings, red_flag_answers,
      precautions, injuries, athletes, rate_limits, login_sessions, clinicians, practices;
    DROP FUNCTION refuse_routine_update;
  `,
};
