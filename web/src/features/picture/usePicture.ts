import { skipToken } from '@reduxjs/toolkit/query';
import { shownBy } from '@yonder/core/figure';
import type { SolvedFigure } from '@yonder/core/figure';
import type { Drill } from '@yonder/core/reference';
import { useReference } from '../../app/reference.tsx';
import { useLazyPicturesQuery, usePicturesQuery, usePictureVersionQuery } from './pictureEndpoints.ts';

function useChunk(ladder: string | undefined): Record<string, SolvedFigure> | undefined {
  const { data: version } = usePictureVersionQuery();
  return usePicturesQuery(version && ladder ? { version, ladder } : skipToken).data;
}

/** The figure of a drill; a drill of the practice's own without one shows that of the drill it was made from. Null while it is fetched, and where there is none. */
export function usePicture(drill: Drill | undefined): SolvedFigure | null {
  const reference = useReference();
  const shown = drill && shownBy(reference.drills, drill);
  const chunk = useChunk(shown?.picture ? undefined : shown?.ladder);
  return shown?.picture ?? (shown && chunk?.[shown.id]) ?? null;
}

/** Fetches the figure of a drill when it is asked for; null where it has none. */
export function useFetchPicture(): (drill: Drill) => Promise<SolvedFigure | null> {
  const reference = useReference();
  const { data: version } = usePictureVersionQuery();
  const [chunkOf] = useLazyPicturesQuery();
  return async (drill) => {
    const shown = shownBy(reference.drills, drill);
    if (shown.picture) return shown.picture;
    if (!version) return null;
    const { data } = await chunkOf({ version, ladder: shown.ladder }, true);
    return data?.[shown.id] ?? null;
  };
}

/** The figure that shows how a test is done; null while it is fetched, and where there is none. */
export function useTestPicture(test: string): SolvedFigure | null {
  return useChunk('tests')?.[`test-${test}`] ?? null;
}
