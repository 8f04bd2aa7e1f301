import type { Announcements, Over, UniqueIdentifier } from '@dnd-kit/core';
import type { RoutineItem } from '@yonder/core/domain';
import type { Reference } from '@yonder/core/reference';
import { lineName, nameOf } from '@yonder/core/words';
import { ADD } from './AddLine.tsx';
import { LIST_END } from './ItemTable.tsx';

/** What a screen reader says while a line is dragged or a drill is dragged in: by name, and the number it would have. */
export function dragWords(
  reference: Reference,
  items: readonly (RoutineItem & { readonly id: string })[],
): Announcements {
  const name = (id: UniqueIdentifier) => {
    const item = items.find((one) => one.id === id);
    return item ? lineName(reference, item) : nameOf(reference, String(id).slice(ADD.length));
  };
  const number = (over: Over | null) => {
    const place = over?.id === LIST_END ? items.length : items.findIndex(({ id }) => id === over?.id) + 1;
    return place > 0 ? `number ${place} of ${items.length}` : null;
  };
  return {
    onDragStart: ({ active }) => `${name(active.id)} is picked up.`,
    onDragOver: ({ active, over }) => `${name(active.id)}: ${number(over) ?? 'outside the list'}.`,
    onDragEnd: ({ active, over }) =>
      over ? `${name(active.id)} is put down: ${number(over)}.` : `${name(active.id)} stays where it was.`,
    onDragCancel: ({ active }) => `${name(active.id)} stays where it was.`,
  };
}
