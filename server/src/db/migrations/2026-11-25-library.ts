import type { Migration } from '../migration.ts';

/** A practice's own drills, templates and dose shares; weekly limits of an athlete's regions. */
export const library: Migration = {
  name: '2026-11-25-library',
  up: `
    ALTER TABLE practices ADD COLUMN dose_shares jsonb NOT NULL DEFAULT '[]';
    ALTER TABLE athletes ADD COLUMN load_limits jsonb NOT NULL DEFAULT '[]';

    CREATE TABLE own_drills (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      practice_id uuid NOT NULL REFERENCES practices ON DELETE CASCADE,
      slug text NOT NULL CHECK (slug <> ''),
      drill jsonb NOT NULL,
      saved_by text NOT NULL,
      saved_on date NOT NULL,
      version integer NOT NULL DEFAULT 1,
      created_at timestamptz NOT NULL DEFAULT now(),
      UNIQUE (practice_id, slug)
    );
    CREATE TRIGGER own_drills_touch AFTER INSERT OR UPDATE OR DELETE ON own_drills
      FOR EACH ROW EXECUTE FUNCTION touch_practice();

    CREATE TABLE templates (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      practice_id uuid NOT NULL REFERENCES practices ON DELETE CASCADE,
      name text NOT NULL CHECK (name <> ''),
      sport text NOT NULL DEFAULT '',
      role text NOT NULL DEFAULT '',
      structure text NOT NULL,
      request jsonb NOT NULL,
      items jsonb NOT NULL,
      saved_by text NOT NULL,
      saved_on date NOT NULL,
      version integer NOT NULL DEFAULT 1,
      created_at timestamptz NOT NULL DEFAULT now(),
      UNIQUE (practice_id, name)
    );
  `,
  down: `
    DROP TABLE templates, own_drills;
    ALTER TABLE athletes DROP COLUMN load_limits;
    ALTER TABLE practices DROP COLUMN dose_shares;
  `,
};
