import type { Migration } from '../migration.ts';

/**
 * A version keeps the practice's own drills as they were when it was issued; a tick for an own drill that was changed since
 * is taken back and named.
 */
export const frozenDrills: Migration = {
  name: '2026-12-02-frozen-drills',
  up: `
    ALTER TABLE routines ADD COLUMN own_drills jsonb NOT NULL DEFAULT '[]';
    ALTER TABLE protocols ADD COLUMN changed jsonb NOT NULL DEFAULT '[]';
    ALTER TABLE routines DISABLE TRIGGER routines_immutable;
    UPDATE routines r SET own_drills = COALESCE((
      SELECT jsonb_agg(d.drill || jsonb_build_object('id', d.slug)) FROM own_drills d
      WHERE d.practice_id = r.practice_id
        AND d.slug IN (SELECT item->>'drill' FROM jsonb_array_elements(r.items) item)), '[]');
    ALTER TABLE routines ENABLE TRIGGER routines_immutable;
  `,
  down: `
    ALTER TABLE protocols DROP COLUMN changed;
    ALTER TABLE routines DROP COLUMN own_drills;
  `,
};
