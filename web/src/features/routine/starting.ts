import type { Draft, RoutineRow } from '@yonder/core/contracts';
import type { Case, Occasion } from '@yonder/core/domain';
import { routineSeconds } from '@yonder/core/dose';
import type { Reference } from '@yonder/core/reference';
import type { NewDraft } from './draftOf.ts';
import { clearedOf } from './lines.ts';

/** A version as something to edit; for another occasion its lines begin anew. */
export function copyOf(routine: RoutineRow, input: Case, occasion: Occasion): NewDraft {
  const request = { ...input.request, mode: routine.mode, schools: routine.schools };
  const { structure, sections } = routine;
  const items =
    routine.occasion === occasion
      ? routine.items
      : routine.items.map(({ id: _id, from: _from, ...item }) => item);
  return { request, structure, sections, items };
}

/** A draft with a list taken over: below what is there, or in its place; a list brings its own time. */
export function withTaken(
  reference: Reference,
  draft: Draft | null,
  taken: NewDraft & Pick<Draft, 'sections'>,
  below: boolean,
): NewDraft {
  if (below && draft) {
    const free = clearedOf(draft, taken);
    return {
      ...draft,
      sections: [...draft.sections, ...free.sections],
      items: [...draft.items, ...free.items],
    };
  }
  const { request, structure } = taken;
  const needed = Math.ceil(routineSeconds(reference, taken.items) / 60);
  const minutes = Math.min(120, Math.max(request.minutes ?? 1, needed));
  return { ...taken, request: { ...request, minutes }, structure: draft?.structure ?? structure };
}
