import type { AthleteRow, CheckInRow } from '@yonder/core/contracts';
import type { CheckIn, Placement, Region, Side } from '@yonder/core/domain';
import { api } from '../../app/api.ts';
import { touched } from './athleteEndpoints.ts';
import type { OfAthlete, Removed } from './athleteEndpoints.ts';

type OfLevel = { athleteId: string; drill: string; side: Placement['side'] };

/** What practitioners say of an athlete: own needs, levels seen, and words on findings. */
const saidApi = api.injectEndpoints({
  endpoints: (build) => ({
    putNeed: build.mutation<
      AthleteRow,
      OfAthlete<{ value: number; reason: string; version: number | null }> & { test: string; side: Side }
    >({
      query: ({ athleteId, test, side, body }) => ({
        url: `/athletes/${athleteId}/needs/${test}/${side}`,
        method: 'PUT',
        body,
      }),
      invalidatesTags: touched,
    }),
    removeNeed: build.mutation<AthleteRow, { athleteId: string; test: string; side: Side; version: number }>({
      query: ({ athleteId, test, side, version }) => ({
        url: `/athletes/${athleteId}/needs/${test}/${side}?version=${version}`,
        method: 'DELETE',
      }),
      invalidatesTags: touched,
    }),
    putPlacement: build.mutation<
      AthleteRow,
      OfLevel & { body: { verdict: Placement['verdict']; version: number | null } }
    >({
      query: ({ athleteId, drill, side, body }) => ({
        url: `/athletes/${athleteId}/placements/${drill}/${side}`,
        method: 'PUT',
        body,
      }),
      invalidatesTags: touched,
    }),
    removePlacement: build.mutation<AthleteRow, OfLevel & { version: number }>({
      query: ({ athleteId, drill, side, version }) => ({
        url: `/athletes/${athleteId}/placements/${drill}/${side}?version=${version}`,
        method: 'DELETE',
      }),
      invalidatesTags: touched,
    }),
    liftRule: build.mutation<
      AthleteRow,
      OfAthlete<{ region: Region; side: Side; reason: string; referral: boolean }>
    >({
      query: ({ athleteId, body }) => ({ url: `/athletes/${athleteId}/lifts`, creates: true, body }),
      invalidatesTags: touched,
    }),
    removeLift: build.mutation<AthleteRow, Removed>({
      query: ({ athleteId, id, version }) => ({
        url: `/athletes/${athleteId}/lifts/${id}?version=${version}`,
        method: 'DELETE',
      }),
      invalidatesTags: touched,
    }),
    checkIn: build.query<CheckInRow, { athleteId: string; date: string }>({
      query: ({ athleteId, date }) => `/athletes/${athleteId}/check-ins/${date}`,
      providesTags: ['CheckIn'],
    }),
    putCheckIn: build.mutation<
      CheckInRow,
      OfAthlete<{ sore: CheckIn['sore']; version: number | null }> & { date: string }
    >({
      query: ({ athleteId, date, body }) => ({
        url: `/athletes/${athleteId}/check-ins/${date}`,
        method: 'PUT',
        body,
      }),
      invalidatesTags: (_result, error) => (error ? ['CheckIn'] : ['CheckIn', 'Case', 'Athletes']),
    }),
    addJudgement: build.mutation<AthleteRow, OfAthlete<object>>({
      query: ({ athleteId, body }) => ({ url: `/athletes/${athleteId}/judgements`, creates: true, body }),
      invalidatesTags: touched,
    }),
    removeJudgement: build.mutation<AthleteRow, Removed>({
      query: ({ athleteId, id, version }) => ({
        url: `/athletes/${athleteId}/judgements/${id}?version=${version}`,
        method: 'DELETE',
      }),
      invalidatesTags: touched,
    }),
  }),
});

export const {
  usePutNeedMutation,
  useRemoveNeedMutation,
  usePutPlacementMutation,
  useRemovePlacementMutation,
  useLiftRuleMutation,
  useRemoveLiftMutation,
  useCheckInQuery,
  usePutCheckInMutation,
  useAddJudgementMutation,
  useRemoveJudgementMutation,
} = saidApi;
