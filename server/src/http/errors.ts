import type { ErrorRequestHandler, RequestHandler } from 'express';
import type { Logger } from 'pino';
import { ConnectionError, ForeignKeyConstraintError, UniqueConstraintError } from 'sequelize';
import { ApiProblem } from './problem.ts';

/** Errors of the body parser carry a `type` of their own. */
function fromBodyParser(error: unknown): ApiProblem | null {
  const type = error instanceof Error && 'type' in error ? error.type : null;
  if (type === 'entity.parse.failed') return new ApiProblem('malformed-json');
  if (type === 'entity.too.large') return new ApiProblem('payload-too-large');
  return null;
}

/** Turns any error into a problem the client may see; unknown ones become `internal` without details. */
export function toProblem(error: unknown): ApiProblem {
  if (error instanceof ApiProblem) return error;
  if (error instanceof UniqueConstraintError) return new ApiProblem('already-exists');
  if (error instanceof ForeignKeyConstraintError) return new ApiProblem('not-found');
  if (error instanceof ConnectionError) return new ApiProblem('unavailable');
  if (error instanceof URIError)
    return new ApiProblem('invalid-request', { detail: 'The address is not valid' });
  return fromBodyParser(error) ?? new ApiProblem('internal');
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
      logger.error({ requestId: request.id, kind: error.name, frames }, 'request failed');
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

export const unknownPath: RequestHandler = () => {
  throw new ApiProblem('not-found', { detail: 'No such path' });
};
