import type { ChoiceInput, ChoiceRow, MethodEffect, Methods } from '@yonder/core/contracts';
import type { PainPattern } from '@yonder/core/domain';
import { api } from '../../app/api.ts';

/** Whose methods: an athlete's, or the practice's (null). */
export type MethodOwner = string | null;

const root = (owner: MethodOwner) => (owner === null ? '/methods' : `/athletes/${owner}/methods`);

/** A changed method touches whatever is judged and built by it; after a refusal what stands now is read again. */
const touched = (_result: unknown, error: unknown) =>
  error
    ? ['Methods' as const]
    : ['Methods' as const, 'Figures' as const, 'Case' as const, 'Athletes' as const];

const methodsApi = api.injectEndpoints({
  endpoints: (build) => ({
    methods: build.query<Methods, MethodOwner>({ query: root, providesTags: ['Methods'] }),
    chooseMethod: build.mutation<Methods, { owner: MethodOwner; body: Omit<ChoiceInput, 'id'> }>({
      query: ({ owner, body }) => ({ url: `${root(owner)}/choices`, creates: true, body }),
      invalidatesTags: touched,
    }),
    endMethod: build.mutation<
      Methods,
      { owner: MethodOwner; id: string; body: { reason: string; version: number } }
    >({
      query: ({ owner, id, body }) => ({ url: `${root(owner)}/choices/${id}/end`, method: 'POST', body }),
      invalidatesTags: touched,
    }),
    previewMethod: build.mutation<
      MethodEffect,
      { school: string; option: string | null; athleteId: MethodOwner; from: number }
    >({
      query: (body) => ({ url: '/methods/preview', method: 'POST', body }),
    }),
    setPainPatterns: build.mutation<Methods, { painPatterns: PainPattern[] | null; version: number }>({
      query: (body) => ({ url: '/methods/pain-patterns', method: 'PUT', body }),
      invalidatesTags: touched,
    }),
  }),
});

/** Options in force by school, of the choices of one level. */
export function chosenOptions(choices: readonly ChoiceRow[]): Record<string, string> {
  return Object.fromEntries(
    choices.filter((row) => row.ended === null).map(({ school, option }) => [school, option]),
  );
}

export const {
  useMethodsQuery,
  useChooseMethodMutation,
  useEndMethodMutation,
  usePreviewMethodMutation,
  useSetPainPatternsMutation,
} = methodsApi;
