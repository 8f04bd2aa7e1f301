import { Button, Chip, Group, Loader, Text, TextInput, Title } from '@mantine/core';
import { IconPlus, IconSearch } from '@tabler/icons-react';
import { useVirtualizer } from '@tanstack/react-virtual';
import type { AthleteSummary } from '@yonder/core/contracts';
import { nameOf, SIDE_MARK, STATE_LABEL } from '@yonder/core/words';
import { useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import { Allowed } from '../../app/Allowed.tsx';
import { Refusal } from '../../components/Refusal.tsx';
import { useAddress } from '../../app/useAddress.ts';
import { useReference } from '../../app/reference.tsx';
import { shortDay } from '../../app/today.ts';
import { MiniRidge } from '../../components/MiniRidge.tsx';
import { useArchivedAthletesQuery, useAthletesQuery } from './athleteEndpoints.ts';
import classes from './AthletesPage.module.css';
import { FILTERS, SORTS, viewAthletes } from './listFilter.ts';
import type { FilterKey, ListView, SortKey } from './listFilter.ts';

const ROW_PX = 64;
/** Findings of some athletes are still being worked out: ask again after this time. */
const POLL_MS = 2000;

function Restrictions({ athlete }: { athlete: AthleteSummary }) {
  const reference = useReference();
  if (!athlete.judged) return <span className="muted">being worked out…</span>;
  if (athlete.restrictions.length === 0) {
    const why = athlete.blocked ? 'none shown' : 'none beyond the error';
    return <span className="muted">{athlete.lastScreening ? why : 'not screened'}</span>;
  }
  return (
    <>
      {athlete.restrictions.slice(0, 2).map((r) => (
        <div key={`${r.restriction}${r.side}`} className={classes.clip}>
          {SIDE_MARK[r.side]} {nameOf(reference, r.restriction)}{' '}
          <span className="muted">{STATE_LABEL[r.state as keyof typeof STATE_LABEL]}</span>
        </div>
      ))}
    </>
  );
}

function Flags({ athlete }: { athlete: AthleteSummary }) {
  const { blocked, precautions, protocol, real, reviewsDue } = athlete;
  return (
    <>
      {blocked ? <span className={classes.stop}>stop and refer</span> : null}
      {protocol ? <span className={classes.precaution}>protocol</span> : null}
      {precautions > 0 ? (
        <span className={classes.precaution}>
          {precautions} {precautions === 1 ? 'precaution' : 'precautions'}
          {reviewsDue > 0 ? ', review due' : ''}
        </span>
      ) : null}
      {real.better + real.worse > 0 ? (
        <span className={classes.change}>
          {real.better > 0 ? `${real.better} really better` : ''}
          {real.better > 0 && real.worse > 0 ? ', ' : ''}
          {real.worse > 0 ? `${real.worse} really worse` : ''}
        </span>
      ) : null}
    </>
  );
}

function Row({ athlete, index }: { athlete: AthleteSummary; index: number }) {
  const due = athlete.todo.some((todo) => todo.kind === 'rescreen');
  return (
    <tr aria-rowindex={index + 2} style={{ height: ROW_PX }}>
      <td>
        <Link to={`/athletes/${athlete.id}/ridge`} className={classes.name}>
          {athlete.name}
        </Link>
        <div className="muted">
          {athlete.sport}
          {athlete.age < 16 ? `, ${athlete.age} years` : ''}
        </div>
      </td>
      <td>
        <MiniRidge ridge={athlete.ridge} name={athlete.name} />
      </td>
      <td>
        <Restrictions athlete={athlete} />
      </td>
      <td>
        <Flags athlete={athlete} />
      </td>
      <td>{athlete.lastScreening ? shortDay(athlete.lastScreening) : '–'}</td>
      <td>
        {athlete.rescreenDue ? (
          <>
            {shortDay(athlete.rescreenDue)} {due ? <b>worth it</b> : null}
          </>
        ) : (
          '–'
        )}
      </td>
      <td>{athlete.routineVersion ? `version ${athlete.routineVersion}` : 'none'}</td>
    </tr>
  );
}

/** What is looked for, kept in the address. The text field has its own state: the address follows a moment later and must not swallow keys. */
function useView() {
  const [search, set] = useAddress();
  const [text, setText] = useState(search.get('q') ?? '');
  const sort = SORTS.find((key) => key === search.get('sort')) ?? 'name';
  const chosen = (search.get('show') ?? '').split(',');
  const filters = (Object.keys(FILTERS) as FilterKey[]).filter((key) => chosen.includes(key));
  const down = search.get('down') === '1';
  return {
    view: { text, filters, sort, down } satisfies ListView,
    look: (next: string) => {
      setText(next);
      set({ q: next });
    },
    filterBy: (keys: string[]) => set({ show: keys.join(',') }),
    sortBy: (key: SortKey) => {
      // The worst first is what anybody wants of severity.
      const nextDown = key === sort ? !down : key === 'severity';
      set({ sort: key, down: nextDown ? '1' : null });
    },
  };
}

interface HeadProps {
  /** What is looked for, and the order. */
  view: ListView;
  /** A column was pressed; pressed again it turns round. */
  sortBy: (key: SortKey) => void;
}

function Head({ view, sortBy }: HeadProps) {
  const sortable = (key: SortKey, label: string) => (
    <th scope="col" aria-sort={view.sort === key ? (view.down ? 'descending' : 'ascending') : undefined}>
      <button type="button" onClick={() => sortBy(key)} aria-label={`Sort by ${label.toLowerCase()}`}>
        {label} {view.sort === key ? (view.down ? '▾' : '▴') : ''}
      </button>
    </th>
  );
  return (
    <thead>
      <tr aria-rowindex={1}>
        {sortable('name', 'Athlete')}
        <th scope="col">Ridge</th>
        {sortable('severity', 'Shortest first')}
        <th scope="col">Flags</th>
        {sortable('screened', 'Screened')}
        {sortable('rescreen', 'Rescreen')}
        <th scope="col">Routine</th>
      </tr>
    </thead>
  );
}

/** The rows in view only, however many there are. */
function List({ shown, view, sortBy }: HeadProps & { shown: readonly AthleteSummary[] }) {
  const box = useRef<HTMLDivElement>(null);
  // eslint-disable-next-line react-hooks/incompatible-library -- this component does nothing that would need memoizing
  const rows = useVirtualizer({
    count: shown.length,
    getScrollElement: () => box.current,
    estimateSize: () => ROW_PX,
    overscan: 8,
  });
  const items = rows.getVirtualItems();
  const before = items[0]?.start ?? 0;
  const after = rows.getTotalSize() - (items.at(-1)?.end ?? 0);
  return (
    <div
      className={`card ${classes.table}`}
      ref={box}
      tabIndex={0}
      role="region"
      aria-label="List of athletes"
    >
      <table aria-rowcount={shown.length + 1}>
        <Head view={view} sortBy={sortBy} />
        <tbody>
          {before > 0 ? (
            <tr aria-hidden="true" data-spacer>
              <td colSpan={7} style={{ height: before, padding: 0 }} />
            </tr>
          ) : null}
          {items.map((item) => {
            const athlete = shown[item.index];
            return athlete ? <Row key={athlete.id} athlete={athlete} index={item.index} /> : null;
          })}
          {after > 0 ? (
            <tr aria-hidden="true" data-spacer>
              <td colSpan={7} style={{ height: after, padding: 0 }} />
            </tr>
          ) : null}
        </tbody>
      </table>
      {shown.length === 0 ? (
        <p className={classes.empty}>Nobody matches. Clear the search or a filter.</p>
      ) : null}
    </div>
  );
}

/** Everybody of the practice at a glance, with the way to a new athlete. */
export function AthletesPage() {
  const { view, look, filterBy, sortBy } = useView();
  const [polling, setPolling] = useState(0);
  const [archived, setArchived] = useState(false);
  const present = useAthletesQuery(undefined, { pollingInterval: polling, skip: archived });
  const gone = useArchivedAthletesQuery(undefined, { skip: !archived, refetchOnMountOrArgChange: true });
  const { data, error, isLoading } = archived ? gone : present;
  const wanted = (data?.pending ?? 0) > 0 ? POLL_MS : 0;
  if (wanted !== polling) setPolling(wanted);
  const all = data?.items;
  const { text, filters, sort, down } = view;
  const key = filters.join();
  const shown = useMemo(
    () => viewAthletes(all ?? [], { text, filters: key ? (key.split(',') as FilterKey[]) : [], sort, down }),
    [all, text, key, sort, down],
  );
  return (
    <div className={classes.page}>
      <Group justify="space-between" mb="xs">
        <Title order={1} size={26}>
          Athletes
        </Title>
        <Group>
          <TextInput
            aria-label="Search athletes"
            placeholder="Name or sport"
            leftSection={<IconSearch size={16} />}
            value={text}
            onChange={(e) => look(e.currentTarget.value)}
          />
          <Button component={Link} to="/screenings" variant="default">
            Import, export
          </Button>
          <Allowed least="assistant">
            <Button component={Link} to="/athletes/new" leftSection={<IconPlus size={16} />}>
              Add athlete
            </Button>
          </Allowed>
        </Group>
      </Group>
      <Group gap={6} mb="xs">
        <Chip.Group multiple value={[...filters]} onChange={filterBy}>
          {(Object.keys(FILTERS) as FilterKey[]).map((filter) => (
            <Chip key={filter} value={filter} size="xs">
              {FILTERS[filter].label}
              {all ? ` ${all.filter((a) => FILTERS[filter].holds(a)).length}` : ''}
            </Chip>
          ))}
        </Chip.Group>
        <Chip size="xs" checked={archived} onChange={setArchived}>
          Archived
        </Chip>
        <Text size="sm" c="var(--muted)" role="status" ml="auto">
          {all ? `${shown.length} of ${all.length}` : ''}
          {data && data.pending > 0 ? `, ${data.pending} being worked out…` : ''}
        </Text>
      </Group>
      <Refusal error={error} />
      {isLoading ? <Loader aria-label="Loading" /> : null}
      {all ? <List shown={shown} view={view} sortBy={sortBy} /> : null}
    </div>
  );
}
