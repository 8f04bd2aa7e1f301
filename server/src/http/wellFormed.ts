import { jsonPath } from '@yonder/core/formats';
import type { RequestHandler } from 'express';
import { ApiProblem } from './problem.ts';

const UNCLEAN = 'holds a character that cannot be stored (NUL, or half a surrogate pair)';

function isClean(text: string): boolean {
  return !text.includes('\u0000') && text.isWellFormed();
}

/** Nothing the API takes is nested deeper than a few levels. */
const MAX_DEPTH = 30;

interface Fault {
  readonly path: readonly PropertyKey[];
  readonly message: string;
}

/** The first text with a NUL or half a surrogate pair in it, keys included, or what is nested too deep; null when all is well. */
function firstFault(value: unknown, at: readonly PropertyKey[]): Fault | null {
  if (typeof value === 'string') return isClean(value) ? null : { path: at, message: UNCLEAN };
  if (typeof value !== 'object' || value === null) return null;
  if (at.length >= MAX_DEPTH) return { path: [], message: `nested deeper than ${MAX_DEPTH} levels` };
  for (const [key, entry] of Object.entries(value)) {
    if (!isClean(key)) return { path: at, message: UNCLEAN };
    const found = firstFault(entry, [...at, Array.isArray(value) ? Number(key) : key]);
    if (found) return found;
  }
  return null;
}

/** Refuses text that no database can keep as it is: NUL characters and lone surrogates, in path, query and body; and JSON nested without end. */
export const wellFormed: RequestHandler = (request, _response, next) => {
  let address: string;
  try {
    address = decodeURIComponent(request.originalUrl);
  } catch {
    throw new ApiProblem('invalid-request', { detail: 'The address is not valid' });
  }
  if (!isClean(address))
    throw new ApiProblem('invalid-request', { errors: [{ path: '$', message: UNCLEAN }] });
  const fault = firstFault(request.body, []);
  if (fault)
    throw new ApiProblem('invalid-request', {
      errors: [{ path: jsonPath(fault.path), message: fault.message }],
    });
  next();
};
