import { Button, Group, Text, Title } from '@mantine/core';
import { useHotkeys } from '@mantine/hooks';
import type { AthleteRow } from '@yonder/core/contracts';
import { VISIT_TOPIC } from '@yonder/core/contracts';
import { nameOf } from '@yonder/core/words';
import { useState } from 'react';
import { Link, useLocation } from 'react-router';
import { Refusal } from '../../components/Refusal.tsx';
import { useReference } from '../../app/reference.tsx';
import { dayText, shortDay, today } from '../../app/today.ts';
import { SideMark } from '../../components/SideMark.tsx';
import {
  useAddPainMutation,
  useAnswerGateMutation,
  useEndPainMutation,
} from '../athletes/athleteEndpoints.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import classes from './Gate.module.css';
import { useGate } from './useGate.ts';
import { useOpenFor } from './useOpenFor.ts';

type Pain = AthleteRow['pains'][number];

/** What hurt at the last visit, asked by its name: a number for today. Another number ends the old one and starts anew. */
function KnownPain({ pain }: { pain: Pain }) {
  const reference = useReference();
  const { athlete } = useWorkspace();
  const [add, adding] = useAddPainMutation();
  const [end, ending] = useEndPainMutation();
  const [said, setSaid] = useState<number | null>(null);
  const name = [
    nameOf(reference, pain.region),
    pain.aspect,
    pain.when === 'rest' ? 'at rest' : `on ${pain.when.replace('-', ' ')}`,
  ]
    .filter(Boolean)
    .join(', ');
  const tell = async (nrs: number) => {
    setSaid(nrs);
    if (nrs === pain.nrs) return;
    const { id, version, ended: _ended, ...rest } = pain;
    const body = { date: today(), version };
    const { error } = await end({ athleteId: athlete.id, id, body });
    if (!error && nrs > 0) await add({ athleteId: athlete.id, body: { ...rest, nrs, since: today() } });
  };
  const error = adding.error ?? ending.error;
  return (
    <section aria-label={`${name}, pain today`}>
      <Group justify="space-between" mb={4}>
        <b>
          {pain.side === 'central' ? null : <SideMark side={pain.side} />} {name}
        </b>
        <Text size="sm" c="var(--muted)">
          {pain.nrs}/10 since {shortDay(pain.since)}
        </Text>
      </Group>
      <div className={classes.scale}>
        {Array.from({ length: 11 }, (_, nrs) => (
          <button
            key={nrs}
            type="button"
            aria-pressed={said === nrs}
            data-before={nrs === pain.nrs || undefined}
            disabled={adding.isLoading || ending.isLoading}
            onClick={() => void tell(nrs)}
          >
            {nrs}
          </button>
        ))}
      </div>
      <Refusal error={error} mt={4} />
    </section>
  );
}

/** "Anything new?" at a visit: known complaints by name, new ones by what they would be. */
export function VisitGate({ onTopic }: { onTopic: (topic: string) => void }) {
  const { athlete } = useWorkspace();
  const { search } = useLocation();
  const gate = useGate();
  const [answer, { isLoading, error }] = useAnswerGateMutation();
  const openFor = useOpenFor();
  // What is told here ends the pain it was: the page goes on asking by the names it began with.
  const [pains] = useState(() => athlete.pains.filter((pain) => pain.ended === null));
  const nothing = () => {
    if (isLoading) return;
    void answer({
      athleteId: athlete.id,
      body: { topic: VISIT_TOPIC, outcome: 'none', seconds: openFor(), signs: [] },
    });
  };
  useHotkeys([['N', nothing]]);
  return (
    <section aria-labelledby="visit-title" className={`card ${classes.visit}`}>
      <div>
        <Title order={2} size={24} id="visit-title">
          Anything new{gate.last ? ` since ${dayText(gate.last)}` : ''}?
        </Title>
        <Text c="var(--muted)" size="sm">
          What hurt is asked by its name; what is new by what it would be. Twenty seconds.
        </Text>
      </div>
      {pains.map((pain) => (
        <KnownPain key={pain.id} pain={pain} />
      ))}
      <div>
        <Text fw={700} mb={6}>
          Since then, has anything of this happened? Tap what is said.
        </Text>
        <div className={classes.chips}>
          {gate.topics.map((topic) => (
            <button key={topic.id} type="button" className={classes.chip} onClick={() => onTopic(topic.id)}>
              {topic.news}
            </button>
          ))}
        </div>
      </div>
      <Refusal error={error} />
      <Group>
        <Button size="lg" loading={isLoading} onClick={nothing}>
          <kbd className={classes.key}>N</kbd> No, nothing new
        </Button>
        <Button
          component={Link}
          to={{ pathname: `/athletes/${athlete.id}/story`, search }}
          size="lg"
          variant="default"
        >
          Somewhere else hurts…
        </Button>
      </Group>
    </section>
  );
}
