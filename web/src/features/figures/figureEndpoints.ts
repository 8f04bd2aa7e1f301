import type {
  FigureEffect,
  FigureInput,
  FigureRow,
  Figures,
  PainLimitsInput,
  PracticeTaskRow,
  PracticeTestRow,
} from '@yonder/core/contracts';
import type { DoseShare, OwnTask, OwnTest } from '@yonder/core/domain';
import { api } from '../../app/api.ts';

/** A figure to set; its id is made when it is sent. */
export type NewFigure = Omit<FigureInput, 'id'>;
type TaskInput = Omit<OwnTask, 'id'> & { version: number | null };
type TestInput = Omit<OwnTest, 'id'> & { version: number | null };

/** A changed figure touches whatever is judged by it; a refused change touches nothing. */
const touched = (_result: unknown, error: unknown) =>
  error ? [] : ['Figures' as const, 'Case' as const, 'Athletes' as const];

const figuresApi = api.injectEndpoints({
  endpoints: (build) => ({
    figures: build.query<Figures, void>({ query: () => '/figures', providesTags: ['Figures'] }),
    setFigure: build.mutation<Figures, NewFigure>({
      query: (body) => ({ url: '/figures/edits', creates: true, body }),
      invalidatesTags: touched,
    }),
    unsetFigure: build.mutation<Figures, Pick<FigureRow, 'id' | 'version' | 'reason'>>({
      query: ({ id, version, reason }) => ({
        url: `/figures/edits/${id}/end`,
        method: 'POST',
        body: { version, reason },
      }),
      invalidatesTags: touched,
    }),
    previewFigures: build.mutation<FigureEffect, { set: NewFigure[]; from: number }>({
      query: (body) => ({ url: '/figures/preview', method: 'POST', body }),
    }),
    setPainLimits: build.mutation<Figures, PainLimitsInput>({
      query: (body) => ({ url: '/figures/pain-limits', method: 'PUT', body }),
      invalidatesTags: touched,
    }),
    setDoseShares: build.mutation<Figures, { doseShares: DoseShare[]; version: number }>({
      query: (body) => ({ url: '/figures/dose-shares', method: 'PUT', body }),
      invalidatesTags: touched,
    }),
    saveTask: build.mutation<Figures, { rowId: string | null; body: TaskInput }>({
      query: ({ rowId, body: { version, ...fields } }) =>
        rowId === null
          ? { url: '/figures/tasks', creates: true, body: fields }
          : { url: `/figures/tasks/${rowId}`, method: 'PUT', body: { ...fields, version } },
      invalidatesTags: touched,
    }),
    removeTask: build.mutation<Figures, Pick<PracticeTaskRow, 'rowId' | 'version'>>({
      query: ({ rowId, version }) => ({
        url: `/figures/tasks/${rowId}?version=${version}`,
        method: 'DELETE',
      }),
      invalidatesTags: touched,
    }),
    saveTest: build.mutation<Figures, { rowId: string | null; body: TestInput }>({
      query: ({ rowId, body: { version, ...fields } }) =>
        rowId === null
          ? { url: '/figures/tests', creates: true, body: fields }
          : { url: `/figures/tests/${rowId}`, method: 'PUT', body: { ...fields, version } },
      invalidatesTags: touched,
    }),
    removeTest: build.mutation<Figures, Pick<PracticeTestRow, 'rowId' | 'version'>>({
      query: ({ rowId, version }) => ({
        url: `/figures/tests/${rowId}?version=${version}`,
        method: 'DELETE',
      }),
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
  useSaveTestMutation,
  useRemoveTestMutation,
} = figuresApi;
