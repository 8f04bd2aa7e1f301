import { useDebouncedCallback } from '@mantine/hooks';
import { useEffect, useRef, useState } from 'react';
import { errorText } from '../../app/api.ts';
import type { ApiError } from '../../app/api.ts';
import { useAppDispatch, useAppSelector } from '../../app/store.ts';
import { opened } from './draftSlice.ts';
import { useDraftQuery, useSaveDraftMutation } from './routineEndpoints.ts';

const SAVE_AFTER_MS = 500;

/**
 * The draft of an athlete: loaded from the server once, kept there after every change. Returns the draft (null when
 * there is none), whether loading is over, why the last change could not be kept, and a way to wait until all is kept.
 */
export function useDraft(athleteId: string) {
  const dispatch = useAppDispatch();
  const state = useAppSelector((root) => root.draft);
  const { data, isFetching } = useDraftQuery(athleteId, { refetchOnMountOrArgChange: true });
  const [save] = useSaveDraftMutation();
  const [problem, setProblem] = useState<string | null>(null);
  const version = useRef<number | null>(null);
  const stored = useRef<string>('');
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  const own = state.athleteId === athleteId;

  useEffect(() => {
    if (!data || isFetching) return;
    version.current = data.version;
    stored.current = JSON.stringify(data.draft);
    dispatch(opened({ athleteId, draft: data.draft }));
  }, [data, isFetching, athleteId, dispatch]);

  const keep = useDebouncedCallback(
    () => {
      const { draft } = state;
      if (!own || !draft) return;
      const text = JSON.stringify(draft);
      if (text === stored.current) return;
      // One after the other: each change is made on the version that the one before it got.
      queue.current = queue.current
        .then(() => save({ athleteId, body: { ...draft, version: version.current } }).unwrap())
        .then(
          (row) => {
            version.current = row.version;
            stored.current = text;
            setProblem(null);
          },
          (error: ApiError) => setProblem(errorText(error)),
        );
    },
    { delay: SAVE_AFTER_MS, flushOnUnmount: true },
  );
  useEffect(() => {
    if (own && state.draft) keep();
  }, [own, state.draft, keep]);

  /** Everything typed is with the server, on the version it gives: nothing of this draft is sent any more afterwards. */
  const settled = async () => {
    keep.flush();
    await queue.current;
    return version.current;
  };
  return { draft: own ? state.draft : null, ready: own && !isFetching, problem, settled };
}
