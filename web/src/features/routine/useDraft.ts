import { useDebouncedCallback } from '@mantine/hooks';
import { draftSchema } from '@yonder/core/contracts';
import type { Draft, DraftRow } from '@yonder/core/contracts';
import type { Occasion } from '@yonder/core/domain';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { conflictOf, errorText } from '../../app/api.ts';
import type { ApiError } from '../../app/api.ts';
import { forget, keep, keptAt } from '../../app/kept/store.ts';
import { useAppDispatch, useAppSelector } from '../../app/store.ts';
import { opened } from './draftSlice.ts';
import {
  NO_DRAFT,
  useDiscardDraftMutation,
  useDraftQuery,
  useSaveDraftMutation,
} from './routineEndpoints.ts';

const SAVE_AFTER_MS = 500;
const RETRY_MS = 5000;

/** The name under which a draft is known on the page and on the device. */
export const draftName = (athleteId: string, occasion: Occasion): string => `${athleteId}/${occasion}`;

/** A draft as this device holds it, and the stored version it was made on. */
interface KeptDraft {
  readonly draft: Draft;
  readonly version: number | null;
}

/** The draft kept on this device, with what is asked for since then where it is from before. */
function keptDraft(key: string): KeptDraft | undefined {
  const kept = keptAt<KeptDraft>(key);
  return kept && { ...kept, draft: draftSchema.catch(kept.draft).parse(kept.draft) };
}

/** Two drafts of one athlete: the one made here, and the one that was stored meanwhile. */
export interface DraftConflict {
  readonly mine: Draft;
  readonly theirs: DraftRow;
}

/**
 * The draft of an athlete for an occasion: loaded from the server once, kept on this device with every change and stored on the server a
 * moment later, again and again until it answers. Returns the draft (null when there is none), whether loading is over, why
 * the last change is not stored, the choice to make when another one was stored meanwhile, a way to wait until all is, and one to throw it away.
 */
export function useDraft(athleteId: string, occasion: Occasion) {
  const of = useMemo(() => ({ athleteId, occasion }), [athleteId, occasion]);
  const dispatch = useAppDispatch();
  const state = useAppSelector((root) => root.draft);
  const { data, isFetching } = useDraftQuery(of, { refetchOnMountOrArgChange: true });
  const [save] = useSaveDraftMutation();
  const [remove] = useDiscardDraftMutation();
  const [problem, setProblem] = useState<string | null>(null);
  const [conflict, setConflict] = useState<DraftConflict | null>(null);
  const version = useRef<number | null>(null);
  const stored = useRef<string>('');
  /** What was handed over to be stored last: taken back before it was there, it has to be followed by what stands again. */
  const asked = useRef<string>('');
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  const name = draftName(athleteId, occasion);
  const own = state.of === name;
  const key = `draft/${name}`;

  useEffect(() => {
    if (!data || isFetching) return;
    version.current = data.version;
    stored.current = JSON.stringify(data.draft);
    asked.current = stored.current;
    const kept = keptDraft(key);
    const typed = kept && JSON.stringify(kept.draft) !== stored.current ? kept : null;
    if (typed && typed.version !== data.version) setConflict({ mine: typed.draft, theirs: data });
    dispatch(opened({ of: name, draft: typed?.version === data.version ? typed.draft : data.draft }));
  }, [data, isFetching, name, key, dispatch]);

  const store = useCallback(
    async (draft: Draft) => {
      const text = JSON.stringify(draft);
      const settle = () => {
        if (JSON.stringify(keptAt<KeptDraft>(key)?.draft) === text) forget(key);
      };
      if (text === stored.current) return settle();
      try {
        const row = await save({ ...of, body: { ...draft, version: version.current } }).unwrap();
        version.current = row.version;
        stored.current = text;
        setProblem(null);
        settle();
      } catch (error) {
        const known = error as ApiError;
        const gone = known.kind === 'problem' && known.problem.status === 404;
        const current = gone ? NO_DRAFT : (conflictOf(error) as unknown as DraftRow | null);
        if (current) setConflict({ mine: draft, theirs: current });
        else setProblem(errorText(known));
      }
    },
    [of, key, save],
  );
  const send = useDebouncedCallback(
    (draft: Draft) => {
      // One after the other: each change is made on the version that the one before it got.
      queue.current = queue.current.then(() => store(draft));
    },
    { delay: SAVE_AFTER_MS, flushOnUnmount: true },
  );
  const { draft } = state;
  useEffect(() => {
    const text = JSON.stringify(draft);
    if (!own || !draft || conflict || text === asked.current) return;
    asked.current = text;
    keep(key, { draft, version: version.current } satisfies KeptDraft);
    send(draft);
  }, [own, draft, conflict, key, send]);
  useEffect(() => {
    if (!problem || !draft) return undefined;
    const again = setInterval(() => send(draft), RETRY_MS);
    return () => clearInterval(again);
  }, [problem, draft, send]);

  /** Everything typed is with the server, on the version it gives: nothing of this draft is sent any more afterwards. */
  const settled = async () => {
    send.flush();
    await queue.current;
    return version.current;
  };
  /** Throws the draft away; what is made next waits until it is gone, and stands on none. */
  const discard = async () => {
    const at = await settled();
    version.current = null;
    stored.current = JSON.stringify(null);
    asked.current = stored.current;
    forget(key);
    dispatch(opened({ of: name, draft: null }));
    if (at !== null) queue.current = remove({ ...of, version: at });
  };
  const choose = (which: 'mine' | 'theirs') => {
    if (!conflict) return;
    const { mine, theirs } = conflict;
    version.current = theirs.version;
    stored.current = JSON.stringify(theirs.draft);
    asked.current = stored.current;
    setConflict(null);
    if (which === 'theirs') forget(key);
    dispatch(opened({ of: name, draft: which === 'mine' ? mine : theirs.draft }));
  };
  return {
    draft: own ? draft : null,
    ready: own && !isFetching,
    problem,
    settled,
    discard,
    conflict,
    choose,
  };
}
