import type {
  AppliedTemplate,
  ApplyTemplate,
  TemplateFields,
  TemplateRow,
  TemplateVersion,
} from '@yonder/core/contracts';
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
    templateVersions: build.query<TemplateVersion[], string>({
      query: (id) => `/templates/${id}/versions`,
      transformResponse: ({ items }: { items: TemplateVersion[] }) => items,
      providesTags: ['Templates'],
    }),
    applyTemplate: build.mutation<AppliedTemplate, { id: string; body: ApplyTemplate }>({
      query: ({ id, body }) => ({ url: `/templates/${id}/apply`, method: 'POST', body }),
      invalidatesTags: ['Draft'],
    }),
    removeTemplate: build.mutation<null, Pick<TemplateRow, 'id' | 'version'>>({
      query: ({ id, version }) => ({ url: `/templates/${id}?version=${version}`, method: 'DELETE' }),
      invalidatesTags: ['Templates'],
    }),
  }),
});

export const {
  useTemplatesQuery,
  useTemplateVersionsQuery,
  useSaveTemplateMutation,
  useApplyTemplateMutation,
  useRemoveTemplateMutation,
} = templatesApi;
