import type { FigureEffect, FigureInput, Figures } from '@yonder/core/contracts';
import type { DoseShare, OwnTask } from '@yonder/core/domain';
import { api } from '../../app/api.ts';

type TaskInput = Omit<OwnTask, 'id'> & { version: number | null };

/** A changed figure touches whatever is judged by it; a refused change touches nothing. */
const touched = (_result: unknown, error: unknown) =>
  error ? [] : ['Figures' as const, 'Case' as const, 'Athletes' as const];

const figuresApi = api.injectEndpoints({
  endpoints: (build) => ({
    figures: build.query<Figures, void>({ query: () => '/figures', providesTags: ['Figures'] }),
    setFigure: build.mutation<Figures, FigureInput>({
      query: (body) => ({ url: '/figures/edits', method: 'POST', body }),
      invalidatesTags: touched,
    }),
    unsetFigure: build.mutation<Figures, string>({
      query: (id) => ({ url: `/figures/edits/${id}`, method: 'DELETE' }),
      invalidatesTags: touched,
    }),
    previewFigures: build.mutation<FigureEffect, { set: FigureInput[]; from: number }>({
      query: (body) => ({ url: '/figures/preview', method: 'POST', body }),
    }),
    setPainLimits: build.mutation<
      Figures,
      { painLimits: { fine: number; stop: number } | null; version: number }
    >({
      query: (body) => ({ url: '/figures/pain-limits', method: 'PUT', body }),
      invalidatesTags: touched,
    }),
    setDoseShares: build.mutation<Figures, { doseShares: DoseShare[]; version: number }>({
      query: (body) => ({ url: '/figures/dose-shares', method: 'PUT', body }),
      invalidatesTags: touched,
    }),
    saveTask: build.mutation<Figures, { rowId: string | null; body: TaskInput }>({
      query: ({ rowId, body }) =>
        rowId === null
          ? { url: '/figures/tasks', method: 'POST', body }
          : { url: `/figures/tasks/${rowId}`, method: 'PUT', body },
      invalidatesTags: touched,
    }),
    removeTask: build.mutation<Figures, string>({
      query: (rowId) => ({ url: `/figures/tasks/${rowId}`, method: 'DELETE' }),
      invalidatesTags: touched,
    }),
  }),
});

export const {
  useFiguresQuery,
  useSetFigureMutation,
  useUnsetFigureMutation,
  usePreviewFiguresMutation,
  useSetDoseSharesMutation,
  useSetPainLimitsMutation,
  useSaveTaskMutation,
  useRemoveTaskMutation,
} = figuresApi;
