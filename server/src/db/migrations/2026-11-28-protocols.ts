import type { Migration } from '../migration.ts';

/** Templates as protocols of the practice: by whom, for what, not for whom, what varies, and every version they had. */
export const protocols: Migration = {
  name: '2026-11-28-protocols',
  up: `
    ALTER TABLE templates
      ADD COLUMN author text NOT NULL DEFAULT '',
      ADD COLUMN purpose text NOT NULL DEFAULT '',
      ADD COLUMN not_for text NOT NULL DEFAULT '',
      ADD COLUMN occasion text,
      ADD COLUMN sections jsonb NOT NULL DEFAULT '[]',
      ADD COLUMN variables jsonb NOT NULL DEFAULT '{"minutes": "as-written", "place": "athlete", "level": "athlete"}';
    UPDATE templates SET author = saved_by;
    CREATE TABLE template_versions (
      id uuid PRIMARY KEY,
      practice_id uuid NOT NULL REFERENCES practices ON DELETE CASCADE,
      template_id uuid NOT NULL REFERENCES templates ON DELETE CASCADE,
      number integer NOT NULL CHECK (number > 0),
      content jsonb NOT NULL,
      saved_by text NOT NULL,
      saved_on date NOT NULL,
      actor_kind text,
      actor_id uuid,
      UNIQUE (template_id, number)
    );
    INSERT INTO template_versions (id, practice_id, template_id, number, content, saved_by, saved_on)
      SELECT gen_random_uuid(), practice_id, id, version,
        jsonb_build_object('name', name, 'sport', sport, 'role', role, 'author', author, 'purpose', purpose, 'notFor', not_for,
          'occasion', occasion, 'sections', sections, 'variables', variables, 'structure', structure, 'request', request,
          'items', items),
        saved_by, saved_on
      FROM templates;
  `,
  down: `
    DROP TABLE template_versions;
    ALTER TABLE templates DROP COLUMN author, DROP COLUMN purpose, DROP COLUMN not_for, DROP COLUMN occasion,
      DROP COLUMN sections, DROP COLUMN variables;
  `,
};
