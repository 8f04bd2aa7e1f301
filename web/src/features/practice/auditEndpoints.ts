import type { AuditRow, Page } from '@yonder/core/contracts';
import { api } from '../../app/api.ts';

const auditApi = api.injectEndpoints({
  endpoints: (build) => ({
    audit: build.infiniteQuery<Page<AuditRow>, void, string>({
      infiniteQueryOptions: { initialPageParam: '', getNextPageParam: ({ next }) => next ?? undefined },
      query: ({ pageParam }) =>
        `/audit?limit=100${pageParam ? `&after=${encodeURIComponent(pageParam)}` : ''}`,
      keepUnusedDataFor: 0,
    }),
  }),
});

export const { useAuditInfiniteQuery } = auditApi;
