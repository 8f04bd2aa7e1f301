import type { SessionRow } from '@yonder/core/contracts';
import type { DiaryEntry } from '@yonder/core/domain';
import { api } from '../../app/api.ts';

interface SaveSession {
  sessionId: string;
  body: { version: number; progress: SessionRow['progress']; entries: DiaryEntry[]; finished: boolean };
}

const sessionsApi = api.injectEndpoints({
  endpoints: (build) => ({
    sessions: build.query<SessionRow[], string>({
      query: (athleteId) => `/athletes/${athleteId}/sessions`,
      providesTags: ['Sessions'],
    }),
    startSession: build.mutation<SessionRow, { routineId: string; date: string }>({
      query: (body) => ({ url: '/sessions', method: 'POST', body }),
    }),
    saveSession: build.mutation<SessionRow, SaveSession>({
      query: ({ sessionId, body }) => ({ url: `/sessions/${sessionId}`, method: 'PUT', body }),
      invalidatesTags: (result) => (result?.finished ? ['Sessions', 'Case'] : []),
    }),
    saveNextDay: build.mutation<
      SessionRow,
      { sessionId: string; body: { version: number; pains: { index: number; nextDayPain: number }[] } }
    >({
      query: ({ sessionId, body }) => ({ url: `/sessions/${sessionId}/next-day`, method: 'PUT', body }),
      invalidatesTags: ['Sessions', 'Case'],
    }),
  }),
});

export const { useSessionsQuery, useStartSessionMutation, useSaveSessionMutation, useSaveNextDayMutation } =
  sessionsApi;
