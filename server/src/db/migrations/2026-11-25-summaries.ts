import type { Migration } from '../migration.ts';

/** Tables whose change makes an athlete's summary old, by their own `athlete_id`. */
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
  'sessions',
];
const OF_PRACTICE = ['reference_edits', 'practice_tasks'];

const trigger = (table: string, fn: string) =>
  `CREATE TRIGGER ${table}_touch AFTER INSERT OR UPDATE OR DELETE ON ${table} FOR EACH ROW EXECUTE FUNCTION ${fn}();`;

/**
 * Summaries of athletes for lists. The database itself counts every change of an athlete or practice, so that no code
 * path can leave an old summary standing.
 */
export const summaries: Migration = {
  name: '2026-11-25-summaries',
  up: `
    ALTER TABLE athletes ADD COLUMN revision integer NOT NULL DEFAULT 1;
    ALTER TABLE practices ADD COLUMN revision integer NOT NULL DEFAULT 1;

    CREATE FUNCTION count_revision() RETURNS trigger LANGUAGE plpgsql AS
      $$ BEGIN NEW.revision := OLD.revision + 1; RETURN NEW; END $$;
    CREATE TRIGGER athletes_revision BEFORE UPDATE ON athletes FOR EACH ROW EXECUTE FUNCTION count_revision();
    CREATE TRIGGER practices_revision BEFORE UPDATE ON practices FOR EACH ROW EXECUTE FUNCTION count_revision();

    CREATE FUNCTION touch_athlete() RETURNS trigger LANGUAGE plpgsql AS
      $$ BEGIN
        UPDATE athletes SET updated_at = now() WHERE id = COALESCE(NEW.athlete_id, OLD.athlete_id);
        RETURN NULL;
      END $$;
    CREATE FUNCTION touch_athlete_of_result() RETURNS trigger LANGUAGE plpgsql AS
      $$ BEGIN
        UPDATE athletes SET updated_at = now() FROM screenings s
          WHERE s.id = COALESCE(NEW.screening_id, OLD.screening_id) AND athletes.id = s.athlete_id;
        RETURN NULL;
      END $$;
    CREATE FUNCTION touch_practice() RETURNS trigger LANGUAGE plpgsql AS
      $$ BEGIN
        UPDATE practices SET name = name WHERE id = COALESCE(NEW.practice_id, OLD.practice_id);
        RETURN NULL;
      END $$;
    ${OF_ATHLETE.map((table) => trigger(table, 'touch_athlete')).join('\n    ')}
    ${trigger('results', 'touch_athlete_of_result')}
    ${OF_PRACTICE.map((table) => trigger(table, 'touch_practice')).join('\n    ')}

    CREATE TABLE athlete_summaries (
      athlete_id uuid PRIMARY KEY,
      practice_id uuid NOT NULL,
      athlete_revision integer NOT NULL,
      practice_revision integer NOT NULL,
      reference text NOT NULL,
      day date NOT NULL,
      summary jsonb NOT NULL,
      FOREIGN KEY (athlete_id, practice_id) REFERENCES athletes (id, practice_id) ON DELETE CASCADE
    );
    CREATE INDEX athlete_summaries_by_practice ON athlete_summaries (practice_id);
    CREATE INDEX results_by_practice ON results (practice_id, screening_id);
  `,
  down: `
    DROP INDEX results_by_practice;
    DROP TABLE athlete_summaries;
    ${[...OF_ATHLETE, 'results', ...OF_PRACTICE].map((table) => `DROP TRIGGER ${table}_touch ON ${table};`).join('\n    ')}
    DROP TRIGGER athletes_revision ON athletes;
    DROP TRIGGER practices_revision ON practices;
    DROP FUNCTION touch_practice, touch_athlete_of_result, touch_athlete, count_revision;
    ALTER TABLE practices DROP COLUMN revision;
    ALTER TABLE athletes DROP COLUMN revision;
  `,
};
