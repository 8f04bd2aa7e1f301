import type { Decide, Decided, Draft, DraftRow, IssueRoutine, RoutineRow } from '@yonder/core/contracts';
import { allItems, api } from '../../app/api.ts';

const issued = ['Routines' as const, 'Case' as const, 'Athletes' as const, 'Draft' as const];

/** What is there once the draft was issued or thrown away. */
export const NO_DRAFT: DraftRow = { draft: null, version: null };

const routinesApi = api.injectEndpoints({
  endpoints: (build) => ({
    routines: build.query<RoutineRow[], string>({
      queryFn: (athleteId, _api, _extra, fetch) =>
        allItems<RoutineRow>(`/athletes/${athleteId}/routines`, fetch),
      providesTags: ['Routines'],
    }),
    routine: build.query<RoutineRow, string>({
      query: (id) => `/routines/${id}`,
      providesTags: ['Routines'],
    }),
    issueRoutine: build.mutation<RoutineRow, { athleteId: string; body: Omit<IssueRoutine, 'id'> }>({
      query: ({ athleteId, body }) => ({ url: `/athletes/${athleteId}/routines`, creates: true, body }),
      invalidatesTags: (_result, error) => (error ? [] : issued),
    }),
    draft: build.query<DraftRow, string>({
      query: (athleteId) => `/athletes/${athleteId}/draft`,
      providesTags: ['Draft'],
    }),
    saveDraft: build.mutation<DraftRow, { athleteId: string; body: Draft & { version: number | null } }>({
      query: ({ athleteId, body }) => ({ url: `/athletes/${athleteId}/draft`, method: 'PUT', body }),
    }),
    discardDraft: build.mutation<null, { athleteId: string; version: number }>({
      query: ({ athleteId, version }) => ({
        url: `/athletes/${athleteId}/draft?version=${version}`,
        method: 'DELETE',
      }),
      // Known without asking: a draft that is begun meanwhile is not taken for another one's.
      onQueryStarted: async ({ athleteId }, { dispatch, queryFulfilled }) => {
        await queryFulfilled.then(
          () => dispatch(routinesApi.util.updateQueryData('draft', athleteId, () => NO_DRAFT)),
          () => undefined, // read again below
        );
      },
      invalidatesTags: (_result, error) => (error ? ['Draft'] : []),
    }),
    decide: build.mutation<Decided, { athleteId: string; body: Omit<Decide, 'id'> }>({
      query: ({ athleteId, body }) => ({ url: `/athletes/${athleteId}/decisions`, creates: true, body }),
      invalidatesTags: (_result, error) => (error ? [] : issued),
    }),
  }),
});

export const {
  useRoutinesQuery,
  useRoutineQuery,
  useIssueRoutineMutation,
  useDraftQuery,
  useSaveDraftMutation,
  useDiscardDraftMutation,
  useDecideMutation,
} = routinesApi;
