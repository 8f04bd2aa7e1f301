import type { Migration } from '../migration.ts';

/** What was made harder of late stays with each version; a referral is ended by name beside what is lifted. */
export const painState: Migration = {
  name: '2026-12-01-pain-state',
  up: `
    ALTER TABLE routines ADD COLUMN hardened jsonb NOT NULL DEFAULT '[]';
    ALTER TABLE lifts ADD COLUMN referral boolean NOT NULL DEFAULT false, ADD COLUMN places jsonb;
  `,
  down: `
    DELETE FROM lifts WHERE referral;
    ALTER TABLE lifts DROP COLUMN referral, DROP COLUMN places;
    ALTER TABLE routines DROP COLUMN hardened;
  `,
};
