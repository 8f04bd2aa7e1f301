import type {
  Decide,
  Decided,
  Draft,
  DraftRow,
  IssueRoutine,
  OccasionRow,
  PutOccasion,
  RoutineRow,
} from '@yonder/core/contracts';
import type { Occasion } from '@yonder/core/domain';
import { allItems, api, isMoved } from '../../app/api.ts';

const issued = ['Routines' as const, 'Case' as const, 'Athletes' as const, 'Draft' as const];

/** What is there once the draft was issued or thrown away. */
export const NO_DRAFT: DraftRow = { draft: null, version: null };

/** Whose draft, for which occasion. */
interface DraftOf {
  readonly athleteId: string;
  readonly occasion: Occasion;
}
const draftUrl = ({ athleteId, occasion }: DraftOf) => `/athletes/${athleteId}/drafts/${occasion}`;

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
    occasions: build.query<OccasionRow[], string>({
      query: (athleteId) => `/athletes/${athleteId}/occasions`,
      transformResponse: ({ items }: { items: OccasionRow[] }) => items,
      providesTags: ['Routines', 'Draft'],
    }),
    putOccasion: build.mutation<OccasionRow, DraftOf & { body: PutOccasion }>({
      query: ({ athleteId, occasion, body }) => ({
        url: `/athletes/${athleteId}/occasions/${occasion}`,
        method: 'PUT',
        body,
      }),
      invalidatesTags: issued,
    }),
    draft: build.query<DraftRow, DraftOf>({
      query: (of) => draftUrl(of),
      providesTags: ['Draft'],
    }),
    saveDraft: build.mutation<DraftRow, DraftOf & { body: Draft & { version: number | null } }>({
      query: ({ body, ...of }) => ({ url: draftUrl(of), method: 'PUT', body }),
    }),
    discardDraft: build.mutation<null, DraftOf & { version: number }>({
      query: ({ version, ...of }) => ({ url: `${draftUrl(of)}?version=${version}`, method: 'DELETE' }),
      // Known without asking: a draft that is begun meanwhile is not taken for another one's.
      onQueryStarted: async ({ version: _version, ...of }, { dispatch, queryFulfilled }) => {
        await queryFulfilled.then(
          () => dispatch(routinesApi.util.updateQueryData('draft', of, () => NO_DRAFT)),
          () => undefined, // read again below
        );
      },
      invalidatesTags: (_result, error) => (error ? ['Draft'] : []),
    }),
    decide: build.mutation<Decided, { athleteId: string; body: Omit<Decide, 'id'> }>({
      query: ({ athleteId, body }) => ({ url: `/athletes/${athleteId}/decisions`, creates: true, body }),
      // What is proposed by now is looked at before anything is said again.
      invalidatesTags: (_result, error) => (error ? (isMoved(error) ? ['Case'] : []) : issued),
    }),
  }),
});

export const {
  useRoutinesQuery,
  useRoutineQuery,
  useIssueRoutineMutation,
  useOccasionsQuery,
  usePutOccasionMutation,
  useDraftQuery,
  useSaveDraftMutation,
  useDiscardDraftMutation,
  useDecideMutation,
} = routinesApi;
