import type { Migration } from '../migration.ts';

const EVENTS = ['insert', 'update', 'delete'] as const;

/**
 * What practitioners saw of a level, as rows with a name and a day (athletes had an empty list of them), and why a figure
 * was set back.
 */
export const levelsSeen: Migration = {
  name: '2026-11-27-levels-seen',
  up: `
    CREATE TABLE placements (
      id uuid PRIMARY KEY,
      athlete_id uuid NOT NULL,
      practice_id uuid NOT NULL,
      drill text NOT NULL,
      side text NOT NULL,
      verdict text NOT NULL CHECK (verdict IN ('fine', 'too-hard')),
      by text NOT NULL,
      date date NOT NULL,
      said_at timestamptz NOT NULL,
      version integer NOT NULL DEFAULT 1,
      actor_kind text,
      actor_id uuid,
      UNIQUE (athlete_id, drill, side),
      FOREIGN KEY (athlete_id, practice_id) REFERENCES athletes (id, practice_id) ON DELETE CASCADE
    );
    ${EVENTS.map(
      (event) => `CREATE TRIGGER placements_touch_${event} AFTER ${event.toUpperCase()} ON placements
        REFERENCING ${event === 'delete' ? 'OLD' : 'NEW'} TABLE AS changed
        FOR EACH STATEMENT EXECUTE FUNCTION touch_athlete();`,
    ).join('\n')}
    ALTER TABLE athletes DROP COLUMN placements;
    ALTER TABLE reference_edits ADD COLUMN ended_reason text;
  `,
  down: `
    ALTER TABLE reference_edits DROP COLUMN ended_reason;
    ALTER TABLE athletes ADD COLUMN placements jsonb NOT NULL DEFAULT '[]';
    DROP TABLE placements;
  `,
};
