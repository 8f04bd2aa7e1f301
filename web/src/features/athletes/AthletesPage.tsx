import { Alert, Button, Group, Loader, Table, TextInput, Title } from '@mantine/core';
import { IconPlus, IconSearch } from '@tabler/icons-react';
import { nameOf, SIDE_MARK, STATE_LABEL } from '@yonder/core/words';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { errorText } from '../../app/api.ts';
import { useReference } from '../../app/reference.tsx';
import { shortDay, today } from '../../app/today.ts';
import { MiniRidge } from '../../components/MiniRidge.tsx';
import { useAthletesQuery } from './athleteEndpoints.ts';
import classes from './AthletesPage.module.css';
import type { AthleteSummary } from '@yonder/core/contracts';

function Restrictions({ athlete }: { athlete: AthleteSummary }) {
  const reference = useReference();
  if (athlete.restrictions.length === 0) {
    return <span className="muted">{athlete.lastScreening ? 'none beyond the error' : 'not screened'}</span>;
  }
  return (
    <>
      {athlete.restrictions.slice(0, 2).map((r) => (
        <div key={`${r.restriction}${r.side}`}>
          {SIDE_MARK[r.side]} {nameOf(reference, r.restriction)}{' '}
          <span className="muted">{STATE_LABEL[r.state as keyof typeof STATE_LABEL]}</span>
        </div>
      ))}
    </>
  );
}

function Row({ athlete }: { athlete: AthleteSummary }) {
  const due = athlete.rescreenDue !== null && athlete.rescreenDue <= today();
  return (
    <Table.Tr>
      <Table.Td>
        <Link to={`/athletes/${athlete.id}/ridge`} className={classes.name}>
          {athlete.name}
        </Link>
        <div className="muted">{athlete.sport}</div>
      </Table.Td>
      <Table.Td>
        <MiniRidge ridge={athlete.ridge} name={athlete.name} />
      </Table.Td>
      <Table.Td>
        <Restrictions athlete={athlete} />
      </Table.Td>
      <Table.Td>
        {athlete.blocked ? <span className={classes.stop}>stop and refer</span> : null}
        {athlete.precautions > 0 ? (
          <span className={classes.precaution}>
            {athlete.precautions} {athlete.precautions === 1 ? 'precaution' : 'precautions'}
          </span>
        ) : null}
      </Table.Td>
      <Table.Td>{athlete.lastScreening ? shortDay(athlete.lastScreening) : '–'}</Table.Td>
      <Table.Td>
        {athlete.rescreenDue ? (
          <>
            {shortDay(athlete.rescreenDue)} {due ? <b>due</b> : null}
          </>
        ) : (
          '–'
        )}
      </Table.Td>
      <Table.Td>{athlete.routineVersion ? `version ${athlete.routineVersion}` : 'none'}</Table.Td>
    </Table.Tr>
  );
}

/** Everybody of the practice at a glance, with the way to a new athlete. */
export function AthletesPage() {
  const [search, setSearch] = useSearchParams();
  // The field has its own state: the address follows a moment later and must not swallow keys.
  const [wanted, setWanted] = useState(search.get('q') ?? '');
  const look = (text: string) => {
    setWanted(text);
    setSearch(text ? { q: text } : {}, { replace: true });
  };
  const { data, error, isLoading } = useAthletesQuery();
  const shown = (data ?? []).filter((a) =>
    `${a.name} ${a.sport}`.toLowerCase().includes(wanted.toLowerCase()),
  );
  return (
    <div className={classes.page}>
      <Group justify="space-between" mb="sm">
        <Title order={1} size={26}>
          Athletes
        </Title>
        <Group>
          <TextInput
            aria-label="Search athletes"
            placeholder="Name or sport"
            leftSection={<IconSearch size={16} />}
            value={wanted}
            onChange={(e) => look(e.currentTarget.value)}
          />
          <Button component={Link} to="/athletes/new" leftSection={<IconPlus size={16} />}>
            Add athlete
          </Button>
        </Group>
      </Group>
      {error ? (
        <Alert color="copper" role="alert">
          {errorText(error)}
        </Alert>
      ) : null}
      {isLoading ? <Loader aria-label="Loading" /> : null}
      {data ? (
        <div className={`card ${classes.table}`}>
          <Table verticalSpacing={8} horizontalSpacing="md">
            <Table.Thead>
              <Table.Tr>
                <Table.Th>Athlete</Table.Th>
                <Table.Th>Ridge</Table.Th>
                <Table.Th>Shortest first</Table.Th>
                <Table.Th>Flags</Table.Th>
                <Table.Th>Screened</Table.Th>
                <Table.Th>Rescreen</Table.Th>
                <Table.Th>Routine</Table.Th>
              </Table.Tr>
            </Table.Thead>
            <Table.Tbody>
              {shown.map((athlete) => (
                <Row key={athlete.id} athlete={athlete} />
              ))}
            </Table.Tbody>
          </Table>
          {shown.length === 0 ? <p className={classes.empty}>Nobody of that name or sport.</p> : null}
        </div>
      ) : null}
    </div>
  );
}
