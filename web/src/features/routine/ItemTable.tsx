import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import type { DragEndEvent } from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import type { ItemExplanation } from '@yonder/core/builder';
import type { Draft } from '@yonder/core/contracts';
import { useReference } from '../../app/reference.tsx';
import { useAppDispatch } from '../../app/store.ts';
import { itemChanged, itemsChanged, requestChanged } from './draftSlice.ts';
import { ItemRow } from './ItemRow.tsx';
import classes from './Routine.module.css';

interface Props {
  draft: Draft;
  explained: readonly ItemExplanation[];
  selected: string | null;
  onSelect: (drill: string) => void;
}

/** The routine being edited, in the order it is done. */
export function ItemTable({ draft, explained, selected, onSelect }: Props) {
  const reference = useReference();
  const dispatch = useAppDispatch();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const { items, request } = draft;
  const moved = ({ active, over }: DragEndEvent) => {
    const from = items.findIndex((item) => item.drill === active.id);
    const to = items.findIndex((item) => item.drill === over?.id);
    if (from >= 0 && to >= 0 && from !== to) dispatch(itemsChanged(arrayMove(items, from, to)));
  };
  const togglePin = (drill: string) => {
    const pins = request.pins.includes(drill)
      ? request.pins.filter((id) => id !== drill)
      : [...request.pins, drill];
    dispatch(requestChanged({ pins }));
  };
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={moved}>
      <SortableContext items={items.map((item) => item.drill)} strategy={verticalListSortingStrategy}>
        <table className={classes.items} aria-label="Drills of the routine">
          <thead>
            <tr>
              <th scope="col">
                <span className="visually-hidden">Move</span>
              </th>
              <th scope="col">Drill and set-up</th>
              <th scope="col">Side</th>
              <th scope="col">Sets × amount</th>
              <th scope="col">Rest</th>
              <th scope="col">Time</th>
              <th scope="col">
                <span className="visually-hidden">Pin and remove</span>
              </th>
            </tr>
          </thead>
          {items.map((item, index) => {
            const drill = reference.drills.get(item.drill);
            if (!drill) return null;
            return (
              <ItemRow
                key={item.drill}
                item={item}
                index={index}
                drill={drill}
                selected={item.drill === selected}
                pinned={request.pins.includes(item.drill)}
                caution={(explained.find((e) => e.drill === item.drill)?.cautions.length ?? 0) > 0}
                onSelect={() => onSelect(item.drill)}
                onChange={(change) => dispatch(itemChanged({ index, change }))}
                onPin={() => togglePin(item.drill)}
                onRemove={() => dispatch(itemsChanged(items.filter((_, i) => i !== index)))}
              />
            );
          })}
        </table>
      </SortableContext>
    </DndContext>
  );
}
