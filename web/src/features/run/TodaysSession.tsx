import { ActionIcon, Button, Text, Title } from '@mantine/core';
import { IconArrowBackUp, IconArrowsExchange, IconMinus, IconPlus } from '@tabler/icons-react';
import type { TodayChange, TodaysCopy } from '@yonder/core/checkin';
import type { CheckInRow, RoutineRow } from '@yonder/core/contracts';
import { amountText, duration, lineName, reasonText } from '@yonder/core/words';
import { useEffect, useState } from 'react';
import { useReference } from '../../app/reference.tsx';
import { compute } from '../../workers/client.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import classes from './Run.module.css';

/** Today's copy of a version, worked out anew with everything that is said or put back; null while it is, or where nothing was said. */
export function useTodaysCopy(
  routine: RoutineRow | undefined,
  said: CheckInRow | undefined,
  undone: readonly string[],
): TodaysCopy | null {
  const { subject } = useWorkspace();
  const [copy, setCopy] = useState<TodaysCopy | null>(null);
  const spoken = routine !== undefined && said !== undefined && said.version !== null;
  useEffect(() => {
    if (!spoken) return undefined;
    let stale = false;
    const { by: _by, version: _version, ...checkIn } = said;
    const request = { ...subject.case.request, mode: routine.mode, schools: routine.schools };
    compute.call('today', subject, { request, items: routine.items, said: checkIn, undone }).then(
      (answer) => {
        if (!stale) setCopy(answer);
      },
      () => undefined, // the routine is started as issued; the server works the copy out itself
    );
    return () => {
      stale = true;
    };
  }, [spoken, subject, routine, said, undone]);
  return spoken ? copy : null;
}

const ICON = {
  out: <IconMinus size={17} />,
  shorter: <IconMinus size={17} />,
  eased: <IconMinus size={17} />,
  swapped: <IconArrowsExchange size={17} />,
  added: <IconPlus size={17} />,
  longer: <IconPlus size={17} />,
} as const;

/** "+1:15", "−0:45". */
const signed = (seconds: number) => {
  const size = Math.abs(Math.round(seconds));
  const sign = seconds < 0 ? '−' : '+';
  return `${sign}${Math.floor(size / 60)}:${String(size % 60).padStart(2, '0')}`;
};

interface Props {
  /** The version as issued. */
  routine: RoutineRow;
  /** As it is done today. */
  copy: TodaysCopy;
  /** Changes that were put back. */
  undone: readonly string[];
  /** A change is put back. */
  onUndo: (id: string) => void;
  /** Everything that was put back holds again. */
  onRestore: () => void;
}

/** What is otherwise today: each change with its reason and seconds, one press back; the issued version stays as it is. */
export function TodaysSession({ routine, copy, undone, onUndo, onRestore }: Props) {
  const reference = useReference();
  const nameOf = ({ item, id }: TodayChange) => {
    const now = copy.items.find((one) => one.id === (item ?? id));
    const issued = routine.items.find((one) => one.id === item);
    const line = now ?? issued;
    if (!line) return '';
    const swapped = issued && now && issued.drill !== now.drill;
    return swapped
      ? `${lineName(reference, now)} for ${lineName(reference, issued).toLowerCase()}`
      : lineName(reference, line);
  };
  const doseOf = ({ kind, item, id }: TodayChange) => {
    const now = copy.items.find((one) => one.id === (item ?? id));
    return now && kind !== 'out' ? amountText(now) : '';
  };
  return (
    <section className={classes.today} aria-label="Your session today">
      <Title order={3} size={16}>
        The session today: {duration(routine.totalSeconds)} → {duration(copy.seconds)}
      </Title>
      {copy.changes.length === 0 ? (
        <Text size="sm" c="var(--muted)">
          Nothing of what was said changes it.
        </Text>
      ) : (
        <ul>
          {copy.changes.map((change) => (
            <li key={change.id} data-kind={change.kind}>
              <span className={classes.changeMark}>{ICON[change.kind]}</span>
              <span>
                <b>{nameOf(change)}</b> {doseOf(change)}
                <span className={classes.because}>{reasonText(reference, change.because)}</span>
              </span>
              <span className={classes.changeSeconds}>{signed(change.seconds)}</span>
              {change.firm ? (
                <span className={classes.firm}>by rule</span>
              ) : (
                <ActionIcon
                  variant="default"
                  size="lg"
                  aria-label={`Put back: ${nameOf(change)}`}
                  onClick={() => onUndo(change.id)}
                >
                  <IconArrowBackUp size={18} />
                </ActionIcon>
              )}
            </li>
          ))}
        </ul>
      )}
      <Text size="sm" c="var(--muted)">
        Version {routine.number} stays as it was issued.
        {undone.length > 0 ? (
          <Button size="compact-xs" variant="subtle" onClick={onRestore}>
            {undone.length} put back: take up again
          </Button>
        ) : null}
      </Text>
    </section>
  );
}
