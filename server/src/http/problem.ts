import type { ProblemCode } from '@yonder/core/contracts';

/** A fault at its place in what was sent. */
export interface FieldFault {
  /** JSONPath of the fault inside the part that was sent: `$.trials[2]`. */
  readonly path: string;
  readonly message: string;
}

const CODES: Readonly<Record<ProblemCode, { status: number; title: string }>> = {
  'invalid-request': { status: 400, title: 'The request has faults' },
  'malformed-json': { status: 400, title: 'The body is not JSON' },
  'unsupported-media-type': { status: 415, title: 'This kind of body is not taken' },
  'payload-too-large': { status: 413, title: 'The body is too large' },
  'not-signed-in': { status: 401, title: 'Sign in first' },
  'wrong-credentials': { status: 401, title: 'E-mail or password is wrong' },
  'csrf-token': { status: 403, title: 'The page is out of date; reload it' },
  'not-allowed': { status: 403, title: 'Your role does not allow this' },
  'too-many-attempts': { status: 429, title: 'Too many attempts; wait a little' },
  'not-found': { status: 404, title: 'Not found' },
  'version-conflict': { status: 409, title: 'Somebody changed this meanwhile' },
  'already-exists': { status: 409, title: 'This exists already' },
  'id-taken': { status: 409, title: 'This id stands for something else already' },
  archived: { status: 409, title: 'This athlete is archived; bring them back first' },
  superseded: { status: 409, title: 'A newer version is in force' },
  'proposal-changed': { status: 409, title: 'What is proposed is another by now; look again' },
  'in-use': { status: 409, title: 'This is still in use' },
  'safety-refused': { status: 422, title: 'A precaution or stop-and-refer sign forbids this' },
  blocked: { status: 422, title: 'A stop-and-refer sign is open' },
  'override-needed': { status: 422, title: 'This goes against a rule; say why, or change it' },
  unavailable: { status: 503, title: 'The database cannot be reached' },
  internal: { status: 500, title: 'Something went wrong on our side' },
};

/** An error the client may see: stable code, status, and the path of each fault. */
export class ApiProblem extends Error {
  readonly code: ProblemCode;
  readonly status: number;
  readonly errors: readonly FieldFault[];
  readonly current: unknown;

  constructor(
    code: ProblemCode,
    details: { detail?: string; errors?: readonly FieldFault[]; current?: unknown } = {},
  ) {
    super(details.detail ?? CODES[code].title);
    this.code = code;
    this.status = CODES[code].status;
    this.errors = details.errors ?? [];
    this.current = details.current;
  }

  /** The RFC 9457 document. */
  toDocument(requestId: string): Record<string, unknown> {
    return {
      type: `urn:yonder-ridge:problem:${this.code}`,
      title: CODES[this.code].title,
      status: this.status,
      code: this.code,
      ...(this.message === CODES[this.code].title ? {} : { detail: this.message }),
      ...(this.errors.length > 0 ? { errors: this.errors } : {}),
      ...(this.current === undefined ? {} : { current: this.current }),
      requestId,
    };
  }
}

/** 404 for something the practice does not have. */
export function notFound(what: string): ApiProblem {
  return new ApiProblem('not-found', { detail: `${what} not found` });
}

/** Throws when there are faults, each at its own path. */
export function refuse(errors: readonly FieldFault[]): void {
  if (errors.length > 0) throw new ApiProblem('invalid-request', { errors });
}
