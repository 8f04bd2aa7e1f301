import type { Migration } from '../migration.ts';

/**
 * The audit can only be added to, whoever asks the database: the one exception takes the content of changes away from an
 * erased athlete. It keeps attempts that were refused. Receipts know whom they are about, so that erasing leaves none.
 */
export const guardedAudit: Migration = {
  name: '2026-12-02-guarded-audit',
  up: `
    ALTER TABLE audit_events ADD COLUMN refused text;
    ALTER TABLE receipts ADD COLUMN athlete_id uuid;
    CREATE FUNCTION audit_is_append_only() RETURNS trigger LANGUAGE plpgsql AS $$
    BEGIN
      IF TG_OP = 'UPDATE' AND current_setting('yonder.erasing', true) = 'on' AND NEW.change IS NULL
         AND to_jsonb(NEW) - 'change' = to_jsonb(OLD) - 'change' THEN
        RETURN NEW;
      END IF;
      RAISE EXCEPTION 'the audit can only be added to';
    END $$;
    CREATE TRIGGER audit_is_append_only BEFORE UPDATE OR DELETE ON audit_events
      FOR EACH ROW EXECUTE FUNCTION audit_is_append_only();
  `,
  down: `
    DROP TRIGGER audit_is_append_only ON audit_events;
    DROP FUNCTION audit_is_append_only();
    ALTER TABLE receipts DROP COLUMN athlete_id;
    DELETE FROM audit_events WHERE refused IS NOT NULL;
    ALTER TABLE audit_events DROP COLUMN refused;
  `,
};
