import { Alert, Button, Checkbox, Group, Select, Text, Title } from '@mantine/core';
import { REGIONS } from '@yonder/core/domain';
import type { Region } from '@yonder/core/domain';
import { redFlagQuestions } from '@yonder/core/safety';
import { nameOf } from '@yonder/core/words';
import { useState } from 'react';
import { errorText } from '../../app/api.ts';
import { useReference } from '../../app/reference.tsx';
import { today } from '../../app/today.ts';
import { useAnswerRedFlagsMutation } from '../athletes/athleteEndpoints.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import classes from './RedFlagGate.module.css';

const LEVEL = { E: 'emergency', U: 'urgent', R: 'refer', P: 'protocol' } as const;

/** The stop-and-refer questions of regions, general ones included. Ticked is yes; recording answers all of them. */
export function RedFlagGate({ regions, onDone }: { regions: readonly Region[]; onDone?: () => void }) {
  const reference = useReference();
  const { athlete } = useWorkspace();
  const [answer, { isLoading, error }] = useAnswerRedFlagsMutation();
  const [positive, setPositive] = useState<Record<string, Region | null>>({});
  const questions = redFlagQuestions(reference, regions, athlete.birthDate, today());
  const ticked = Object.keys(positive).length;
  const incomplete = questions.some((q) => q.askRegion && q.id in positive && positive[q.id] === null);
  const toggle = (id: string, yes: boolean) =>
    setPositive((current) => {
      const { [id]: _gone, ...rest } = current;
      return yes ? { ...rest, [id]: null } : rest;
    });
  const record = () => {
    const answers = questions.map((q) => ({
      redFlag: q.id,
      answer: q.id in positive,
      region: positive[q.id] ?? null,
    }));
    answer({ athleteId: athlete.id, body: { regions, answers } })
      .unwrap()
      .then(onDone, () => undefined); // shown below the questions
  };
  return (
    <section className={`card ${classes.gate}`} aria-labelledby="gate-title">
      <Group justify="space-between" align="baseline">
        <Title order={2} size={18} id="gate-title">
          Before anything else: stop-and-refer signs,{' '}
          {regions.map((region) => nameOf(reference, region).toLowerCase()).join(', ')}
        </Title>
        <Text size="sm" c="var(--muted)">
          {questions.length} questions. Tick what is true. One tick can end routine building for a region
          until a named clinician clears it.
        </Text>
      </Group>
      <div className={classes.questions}>
        {questions.map((q) => (
          <div key={q.id}>
            <Checkbox
              size="sm"
              label={
                <>
                  {q.question} <span className={classes.level}>{LEVEL[q.level]}</span>
                </>
              }
              checked={q.id in positive}
              onChange={(e) => toggle(q.id, e.currentTarget.checked)}
            />
            {q.askRegion && q.id in positive ? (
              <Select
                size="xs"
                ml={26}
                mt={4}
                w={220}
                aria-label="Which region?"
                placeholder="Which region?"
                data={REGIONS.map((r) => ({ value: r, label: nameOf(reference, r) }))}
                value={positive[q.id] ?? null}
                onChange={(value) =>
                  setPositive((current) => ({ ...current, [q.id]: value as Region | null }))
                }
              />
            ) : null}
          </div>
        ))}
      </div>
      {error ? (
        <Alert color="copper" role="alert" mt="xs">
          {errorText(error)}
        </Alert>
      ) : null}
      <Group className={classes.actions}>
        <Button
          onClick={record}
          loading={isLoading}
          disabled={incomplete}
          color={ticked > 0 ? 'copper' : 'teal'}
        >
          {ticked === 0
            ? 'None of these: record'
            : `Record ${ticked} ${ticked === 1 ? 'sign' : 'signs'} as present`}
        </Button>
        <Text size="xs" c="var(--muted)">
          Answered by you, today. It supports your judgement; it does not diagnose.
        </Text>
      </Group>
    </section>
  );
}
