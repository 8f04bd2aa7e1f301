import type { BuildRequest, Case } from '@yonder/core/domain';
import { caseFaults } from '@yonder/core/formats';
import type { Response } from 'express';
import type { Deps } from '../../deps.ts';
import type { User } from '../../http/endpoint.ts';
import { ApiProblem } from '../../http/problem.ts';
import { loadCase } from '../athletes/cases.ts';
import { checkWorkingDay } from '../workingDay.ts';

/**
 * Builds an athlete's routine on a thread of the server and sends it line by line: every better answer as
 * `{ kind: "interim" }`, then `{ kind: "done" }` or `{ kind: "failed" }`. The build ends when the client goes away.
 */
export async function streamBuild(
  deps: Deps,
  user: User,
  athleteId: string,
  input: { on: string; request: BuildRequest },
  response: Response,
): Promise<void> {
  checkWorkingDay('$.on', input.on, deps.today());
  const loaded = await loadCase(deps.database, user.practiceId, athleteId, input.on);
  const asked: Case = { ...loaded.case, request: input.request };
  const errors = caseFaults(deps.reference, asked).filter((fault) => fault.path.startsWith('$.request'));
  if (errors.length > 0) throw new ApiProblem('invalid-request', { errors });
  const gone = new AbortController();
  response.on('close', () => gone.abort(new Error('the client went away')));
  response.type('application/x-ndjson').set('X-Accel-Buffering', 'no');
  const send = (line: object) => {
    if (!response.writableEnded) response.write(`${JSON.stringify(line)}\n`);
    response.flush?.();
  };
  try {
    const report = await deps.builds.run(asked, send, gone.signal);
    send({ kind: 'done', report });
  } catch {
    // Headers are out: the last line says that it failed, without what the core knows of the athlete.
    if (!gone.signal.aborted) send({ kind: 'failed', message: 'The routine could not be built.' });
  }
  response.end();
}
