import { Alert, Button, Group, Loader, Table, Text, Title } from '@mantine/core';
import type { AuditRow } from '@yonder/core/contracts';
import { Link } from 'react-router';
import { errorText } from '../../app/api.ts';
import { timeText } from '../../app/today.ts';
import { useAuditInfiniteQuery } from './auditEndpoints.ts';

/** "case.read" → "case: read". */
const actionText = (action: string) => action.replaceAll('-', ' ').replace('.', ': ');

function Row({ at, actor, athlete, action }: AuditRow) {
  return (
    <Table.Tr>
      <Table.Td>{timeText(at)}</Table.Td>
      <Table.Td>{actor.name ?? actor.kind}</Table.Td>
      <Table.Td>{actionText(action)}</Table.Td>
      <Table.Td>
        {athlete ? <Link to={`/athletes/${athlete.id}/story`}>{athlete.name ?? 'erased'}</Link> : '–'}
      </Table.Td>
    </Table.Tr>
  );
}

/** Who saw and changed what, newest first; for owners. */
export function AuditPage() {
  const { data, error, hasNextPage, fetchNextPage, isFetching } = useAuditInfiniteQuery();
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
      {error ? (
        <Alert color="copper" role="alert">
          {errorText(error)}
        </Alert>
      ) : null}
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
