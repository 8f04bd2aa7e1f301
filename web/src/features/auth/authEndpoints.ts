import type { Me } from '@yonder/core/contracts';
import { api } from '../../app/api.ts';
import { signedIn, signedOut } from '../../app/sessionSlice.ts';
import type { SessionState } from '../../app/sessionSlice.ts';
import { setTimeZone } from '../../app/practiceZone.ts';

/** Who is signed in decides what today is, too. */
function enter(me: Me, dispatch: (action: ReturnType<typeof signedIn>) => unknown): void {
  setTimeZone(me.practice.timeZone);
  dispatch(signedIn(me));
}

const authApi = api.injectEndpoints({
  endpoints: (build) => ({
    me: build.query<Me, void>({
      query: () => '/auth/me',
      providesTags: ['Me'],
      onQueryStarted: (_arg, { dispatch, queryFulfilled, getState }) => {
        // Known before, nobody is signed out by it: where the session has ended the refusal itself says so.
        const { checked } = (getState() as unknown as { session: SessionState }).session;
        queryFulfilled.then(
          ({ data }) => enter(data, dispatch),
          () => (checked ? undefined : dispatch(signedOut(undefined))),
        );
      },
    }),
    signIn: build.mutation<Me, { email: string; password: string }>({
      query: (body) => ({ url: '/auth/sign-in', method: 'POST', body }),
      onQueryStarted: (_arg, { dispatch, queryFulfilled }) => {
        queryFulfilled.then(
          ({ data }) => enter(data, dispatch),
          () => undefined,
        );
      },
    }),
    signOut: build.mutation<null, void>({
      query: () => ({ url: '/auth/sign-out', method: 'POST', body: {} }),
      onQueryStarted: (_arg, { dispatch, queryFulfilled }) => {
        const leave = () => {
          dispatch(signedOut(undefined));
          dispatch(api.util.resetApiState());
        };
        queryFulfilled.then(leave, leave);
      },
    }),
  }),
});

export const { useMeQuery, useSignInMutation, useSignOutMutation } = authApi;
