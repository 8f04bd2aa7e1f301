import type { Migration } from '../migration.ts';

/** Groups of general questions as they stood when answers were first kept by group. */
const GENERAL: Readonly<Record<string, readonly string[]>> = {
  heart: ['gen-chest'],
  'head-back': ['gen-head-emergency', 'gen-head-suspected', 'gen-spine-trauma'],
  nerves: ['gen-cauda', 'gen-neuro'],
  vessels: ['gen-clot-leg', 'gen-clot-lung', 'gen-clot-arm'],
  use: ['gen-fracture', 'gen-rupture', 'gen-limb-circulation'],
  ill: ['gen-infection', 'gen-infection-joint', 'gen-heat'],
  muscle: ['gen-compartment', 'gen-rhabdo-muscle', 'gen-rhabdo-urine'],
  treatment: ['gen-meds', 'surgery-protocol', 'surgery-warning', 'surgery-calf', 'gen-pregnancy'],
  system: ['gen-system', 'gen-energy'],
  'bone-pain': ['gen-bone-stress', 'gen-bone-stress-high-risk', 'gen-pain-rise'],
  growing: ['youth-limp-fever', 'youth-night-pain', 'youth-bone-end', 'youth-bone-end-trauma'],
};

const groups = Object.entries(GENERAL)
  .flatMap(([group, signs]) => signs.map((sign) => `('${group}', '${sign}')`))
  .join(', ');

/** Answers that were kept question by question, as answers to groups: one a day, group and athlete. */
const first = (column: string) => `(array_agg(a.${column} ORDER BY a.created_at))[1]`;
const told = `${first('practice_id')}, a.athlete_id, topic, a.answered_on, ${first('answered_by')}, min(a.created_at),
  ${first('actor_kind')}, ${first('actor_id')}`;
const CARRY_ANSWERS = `
  INSERT INTO gate_answers (id, outcome, practice_id, athlete_id, topic, answered_on, answered_by, created_at, actor_kind, actor_id)
  SELECT gen_random_uuid(), CASE WHEN bool_or(a.answer) THEN 'signs' ELSE 'none' END, ${told}
  FROM red_flag_answers a JOIN (VALUES ${groups}) AS g(topic, sign) ON g.sign = a.red_flag
  GROUP BY a.athlete_id, topic, a.answered_on
  UNION ALL
  SELECT gen_random_uuid(), 'none', ${told}
  FROM red_flag_answers a CROSS JOIN LATERAL jsonb_array_elements_text(a.asked_for) AS r(topic)
  GROUP BY a.athlete_id, topic, a.answered_on`;

const EVENTS = ['insert', 'update', 'delete'] as const;
/** A change of the table makes the athlete's record another one. */
const touching = (table: string) =>
  EVENTS.map(
    (event) => `CREATE TRIGGER ${table}_touch_${event} AFTER ${event.toUpperCase()} ON ${table}
      REFERENCING ${event === 'delete' ? 'OLD' : 'NEW'} TABLE AS changed
      FOR EACH STATEMENT EXECUTE FUNCTION touch_athlete();`,
  ).join('\n');

/**
 * What the one door for routines, the gate by groups, and people need: answers per group, overrides with their reasons,
 * accounts that can be invited, changed and closed, athletes that can be archived and erased.
 */
export const oneDoor: Migration = {
  name: '2026-11-27-one-door',
  up: `
    CREATE TABLE gate_answers (
      id uuid PRIMARY KEY,
      athlete_id uuid NOT NULL,
      practice_id uuid NOT NULL,
      topic text NOT NULL,
      outcome text NOT NULL CHECK (outcome IN ('none', 'signs', 'unknown')),
      seconds double precision,
      answered_on date NOT NULL,
      answered_by text NOT NULL,
      version integer NOT NULL DEFAULT 1,
      actor_kind text,
      actor_id uuid,
      created_at timestamptz NOT NULL DEFAULT now(),
      FOREIGN KEY (athlete_id, practice_id) REFERENCES athletes (id, practice_id) ON DELETE CASCADE
    );
    CREATE INDEX gate_answers_by_athlete ON gate_answers (athlete_id, topic, answered_on DESC);
    ${CARRY_ANSWERS};
    ${touching('gate_answers')}
    ${touching('decisions')}
    ALTER TABLE red_flag_answers DROP COLUMN asked_for;
    ALTER TABLE session_entries ADD COLUMN both_ways boolean NOT NULL DEFAULT false;
    ALTER TABLE routines ADD COLUMN overrides jsonb NOT NULL DEFAULT '[]';
    ALTER TABLE precautions ADD COLUMN from_clearance uuid REFERENCES red_flag_answers ON DELETE SET NULL;
    ALTER TABLE practices ADD COLUMN season_starts text NOT NULL DEFAULT '10-01';
    ALTER TABLE athletes ADD COLUMN archived_on date, ADD COLUMN archived_by text;
    CREATE TABLE erasures (
      id uuid PRIMARY KEY,
      practice_id uuid NOT NULL REFERENCES practices ON DELETE CASCADE,
      athlete_id uuid NOT NULL,
      reason text NOT NULL,
      erased_by text NOT NULL,
      erased_on date NOT NULL,
      actor_kind text,
      actor_id uuid
    );
    ALTER TABLE clinicians
      ALTER COLUMN password_hash DROP NOT NULL,
      ADD COLUMN active boolean NOT NULL DEFAULT true,
      ADD COLUMN version integer NOT NULL DEFAULT 1,
      ADD COLUMN session_epoch integer NOT NULL DEFAULT 1;
    CREATE TABLE account_links (
      id uuid PRIMARY KEY,
      practice_id uuid NOT NULL REFERENCES practices ON DELETE CASCADE,
      clinician_id uuid NOT NULL REFERENCES clinicians ON DELETE CASCADE,
      kind text NOT NULL CHECK (kind IN ('invite', 'reset')),
      token_hash text NOT NULL UNIQUE,
      made_by text NOT NULL,
      expires_at timestamptz NOT NULL,
      used_at timestamptz,
      actor_kind text,
      actor_id uuid
    );
    CREATE INDEX account_links_by_clinician ON account_links (clinician_id);
    CREATE TABLE sign_ins (
      id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
      practice_id uuid NOT NULL REFERENCES practices ON DELETE CASCADE,
      clinician_id uuid NOT NULL REFERENCES clinicians ON DELETE CASCADE,
      address text NOT NULL,
      browser text NOT NULL,
      succeeded boolean NOT NULL,
      at timestamptz NOT NULL DEFAULT now()
    );
    CREATE INDEX sign_ins_by_clinician ON sign_ins (clinician_id, at DESC);
    DELETE FROM athlete_summaries;
    CREATE INDEX login_sessions_by_clinician ON login_sessions ((sess->>'clinicianId'));
  `,
  down: `
    DROP INDEX login_sessions_by_clinician;
    DELETE FROM athlete_summaries;
    DROP TABLE sign_ins, account_links, erasures;
    DELETE FROM clinicians WHERE password_hash IS NULL;
    ALTER TABLE clinicians ALTER COLUMN password_hash SET NOT NULL,
      DROP COLUMN active, DROP COLUMN version, DROP COLUMN session_epoch;
    ALTER TABLE athletes DROP COLUMN archived_on, DROP COLUMN archived_by;
    ALTER TABLE practices DROP COLUMN season_starts;
    ALTER TABLE precautions DROP COLUMN from_clearance;
    ALTER TABLE routines DROP COLUMN overrides;
    ALTER TABLE session_entries DROP COLUMN both_ways;
    ALTER TABLE red_flag_answers ADD COLUMN asked_for jsonb NOT NULL DEFAULT '[]';
    UPDATE red_flag_answers a SET asked_for = asked.regions FROM (
      SELECT athlete_id, answered_on, jsonb_agg(DISTINCT topic) AS regions FROM gate_answers
      WHERE topic NOT IN (${Object.keys(GENERAL)
        .map((topic) => `'${topic}'`)
        .join(', ')})
      GROUP BY athlete_id, answered_on) asked
    WHERE asked.athlete_id = a.athlete_id AND asked.answered_on = a.answered_on;
    DROP TABLE gate_answers;
    ${EVENTS.map((event) => `DROP TRIGGER decisions_touch_${event} ON decisions;`).join('\n')}
  `,
};
