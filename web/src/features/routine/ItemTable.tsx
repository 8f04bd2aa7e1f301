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
import { orderCost } from '@yonder/core/builder';
import type { Draft } from '@yonder/core/contracts';
import type { RoutineItem } from '@yonder/core/domain';
import { routineTime } from '@yonder/core/dose';
import type { Reason } from '@yonder/core/reasons';
import { nameOf, SIDE_LABEL } from '@yonder/core/words';
import { useReference } from '../../app/reference.tsx';
import { useAppDispatch } from '../../app/store.ts';
import type { Explained } from '../../workers/protocol.ts';
import { mendCircuits, withCircuit } from './circuit.ts';
import { itemChanged, requestChanged } from './draftSlice.ts';
import { useEdit } from './useEdit.ts';
import { ItemRow } from './ItemRow.tsx';
import { costChange } from './orderWords.ts';
import classes from './Routine.module.css';

interface Props {
  /** The routine being edited. */
  draft: Draft;
  /** Why each is in; null while that is worked out. */
  explained: Explained | null;
  /** Drill explained beside the list. */
  selected: string | null;
  /** A drill was pressed. */
  onSelect: (drill: string) => void;
  /** A drill's level was said to be too hard. */
  onTooHard: (drill: string) => void;
  /** Says what a move cost or saved. */
  onMoved: (note: string) => void;
}

const unconfirmed = (reason: Reason) => 'confirm' in reason && reason.confirm;

/** The routine being edited, in the order it is done. */
export function ItemTable({ draft, explained, selected, onSelect, onTooHard, onMoved }: Props) {
  const reference = useReference();
  const dispatch = useAppDispatch();
  const edit = useEdit();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const { items, request } = draft;
  const { items: seconds, changes } = routineTime(reference, items);
  const put = (next: RoutineItem[]) => edit.change(mendCircuits(next));
  const move = (from: number, to: number) => {
    if (from < 0 || to < 0 || to >= items.length || from === to) return;
    const next = mendCircuits(arrayMove(items, from, to));
    put(next);
    const name = nameOf(reference, items[from]?.drill ?? '');
    onMoved(
      `${name} is now number ${to + 1}: ${costChange(orderCost(reference, items), orderCost(reference, next))}.`,
    );
  };
  const dropped = ({ active, over }: DragEndEvent) =>
    move(
      items.findIndex((item) => item.drill === active.id),
      items.findIndex((item) => item.drill === over?.id),
    );
  const togglePin = (drill: string) => {
    const pins = request.pins.includes(drill)
      ? request.pins.filter((id) => id !== drill)
      : [...request.pins, drill];
    dispatch(requestChanged({ pins }));
  };
  const explanationOf = (drill: string) => explained?.items.find((e) => e.drill === drill);
  const servesText = (drill: string) => {
    const best = [...(explanationOf(drill)?.serves ?? [])].sort((a, b) => b.match - a.match)[0];
    if (!best) return '';
    const side = best.side === 'central' ? '' : ` ${SIDE_LABEL[best.side]}`;
    return `for ${nameOf(reference, best.restriction).toLowerCase()}${side}`;
  };
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={dropped}>
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
                below={items[index + 1] ?? null}
                seconds={seconds[index] ?? 0}
                change={changes[index] ?? 0}
                failure={explained?.failure[index] ?? null}
                serves={servesText(item.drill)}
                selected={item.drill === selected}
                pinned={request.pins.includes(item.drill)}
                caution={(explanationOf(item.drill)?.cautions.length ?? 0) > 0}
                confirm={explanationOf(item.drill)?.reasons.some(unconfirmed) ?? false}
                onTooHard={() => onTooHard(item.drill)}
                onSelect={() => onSelect(item.drill)}
                onChange={(change) => dispatch(itemChanged({ index, change }))}
                onCircuit={(rounds) => put(withCircuit(items, index, rounds))}
                onMove={(by) => move(index, index + by)}
                onPin={() => togglePin(item.drill)}
                onRemove={() => edit.remove(item.drill)}
              />
            );
          })}
        </table>
      </SortableContext>
    </DndContext>
  );
}
