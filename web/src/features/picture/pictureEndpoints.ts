import type { SolvedFigure } from '@yonder/core/figure';
import { api } from '../../app/api.ts';

const pictureApi = api.injectEndpoints({
  endpoints: (build) => ({
    pictureVersion: build.query<string, void>({
      query: () => '/reference',
      transformResponse: ({ pictures }: { pictures: string }) => pictures,
      keepUnusedDataFor: 24 * 3600,
    }),
    /** Figures of the drills of a ladder by drill; of the tests by "tests". */
    pictures: build.query<Record<string, SolvedFigure>, { version: string; ladder: string }>({
      query: ({ version, ladder }) => `/reference/pictures/${version}/${ladder}`,
      keepUnusedDataFor: 24 * 3600,
    }),
  }),
});

export const { usePictureVersionQuery, usePicturesQuery, useLazyPicturesQuery } = pictureApi;
