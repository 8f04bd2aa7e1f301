import { Button, Group } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import type { Draft } from '@yonder/core/contracts';
import type { RoutineItem } from '@yonder/core/domain';
import { nameOf, reasonText } from '@yonder/core/words';
import { useCallback, useEffect, useRef } from 'react';
import { useReference } from '../../app/reference.tsx';
import { useAppDispatch } from '../../app/store.ts';
import type { Explained } from '../../workers/protocol.ts';
import { Checks } from './Checks.tsx';
import { requestChanged } from './draftSlice.ts';
import { ItemTable } from './ItemTable.tsx';
import classes from './Routine.module.css';
import { useEdit } from './useEdit.ts';

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
  /** Why each is in and what is wrong; null while that is worked out. */
  explained: Explained | null;
  /** Lines beside the checks. */
  notes: string[];
  /** The drill explained beside the list. */
  selected: string | null;
  /** A drill was pressed. */
  onSelect: (drill: string | null) => void;
  /** Something was done that is worth saying. */
  onNote: (note: string) => void;
}

/** The list being edited with what the checks say of it. */
export function Sheet({ draft, explained, notes, selected, onSelect, onNote }: Props) {
  const reference = useReference();
  const edit = useEdit();
  const refused = useRef<string | null>(null);
  const repair = useCallback(
    (items: readonly RoutineItem[], what: string) => {
      edit.change(items);
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
  return (
    <section className={`card ${classes.sheet}`} aria-label="Routine being edited">
      <ItemTable
        draft={draft}
        explained={explained}
        selected={selected}
        onSelect={onSelect}
        onTooHard={(drill) => (refused.current = drill)}
        onMoved={onNote}
      />
      <LeftOut draft={draft} />
      <Checks
        checks={explained?.checks ?? []}
        notes={notes}
        onRepair={repair}
        onShow={(index) => onSelect(draft.items[index]?.drill ?? null)}
      />
    </section>
  );
}
