import type { TemplateFields, TemplateRow } from '@yonder/core/contracts';
import { allItems, api } from '../../app/api.ts';

const templatesApi = api.injectEndpoints({
  endpoints: (build) => ({
    templates: build.query<TemplateRow[], void>({
      queryFn: (_arg, _api, _extra, fetch) => allItems<TemplateRow>('/templates', fetch),
      providesTags: ['Templates'],
    }),
    saveTemplate: build.mutation<
      TemplateRow,
      { same: Pick<TemplateRow, 'id' | 'version'> | undefined; body: TemplateFields }
    >({
      query: ({ same, body }) =>
        same
          ? { url: `/templates/${same.id}`, method: 'PUT', body: { ...body, version: same.version } }
          : { url: '/templates', creates: true, body },
      invalidatesTags: (_result, error) => (error ? [] : ['Templates']),
    }),
    removeTemplate: build.mutation<null, Pick<TemplateRow, 'id' | 'version'>>({
      query: ({ id, version }) => ({ url: `/templates/${id}?version=${version}`, method: 'DELETE' }),
      invalidatesTags: ['Templates'],
    }),
  }),
});

export const { useTemplatesQuery, useSaveTemplateMutation, useRemoveTemplateMutation } = templatesApi;
