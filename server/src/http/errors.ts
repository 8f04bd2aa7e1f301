import type { ErrorRequestHandler, RequestHandler } from 'express';
import type { Logger } from 'pino';
import { ConnectionError, DatabaseError, ForeignKeyConstraintError, UniqueConstraintError } from 'sequelize';
import { ApiProblem } from './problem.ts';

const UNREACHABLE: ReadonlySet<string> = new Set(['ECONNREFUSED', 'ECONNRESET', 'EPIPE', 'ETIMEDOUT']);

/** The code of a database error, wherever the driver or the mapper put it. */
function databaseCode(error: unknown): string | null {
  const own = (thing: unknown) =>
    typeof thing === 'object' && thing !== null && 'code' in thing && typeof thing.code === 'string'
      ? thing.code
      : null;
  return own(error instanceof DatabaseError ? error.parent : error);
}

/** Connection lost (08), resources out (53), shut down or starting up (57P). */
function isUnreachable(error: unknown): boolean {
  if (error instanceof ConnectionError) return true;
  const code = databaseCode(error);
  if (code !== null) return UNREACHABLE.has(code) || /^(08|53|57P)/.test(code);
  return (
    error instanceof Error &&
    /Connection terminated|timeout exceeded when trying to connect/.test(error.message)
  );
}

/** Errors of Express and the body parser carry a status and a type of their own. */
function fromParser(error: unknown): ApiProblem | null {
  if (!(error instanceof Error) || !('status' in error)) return null;
  const { status } = error;
  const type = 'type' in error ? String(error.type) : '';
  if (status === 413) return new ApiProblem('payload-too-large');
  if (status === 415) return new ApiProblem('unsupported-media-type');
  if (type === 'entity.parse.failed') return new ApiProblem('malformed-json');
  return typeof status === 'number' && status >= 400 && status < 500
    ? new ApiProblem('invalid-request', { detail: 'The request could not be read' })
    : null;
}

/** Turns any error into a problem the client may see; unknown ones become `internal` without details. */
export function toProblem(error: unknown): ApiProblem {
  if (error instanceof ApiProblem) return error;
  if (error instanceof UniqueConstraintError) return new ApiProblem('already-exists');
  if (error instanceof ForeignKeyConstraintError) return new ApiProblem('not-found');
  if (isUnreachable(error)) return new ApiProblem('unavailable');
  // Class 22: a value that its column cannot hold, however it got past the schemas.
  if (error instanceof DatabaseError && databaseCode(error)?.startsWith('22'))
    return new ApiProblem('invalid-request', { detail: 'A value cannot be stored' });
  if (error instanceof URIError)
    return new ApiProblem('invalid-request', { detail: 'The address is not valid' });
  return fromParser(error) ?? new ApiProblem('internal');
}

/** Last in the chain: logs what is ours, answers with a problem document. */
export function problemHandler(logger: Logger): ErrorRequestHandler {
  return (error: unknown, request, response, next) => {
    const problem = toProblem(error);
    // Messages of database errors can quote rows; only the kind and the stack's first frames are logged.
    if (problem.status >= 500 && error instanceof Error) {
      const frames = error.stack
        ?.split('\n')
        .filter((line) => line.trim().startsWith('at '))
        .slice(0, 6);
      logger.error(
        { requestId: request.id, kind: error.name, code: databaseCode(error), frames },
        'request failed',
      );
    }
    if (response.headersSent) {
      next(error);
      return;
    }
    response
      .status(problem.status)
      .type('application/problem+json')
      .send(JSON.stringify(problem.toDocument(String(request.id))));
  };
}

/** Answers a path that is none. */
export const unknownPath: RequestHandler = () => {
  throw new ApiProblem('not-found', { detail: 'No such path' });
};
