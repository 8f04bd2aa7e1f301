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
      query: ({ rowId, body: { drill, version } }) =>
        rowId === null
          ? { url: '/library/drills', creates: true, body: { drill } }
          : { url: `/library/drills/${rowId}`, method: 'PUT', body: { drill, version } },
      invalidatesTags: touched,
    }),
    importDrills: build.mutation<ImportedDrills, { drills: unknown[]; check: boolean }>({
      query: (body) => ({ url: '/library/drills/import', creates: true, body }),
      invalidatesTags: (_result, error, { check }) => (check ? [] : touched(_result, error)),
    }),
  }),
});

export const { useSaveDrillMutation, useImportDrillsMutation } = libraryApi;
