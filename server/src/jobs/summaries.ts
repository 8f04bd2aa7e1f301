import type { Unit } from '../work/unit.ts';

/** Name of the job that works out lines of the list of athletes. */
export const SUMMARIES_JOB = 'summaries';

/** Asks for the lines of the practice's list to be worked out; once, however often it is asked before it begins. */
export async function workOutLater(unit: Unit): Promise<void> {
  await unit.query(
    `SELECT graphile_worker.add_job(:job, json_build_object('practiceId', CAST(:practiceId AS text)),
            job_key := :key, max_attempts := 3)`,
    { job: SUMMARIES_JOB, practiceId: unit.practiceId, key: `${SUMMARIES_JOB}/${unit.practiceId}` },
  );
}
