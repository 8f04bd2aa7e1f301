import { Button, Group, Loader, Select, Table, Text, Title } from '@mantine/core';
import type { AuditFilter, AuditRow } from '@yonder/core/contracts';
import { Link } from 'react-router';
import { Refusal } from '../../components/Refusal.tsx';
import { useAddress } from '../../app/useAddress.ts';
import { timeText } from '../../app/today.ts';
import { DayInput } from '../../components/DayInput.tsx';
import { useAthletesQuery } from '../athletes/athleteEndpoints.ts';
import { usePeopleQuery } from '../people/peopleEndpoints.ts';
import { auditQuery, useAuditInfiniteQuery } from './auditEndpoints.ts';

const FILTERS = ['athlete', 'actor', 'action', 'from', 'to'] as const;
/** Kinds of action, by their first word. */
const ACTIONS = [
  'account',
  'athlete',
  'case',
  'gate',
  'injury',
  'pain',
  'person',
  'precaution',
  'protocol',
  'red-flag',
  'result',
  'routine',
  'session',
  'decisions',
  'audit',
] as const;

/** "case.read" → "case: read". */
const actionText = (action: string) => action.replaceAll('-', ' ').replace('.', ': ');

function Row({ at, actor, athlete, action, change, refused }: AuditRow) {
  return (
    <Table.Tr>
      <Table.Td>{timeText(at)}</Table.Td>
      <Table.Td>{actor.name ?? actor.kind}</Table.Td>
      <Table.Td>
        {actionText(action)}
        {refused ? (
          <Text span size="sm" c="var(--danger)">
            , refused ({actionText(refused)})
          </Text>
        ) : null}
        {change ? (
          <Text size="xs" c="var(--muted)">
            {change.what}: {change.was} → {change.is}. {change.why}
          </Text>
        ) : null}
      </Table.Td>
      <Table.Td>
        {athlete ? <Link to={`/athletes/${athlete.id}/story`}>{athlete.name ?? 'erased'}</Link> : '–'}
      </Table.Td>
    </Table.Tr>
  );
}

/** Who saw and changed what, newest first; for owners. */
export function AuditPage() {
  const [search, set] = useAddress();
  const filter: AuditFilter = Object.fromEntries(
    FILTERS.flatMap((key) => (search.get(key) ? [[key, search.get(key)]] : [])),
  );
  const { data: people } = usePeopleQuery();
  const { data: athletes } = useAthletesQuery();
  const { data, error, hasNextPage, fetchNextPage, isFetching } = useAuditInfiniteQuery(filter);
  const rows = data?.pages.flatMap((page) => page.items) ?? [];
  return (
    <div style={{ padding: '18px 24px' }}>
      <Group justify="space-between" mb="xs">
        <Title order={1} size={26}>
          Audit
        </Title>
        <Text size="sm" c="var(--muted)" role="status">
          {rows.length > 0 ? `the newest ${rows.length}` : ''}
        </Text>
      </Group>
      <Group gap="xs" mb="xs" align="flex-end">
        <Select
          label="Who"
          w={200}
          clearable
          searchable
          data={(people ?? []).map(({ id, name }) => ({ value: id, label: name }))}
          value={filter.actor ?? null}
          onChange={(value) => set({ actor: value })}
        />
        <Select
          label="Athlete"
          w={220}
          clearable
          searchable
          data={(athletes?.items ?? []).map(({ id, name }) => ({ value: id, label: name }))}
          value={filter.athlete ?? null}
          onChange={(value) => set({ athlete: value })}
        />
        <Select
          label="What"
          w={180}
          clearable
          searchable
          data={[...ACTIONS]}
          value={filter.action ?? null}
          onChange={(value) => set({ action: value })}
        />
        <DayInput label="From" value={filter.from ?? ''} onChange={(value) => set({ from: value })} />
        <DayInput label="To" value={filter.to ?? ''} onChange={(value) => set({ to: value })} />
        <Button component="a" variant="default" href={`/api/v1/audit.csv?${auditQuery(filter)}`}>
          Export CSV
        </Button>
      </Group>
      <Refusal error={error} />
      <Table.ScrollContainer minWidth={640} className="card">
        <Table verticalSpacing={6} fz="sm">
          <Table.Thead>
            <Table.Tr>
              {['When', 'Who', 'What', 'Athlete'].map((heading) => (
                <Table.Th key={heading}>{heading}</Table.Th>
              ))}
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {rows.map((row) => (
              <Row key={row.id} {...row} />
            ))}
          </Table.Tbody>
        </Table>
      </Table.ScrollContainer>
      {isFetching ? <Loader m="md" aria-label="Loading" /> : null}
      {hasNextPage ? (
        <Button mt="sm" variant="default" onClick={() => void fetchNextPage()}>
          Earlier
        </Button>
      ) : null}
    </div>
  );
}
