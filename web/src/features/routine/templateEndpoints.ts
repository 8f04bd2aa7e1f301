import type { TemplateInput, TemplateRow } from '@yonder/core/contracts';
import { api } from '../../app/api.ts';

const templatesApi = api.injectEndpoints({
  endpoints: (build) => ({
    templates: build.query<TemplateRow[], void>({ query: () => '/templates', providesTags: ['Templates'] }),
    saveTemplate: build.mutation<TemplateRow, { id: string | null; body: TemplateInput }>({
      query: ({ id, body }) =>
        id === null
          ? { url: '/templates', method: 'POST', body }
          : { url: `/templates/${id}`, method: 'PUT', body },
      invalidatesTags: (_result, error) => (error ? [] : ['Templates']),
    }),
    removeTemplate: build.mutation<null, string>({
      query: (id) => ({ url: `/templates/${id}`, method: 'DELETE' }),
      invalidatesTags: ['Templates'],
    }),
  }),
});

export const { useTemplatesQuery, useSaveTemplateMutation, useRemoveTemplateMutation } = templatesApi;
