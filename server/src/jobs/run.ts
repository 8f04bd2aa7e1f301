import { Logger, run, runTaskListOnce } from 'graphile-worker';
import type pg from 'pg';
import type { Deps } from '../deps.ts';
import { tasks } from './tasks.ts';

/** Payloads hold ids of practices and athletes: the queue's own log stays silent. */
const silent = new Logger(() => () => undefined);

/** Works on the queue in this process until stopped; several processes share it, each job is done by one. */
export async function startJobs(deps: Deps, pool: pg.Pool): Promise<() => Promise<void>> {
  const runner = await run({
    pgPool: pool,
    taskList: tasks(deps),
    concurrency: 1,
    pollInterval: 2000,
    noHandleSignals: true,
    logger: silent,
  });
  return () => runner.stop();
}

/** Does what is in the queue now and returns: for tests and for laying out the demo. */
export async function runJobsOnce(deps: Deps, pool: pg.Pool): Promise<void> {
  const client = await pool.connect();
  try {
    await runTaskListOnce({ logger: silent }, tasks(deps), client);
  } finally {
    client.release();
  }
}
