import { Button, Checkbox, Group, Select, Text, Title } from '@mantine/core';
import { useHotkeys } from '@mantine/hooks';
import { REGIONS } from '@yonder/core/domain';
import type { Region } from '@yonder/core/domain';
import type { RedFlag } from '@yonder/core/reference';
import type { GateTopic } from '@yonder/core/safety';
import { nameOf } from '@yonder/core/words';
import { useState } from 'react';
import { Refusal } from '../../components/Refusal.tsx';
import { RestoredNote } from '../../app/kept/RestoredNote.tsx';
import { useKeptState } from '../../app/kept/useKept.ts';
import { useReference } from '../../app/reference.tsx';
import { dayText } from '../../app/today.ts';
import { useAnswerGateMutation } from '../athletes/athleteEndpoints.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import classes from './Gate.module.css';
import { useGate } from './useGate.ts';
import type { Gate } from './useGate.ts';
import { useClock, useOpenFor } from './useOpenFor.ts';

const LEADS_TO = { E: 'now: emergency', U: 'today: doctor', R: 'refer', P: 'protocol leads' } as const;
/** An answer that came faster than it can be read out, in seconds. */
const TOO_FAST = 3;
const clock = (seconds: number) =>
  `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`;

type Ticked = Readonly<Record<string, Region | null>>;
const NONE_TICKED: Ticked = {};

interface SignsProps {
  /** The topic that is open. */
  topic: GateTopic;
  /** Signs that are there, each with its region where one is asked for. */
  ticked: Ticked;
  /** A sign was ticked, unticked, or its region chosen. */
  onChange: (ticked: Ticked) => void;
}

/** The signs of a topic, each with its full question one press away and what it leads to. */
function Signs({ topic, ticked, onChange }: SignsProps) {
  const reference = useReference();
  const [full, setFull] = useState<string | null>(null);
  const toggle = (sign: RedFlag, there: boolean) => {
    const { [sign.id]: _gone, ...rest } = ticked;
    onChange(there ? { ...rest, [sign.id]: topic.region } : rest);
  };
  return (
    <ul className={classes.signs}>
      {topic.signs.map(({ sign, short }) => (
        <li key={sign.id}>
          <div className={classes.sign}>
            <Checkbox
              size="md"
              label={short}
              checked={sign.id in ticked}
              onChange={(event) => toggle(sign, event.currentTarget.checked)}
            />
            <span className={classes.leads} data-level={sign.level}>
              {LEADS_TO[sign.level]}
            </span>
          </div>
          {short === sign.question ? null : full === sign.id ? (
            <p className={classes.full}>{sign.question}</p>
          ) : (
            <button type="button" className={classes.more} onClick={() => setFull(sign.id)}>
              more<span className="visually-hidden">: {short}</span>
            </button>
          )}
          {sign.askRegion && sign.id in ticked ? (
            <Select
              size="xs"
              w={240}
              ml={34}
              aria-label="Which region?"
              placeholder="Which region?"
              data={REGIONS.map((r) => ({ value: r, label: nameOf(reference, r) }))}
              value={ticked[sign.id] ?? null}
              onChange={(value) => onChange({ ...ticked, [sign.id]: value as Region | null })}
            />
          ) : null}
        </li>
      ))}
    </ul>
  );
}

interface TopicProps {
  /** The topic that is open. */
  topic: GateTopic;
  /** Its place among all of them, "Group 5 of 10". */
  place: string;
  /** What was said last; undefined when it was never asked. */
  asked: Gate['answers'] extends ReadonlyMap<string, infer Row> ? Row | undefined : never;
  /** Answered and stored; how many seconds it was open. */
  onAnswered: (seconds: number) => void;
}

/** What to say and do, once a sign is there. */
function WhatToDo({ signs, onDone }: { signs: readonly RedFlag[]; onDone: () => void }) {
  return (
    <div role="alert" className={classes.told}>
      {signs.map((sign) => (
        <p key={sign.id}>
          <b>{LEADS_TO[sign.level]}.</b> {sign.action}
        </p>
      ))}
      <Button onClick={onDone} mt="sm">
        Said and recorded: go on
      </Button>
    </div>
  );
}

/** One topic, read out; one answer, stored at once. */
function Topic({ topic, place, asked, onAnswered }: TopicProps) {
  const { athlete } = useWorkspace();
  const [answer, { isLoading, error }] = useAnswerGateMutation();
  const {
    value: ticked,
    set: setTicked,
    done,
    ...before
  } = useKeptState<Ticked>(`gate/${athlete.id}/${topic.id}`, `${topic.title}, signs ticked`, NONE_TICKED);
  const [told, setTold] = useState<readonly RedFlag[] | null>(null);
  const openFor = useOpenFor();
  const there = topic.signs.filter(({ sign }) => sign.id in ticked).map(({ sign }) => sign);
  const incomplete = there.some((sign) => sign.askRegion && ticked[sign.id] === null);
  const yes = topic.expects === 'yes';
  const send = (outcome: 'none' | 'signs' | 'unknown') => {
    if (isLoading || told) return;
    const seconds = openFor();
    const signs =
      outcome === 'signs' ? there.map(({ id }) => ({ redFlag: id, region: ticked[id] ?? null })) : [];
    answer({ athleteId: athlete.id, body: { topic: topic.id, outcome, seconds, signs } })
      .unwrap()
      .then(
        () => {
          done();
          if (outcome === 'signs') setTold(there);
          else onAnswered(seconds);
        },
        () => undefined, // shown below the signs
      );
  };
  const none = () => there.length === 0 && send('none');
  useHotkeys([
    [yes ? 'Y' : 'N', none],
    ['D', () => there.length === 0 && send('unknown')],
  ]);
  if (told) return <WhatToDo signs={told} onDone={() => onAnswered(0)} />;
  return (
    <>
      <div className={classes.place}>
        <span>
          {place}
          {yes ? ' · asked the other way round' : ''}
        </span>
        <span>{asked ? `last asked: ${dayText(asked.on)}` : 'last asked: never'}</span>
      </div>
      <h2 className={classes.ask} id="gate-ask">
        {topic.ask}
      </h2>
      <Text c="var(--muted)" size="sm">
        {yes ? 'If not, tick what is said.' : 'If so, tick what is said.'} One tick is enough; the rest can
        wait.
      </Text>
      <RestoredNote {...before} />
      <Signs topic={topic} ticked={ticked} onChange={setTicked} />
      <Refusal error={error} />
      <Group className={classes.answers}>
        {there.length > 0 ? (
          <Button
            size="lg"
            color="red.9"
            loading={isLoading}
            disabled={incomplete}
            onClick={() => send('signs')}
          >
            Record {there.length === 1 ? 'this sign' : `these ${there.length} signs`}
          </Button>
        ) : (
          <Button size="lg" loading={isLoading} onClick={none}>
            <kbd className={classes.key}>{yes ? 'Y' : 'N'}</kbd> {yes ? 'Yes, all of it' : 'No, none of it'}
          </Button>
        )}
        <Button
          size="lg"
          variant="default"
          disabled={there.length > 0 || isLoading}
          onClick={() => send('unknown')}
        >
          <kbd className={classes.key}>D</kbd> Does not know
        </Button>
      </Group>
    </>
  );
}

const OUTCOME = { none: 'none', signs: 'sign', unknown: 'open' } as const;

interface ListProps {
  /** Topics in the order they are asked. */
  topics: readonly GateTopic[];
  /** The one that is open. */
  open: string;
  /** Where the gate stands. */
  gate: Gate;
  /** Seconds each was open in this sitting. */
  took: ReadonlyMap<string, number>;
  /** Another one was pressed. */
  onOpen: (id: string) => void;
}

/** All topics with what was said, and how long it was read out. */
function TopicList({ topics, open, gate, took, onOpen }: ListProps) {
  const parts = [
    { title: 'Once this season', list: topics.filter((t) => t.region === null) },
    { title: 'Regions in play', list: topics.filter((t) => t.region !== null) },
  ];
  const isDue = (topic: GateTopic) => gate.due.some((other) => other.id === topic.id);
  return (
    <nav aria-label="Topics of the gate" className={classes.topics}>
      {parts.map(({ title, list }) =>
        list.length === 0 ? null : (
          <section key={title}>
            <h3>
              {title}
              <span>
                {list.filter((topic) => !isDue(topic)).length} of {list.length}
              </span>
            </h3>
            <ul>
              {list.map((topic) => {
                const said = gate.answers.get(topic.id);
                const seconds = took.get(topic.id) ?? said?.seconds ?? null;
                return (
                  <li key={topic.id}>
                    <button
                      type="button"
                      aria-current={topic.id === open || undefined}
                      data-done={!isDue(topic) || undefined}
                      onClick={() => onOpen(topic.id)}
                    >
                      <span aria-hidden>{isDue(topic) ? '○' : '✓'}</span>
                      <span>{topic.title}</span>
                      <span className={classes.said}>
                        {said ? OUTCOME[said.outcome] : ''}
                        {said && seconds ? ` ${clock(seconds)}` : ''}
                        {said && seconds !== null && seconds > 0 && seconds < TOO_FAST ? ' read?' : ''}
                      </span>
                    </button>
                  </li>
                );
              })}
            </ul>
          </section>
        ),
      )}
    </nav>
  );
}

const BECAUSE = { pain: 'hurts now', injury: 'injured', task: 'the sport asks for it' } as const;

function Aside({ gate, onAdd }: { gate: Gate; onAdd: (region: Region) => void }) {
  const reference = useReference();
  const { athlete } = useWorkspace();
  const asked = new Set(gate.topics.map((topic) => topic.region));
  const others = REGIONS.filter((region) => region !== 'whole-body' && !asked.has(region));
  const newest = [...gate.answers.values()].sort((a, b) => (a.on < b.on ? 1 : -1))[0];
  return (
    <aside className={classes.aside}>
      <section className="card">
        <h3>Regions in play</h3>
        <p>Only these are asked about; others when a test or drill is for them.</p>
        <ul>
          {gate.inPlay.map(({ region, because, about }) => (
            <li key={region}>
              <b>{nameOf(reference, region)}</b>{' '}
              <span className="muted">
                {BECAUSE[because]}
                {because === 'injury' ? `, ${dayText(about)}` : ''}
              </span>
            </li>
          ))}
        </ul>
        {others.length > 0 ? (
          <Select
            size="xs"
            aria-label="Add a region"
            placeholder="Add a region"
            data={others.map((r) => ({ value: r, label: nameOf(reference, r) }))}
            value={null}
            onChange={(value) => value && onAdd(value as Region)}
          />
        ) : null}
      </section>
      <section className="card">
        <h3>If one is said</h3>
        <p>
          The words to say appear, building closes for the region or for all, and only a named clinician opens
          it again, with date and scope. This supports your judgement; it does not diagnose.
        </p>
      </section>
      <section className="card">
        <h3>Who asked</h3>
        <p>
          {newest
            ? `${newest.by}, ${dayText(newest.on)}. Season answers hold to ${dayText(newest.until)}.`
            : `Nobody yet has asked ${athlete.name}.`}{' '}
          An answer under {TOO_FAST} s is marked “read?”.
        </p>
      </section>
    </aside>
  );
}

interface Props {
  /** Regions to ask about beside those in play. */
  regions?: readonly Region[];
  /** Ask everything again, answered or not. @default false */
  all?: boolean;
  /** Ask just these topics. @default what is due */
  only?: readonly string[];
  /** The last topic was answered. */
  onDone: () => void;
}

/** The stop-and-refer questions, topic by topic: each is opened, read out and answered by itself. */
export function GatePanel({ regions = [], all = false, only, onDone }: Props) {
  const { athlete } = useWorkspace();
  const [added, setAdded] = useState<readonly Region[]>([]);
  const gate = useGate([...regions, ...added]);
  const [wanted] = useState(() => new Set(only ?? (all ? gate.topics : gate.due).map((topic) => topic.id)));
  const [took, setTook] = useState<ReadonlyMap<string, number>>(new Map());
  const waiting = (topic: GateTopic) =>
    !took.has(topic.id) &&
    (wanted.has(topic.id) || added.some((r) => r === topic.region && gate.due.some((due) => due.id === r)));
  const [open, setOpen] = useState(() => (gate.topics.find(waiting) ?? gate.topics[0])?.id ?? '');
  const total = useClock();
  const place = gate.topics.findIndex((topic) => topic.id === open);
  const topic = gate.topics[place];
  if (!topic) return null;
  const left = gate.topics.filter(waiting);
  const answered = (seconds: number) => {
    setTook((known) => new Map(known).set(topic.id, seconds));
    const rest = left.filter((other) => other.id !== topic.id);
    const following = rest.find((other) => gate.topics.indexOf(other) > place) ?? rest[0];
    if (following) setOpen(following.id);
    else onDone();
  };
  const general = gate.topics.filter((t) => t.region === null).length;
  return (
    <section aria-labelledby="gate-title" className={classes.gate}>
      <Group justify="space-between" align="baseline">
        <Title order={2} size={22} id="gate-title">
          Before anything is built
        </Title>
        <Text size="sm" c="var(--muted)">
          <b className={classes.total}>{clock(total)}</b> {left.length}{' '}
          {left.length === 1 ? 'topic' : 'topics'} left
        </Text>
      </Group>
      <div className={classes.columns}>
        <TopicList topics={gate.topics} open={open} gate={gate} took={took} onOpen={setOpen} />
        <div className={`card ${classes.open}`}>
          <Topic
            key={topic.id}
            topic={topic}
            place={
              topic.region === null
                ? `Group ${place + 1} of ${general}`
                : `Region ${place + 1 - general} of ${gate.topics.length - general}`
            }
            asked={gate.answers.get(topic.id)}
            onAnswered={answered}
          />
        </div>
        <Aside gate={gate} onAdd={(region) => setAdded([...added, region])} />
      </div>
      <Group justify="space-between" className={classes.foot}>
        <span className={classes.peaks} aria-hidden>
          {gate.topics.map((one) => (
            <svg
              key={one.id}
              viewBox="0 0 24 18"
              data-open={one.id === open || undefined}
              data-done={!waiting(one) || undefined}
            >
              <path d="M1 17 8.5 5l3.4 4.6L15 6l8 11z" />
            </svg>
          ))}
        </span>
        <Group gap="xs">
          <Button
            variant="subtle"
            disabled={place === 0}
            onClick={() => setOpen(gate.topics[place - 1]?.id ?? open)}
          >
            Back one
          </Button>
          <Button variant="default" onClick={onDone}>
            Leave, go on later
          </Button>
        </Group>
      </Group>
      <span className="visually-hidden" role="status">
        {athlete.name}: {topic.title}
      </span>
    </section>
  );
}
