import { Group, Select, Table, Text, Title } from '@mantine/core';
import type { RoutineRow } from '@yonder/core/contracts';
import {
  amountText,
  duration,
  itemChange,
  MODE_LABEL,
  nameOf,
  reasonText,
  sideText,
  withSide,
} from '@yonder/core/words';
import { isShort, measuredBetween } from '@yonder/core/findings';
import { routineChanges } from '@yonder/core/routine';
import { useSearchParams } from 'react-router';
import { useReference } from '../../app/reference.tsx';
import { dayText } from '../../app/today.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import classes from './Routine.module.css';

function label(routine: RoutineRow): string {
  return `Version ${routine.number}, ${dayText(routine.issuedOn)} (${MODE_LABEL[routine.mode].toLowerCase()})`;
}

type Named = RoutineRow['findings'][0];

/** What was short in one version and not in the other; what was measured in between and what only time passed over. */
function useFindingsChange(before: RoutineRow | undefined, after: RoutineRow | undefined) {
  const reference = useReference();
  const { case: input } = useWorkspace();
  if (!before || !after) return { gone: [], come: [], unmeasured: [] };
  const key = (f: Named) => `${f.restriction}/${f.side}`;
  const was = before.findings.filter(isShort);
  const is = after.findings.filter(isShort);
  const only = (list: readonly Named[], other: readonly Named[]) =>
    list.filter((f) => !other.some((o) => key(o) === key(f)));
  const [from, to] = [before.issuedOn, after.issuedOn].sort() as [string, string];
  const measured = (f: Named) => measuredBetween(reference, input.screenings, f, from, to);
  const gone = only(was, is);
  const come = only(is, was);
  return {
    gone: gone.filter(measured),
    come: come.filter(measured),
    unmeasured: [...gone, ...come].filter((f) => !measured(f)),
  };
}

/** Two issued versions side by side, every difference in words. */
export function Compare({ routines }: { routines: readonly RoutineRow[] }) {
  const reference = useReference();
  const [search, setSearch] = useSearchParams();
  const at = (key: string, fallback: number) =>
    routines.find((r) => String(r.number) === search.get(key)) ?? routines[fallback];
  const before = at('from', 1);
  const after = at('to', 0);
  const { gone, come, unmeasured } = useFindingsChange(before, after);
  if (!before || !after || routines.length < 2) return null;
  const pick = (key: string) => (number: string | null) => {
    search.set(key, number ?? '');
    setSearch(search, { replace: true });
  };
  const options = routines.map((routine) => ({ value: String(routine.number), label: label(routine) }));
  const changes = routineChanges(reference, before.items, after.items);
  const ids = [...new Set([...before.items, ...after.items].map((item) => item.drill))];
  const side = (routine: RoutineRow, drill: string) => {
    const item = routine.items.find((i) => i.drill === drill);
    const known = reference.drills.get(drill);
    if (!item) return '–';
    return `${amountText(item)}${known ? ` ${sideText(known, item)}` : ''}`;
  };
  const difference = (drill: string) => {
    const old = before.items.find((i) => i.drill === drill);
    const now = after.items.find((i) => i.drill === drill);
    if (!old) return 'added';
    if (!now) return 'left out';
    return itemChange(reference, old, now) || 'same';
  };
  const named = (list: readonly Named[]) =>
    list.map((f) => withSide(nameOf(reference, f.restriction).toLowerCase(), f.side)).join('; ');
  const seconds = after.totalSeconds - before.totalSeconds;
  return (
    <section className={`card ${classes.version}`} aria-labelledby="compare-title">
      <Group justify="space-between" align="flex-end" mb={8}>
        <Title order={2} size={18} id="compare-title">
          Compare versions
        </Title>
        <Group gap="xs">
          <Select
            size="xs"
            w={230}
            aria-label="Compare from"
            data={options}
            value={String(before.number)}
            onChange={pick('from')}
            allowDeselect={false}
          />
          <Select
            size="xs"
            w={230}
            aria-label="Compare to"
            data={options}
            value={String(after.number)}
            onChange={pick('to')}
            allowDeselect={false}
          />
        </Group>
      </Group>
      <ul className={classes.changes} aria-label="Differences">
        {changes.map((change, i) => (
          <li key={i}>{reasonText(reference, change)}</li>
        ))}
        <li>
          Time {duration(before.totalSeconds)} → {duration(after.totalSeconds)}
          {seconds === 0 ? '' : ` (${seconds > 0 ? '+' : '−'}${Math.abs(seconds)} s)`}
        </li>
        {gone.length > 0 ? <li>Measured again and no longer short: {named(gone)}</li> : null}
        {come.length > 0 ? <li>Measured again and short now: {named(come)}</li> : null}
        {unmeasured.length > 0 ? (
          <li>Ranked otherwise, not measured in between: {named(unmeasured)}</li>
        ) : null}
      </ul>
      <Table.ScrollContainer minWidth={560}>
        <Table verticalSpacing={4} fz="sm">
          <Table.Thead>
            <Table.Tr>
              <Table.Th>Drill</Table.Th>
              <Table.Th>Version {before.number}</Table.Th>
              <Table.Th>Version {after.number}</Table.Th>
              <Table.Th>Difference</Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {ids.map((drill) => (
              <Table.Tr
                key={drill}
                data-same={difference(drill) === 'same' || undefined}
                className={classes.compareRow}
              >
                <Table.Th scope="row" fw={650}>
                  {nameOf(reference, drill)}
                </Table.Th>
                <Table.Td>{side(before, drill)}</Table.Td>
                <Table.Td>{side(after, drill)}</Table.Td>
                <Table.Td>{difference(drill)}</Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      </Table.ScrollContainer>
      <Text size="xs" c="var(--muted)">
        Issued {dayText(before.issuedOn)} by {before.issuedBy}, and {dayText(after.issuedOn)} by{' '}
        {after.issuedBy}. An issued version is never changed.
      </Text>
    </section>
  );
}
