import type { BuildRequest } from '@yonder/core/domain';
import { caseFaults } from '@yonder/core/formats';
import type { Deps } from '../../deps.ts';
import { Sent } from '../../http/endpoint.ts';
import { refuse } from '../../http/problem.ts';
import { checkWorkingDay } from '../../work/days.ts';
import type { Unit } from '../../work/unit.ts';
import { loadRecord } from '../athletes/record.ts';

/**
 * Builds an athlete's routine on a thread of the server and sends it line by line: every better answer as
 * `{ kind: "interim" }`, then `{ kind: "done" }` or `{ kind: "failed" }`. The build ends when the client goes away.
 */
export async function streamBuild(
  { compute }: Deps,
  unit: Unit,
  athleteId: string,
  { on, request }: { on: string; request: BuildRequest },
): Promise<Sent> {
  checkWorkingDay('$.on', on, unit.today);
  const { case: input } = await loadRecord(unit, athleteId, on);
  const faults = caseFaults(unit.reference, { ...input, request });
  refuse(faults.filter((fault) => fault.path.startsWith('$.request')));
  return new Sent(async (response) => {
    const gone = new AbortController();
    response.on('close', () => gone.abort(new Error('the client went away')));
    response.type('application/x-ndjson').set('X-Accel-Buffering', 'no');
    const send = (line: object) => {
      if (!response.writableEnded) response.write(`${JSON.stringify(line)}\n`);
      response.flush?.();
    };
    try {
      const tell = (interim: object) => send({ kind: 'interim', ...interim });
      send({ kind: 'done', report: await compute.build(input, request, tell, gone.signal) });
    } catch {
      // Headers are out: the last line says that it failed, without what the core knows of the athlete.
      if (!gone.signal.aborted) send({ kind: 'failed', message: 'The routine could not be built.' });
    }
    response.end();
  });
}
