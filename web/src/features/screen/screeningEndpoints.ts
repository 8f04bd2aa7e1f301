import type {
  Imported,
  ImportScreenings,
  ResultInput,
  ResultRow,
  ScreeningRow,
} from '@yonder/core/contracts';
import type { Side } from '@yonder/core/domain';
import { allItems, api } from '../../app/api.ts';

interface ResultKey {
  athleteId: string;
  screeningId: string;
  test: string;
  side: Side;
}

/** Visits and their results. */
export const screeningsApi = api.injectEndpoints({
  endpoints: (build) => ({
    screenings: build.query<ScreeningRow[], string>({
      queryFn: (athleteId, _api, _extra, fetch) =>
        allItems<ScreeningRow>(`/athletes/${athleteId}/screenings`, fetch),
      providesTags: ['Screenings'],
    }),
    openScreening: build.mutation<ScreeningRow, { athleteId: string; date: string }>({
      query: ({ athleteId, date }) => ({
        url: `/athletes/${athleteId}/screenings`,
        creates: true,
        body: { date },
      }),
      onQueryStarted: ({ athleteId }, { dispatch, queryFulfilled }) => {
        queryFulfilled.then(
          ({ data }) =>
            dispatch(
              screeningsApi.util.updateQueryData('screenings', athleteId, (rows) => {
                if (!rows.some((row) => row.id === data.id)) rows.unshift(data);
              }),
            ),
          () => undefined,
        );
      },
    }),
    putResult: build.mutation<ResultRow, ResultKey & { body: ResultInput }>({
      query: ({ screeningId, test, side, body }) => ({
        url: `/screenings/${screeningId}/results/${test}/${side}`,
        method: 'PUT',
        body,
      }),
      // The stored row goes straight into the list; only what is judged from it is fetched anew.
      onQueryStarted: ({ athleteId, screeningId }, { dispatch, queryFulfilled }) => {
        queryFulfilled.then(
          ({ data }) =>
            dispatch(
              screeningsApi.util.updateQueryData('screenings', athleteId, (rows) => {
                const visit = rows.find((row) => row.id === screeningId);
                if (!visit) return;
                visit.results = visit.results.filter((r) => r.test !== data.test || r.side !== data.side);
                visit.results.push(data);
              }),
            ),
          () => undefined,
        );
      },
      invalidatesTags: (_result, error) => (error ? [] : ['Case', 'Athletes']),
    }),
    removeResult: build.mutation<null, ResultKey & { version: number }>({
      query: ({ screeningId, test, side, version }) => ({
        url: `/screenings/${screeningId}/results/${test}/${side}?version=${version}`,
        method: 'DELETE',
      }),
      invalidatesTags: (_result, error) => (error ? [] : ['Case', 'Athletes', 'Screenings']),
    }),
    importScreenings: build.mutation<Imported, Omit<ImportScreenings, 'id'>>({
      query: (body) => ({ url: '/screenings/import', creates: true, body }),
      invalidatesTags: (_result, error) => (error ? [] : ['Case', 'Athletes', 'Screenings']),
    }),
    finishScreening: build.mutation<ScreeningRow, { screeningId: string; version: number }>({
      query: ({ screeningId, version }) => ({
        url: `/screenings/${screeningId}/finish`,
        method: 'POST',
        body: { version },
      }),
      invalidatesTags: ['Screenings'],
    }),
  }),
});

export const { useScreeningsQuery, useFinishScreeningMutation, useImportScreeningsMutation } = screeningsApi;
