import type {
  AthleteCase,
  AthleteFields,
  AthleteList,
  AthleteRow,
  AthleteSummary,
} from '@yonder/core/contracts';
import type { gateAnswerInputSchema } from '@yonder/core/contracts';
import type { Region, Side } from '@yonder/core/domain';
import type { z } from 'zod';
import { allPages, api } from '../../app/api.ts';
import type { ApiError } from '../../app/api.ts';

export type Removed = { athleteId: string; id: string; version: number };
export type OfAthlete<Body> = { athleteId: string; body: Body };

/** Everything of an athlete that a change of the story can touch; a refused change touches nothing. */
export const touched = (_result: unknown, error: unknown, { athleteId }: { athleteId: string }) =>
  error ? [] : ['Athletes' as const, 'Case' as const, { type: 'Athlete' as const, id: athleteId }];

/** Reads a list of athletes to its end. */
const listOf = (path: string) => (_arg: void, _api: unknown, _extra: unknown, fetch: unknown) =>
  allPages<AthleteSummary, { pending: number }>(
    path,
    fetch as (path: string) => Promise<{ data?: unknown; error?: ApiError }>,
  );

const athletesApi = api.injectEndpoints({
  endpoints: (build) => ({
    athletes: build.query<Omit<AthleteList, 'next'>, void>({
      queryFn: listOf('/athletes'),
      providesTags: ['Athletes'],
    }),
    athlete: build.query<AthleteRow, string>({
      query: (id) => `/athletes/${id}`,
      providesTags: (_result, _error, id) => [{ type: 'Athlete', id }],
    }),
    athleteCase: build.query<AthleteCase, { athleteId: string; on: string }>({
      query: ({ athleteId, on }) => `/athletes/${athleteId}/case?on=${on}`,
      providesTags: ['Case'],
    }),
    createAthlete: build.mutation<AthleteRow, AthleteFields>({
      query: (body) => ({ url: '/athletes', creates: true, body }),
      invalidatesTags: ['Athletes'],
    }),
    updateAthlete: build.mutation<AthleteRow, OfAthlete<AthleteFields & { version: number }>>({
      query: ({ athleteId, body }) => ({ url: `/athletes/${athleteId}`, method: 'PUT', body }),
      invalidatesTags: touched,
    }),
    archiveAthlete: build.mutation<AthleteRow, OfAthlete<{ archived: boolean; version: number }>>({
      query: ({ athleteId, body }) => ({ url: `/athletes/${athleteId}/archive`, method: 'POST', body }),
      invalidatesTags: touched,
    }),
    eraseAthlete: build.mutation<unknown, OfAthlete<{ name: string; reason: string }>>({
      query: ({ athleteId, body }) => ({ url: `/athletes/${athleteId}/erase`, creates: true, body }),
      invalidatesTags: (_result, error) => (error ? [] : ['Athletes']),
    }),
    archivedAthletes: build.query<Omit<AthleteList, 'next'>, void>({
      queryFn: listOf('/athletes?archived=yes'),
      providesTags: ['Athletes'],
    }),
    addInjury: build.mutation<AthleteRow, OfAthlete<object>>({
      query: ({ athleteId, body }) => ({ url: `/athletes/${athleteId}/injuries`, creates: true, body }),
      invalidatesTags: touched,
    }),
    removeInjury: build.mutation<AthleteRow, Removed>({
      query: ({ athleteId, id, version }) => ({
        url: `/athletes/${athleteId}/injuries/${id}?version=${version}`,
        method: 'DELETE',
      }),
      invalidatesTags: touched,
    }),
    addPrecaution: build.mutation<AthleteRow, OfAthlete<object>>({
      query: ({ athleteId, body }) => ({ url: `/athletes/${athleteId}/precautions`, creates: true, body }),
      invalidatesTags: touched,
    }),
    endPrecaution: build.mutation<AthleteRow, OfAthlete<object> & { id: string }>({
      query: ({ athleteId, id, body }) => ({
        url: `/athletes/${athleteId}/precautions/${id}/end`,
        method: 'POST',
        body,
      }),
      invalidatesTags: touched,
    }),
    clearPrecaution: build.mutation<AthleteRow, OfAthlete<object> & { id: string }>({
      query: ({ athleteId, id, body }) => ({
        url: `/athletes/${athleteId}/precautions/${id}/clearance`,
        method: 'POST',
        body,
      }),
      invalidatesTags: touched,
    }),
    addPain: build.mutation<AthleteRow, OfAthlete<object>>({
      query: ({ athleteId, body }) => ({ url: `/athletes/${athleteId}/pains`, creates: true, body }),
      invalidatesTags: touched,
    }),
    endPain: build.mutation<AthleteRow, OfAthlete<{ date: string; version: number }> & { id: string }>({
      query: ({ athleteId, id, body }) => ({
        url: `/athletes/${athleteId}/pains/${id}/end`,
        method: 'POST',
        body,
      }),
      invalidatesTags: touched,
    }),
    putProtocol: build.mutation<AthleteRow, OfAthlete<object> & { region: Region; side: Side }>({
      query: ({ athleteId, region, side, body }) => ({
        url: `/athletes/${athleteId}/protocols/${region}/${side}`,
        method: 'PUT',
        body,
      }),
      invalidatesTags: touched,
    }),
    answerGate: build.mutation<AthleteRow, OfAthlete<Omit<z.input<typeof gateAnswerInputSchema>, 'id'>>>({
      query: ({ athleteId, body }) => ({ url: `/athletes/${athleteId}/gate`, creates: true, body }),
      invalidatesTags: touched,
    }),
    clearRedFlag: build.mutation<AthleteRow, OfAthlete<object> & { id: string }>({
      query: ({ athleteId, id, body }) => ({
        url: `/athletes/${athleteId}/red-flags/${id}/clearance`,
        method: 'POST',
        body,
      }),
      invalidatesTags: touched,
    }),
  }),
});

export const {
  useAthletesQuery,
  useArchiveAthleteMutation,
  useArchivedAthletesQuery,
  useEraseAthleteMutation,
  useAthleteQuery,
  useAthleteCaseQuery,
  useCreateAthleteMutation,
  useUpdateAthleteMutation,
  useAddInjuryMutation,
  useRemoveInjuryMutation,
  useAddPrecautionMutation,
  useClearPrecautionMutation,
  useEndPrecautionMutation,
  useAddPainMutation,
  useEndPainMutation,
  usePutProtocolMutation,
  useAnswerGateMutation,
  useClearRedFlagMutation,
} = athletesApi;
