import type { Migration } from '../migration.ts';

/** What is said before a session beside what hurts, and the copy of the routine that a session was done by. */
export const todaysCopies: Migration = {
  name: '2026-11-28-today',
  up: `
    ALTER TABLE check_ins
      ADD COLUMN slept text CHECK (slept IN ('badly', 'so-so', 'well')),
      ADD COLUMN tension text CHECK (tension IN ('calm', 'tense', 'very-tense')),
      ADD COLUMN news text NOT NULL DEFAULT '',
      ADD COLUMN minutes integer CHECK (minutes BETWEEN 1 AND 120),
      ADD COLUMN space text CHECK (space IN ('mat', 'lane')),
      ADD COLUMN warm_minutes_ago integer CHECK (warm_minutes_ago BETWEEN 0 AND 600);
    ALTER TABLE sessions ADD COLUMN items jsonb, ADD COLUMN changes jsonb NOT NULL DEFAULT '[]';
  `,
  down: `
    ALTER TABLE sessions DROP COLUMN items, DROP COLUMN changes;
    ALTER TABLE check_ins DROP COLUMN slept, DROP COLUMN tension, DROP COLUMN news, DROP COLUMN minutes, DROP COLUMN space,
      DROP COLUMN warm_minutes_ago;
  `,
};
