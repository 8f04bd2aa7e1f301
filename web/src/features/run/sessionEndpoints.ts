import type { DoorOfRun, RecentSessions, SessionRow, SessionWithEvents } from '@yonder/core/contracts';
import type { SessionEvent } from '@yonder/core/session';
import { allItems, api, isMoved } from '../../app/api.ts';

const sessionsApi = api.injectEndpoints({
  endpoints: (build) => ({
    sessions: build.query<SessionRow[], string>({
      queryFn: (athleteId, _api, _extra, fetch) =>
        allItems<SessionRow>(`/athletes/${athleteId}/sessions`, fetch),
      providesTags: ['Sessions'],
    }),
    recentSessions: build.query<RecentSessions, void>({
      query: () => '/sessions',
      providesTags: ['Sessions'],
    }),
    startSession: build.mutation<
      SessionWithEvents,
      {
        routineId: string;
        date: string;
        leaveOut: readonly string[];
        adapt: boolean;
        undone: readonly string[];
        shown?: SessionRow['changes'];
      }
    >({
      query: (body) => ({ url: '/sessions', creates: true, body }),
      invalidatesTags: (_result, error) => (isMoved(error) ? ['Case'] : []),
    }),
    doorOfRun: build.query<DoorOfRun, string>({
      query: (sessionId) => `/sessions/${sessionId}/door`,
      keepUnusedDataFor: 0,
    }),
    appendEvents: build.mutation<SessionRow, { sessionId: string; events: readonly SessionEvent[] }>({
      query: ({ sessionId, events }) => ({
        url: `/sessions/${sessionId}/events`,
        method: 'POST',
        body: { events },
      }),
      invalidatesTags: (result) => (result?.finished ? ['Sessions', 'Case', 'Athletes'] : []),
    }),
  }),
});

export const {
  useSessionsQuery,
  useRecentSessionsQuery,
  useStartSessionMutation,
  useDoorOfRunQuery,
  useAppendEventsMutation,
} = sessionsApi;
