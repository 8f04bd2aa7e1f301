import { identified } from '@yonder/core/routine';
import type { RoutineItem } from '@yonder/core/domain';
import { useMemo } from 'react';
import { useStore } from 'react-redux';
import { newId } from '../../app/newId.ts';
import { useReference } from '../../app/reference.tsx';
import type { RootState } from '../../app/store.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import type { NewDraft } from './draftOf.ts';
import { mendCircuits } from './circuit.ts';
import { built, itemRemoved, itemsChanged } from './draftSlice.ts';
import { useRoutinesQuery } from './routineEndpoints.ts';

/** Changes the routine being edited. Items keep who they are, from the version in force on; new ones get an id. */
export function useEdit() {
  const reference = useReference();
  const store = useStore<RootState>();
  const { athlete } = useWorkspace();
  const { data: routines } = useRoutinesQuery(athlete.id);
  const inForce = routines?.[0]?.items;
  return useMemo(() => {
    const identify = (items: readonly RoutineItem[]) => {
      const own = store.getState().draft.draft?.items ?? [];
      const known = new Set(own.map((item) => item.id));
      const before = [...own, ...(inForce ?? []).filter((item) => !known.has(item.id))];
      return identified(reference, before, items, newId);
    };
    return {
      /** Replaces everything by a routine that was built, fitted or copied. */
      build: (draft: NewDraft) => store.dispatch(built({ ...draft, items: identify(draft.items) })),
      /** Replaces the items. */
      change: (items: readonly RoutineItem[]) => store.dispatch(itemsChanged(identify(items))),
      /** Takes a drill out, for this routine and when drills are chosen again. */
      remove: (drill: string) => {
        const items = store.getState().draft.draft?.items ?? [];
        const left = identify(mendCircuits(items.filter((item) => item.drill !== drill)));
        store.dispatch(itemRemoved({ drill, left }));
      },
    };
  }, [reference, store, inForce]);
}
