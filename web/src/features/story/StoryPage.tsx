import { Button, Group, Text, Title } from '@mantine/core';
import { protocolGates } from '@yonder/core/safety';
import { useState } from 'react';
import { Locked } from '../../app/Allowed.tsx';
import { conflictOf } from '../../app/api.ts';
import { forget } from '../../app/kept/store.ts';
import { useReference } from '../../app/reference.tsx';
import type { TypedAbout } from '../athletes/AthleteForm.tsx';
import { AthleteForm } from '../athletes/AthleteForm.tsx';
import { fieldsOf } from '../athletes/fieldsOf.ts';
import { Keeping } from '../athletes/Keeping.tsx';
import { useAthleteQuery, useUpdateAthleteMutation } from '../athletes/athleteEndpoints.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import { Injuries } from './Injuries.tsx';
import { GateSummary } from '../gate/GateSummary.tsx';
import { Pains } from './Pains.tsx';
import { Precautions } from './Precautions.tsx';
import { Protocols } from './Protocols.tsx';
import { StoryMethods } from './StoryMethods.tsx';
import { StopSigns } from './StopSigns.tsx';
import classes from './Story.module.css';

/** Everything typed about the athlete; when somebody was faster, the choice between theirs and mine. */
function About() {
  const { athlete } = useWorkspace();
  const [update, { isLoading, error, isSuccess }] = useUpdateAthleteMutation();
  const { refetch } = useAthleteQuery(athlete.id);
  const [shown, setShown] = useState(0);
  const [mine, setMine] = useState<TypedAbout | null>(null);
  const conflict = conflictOf(error);
  // The form goes on showing what was typed: once stored, that is what is there.
  const save = (fields: TypedAbout, version: number) => {
    setMine(fields);
    return update({ athleteId: athlete.id, body: { ...fields, version } })
      .unwrap()
      .then(
        () => true,
        () => false, // shown in the form, or as the choice below
      );
  };
  const takeTheirs = () => {
    forget(`about/${athlete.id}`);
    void refetch().then(() => setShown((n) => n + 1));
  };
  return (
    <section aria-labelledby="about">
      <Title order={2} size={17} id="about" mb={4}>
        About {athlete.name}
      </Title>
      <Locked least="assistant">
        <AthleteForm
          key={shown}
          initial={fieldsOf(athlete)}
          keptAs={{ key: `about/${athlete.id}`, label: `About ${athlete.name}` }}
          submitLabel="Save changes"
          busy={isLoading}
          error={error}
          onSubmit={(fields) => save(fields, athlete.version)}
        />
      </Locked>{' '}
      {conflict && mine ? (
        <Group mt={6}>
          <Button variant="default" onClick={takeTheirs}>
            Show theirs
          </Button>
          <Button
            variant="light"
            onClick={() => void save(mine, conflict.version).then((stored) => stored && takeTheirs())}
          >
            Save mine over it
          </Button>
        </Group>
      ) : null}
      {isSuccess ? (
        <Text size="sm" c="var(--muted)" role="status" mt={4}>
          Saved.
        </Text>
      ) : null}
    </section>
  );
}

/** One gate per region and side, however many operations opened it. */
function distinct<T extends { region: string; side: string }>(gates: readonly T[]): T[] {
  return [...new Map(gates.map((gate) => [`${gate.region}/${gate.side}`, gate])).values()];
}

/** Who this is: the safety gate first, then injuries, precautions and everything typed about the athlete. */
export function StoryPage() {
  const reference = useReference();
  const { case: input, on, region } = useWorkspace();
  const gates = distinct(protocolGates(reference, input.athlete, on));
  return (
    <div className={classes.page}>
      <GateSummary />
      <StopSigns />
      <Protocols gates={gates} />
      <div className={classes.pair}>
        <Pains key={`pains/${region}`} />
        <Injuries key={region} />
        <Precautions />
      </div>
      <StoryMethods />
      <About />
      <Keeping />
    </div>
  );
}
