import type { Decide, Decided, Draft, DraftRow, IssueRoutine, RoutineRow } from '@yonder/core/contracts';
import { api } from '../../app/api.ts';

const issued = ['Routines' as const, 'Case' as const, 'Athletes' as const, 'Draft' as const];

const routinesApi = api.injectEndpoints({
  endpoints: (build) => ({
    routines: build.query<RoutineRow[], string>({
      query: (athleteId) => `/athletes/${athleteId}/routines`,
      providesTags: ['Routines'],
    }),
    routine: build.query<RoutineRow, string>({
      query: (id) => `/routines/${id}`,
      providesTags: ['Routines'],
    }),
    issueRoutine: build.mutation<RoutineRow, { athleteId: string; body: IssueRoutine }>({
      query: ({ athleteId, body }) => ({ url: `/athletes/${athleteId}/routines`, method: 'POST', body }),
      invalidatesTags: (_result, error) => (error ? [] : issued),
    }),
    draft: build.query<DraftRow, string>({
      query: (athleteId) => `/athletes/${athleteId}/draft`,
      providesTags: ['Draft'],
    }),
    saveDraft: build.mutation<DraftRow, { athleteId: string; body: Draft & { version: number | null } }>({
      query: ({ athleteId, body }) => ({ url: `/athletes/${athleteId}/draft`, method: 'PUT', body }),
    }),
    discardDraft: build.mutation<null, string>({
      query: (athleteId) => ({ url: `/athletes/${athleteId}/draft`, method: 'DELETE' }),
      invalidatesTags: ['Draft'],
    }),
    decide: build.mutation<Decided, { athleteId: string; body: Decide }>({
      query: ({ athleteId, body }) => ({ url: `/athletes/${athleteId}/decisions`, method: 'POST', body }),
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
