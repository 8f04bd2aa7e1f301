import type { AuditFilter, AuditRow, Page } from '@yonder/core/contracts';
import { api } from '../../app/api.ts';

/** A filter as the query of an address. */
export function auditQuery(filter: AuditFilter): string {
  const entries = Object.entries(filter).filter((entry): entry is [string, string] => Boolean(entry[1]));
  return new URLSearchParams(entries).toString();
}

const auditApi = api.injectEndpoints({
  endpoints: (build) => ({
    audit: build.infiniteQuery<Page<AuditRow>, AuditFilter, string>({
      infiniteQueryOptions: { initialPageParam: '', getNextPageParam: ({ next }) => next ?? undefined },
      query: ({ pageParam, queryArg }) =>
        `/audit?limit=100${pageParam ? `&after=${encodeURIComponent(pageParam)}` : ''}&${auditQuery(queryArg)}`,
      keepUnusedDataFor: 0,
    }),
  }),
});

export const { useAuditInfiniteQuery } = auditApi;
