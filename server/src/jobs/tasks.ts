import type { TaskList } from 'graphile-worker';
import { z } from 'zod';
import type { Deps } from '../deps.ts';
import { oldLines, workOut } from '../features/athletes/list.ts';
import { inPractice } from '../work/unit.ts';
import { SUMMARIES_JOB } from './summaries.ts';

/** Athletes per transaction: short ones, so that nobody waits for a job. */
const CHUNK = 12;

const ofPractice = z.object({ practiceId: z.uuid() });

/** What the queue can be asked to do. Jobs find out themselves what is left: run twice, they do nothing the second time. */
export function tasks(deps: Deps): TaskList {
  return {
    [SUMMARIES_JOB]: async (payload) => {
      const { practiceId } = ofPractice.parse(payload);
      for (let left = true; left;) {
        left = await inPractice(deps, practiceId, async (unit) => {
          const ids = await oldLines(unit, CHUNK);
          const made = await workOut(deps, unit, ids);
          return made.size > 0;
        });
      }
    },
  };
}
