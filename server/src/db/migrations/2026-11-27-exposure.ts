import type { Migration } from '../migration.ts';

/** What athletes do every week, and precautions of one region and side, with the clearance that lifts them. */
export const exposure: Migration = {
  name: '2026-11-27-exposure',
  up: `
    ALTER TABLE athletes ADD COLUMN exposure jsonb NOT NULL DEFAULT '[]';
    ALTER TABLE precautions
      ADD COLUMN region text,
      ADD COLUMN side text,
      ADD COLUMN clearance_by text,
      ADD COLUMN clearance_on date,
      ADD COLUMN clearance_scope text;
    DROP INDEX precautions_one_active;
    CREATE UNIQUE INDEX precautions_one_active
      ON precautions (athlete_id, precaution, coalesce(region, ''), coalesce(side, '')) WHERE ended_on IS NULL;
  `,
  down: `
    DROP INDEX precautions_one_active;
    ALTER TABLE precautions
      DROP COLUMN region, DROP COLUMN side, DROP COLUMN clearance_by, DROP COLUMN clearance_on, DROP COLUMN clearance_scope;
    DELETE FROM precautions a USING precautions b
      WHERE a.ended_on IS NULL AND b.ended_on IS NULL AND a.athlete_id = b.athlete_id
        AND a.precaution = b.precaution AND a.id > b.id;
    CREATE UNIQUE INDEX precautions_one_active ON precautions (athlete_id, precaution) WHERE ended_on IS NULL;
    ALTER TABLE athletes DROP COLUMN exposure;
  `,
};
