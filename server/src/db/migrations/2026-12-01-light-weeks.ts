import type { Migration } from '../migration.ts';

/** Spans in which nothing gets harder, and what a change that decides about safety was before, is now, and why. */
export const lightWeeks: Migration = {
  name: '2026-12-01-light-weeks',
  up: `
    ALTER TABLE athletes ADD COLUMN light_spans jsonb NOT NULL DEFAULT '[]';
    ALTER TABLE audit_events ADD COLUMN change jsonb;
  `,
  down: `
    ALTER TABLE audit_events DROP COLUMN change;
    ALTER TABLE athletes DROP COLUMN light_spans;
  `,
};
