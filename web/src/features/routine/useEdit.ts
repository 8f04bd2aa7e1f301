import { identified } from '@yonder/core/routine';
import type { RoutineItem } from '@yonder/core/domain';
import { useMemo } from 'react';
import { useStore } from 'react-redux';
import { newId } from '../../app/newId.ts';
import { useReference } from '../../app/reference.tsx';
import type { RootState } from '../../app/store.ts';
import type { NewDraft } from './draftOf.ts';
import { mendCircuits } from './circuit.ts';
import { built, itemRemoved, itemsChanged } from './draftSlice.ts';
import { useVersions } from './useVersions.ts';

/** Changes the routine being edited. Items keep who they are, from the version in force on; new ones get an id. */
export function useEdit() {
  const reference = useReference();
  const store = useStore<RootState>();
  const inForce = useVersions()?.[0]?.items;
  return useMemo(() => {
    const identify = (items: readonly RoutineItem[]) => {
      const own = store.getState().draft.draft?.items ?? [];
      const known = new Set(own.map((item) => item.id));
      const before = [...own, ...(inForce ?? []).filter((item) => !known.has(item.id))];
      return identified(reference, before, items, newId);
    };
    return {
      /** Replaces everything by a routine that was built, fitted or copied. */
      build: (draft: NewDraft) =>
        store.dispatch(built({ sections: [], left: [], ...draft, items: identify(draft.items) })),
      /** Replaces the items; gives them with their ids. */
      change: (items: readonly RoutineItem[]) => {
        const next = identify(items);
        store.dispatch(itemsChanged(next));
        return next;
      },
      /** Takes a line out; its drill stays out when drills are chosen again. */
      remove: (id: string) => {
        const items = store.getState().draft.draft?.items ?? [];
        const gone = items.find((item) => item.id === id);
        if (!gone) return;
        const left = identify(mendCircuits(items.filter((item) => item !== gone)));
        store.dispatch(itemRemoved({ drill: gone.drill, left }));
      },
    };
  }, [reference, store, inForce]);
}
