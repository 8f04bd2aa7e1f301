import type { Figures, ImportedDrills } from '@yonder/core/contracts';
import type { OwnDrill } from '@yonder/core/reference';
import { api } from '../../app/api.ts';

/** A changed drill touches whatever is built from the library; a refused change touches nothing. */
const touched = (_result: unknown, error: unknown) =>
  error ? [] : ['Figures' as const, 'Case' as const, 'Athletes' as const];

const libraryApi = api.injectEndpoints({
  endpoints: (build) => ({
    saveDrill: build.mutation<
      Figures,
      { rowId: string | null; body: { drill: OwnDrill; version: number | null } }
    >({
      query: ({ rowId, body }) =>
        rowId === null
          ? { url: '/library/drills', method: 'POST', body }
          : { url: `/library/drills/${rowId}`, method: 'PUT', body },
      invalidatesTags: touched,
    }),
    importDrills: build.mutation<ImportedDrills, { drills: unknown[]; check: boolean }>({
      query: (body) => ({ url: '/library/drills/import', method: 'POST', body }),
      invalidatesTags: (_result, error, { check }) => (check ? [] : touched(_result, error)),
    }),
  }),
});

export const { useSaveDrillMutation, useImportDrillsMutation } = libraryApi;
