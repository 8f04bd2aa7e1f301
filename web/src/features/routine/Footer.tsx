import { PAUSE } from '@yonder/core/reference';
import { ActionIcon, Alert, Button, Group } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { IconArrowBackUp, IconArrowForwardUp } from '@tabler/icons-react';
import { FATIGUE_CAP } from '@yonder/core/builder';
import { needReason } from '@yonder/core/checks';
import type { Check } from '@yonder/core/checks';
import type { Draft, OverrideInput } from '@yonder/core/contracts';
import { duration, number, REGION_LABEL } from '@yonder/core/words';
import { useState } from 'react';
import type { ReactNode } from 'react';
import { errorText } from '../../app/api.ts';
import { forget } from '../../app/kept/store.ts';
import { useReference } from '../../app/reference.tsx';
import { useAppDispatch, useAppSelector } from '../../app/store.ts';
import type { ExplainedItems } from './useExplained.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import { opened, redone, undone } from './draftSlice.ts';
import { costChange, costText } from './orderWords.ts';
import { leftSo } from './Checks.tsx';
import { OverridesDialog, reasonsKey } from './OverridesDialog.tsx';
import classes from './Routine.module.css';
import { useIssueRoutineMutation } from './routineEndpoints.ts';
import { totalsOf } from './totals.ts';
import { draftName } from './useDraft.ts';
import { useEdit } from './useEdit.ts';
import type { Totals } from './totals.ts';

/** Where the work goes by region, and how tiring it is. */
function Spread({ totals, cap, children }: { totals: Totals; cap: number; children: ReactNode }) {
  return (
    <div className={classes.spread}>
      <div className={classes.spreadText}>
        {totals.regions.slice(0, 4).map(({ region, seconds }) => (
          <span key={region}>
            {REGION_LABEL[region]} {duration(seconds)}
          </span>
        ))}
        <span data-over={totals.fatigue > cap || undefined}>
          fatigue {number(totals.fatigue, 0)} of {cap}
        </span>
        {children}
      </div>
    </div>
  );
}

interface Props {
  /** The routine being edited. */
  draft: Draft;
  /** Minutes there are. */
  minutes: number;
  /** Number of the version it would become. */
  nextNumber: number;
  /** Order, checks and explanations; null while they are worked out. */
  explained: ExplainedItems | null;
  /** What the last move cost. */
  note: string;
  /** Something to say beside the order. */
  onNote: (note: string) => void;
  /** Why the last change could not be kept; null when it was. */
  problem: string | null;
  /** Waits until every change of the draft is with the server. */
  settled: () => Promise<unknown>;
  /** How well the routine as it stands is proven; empty once it was edited. */
  proof: string;
  /** More that can be done with the routine, beside Discard. */
  tools: ReactNode;
}

function Order({ draft, explained, note, onNote }: Pick<Props, 'draft' | 'explained' | 'note' | 'onNote'>) {
  const edit = useEdit();
  if (!explained) return null;
  const { order, best } = explained;
  const moved = best.items.map((i) => i.drill).join() !== draft.items.map((i) => i.drill).join();
  const better = moved && best.cost.total < order.total;
  return (
    <>
      <span role="status">{note || (better ? `Order: ${costText(order)}.` : '')}</span>
      {better ? (
        <Button
          size="compact-xs"
          variant="light"
          onClick={() => {
            edit.change(best.items);
            onNote(`Put into order: ${costChange(order, best.cost)}.`);
          }}
        >
          Put into order ({costChange(order, best.cost)})
        </Button>
      ) : null}
    </>
  );
}

/** One step back, one step forward. */
function UndoRedo() {
  const dispatch = useAppDispatch();
  const { past, future } = useAppSelector((state) => state.draft);
  const steps = [
    { label: 'Undo', keys: 'Ctrl Z', icon: <IconArrowBackUp size={18} />, left: past, go: undone },
    { label: 'Redo', keys: 'Ctrl Shift Z', icon: <IconArrowForwardUp size={18} />, left: future, go: redone },
  ];
  return steps.map(({ label, keys, icon, left, go }) => (
    <ActionIcon
      key={label}
      variant="default"
      size="lg"
      aria-label={label}
      title={`${label} (${keys})`}
      disabled={left.length === 0}
      onClick={() => dispatch(go())}
    >
      {icon}
    </ActionIcon>
  ));
}

/** Exact total, where it goes, order, undo, and issuing the version. */
export function Footer({
  draft,
  minutes,
  nextNumber,
  explained,
  note,
  onNote,
  problem,
  settled,
  proof,
  tools,
}: Props) {
  const reference = useReference();
  const dispatch = useAppDispatch();
  const { athlete, on, occasion } = useWorkspace();
  const [issue, { isLoading, error }] = useIssueRoutineMutation();
  const totals = totalsOf(reference, draft);
  const over = totals.seconds - minutes * 60;
  // Rests and what is only read are lines, and no drills.
  const done = draft.items.filter(({ drill, amount }) => drill !== PAUSE && amount > 0).length;
  const count =
    explained?.checks.filter((check) => check.level !== 'note' && !leftSo(draft, check)).length ?? 0;
  const [asking, setAsking] = useState<readonly Check[] | null>(null);
  const send = (overrides: OverrideInput[]) => {
    setAsking(null);
    const { request, structure, sections, items } = draft;
    const said = draft.left.map(({ item, rule, why }) => ({ item, rule, why }));
    const body = {
      on,
      occasion,
      mode: request.mode,
      structure,
      sections,
      request,
      items,
      overrides: [...said, ...overrides],
    };
    // The server ends the draft with the issue: a change still on its way would bring it back.
    settled()
      .then(() => issue({ athleteId: athlete.id, body }).unwrap())
      .then(
        (row) => {
          const of = draftName(athlete.id, occasion);
          forget(`draft/${of}`);
          forget(reasonsKey(of));
          dispatch(opened({ of, draft: null }));
          notifications.show({ message: `Version ${row.number} is issued.` });
        },
        () => undefined, // shown beside the button
      );
  };
  const press = () => {
    const against = needReason(explained?.checks ?? []).filter((check) => !leftSo(draft, check));
    if (against.length > 0) setAsking(against);
    else send([]);
  };
  return (
    <div className={`card ${classes.footer}`}>
      {asking ? (
        <OverridesDialog
          checks={asking}
          draft={draft}
          number={nextNumber}
          onIssue={send}
          onClose={() => setAsking(null)}
        />
      ) : null}
      <div className={classes.total} data-over={over > 0 || undefined}>
        <span data-testid="total">{duration(totals.seconds)}</span>
        <span className={classes.totalNote}>
          {over > 0 ? `${duration(over)} over ${minutes} min` : `of ${minutes} min`}, {done}{' '}
          {done === 1 ? 'drill' : 'drills'}
        </span>
      </div>
      <Group gap={6} wrap="nowrap">
        <UndoRedo />
        {tools}
        <Button loading={isLoading} disabled={draft.items.length === 0 || explained === null} onClick={press}>
          Issue version {nextNumber}
        </Button>
      </Group>
      <Spread totals={totals} cap={draft.request.fatigueCap ?? FATIGUE_CAP[draft.request.mode]}>
        {count > 0 ? (
          <button
            type="button"
            className={classes.link}
            onClick={() => document.getElementById('checks')?.scrollIntoView({ block: 'center' })}
          >
            ▲ {count} {count === 1 ? 'check' : 'checks'} to look at
          </button>
        ) : null}
        {proof ? <span role="status">{proof}</span> : null}
        <Order draft={draft} explained={explained} note={note} onNote={onNote} />
      </Spread>
      {error || problem ? (
        <Alert color="copper" role="alert" p={8} className={classes.wide}>
          {error ? errorText(error) : `Not kept: ${problem}`}
        </Alert>
      ) : null}
    </div>
  );
}
