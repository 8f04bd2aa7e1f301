import { Button, Group, Loader, Text, Title } from '@mantine/core';
import {
  IconAlertOctagonFilled,
  IconAlertTriangle,
  IconArrowsSplit2,
  IconClock,
  IconMessageQuestion,
  IconRulerMeasure,
} from '@tabler/icons-react';
import { useHotkeys } from '@mantine/hooks';
import type { AthleteSummary } from '@yonder/core/contracts';
import { useRef, useState } from 'react';
import { Link } from 'react-router';
import { Allowed } from '../../app/Allowed.tsx';
import { Refusal } from '../../components/Refusal.tsx';
import { useReference } from '../../app/reference.tsx';
import { today, weekdayText } from '../../app/today.ts';
import { Figures } from '../../components/Figures.tsx';
import { SideMark } from '../../components/SideMark.tsx';
import { useAthletesQuery } from '../athletes/athleteEndpoints.ts';
import { useRecentSessionsQuery } from '../run/sessionEndpoints.ts';
import classes from './Today.module.css';
import { sideName, todoSide, todoWords } from './todoWords.ts';
import type { Todo, TodoWords } from './todoWords.ts';

interface Line {
  readonly athlete: AthleteSummary;
  readonly todo: Todo;
  readonly words: TodoWords;
}

const GROUPS = [
  { id: 'first', title: 'Before anybody moves' },
  { id: 'work', title: 'Changes work done today' },
  { id: 'quiet', title: 'When there is a quiet hour' },
] as const;

const ICON = {
  blocked: IconAlertOctagonFilled,
  referred: IconAlertOctagonFilled,
  pain: IconAlertTriangle,
  'not-asked': IconMessageQuestion,
  decisions: IconArrowsSplit2,
  review: IconClock,
  rescreen: IconRulerMeasure,
} as const;

/** Lines shown of a group at first; the rest is one press away. */
const SHOWN = 12;
const POLL_MS = 2000;

function useLines(athletes: readonly AthleteSummary[]): Line[] {
  const reference = useReference();
  return athletes
    .flatMap((athlete) => athlete.todo.map((todo) => ({ athlete, todo, words: todoWords(reference, todo) })))
    .sort((a, b) => b.words.rank - a.words.rank || (a.athlete.name < b.athlete.name ? -1 : 1));
}

function Row({ athlete, todo, words }: Line) {
  const Icon = ICON[todo.kind];
  const side = todoSide(todo);
  return (
    <li className={classes.row} data-kind={todo.kind}>
      <Icon size={22} aria-hidden className={classes.icon} />
      <div className={classes.what}>
        <Link to={`/athletes/${athlete.id}/ridge`} className={classes.name}>
          {athlete.name}
        </Link>{' '}
        <span className="muted">{athlete.sport}</span>
        <div>
          {side ? (
            <>
              <SideMark side={side} state="short" size={12} />{' '}
              <span className="visually-hidden">{sideName(side)}: </span>
            </>
          ) : null}
          {words.what}
        </div>
      </div>
      <div className={classes.changes}>{words.changes}</div>
      <Button
        component={Link}
        to={`/athletes/${athlete.id}/${words.to}`}
        size="xs"
        data-todo
        variant={words.group === 'first' ? 'filled' : 'light'}
        color={todo.kind === 'blocked' ? 'red.9' : undefined}
        aria-label={`${words.action}: ${athlete.name}`}
      >
        {words.action}
      </Button>
    </li>
  );
}

function GroupOf({ title, lines }: { title: string; lines: readonly Line[] }) {
  const [all, setAll] = useState(false);
  if (lines.length === 0) return null;
  const shown = all ? lines : lines.slice(0, SHOWN);
  return (
    <section aria-label={title}>
      <h2 className={classes.group}>
        {title} <span>{lines.length}</span>
      </h2>
      <ul className={classes.rows}>
        {shown.map((line, i) => (
          <Row key={`${line.athlete.id}/${line.todo.kind}/${i}`} {...line} />
        ))}
      </ul>
      {shown.length < lines.length ? (
        <Button variant="subtle" size="compact-sm" onClick={() => setAll(true)}>
          {lines.length - shown.length} more
        </Button>
      ) : null}
    </section>
  );
}

/** What was run since yesterday, and what hurt in it. */
function Since() {
  const { data } = useRecentSessionsQuery(undefined, { refetchOnMountOrArgChange: true });
  if (!data) return null;
  const done = data.items.filter((session) => session.finished);
  const hurt = done.filter((session) => (session.pain ?? 0) > 0);
  const figures: [string, string][] = [
    ['Sessions run', String(done.length)],
    ['Begun, not finished', String(data.items.length - done.length)],
    ['With a drill left out or in part', String(done.filter((session) => session.left > 0).length)],
    [
      'With pain told',
      hurt.length === 0 ? '0' : `${hurt.length}, most ${Math.max(...hurt.map((s) => s.pain ?? 0))}/10`,
    ],
  ];
  return (
    <section className={`card ${classes.side}`} aria-labelledby="since">
      <h2 id="since">Since yesterday</h2>
      <Figures figures={figures} />
      <ul>
        {done.slice(0, 6).map((session) => (
          <li key={session.id}>
            <Link to={`/athletes/${session.athleteId}/progress`}>{session.athlete}</Link>{' '}
            <span className="muted">{session.pain ? `pain ${session.pain}/10` : 'no pain told'}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** With nothing to do: what to do first, or that nothing waits. */
function Nothing({ athletes }: { athletes: number }) {
  return (
    <div className={`card ${classes.nothing}`}>
      {athletes === 0 ? (
        <>
          <Title order={2} size={20}>
            Nobody here yet
          </Title>
          <Text>
            Add an athlete, go through the stop-and-refer questions with them (two minutes), screen the joints
            their sport asks of, and build the first routine.
          </Text>
          <Allowed least="assistant">
            <Button component={Link} to="/athletes/new" mt="sm">
              Add the first athlete
            </Button>
          </Allowed>
        </>
      ) : (
        <>
          <Title order={2} size={20}>
            Nothing waits
          </Title>
          <Text>
            No stop sign, no pain told, no decision and no review is open, and no rescreen could change a
            choice.
          </Text>
        </>
      )}
    </div>
  );
}

/** The door of the day: one ranked list of what waits, each one press from its work. */
export function TodayPage() {
  const [polling, setPolling] = useState(0);
  const { data, error } = useAthletesQuery(undefined, {
    pollingInterval: polling,
    refetchOnMountOrArgChange: true,
  });
  const wanted = (data?.pending ?? 0) > 0 ? POLL_MS : 0;
  if (wanted !== polling) setPolling(wanted);
  const athletes = data?.items ?? [];
  const lines = useLines(athletes);
  const list = useRef<HTMLDivElement>(null);
  const move = (by: 1 | -1) => {
    const all = [...(list.current?.querySelectorAll<HTMLElement>('[data-todo]') ?? [])];
    const at = all.indexOf(document.activeElement as HTMLElement);
    all[at < 0 ? 0 : Math.min(all.length - 1, Math.max(0, at + by))]?.focus();
  };
  useHotkeys([
    ['J', () => move(1)],
    ['K', () => move(-1)],
  ]);
  const first = lines.filter((line) => line.words.group === 'first').length;
  const old = athletes.reduce((sum, athlete) => sum + athlete.oldResults, 0);
  const asked = lines.filter((line) => line.todo.kind === 'rescreen').length;
  const free = athletes.filter((athlete) => athlete.todo.length === 0).length;
  return (
    <div className={classes.page}>
      <Group justify="space-between" align="baseline">
        <Title order={1} size={28}>
          {weekdayText(today())}{' '}
          <span className={classes.summary}>
            {first === 0 ? 'Nothing has to come first.' : `${first} before anybody moves.`}{' '}
            {lines.length - first} more can be done today.
          </span>
        </Title>
        <Group gap="xs">
          <Text size="sm" c="var(--muted)">
            <kbd>J</kbd> <kbd>K</kbd> down, up · <kbd>Enter</kbd> open
          </Text>
          <Button component={Link} to="/athletes/new" variant="light" size="xs">
            Add athlete
          </Button>
        </Group>
      </Group>
      <Refusal error={error} />
      {!data && !error ? <Loader aria-label="Loading" /> : null}
      {data ? (
        <div className={classes.columns}>
          <div ref={list}>
            {lines.length === 0 ? <Nothing athletes={athletes.length} /> : null}
            {GROUPS.map(({ id, title }) => (
              <GroupOf key={id} title={title} lines={lines.filter((line) => line.words.group === id)} />
            ))}
            <Text size="sm" c="var(--muted)" mt="sm" role="status">
              {Math.max(0, old - asked)} old results could change nothing now and are not asked for. {free}{' '}
              {free === 1 ? 'athlete needs' : 'athletes need'} nothing from you.
              {data.pending > 0 ? ` ${data.pending} are being worked out…` : ''}
            </Text>
          </div>
          <Since />
        </div>
      ) : null}
    </div>
  );
}
