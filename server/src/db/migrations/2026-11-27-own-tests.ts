import type { Migration } from '../migration.ts';

const EVENTS = ['insert', 'update', 'delete'] as const;

/** Tests of a practice's own. */
export const ownTests: Migration = {
  name: '2026-11-27-own-tests',
  up: `
    CREATE TABLE own_tests (
      id uuid PRIMARY KEY,
      practice_id uuid NOT NULL REFERENCES practices ON DELETE CASCADE,
      slug text NOT NULL CHECK (slug <> ''),
      test jsonb NOT NULL,
      version integer NOT NULL DEFAULT 1,
      actor_kind text,
      actor_id uuid,
      UNIQUE (practice_id, slug)
    );
    ${EVENTS.map(
      (event) => `CREATE TRIGGER own_tests_touch_${event} AFTER ${event.toUpperCase()} ON own_tests
        REFERENCING ${event === 'delete' ? 'OLD' : 'NEW'} TABLE AS changed
        FOR EACH STATEMENT EXECUTE FUNCTION touch_practice();`,
    ).join('\n')}
  `,
  down: `DROP TABLE own_tests;`,
};
