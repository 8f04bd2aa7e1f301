import { createApi, fetchBaseQuery } from '@reduxjs/toolkit/query/react';
import type { BaseQueryFn, FetchArgs, FetchBaseQueryError } from '@reduxjs/toolkit/query/react';
import type { Page, Problem } from '@yonder/core/contracts';
import { forget, keep, keptAt } from './kept/store.ts';
import { newId } from './newId.ts';
import { signedOut } from './sessionSlice.ts';
import type { SessionState } from './sessionSlice.ts';

/** What went wrong with a request: a problem document of the server, or no answer at all. */
export type ApiError = { kind: 'problem'; problem: Problem } | { kind: 'offline' };

/** Who is signed in; another for each sign-in. */
const whoIs = (state: unknown) => (state as { session: SessionState }).session.me;

const raw = fetchBaseQuery({
  baseUrl: '/api/v1',
  credentials: 'same-origin',
  prepareHeaders: (headers, { getState }) => {
    const me = whoIs(getState());
    if (me) headers.set('X-CSRF-Token', me.csrfToken);
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

/** A request; one that `creates` gets the id of what it makes. */
type Ask = FetchArgs & { readonly creates?: boolean };

function withId(args: Ask): { ask: FetchArgs; answered: () => void } {
  const { creates, ...ask } = args;
  if (!creates) return { ask, answered: () => undefined };
  // A creation that got no answer keeps its id, over a reload too: asked again, it is there once, however often it arrived.
  const key = `creating/${ask.url} ${JSON.stringify(ask.body)}`;
  const id = keptAt<string>(key) ?? newId();
  keep(key, id);
  return {
    ask: { method: 'POST', ...ask, body: { id, ...(ask.body as object) } },
    answered: () => forget(key),
  };
}

const baseQuery: BaseQueryFn<string | Ask, unknown, ApiError> = async (args, api, extra) => {
  const { ask, answered } = withId(typeof args === 'string' ? { url: args } : args);
  const sentBy = whoIs(api.getState());
  const result = await raw(ask, api, extra);
  if (!result.error) {
    answered();
    return { data: result.data };
  }
  const error = toApiError(result.error);
  if (error.kind === 'problem' && error.problem.status < 500) answered();
  // Said once: a refusal that comes later takes neither the word from the door nor the next session from whoever began it.
  const same = sentBy !== null && whoIs(api.getState()) === sentBy;
  if (error.kind === 'problem' && error.problem.code === 'not-signed-in' && same) {
    api.dispatch(signedOut({ ended: true }));
  }
  return { error };
};

type Fetch = (path: string) => MaybePromise<{ data?: unknown; error?: ApiError }>;
type MaybePromise<T> = T | PromiseLike<T>;

/** Everything of a list, page after page, with what stands beside the items of the first page. */
export async function allPages<Item, Beside extends object = object>(
  path: string,
  fetch: Fetch,
): Promise<{ data: Beside & { items: Item[] } } | { error: ApiError }> {
  const items: Item[] = [];
  let beside: Beside | null = null;
  let after = '';
  do {
    const join = path.includes('?') ? '&' : '?';
    const { data, error } = await fetch(
      `${path}${join}limit=1000${after && `&after=${encodeURIComponent(after)}`}`,
    );
    if (error) return { error };
    const { items: own, next, ...rest } = data as Page<Item> & Beside;
    items.push(...own);
    beside ??= rest as unknown as Beside;
    after = next ?? '';
  } while (after);
  return { data: { ...(beside as Beside), items } };
}

/** The items of a whole list. */
export async function allItems<Item>(
  path: string,
  fetch: Fetch,
): Promise<{ data: Item[] } | { error: ApiError }> {
  const all = await allPages<Item>(path, fetch);
  return 'error' in all ? all : { data: all.data.items };
}

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
    'Methods',
    'CheckIn',
    'Templates',
    'People',
    'Practice',
  ],
  endpoints: () => ({}),
});

/** The message of a failed request, with its faults, for a person. */
export function errorText(error: unknown): string {
  const known = error as ApiError | undefined;
  if (known?.kind !== 'problem')
    return 'The server does not answer. What you typed is kept on this device; try again.';
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

/** Was something refused because what is proposed is another by now than what was shown? */
export function isMoved(error: unknown): boolean {
  const known = error as ApiError | undefined;
  return known?.kind === 'problem' && known.problem.code === 'proposal-changed';
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
