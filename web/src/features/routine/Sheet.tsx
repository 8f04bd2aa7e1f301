import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import type { DragEndEvent } from '@dnd-kit/core';
import { arrayMove, sortableKeyboardCoordinates } from '@dnd-kit/sortable';
import { Button, Group } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import { orderCost } from '@yonder/core/builder';
import type { Draft } from '@yonder/core/contracts';
import type { RoutineItem } from '@yonder/core/domain';
import { lineName, nameOf, reasonText } from '@yonder/core/words';
import { useCallback, useEffect, useRef } from 'react';
import { useReference } from '../../app/reference.tsx';
import { useAppDispatch } from '../../app/store.ts';
import { compute } from '../../workers/client.ts';
import type { Asked } from '../../workers/protocol.ts';
import { ADD, AddLine } from './AddLine.tsx';
import { Checks } from './Checks.tsx';
import { mendCircuits } from './circuit.ts';
import { requestChanged, sectionsChanged } from './draftSlice.ts';
import { dragWords } from './dragWords.ts';
import { ItemTable, LIST_END } from './ItemTable.tsx';
import { putAt, sectionAt } from './lines.ts';
import { costChange } from './orderWords.ts';
import classes from './Routine.module.css';
import { useEdit } from './useEdit.ts';
import type { ExplainedItems } from './useExplained.ts';

/** Drills taken out: they stay out when drills are chosen again, and one press lets each back. */
function LeftOut({ draft: { request } }: { draft: Draft }) {
  const reference = useReference();
  const dispatch = useAppDispatch();
  if (request.bans.length === 0) return null;
  return (
    <Group gap={6} className={classes.leftOut} aria-label="Left out" role="group">
      <span>Left out when choosing again:</span>
      {request.bans.map((drill) => (
        <Button
          key={drill}
          size="compact-xs"
          variant="light"
          aria-label={`Let ${nameOf(reference, drill)} back`}
          rightSection={<IconX size={12} />}
          onClick={() => dispatch(requestChanged({ bans: request.bans.filter((id) => id !== drill) }))}
        >
          {nameOf(reference, drill)}
        </Button>
      ))}
    </Group>
  );
}

interface Props {
  /** The routine being edited. */
  draft: Draft;
  /** The record and what was asked for. */
  asked: Asked;
  /** Why each is in and what is wrong; null while that is worked out. */
  explained: ExplainedItems | null;
  /** Lines beside the checks. */
  notes: string[];
  /** The line explained beside the list, by id. */
  selected: string | null;
  /** A line was pressed. */
  onSelect: (id: string | null) => void;
  /** Something was done that is worth saying. */
  onNote: (note: string) => void;
  /** A written list is taken over. */
  onTakeOver: () => void;
}

/** The list being edited, what can be put into it, and what the checks say of it. */
export function Sheet({ draft, asked, explained, notes, selected, onSelect, onNote, onTakeOver }: Props) {
  const reference = useReference();
  const dispatch = useAppDispatch();
  const edit = useEdit();
  const refused = useRef<string | null>(null);
  const { items, sections } = draft;
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const repair = useCallback(
    (next: readonly RoutineItem[], what: string) => {
      edit.change(next);
      onNote(`${what}: done.`);
    },
    [edit, onNote],
  );
  // A level just refused gives way to the one below as soon as the checks know of it.
  useEffect(() => {
    const check = explained?.checks.find(
      ({ reason }) => reason.rule === 'too-hard' && reason.drill === refused.current,
    );
    if (!check?.repair) return;
    refused.current = null;
    repair(check.repair.items, reasonText(reference, check.repair.does));
  }, [explained, reference, repair]);
  const move = (from: number, to: number) => {
    const moved = items[from];
    if (!moved || to < 0 || to >= items.length || from === to) return;
    // What is moved among the lines of a part stands in it.
    const beside = items[to];
    const next = mendCircuits(
      arrayMove(
        items.map((item) => (item === moved && beside ? { ...item, phase: beside.phase } : item)),
        from,
        to,
      ),
    );
    edit.change(next);
    const cost = costChange(orderCost(reference, items), orderCost(reference, next));
    onNote(`${lineName(reference, moved)} is now number ${to + 1}: ${cost}.`);
  };
  const put = (lines: readonly RoutineItem[], place: number) => {
    const known = new Set(items.map(({ id }) => id));
    const next = edit.change(putAt(items, place, lines));
    // The next one comes below it.
    onSelect(next.findLast(({ id }) => !known.has(id))?.id ?? selected);
    onNote(lines.map((line) => `${lineName(reference, line)} is in.`).join(' '));
  };
  const dropped = ({ active, over }: DragEndEvent) => {
    const id = String(active.id);
    const to = items.findIndex((item) => item.id === over?.id);
    if (!id.startsWith(ADD)) {
      const from = items.findIndex((item) => item.id === id);
      move(from, over?.id === LIST_END ? items.length - 1 : to);
      return;
    }
    if (!over) return;
    const drill = id.slice(ADD.length);
    compute.call('offer', asked.subject, { request: asked.request, drill }).then(
      ({ item, held }) => {
        if (!held) put([item], to < 0 ? items.length : to);
        else
          onNote(
            `${nameOf(reference, drill)} is not for today${held.instead ? `; ${nameOf(reference, held.instead.drill).toLowerCase()} would be` : ''}.`,
          );
      },
      () => onNote('It could not be worked out. Drag it again.'),
    );
  };
  const at = items.findIndex(({ id }) => id === selected);
  const after = items[at];
  return (
    <section className={`card ${classes.sheet}`} aria-label="Routine being edited">
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        accessibility={{ announcements: dragWords(reference, items) }}
        onDragEnd={dropped}
      >
        <ItemTable
          draft={draft}
          explained={explained}
          selected={selected}
          onSelect={onSelect}
          onTooHard={(drill) => (refused.current = drill)}
          onMove={move}
        />
        <AddLine
          draft={draft}
          asked={asked}
          after={after ? lineName(reference, after) : ''}
          onPut={(lines) => put(lines, after ? at + 1 : items.length)}
          onSection={() => dispatch(sectionsChanged(sectionAt(items, sections, Math.max(0, at))))}
          onTakeOver={onTakeOver}
        />
      </DndContext>
      <LeftOut draft={draft} />
      <Checks
        draft={draft}
        checks={explained?.checks ?? []}
        notes={notes}
        onRepair={repair}
        onShow={(index) => onSelect(items[index]?.id ?? null)}
      />
    </section>
  );
}
