import { useDroppable } from '@dnd-kit/core';
import { SortableContext, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { IconGripVertical } from '@tabler/icons-react';
import type { Draft } from '@yonder/core/contracts';
import type { RoutineItem } from '@yonder/core/domain';
import { routineTime } from '@yonder/core/dose';
import type { RoutineTime } from '@yonder/core/dose';
import type { Reason } from '@yonder/core/reasons';
import { isLine } from '@yonder/core/reference';
import { lineName, nameOf, SIDE_LABEL } from '@yonder/core/words';
import { Fragment } from 'react';
import { useReference } from '../../app/reference.tsx';
import { useAppDispatch } from '../../app/store.ts';
import { changeCircuit, mendCircuits, onTheClock, withCircuit } from './circuit.ts';
import composing from './Compose.module.css';
import { itemChanged, requestChanged, sectionsChanged } from './draftSlice.ts';
import { CircuitHead, SectionHead } from './GroupHeads.tsx';
import { LineFields } from './LineRow.tsx';
import { doubled, withoutSection } from './lines.ts';
import { useEdit } from './useEdit.ts';
import { explanationOf } from './useExplained.ts';
import type { ExplainedItems } from './useExplained.ts';
import { ItemRow } from './ItemRow.tsx';
import { movesBy } from './movesBy.ts';
import classes from './Routine.module.css';

/** Where something dragged in goes when the list is empty or it is let go below the last line. */
export const LIST_END = 'list-end';

interface Props {
  /** The routine being edited. */
  draft: Draft;
  /** Why each is in; null while that is worked out. */
  explained: ExplainedItems | null;
  /** The line explained beside the list, by id. */
  selected: string | null;
  /** A line was pressed. */
  onSelect: (id: string) => void;
  /** A drill's level was said to be too hard. */
  onTooHard: (drill: string) => void;
  /** A line goes from one place to another. */
  onMove: (from: number, to: number) => void;
}

const unconfirmed = (reason: Reason) => 'confirm' in reason && reason.confirm;

interface LineRowProps {
  /** The line. */
  item: Draft['items'][number];
  /** Its place, from 0. */
  index: number;
  /** Seconds of changing over to it. */
  change: number;
  /** True for the one after which things are put in. */
  selected: boolean;
  /** It was pressed. */
  onSelect: () => void;
  /** One place up or down. */
  onMove: (by: 1 | -1) => void;
  /** Other words or time. */
  onChange: (change: Partial<RoutineItem>) => void;
  /** Once more. */
  onDouble: () => void;
  /** Out. */
  onRemove: () => void;
}

/** A rest or own words as a row of the list, moved like a drill. */
function LineRow({ item, index, selected, onSelect, onMove, ...fields }: LineRowProps) {
  const reference = useReference();
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: item.id });
  return (
    <tbody
      ref={setNodeRef}
      style={{ transform: CSS.Transform.toString(transform), transition }}
      className={classes.item}
      data-selected={selected || undefined}
      onFocusCapture={onSelect}
      onKeyDownCapture={(event) => {
        const by = movesBy(event);
        if (by !== 0) onMove(by);
      }}
    >
      <tr>
        <td>
          <button
            type="button"
            className={classes.handle}
            aria-label={`Move ${lineName(reference, item)}`}
            {...attributes}
            {...listeners}
          >
            <IconGripVertical size={17} />
          </button>
        </td>
        <LineFields item={item} index={index} {...fields} />
      </tr>
    </tbody>
  );
}

/** The end of the list takes what is let go below its last line. */
function End({ empty }: { empty: boolean }) {
  const { setNodeRef, isOver } = useDroppable({ id: LIST_END });
  return (
    <tfoot ref={setNodeRef} data-over={isOver || undefined} className={composing.end}>
      <tr>
        <td colSpan={7}>
          {empty ? 'Nothing in it yet. Add a drill, take over a list, or let drills be chosen.' : ''}
        </td>
      </tr>
    </tfoot>
  );
}

interface HeadsProps {
  /** The routine being edited. */
  draft: Draft;
  /** Place of the line above which they stand. */
  index: number;
  /** Where the seconds go. */
  time: RoutineTime;
  /** Other lines. */
  onPut: (items: RoutineItem[]) => void;
}

/** Above a line: the section that begins there, and the rounds. */
function Heads({ draft, index, time, onPut }: HeadsProps) {
  const dispatch = useAppDispatch();
  const { items, sections } = draft;
  const item = items[index];
  const before = items[index - 1];
  const circuit = item?.circuit;
  const section = before?.phase === item?.phase ? undefined : sections.find(({ id }) => id === item?.phase);
  const begins = circuit !== undefined && before?.circuit?.id !== circuit.id;
  if (!section && !begins) return null;
  const sum = (belongs: (own: RoutineItem) => boolean) =>
    items.reduce(
      (all, own, i) => (belongs(own) ? all + (time.items[i] ?? 0) + (time.changes[i] ?? 0) : all),
      0,
    );
  const put = (next: Draft['sections'], lines: Draft['items']) =>
    dispatch(sectionsChanged({ sections: next, items: lines }));
  return (
    <tbody>
      {section ? (
        <SectionHead
          section={section}
          seconds={sum((own) => own.phase === section.id)}
          onChange={(change) =>
            put(
              sections.map((own) => (own === section ? { ...own, ...change } : own)),
              items,
            )
          }
          onRemove={() =>
            put(
              sections.filter((own) => own !== section),
              withoutSection(items, section.id),
            )
          }
        />
      ) : null}
      {begins ? (
        <CircuitHead
          circuit={circuit}
          seconds={sum((own) => own.circuit?.id === circuit.id)}
          onChange={(change) => onPut(changeCircuit(items, circuit.id, change))}
          onEnd={() => onPut(withCircuit(items, index, null))}
        />
      ) : null}
    </tbody>
  );
}

/** The routine being edited, in the order it is done: drills, rests and own words under sections and in rounds. */
export function ItemTable({ draft, explained, selected, onSelect, onTooHard, onMove }: Props) {
  const reference = useReference();
  const dispatch = useAppDispatch();
  const edit = useEdit();
  const { items, request } = draft;
  const time = routineTime(reference, items);
  const { items: seconds, changes } = time;
  const put = (next: RoutineItem[]) => edit.change(mendCircuits(next));
  const togglePin = (drill: string) => {
    const pins = request.pins.includes(drill)
      ? request.pins.filter((id) => id !== drill)
      : [...request.pins, drill];
    dispatch(requestChanged({ pins }));
  };
  const servesText = (id: string) => {
    const best = [...(explanationOf(explained, id)?.serves ?? [])].sort((a, b) => b.match - a.match)[0];
    if (!best) return '';
    const side = best.side === 'central' ? '' : ` ${SIDE_LABEL[best.side]}`;
    return `for ${nameOf(reference, best.restriction).toLowerCase()}${side}`;
  };
  return (
    <SortableContext items={items.map((item) => item.id)} strategy={verticalListSortingStrategy}>
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
          const common = {
            item,
            index,
            change: changes[index] ?? 0,
            selected: item.id === selected,
            onSelect: () => onSelect(item.id),
            onChange: (change: Partial<RoutineItem>) => dispatch(itemChanged({ index, change })),
            onMove: (by: 1 | -1) => onMove(index, index + by),
            onDouble: () => edit.change(doubled(items, item.id)),
            onRemove: () => edit.remove(item.id),
          };
          return (
            <Fragment key={item.id}>
              <Heads draft={draft} index={index} time={time} onPut={put} />
              {isLine(item.drill) ? (
                <LineRow {...common} />
              ) : (
                <ItemRow
                  {...common}
                  drill={drill}
                  below={items[index + 1] ?? null}
                  seconds={seconds[index] ?? 0}
                  failure={explained?.failure[explained.ids.indexOf(item.id)] ?? null}
                  serves={servesText(item.id)}
                  pinned={request.pins.includes(item.drill)}
                  caution={(explanationOf(explained, item.id)?.cautions.length ?? 0) > 0}
                  confirm={explanationOf(explained, item.id)?.reasons.some(unconfirmed) ?? false}
                  onTooHard={() => onTooHard(item.drill)}
                  onCircuit={(rounds) => put(withCircuit(items, index, rounds))}
                  onClock={() => put(onTheClock(items, index))}
                  onPin={() => togglePin(item.drill)}
                />
              )}
            </Fragment>
          );
        })}
        <End empty={items.length === 0} />
      </table>
    </SortableContext>
  );
}
