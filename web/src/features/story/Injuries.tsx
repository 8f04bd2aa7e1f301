import { ActionIcon, Button, Checkbox, Group, Select, TextInput, Title } from '@mantine/core';
import { IconTrash } from '@tabler/icons-react';
import { injuryInputSchema } from '@yonder/core/contracts';
import type { AthleteRow } from '@yonder/core/contracts';
import { REGIONS } from '@yonder/core/domain';
import { nameOf, withSide } from '@yonder/core/words';
import { zod4Resolver } from 'mantine-form-zod-resolver';
import { Refusal } from '../../components/Refusal.tsx';
import { Allowed } from '../../app/Allowed.tsx';
import { useKeptForm } from '../../app/kept/useKept.ts';
import { RestoredNote } from '../../app/kept/RestoredNote.tsx';
import { useReference } from '../../app/reference.tsx';
import { dayText } from '../../app/today.ts';
import { DayInput } from '../../components/DayInput.tsx';
import { SideMark } from '../../components/SideMark.tsx';
import { useAddInjuryMutation, useRemoveInjuryMutation } from '../athletes/athleteEndpoints.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import { InjuryTimeline } from './InjuryTimeline.tsx';
import { SIDES } from './sides.ts';
import classes from './Story.module.css';

function InjuryForm() {
  const reference = useReference();
  const { athlete, region } = useWorkspace();
  const [add, { isLoading, error }] = useAddInjuryMutation();
  const { form, done, ...before } = useKeptForm(`injury/${athlete.id}`, 'An injury', {
    initialValues: { region: region as string, side: 'left', date: '', operated: false, what: '' },
    validate: zod4Resolver(injuryInputSchema.omit({ id: true })),
  });
  return (
    <form
      onSubmit={form.onSubmit((body) => {
        add({ athleteId: athlete.id, body })
          .unwrap()
          .then(
            () => {
              done();
              form.reset();
            },
            () => undefined,
          );
      })}
      noValidate
    >
      <RestoredNote {...before} />
      <Group align="flex-end" gap="xs">
        <Select
          size="xs"
          w={140}
          label="Region"
          data={REGIONS.map((r) => ({ value: r, label: nameOf(reference, r) }))}
          allowDeselect={false}
          {...form.getInputProps('region')}
        />
        <Select
          size="xs"
          w={100}
          label="Side"
          data={SIDES}
          allowDeselect={false}
          {...form.getInputProps('side')}
        />
        <DayInput size="xs" label="Date" {...form.getInputProps('date')} />
        <TextInput size="xs" w={180} label="What happened" {...form.getInputProps('what')} />
        <Checkbox
          size="sm"
          mb={5}
          label="operated"
          {...form.getInputProps('operated', { type: 'checkbox' })}
        />
        <Button size="xs" variant="light" type="submit" loading={isLoading}>
          Add injury
        </Button>
      </Group>
      <Refusal error={error} mt={4} />
    </form>
  );
}

/** Whose protocol leads after an operation. */
function leaderOf(athlete: AthleteRow, injury: AthleteRow['injuries'][0]): string {
  const protocol = athlete.protocols.find((p) => p.region === injury.region && p.side === injury.side);
  return protocol
    ? `${protocol.by}’s protocol leads for 12 months`
    : 'the treating clinician’s protocol leads for 12 months; none is entered';
}

/** Past injuries; an operation within twelve months hands the region over to the clinician's protocol. */
export function Injuries() {
  const reference = useReference();
  const { athlete, on } = useWorkspace();
  const [remove, { error }] = useRemoveInjuryMutation();
  return (
    <section className={`card ${classes.panel}`}>
      <Title order={2} size={17}>
        Past injuries
      </Title>
      {athlete.injuries.length > 0 ? <InjuryTimeline injuries={athlete.injuries} on={on} /> : null}
      <ul className={classes.list}>
        {athlete.injuries.map((injury) => (
          <li key={injury.id} className={classes.line}>
            <SideMark side={injury.side} />
            <span>
              <b>{withSide(nameOf(reference, injury.region), injury.side)}</b>, {dayText(injury.date)}
              {injury.what ? `, ${injury.what}` : ''}
              {injury.operated ? `; operated, ${leaderOf(athlete, injury)}` : ''}
            </span>
            <Allowed least="clinician">
              <ActionIcon
                variant="subtle"
                color="gray"
                aria-label={`Remove injury of ${dayText(injury.date)}`}
                onClick={() => void remove({ athleteId: athlete.id, id: injury.id, version: injury.version })}
              >
                <IconTrash size={16} />
              </ActionIcon>
            </Allowed>
          </li>
        ))}
        {athlete.injuries.length === 0 ? <li className="muted">None recorded.</li> : null}
      </ul>
      <Refusal error={error} mb={6} />
      <Allowed least="assistant">
        <InjuryForm />
      </Allowed>
    </section>
  );
}
