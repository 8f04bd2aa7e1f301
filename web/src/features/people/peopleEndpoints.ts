import type { LinkFor, OneTimeLink, PersonRow, PracticeRow, Role, SignInRow } from '@yonder/core/contracts';
import { api } from '../../app/api.ts';
import { signedOut, tokenChanged } from '../../app/sessionSlice.ts';

const peopleApi = api.injectEndpoints({
  endpoints: (build) => ({
    people: build.query<PersonRow[], void>({
      query: () => '/people',
      transformResponse: ({ items }: { items: PersonRow[] }) => items,
      providesTags: ['People'],
    }),
    invite: build.mutation<OneTimeLink, { name: string; email: string; role: Role }>({
      query: (body) => ({ url: '/people', creates: true, body }),
      invalidatesTags: ['People'],
    }),
    changePerson: build.mutation<
      PersonRow,
      { id: string; body: Pick<PersonRow, 'name' | 'role' | 'active' | 'version'> }
    >({
      query: ({ id, body }) => ({ url: `/people/${id}`, method: 'PUT', body }),
      invalidatesTags: ['People'],
    }),
    makeLink: build.mutation<OneTimeLink, string>({
      query: (id) => ({ url: `/people/${id}/link`, creates: true, body: {} }),
      invalidatesTags: ['People'],
    }),
    practice: build.query<PracticeRow, void>({ query: () => '/practice', providesTags: ['Practice'] }),
    changePractice: build.mutation<PracticeRow, PracticeRow>({
      query: (body) => ({ url: '/practice', method: 'PUT', body }),
      invalidatesTags: ['Me', 'Practice', 'Athletes', 'Athlete', 'Case'],
    }),
    signIns: build.query<SignInRow[], void>({
      query: () => '/account/sign-ins',
      transformResponse: ({ items }: { items: SignInRow[] }) => items,
    }),
    changePassword: build.mutation<{ csrfToken: string }, { current: string; next: string }>({
      query: (body) => ({ url: '/account/password', method: 'POST', body }),
      onQueryStarted: (_arg, { dispatch, queryFulfilled }) => {
        queryFulfilled.then(
          ({ data }) => dispatch(tokenChanged(data.csrfToken)),
          () => undefined,
        );
      },
    }),
    signOutEverywhere: build.mutation<null, void>({
      query: () => ({ url: '/account/sign-out-everywhere', method: 'POST', body: {} }),
      onQueryStarted: (_arg, { dispatch, queryFulfilled }) => {
        queryFulfilled.then(
          () => {
            dispatch(signedOut(undefined));
            dispatch(api.util.resetApiState());
          },
          () => undefined,
        );
      },
    }),
    lookAtLink: build.query<LinkFor, string>({
      query: (token) => ({ url: '/auth/link/look', method: 'POST', body: { token } }),
    }),
    useLink: build.mutation<null, { token: string; password: string }>({
      query: (body) => ({ url: '/auth/link', method: 'POST', body }),
    }),
  }),
});

export const {
  usePeopleQuery,
  useInviteMutation,
  useChangePersonMutation,
  useMakeLinkMutation,
  usePracticeQuery,
  useChangePracticeMutation,
  useSignInsQuery,
  useChangePasswordMutation,
  useSignOutEverywhereMutation,
  useLookAtLinkQuery,
  useUseLinkMutation,
} = peopleApi;
