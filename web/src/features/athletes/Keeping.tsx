import { Button, Group, Text, TextInput, Title } from '@mantine/core';
import { Refusal } from '../../components/Refusal.tsx';
import { Dialog } from '../../components/Dialog.tsx';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useMay } from '../../app/may.ts';
import { dayText } from '../../app/today.ts';
import { useArchiveAthleteMutation, useEraseAthleteMutation } from './athleteEndpoints.ts';
import { useWorkspace } from './WorkspaceContext.tsx';

/** Erasing asks for the name, typed again, and why; it cannot be undone. */
function Erase({ onClose }: { onClose: () => void }) {
  const { athlete } = useWorkspace();
  const navigate = useNavigate();
  const [erase, { isLoading, error }] = useEraseAthleteMutation();
  const [name, setName] = useState('');
  const [reason, setReason] = useState('');
  const send = () =>
    void erase({ athleteId: athlete.id, body: { name, reason } })
      .unwrap()
      .then(
        () => navigate('/athletes'),
        () => undefined, // shown below
      );
  return (
    <Dialog onClose={onClose} title={`Erase ${athlete.name}?`}>
      <Text size="sm">
        Story, screenings, routines, sessions and decisions go for good. That and why it was erased, and who
        saw and changed the record, stays without the name. Export first what has to be kept; local rules on
        records come first.
      </Text>
      <TextInput
        mt="sm"
        label={`Type the name: ${athlete.name}`}
        value={name}
        data-autofocus
        onChange={(event) => setName(event.currentTarget.value)}
      />
      <TextInput
        mt="sm"
        label="Why (without the name)"
        value={reason}
        onChange={(event) => setReason(event.currentTarget.value)}
      />
      <Refusal error={error} mt="sm" />
      <Group mt="md" justify="flex-end">
        <Button variant="default" onClick={onClose}>
          Cancel
        </Button>
        <Button
          color="red.9"
          loading={isLoading}
          disabled={name !== athlete.name || reason.trim().length < 3}
          onClick={send}
        >
          Erase for good
        </Button>
      </Group>
    </Dialog>
  );
}

/** What becomes of the record: archived, taken along whole, erased. */
export function Keeping() {
  const { athlete } = useWorkspace();
  const may = useMay();
  const [archive, { isLoading, error }] = useArchiveAthleteMutation();
  const [erasing, setErasing] = useState(false);
  const { archived } = athlete;
  if (!may('clinician')) return null;
  return (
    <section className="card" style={{ padding: '10px 16px 14px' }} aria-labelledby="record">
      <Title order={2} size={17} id="record">
        The record
      </Title>
      {archived ? (
        <Text size="sm" mb={6}>
          Archived by {archived.by}, {dayText(archived.date)}: off the lists, nothing lost.
        </Text>
      ) : null}
      <Group gap="xs" mt={4}>
        <Button
          size="xs"
          variant="light"
          loading={isLoading}
          onClick={() =>
            void archive({ athleteId: athlete.id, body: { archived: !archived, version: athlete.version } })
          }
        >
          {archived ? 'Bring back onto the lists' : 'Archive'}
        </Button>
        <Button size="xs" variant="default" component="a" href={`/api/v1/athletes/${athlete.id}/export.json`}>
          Export everything
        </Button>
        {may('owner') ? (
          <Button size="xs" variant="subtle" color="red" onClick={() => setErasing(true)}>
            Erase…
          </Button>
        ) : null}
      </Group>
      <Refusal error={error} mt={6} />
      {erasing ? <Erase onClose={() => setErasing(false)} /> : null}
    </section>
  );
}
