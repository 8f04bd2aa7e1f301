import type { Migration } from '../migration.ts';

/** Topics whose signs grew before it was kept which signs were read out: their answers do not hold any more. */
const GREW = ['head-back', 'ill', 'bone-pain', 'growing'];

/** Which stop-and-refer signs were read out with an answer: one that is added later is asked. */
export const signsRead: Migration = {
  name: '2026-12-01-signs-read',
  up: `
    ALTER TABLE gate_answers ADD COLUMN signs jsonb;
    UPDATE gate_answers SET signs = '[]' WHERE topic IN (${GREW.map((id) => `'${id}'`).join()});
  `,
  down: `
    ALTER TABLE gate_answers DROP COLUMN signs;
  `,
};
