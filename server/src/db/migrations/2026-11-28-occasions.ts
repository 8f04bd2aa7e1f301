import type { Migration } from '../migration.ts';

/**
 * Routines by occasion, each with versions of its own and how often a week it is meant: what was issued so far becomes
 * "before training", or "on its own" where the version in force is none to prepare. A routine has sections of its own.
 */
export const occasions: Migration = {
  name: '2026-11-28-occasions',
  up: `
    ALTER TABLE routines ADD COLUMN occasion text, ADD COLUMN sections jsonb NOT NULL DEFAULT '[]';
    ALTER TABLE routines DISABLE TRIGGER routines_immutable;
    UPDATE routines r SET occasion = CASE WHEN (
        SELECT n.mode FROM routines n WHERE n.athlete_id = r.athlete_id ORDER BY n.number DESC LIMIT 1
      ) = 'prepare' THEN 'before-training' ELSE 'on-its-own' END;
    ALTER TABLE routines ENABLE TRIGGER routines_immutable;
    ALTER TABLE routines ALTER COLUMN occasion SET NOT NULL;
    ALTER TABLE routines DROP CONSTRAINT routines_athlete_id_number_key;
    ALTER TABLE routines ADD CONSTRAINT routines_one_number UNIQUE (athlete_id, occasion, number);

    ALTER TABLE routine_drafts ADD COLUMN occasion text;
    UPDATE routine_drafts d SET
      draft = '{"sections": [], "left": []}'::jsonb || draft,
      occasion = coalesce(
        (SELECT r.occasion FROM routines r WHERE r.athlete_id = d.athlete_id LIMIT 1),
        CASE WHEN draft #>> '{request,mode}' IN ('build', 'restore') THEN 'on-its-own' ELSE 'before-training' END);
    ALTER TABLE routine_drafts ALTER COLUMN occasion SET NOT NULL;
    ALTER TABLE routine_drafts DROP CONSTRAINT routine_drafts_pkey;
    ALTER TABLE routine_drafts ADD PRIMARY KEY (athlete_id, occasion);

    CREATE TABLE occasions (
      id uuid PRIMARY KEY,
      occasion text NOT NULL,
      days jsonb NOT NULL DEFAULT '[]',
      times_per_day integer NOT NULL DEFAULT 1 CHECK (times_per_day BETWEEN 1 AND 10),
      ended_by text,
      ended_on date,
      practice_id uuid NOT NULL,
      athlete_id uuid NOT NULL,
      version integer NOT NULL DEFAULT 1,
      actor_kind text,
      actor_id uuid,
      CHECK ((ended_by IS NULL) = (ended_on IS NULL)),
      UNIQUE (athlete_id, occasion),
      FOREIGN KEY (athlete_id, practice_id) REFERENCES athletes (id, practice_id) ON DELETE CASCADE
    );
    ${(['insert', 'update', 'delete'] as const)
      .map(
        (event) => `CREATE TRIGGER occasions_touch_${event} AFTER ${event.toUpperCase()} ON occasions
      REFERENCING ${event === 'delete' ? 'OLD' : 'NEW'} TABLE AS changed
      FOR EACH STATEMENT EXECUTE FUNCTION touch_athlete();`,
      )
      .join('\n')}
  `,
  down: `
    DROP TABLE occasions;
    DELETE FROM routine_drafts d USING routine_drafts other
      WHERE other.athlete_id = d.athlete_id AND other.occasion < d.occasion;
    ALTER TABLE routine_drafts DROP CONSTRAINT routine_drafts_pkey;
    ALTER TABLE routine_drafts DROP COLUMN occasion, ADD PRIMARY KEY (athlete_id);
    UPDATE routine_drafts SET draft = draft - 'sections' - 'left';
    ALTER TABLE routines DISABLE TRIGGER routines_immutable;
    UPDATE routines r SET number = n.place FROM (
      SELECT id, row_number() OVER (PARTITION BY athlete_id ORDER BY issued_on, created_at, number) AS place FROM routines
    ) n WHERE n.id = r.id AND (SELECT count(DISTINCT occasion) FROM routines o WHERE o.athlete_id = r.athlete_id) > 1;
    ALTER TABLE routines ENABLE TRIGGER routines_immutable;
    ALTER TABLE routines DROP CONSTRAINT routines_one_number;
    ALTER TABLE routines DROP COLUMN occasion, DROP COLUMN sections;
    ALTER TABLE routines ADD CONSTRAINT routines_athlete_id_number_key UNIQUE (athlete_id, number);
  `,
};
