import type { Me } from '@yonder/core/contracts';
import { api } from '../../app/api.ts';
import { signedIn, signedOut } from '../../app/sessionSlice.ts';

const authApi = api.injectEndpoints({
  endpoints: (build) => ({
    me: build.query<Me, void>({
      query: () => '/auth/me',
      providesTags: ['Me'],
      onQueryStarted: (_arg, { dispatch, queryFulfilled }) => {
        queryFulfilled.then(
          ({ data }) => dispatch(signedIn(data)),
          () => dispatch(signedOut()),
        );
      },
    }),
    signIn: build.mutation<Me, { email: string; password: string }>({
      query: (body) => ({ url: '/auth/sign-in', method: 'POST', body }),
      onQueryStarted: (_arg, { dispatch, queryFulfilled }) => {
        queryFulfilled.then(
          ({ data }) => dispatch(signedIn(data)),
          () => undefined,
        );
      },
    }),
    signOut: build.mutation<null, void>({
      query: () => ({ url: '/auth/sign-out', method: 'POST', body: {} }),
      onQueryStarted: (_arg, { dispatch, queryFulfilled }) => {
        const leave = () => {
          dispatch(signedOut());
          dispatch(api.util.resetApiState());
        };
        queryFulfilled.then(leave, leave);
      },
    }),
  }),
});

export const { useMeQuery, useSignInMutation, useSignOutMutation } = authApi;
