import { createApi, fetchBaseQuery } from '@reduxjs/toolkit/query/react';
import type { BaseQueryFn, FetchArgs, FetchBaseQueryError } from '@reduxjs/toolkit/query/react';
import type { Me, Problem } from '@yonder/core/contracts';
import { signedOut } from './sessionSlice.ts';

/** What went wrong with a request: a problem document of the server, or no answer at all. */
export type ApiError = { kind: 'problem'; problem: Problem } | { kind: 'offline' };

const raw = fetchBaseQuery({
  baseUrl: '/api/v1',
  credentials: 'same-origin',
  prepareHeaders: (headers, { getState }) => {
    const { session } = getState() as { session: { me: Me | null } };
    if (session.me) headers.set('X-CSRF-Token', session.me.csrfToken);
    return headers;
  },
  responseHandler: async (response) => {
    const text = await response.text();
    return text === '' ? null : JSON.parse(text);
  },
});

function toApiError(error: FetchBaseQueryError): ApiError {
  const data = error.data as Problem | undefined;
  if (typeof error.status === 'number' && data && typeof data === 'object' && 'code' in data) {
    return { kind: 'problem', problem: data };
  }
  return { kind: 'offline' };
}

const baseQuery: BaseQueryFn<string | FetchArgs, unknown, ApiError> = async (args, api, extra) => {
  const result = await raw(args, api, extra);
  if (!result.error) return { data: result.data };
  const error = toApiError(result.error);
  if (error.kind === 'problem' && error.problem.code === 'not-signed-in') api.dispatch(signedOut());
  return { error };
};

/** One API per backend; every feature injects its own endpoints. */
export const api = createApi({
  baseQuery,
  tagTypes: [
    'Me',
    'Athletes',
    'Athlete',
    'Case',
    'Screenings',
    'Routines',
    'Sessions',
    'Draft',
    'Figures',
    'Templates',
  ],
  endpoints: () => ({}),
});

/** The message of a failed request, with its faults, for a person. */
export function errorText(error: unknown): string {
  const known = error as ApiError | undefined;
  if (known?.kind !== 'problem') return 'The server does not answer. Nothing is lost; try again.';
  const { title, detail, errors } = known.problem;
  const faults = errors?.map((fault) => fault.message).join('; ');
  return [detail ?? title, faults].filter(Boolean).join(': ');
}

/** The row as somebody else left it, when a change was made on an older version. */
export function conflictOf(error: unknown): { version: number } | null {
  const known = error as ApiError | undefined;
  if (known?.kind !== 'problem' || known.problem.code !== 'version-conflict') return null;
  return known.problem.current as { version: number };
}

/** Faults by the first name in their path (`$.birthDate` → `birthDate`), for form fields. */
export function fieldErrors(error: unknown): Record<string, string> {
  const known = error as ApiError | undefined;
  if (known?.kind !== 'problem') return {};
  return Object.fromEntries(
    (known.problem.errors ?? []).map((fault) => [
      fault.path.replace(/^\$\.?/, '').split(/[.[]/)[0] ?? '',
      fault.message,
    ]),
  );
}
