import type { ResultRow } from '@yonder/core/contracts';
import type { Side } from '@yonder/core/domain';
import type { Test } from '@yonder/core/reference';
import { useCallback, useRef, useState } from 'react';
import { errorText } from '../../app/api.ts';
import type { ApiError } from '../../app/api.ts';
import { resultOf, sameAsStored } from './entry.ts';
import type { SideEntry } from './entry.ts';
import {
  useOpenScreeningMutation,
  usePutResultMutation,
  useRemoveResultMutation,
} from './screeningEndpoints.ts';

export type SaveState =
  { kind: 'idle' } | { kind: 'saving' } | { kind: 'stored' } | { kind: 'failed'; message: string };

interface Place {
  readonly athleteId: string;
  readonly date: string;
  readonly screeningId: string | null;
}

/**
 * Stores what was typed, one request after the other so that each is made on the version before it. The visit is
 * opened with the first value. What cannot be stored stays in its field, with the reason.
 */
export function useResultSaver(place: Place) {
  const [open] = useOpenScreeningMutation();
  const [put] = usePutResultMutation();
  const [remove] = useRemoveResultMutation();
  const [state, setState] = useState<SaveState>({ kind: 'idle' });
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  const waiting = useRef(0);
  const versions = useRef(new Map<string, number>());
  const { athleteId, date, screeningId } = place;

  const store = useCallback(
    async (test: Test, side: Side, entry: SideEntry, row: ResultRow | undefined) => {
      const visit = screeningId ?? (await open({ athleteId, date }).unwrap()).id;
      const key = `${visit}/${test.id}/${side}`;
      const version = versions.current.get(key) ?? row?.version ?? null;
      const result = resultOf(test, entry);
      if (!result) {
        if (version === null) return;
        await remove({ athleteId, screeningId: visit, test: test.id, side, version }).unwrap();
        versions.current.delete(key);
        return;
      }
      const body = { ...result, version };
      const stored = await put({ athleteId, screeningId: visit, test: test.id, side, body }).unwrap();
      versions.current.set(key, stored.version);
    },
    [athleteId, date, screeningId, open, put, remove],
  );

  const save = useCallback(
    (test: Test, side: Side, entry: SideEntry, row: ResultRow | undefined) => {
      if (sameAsStored(test, entry, row)) return;
      setState({ kind: 'saving' });
      waiting.current += 1;
      queue.current = queue.current
        .then(() => store(test, side, entry, row))
        .then(
          () => {
            waiting.current -= 1;
            // Stored is said when everything is.
            if (waiting.current === 0) setState({ kind: 'stored' });
          },
          (error: ApiError) => {
            waiting.current -= 1;
            setState({ kind: 'failed', message: errorText(error) });
          },
        );
    },
    [store],
  );
  return { save, state };
}
