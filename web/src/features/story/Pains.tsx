import { Button, Group, Select, Text, Title } from '@mantine/core';
import { painInputSchema } from '@yonder/core/contracts';
import { nameOf, withSide } from '@yonder/core/words';
import { zod4Resolver } from 'mantine-form-zod-resolver';
import { Refusal } from '../../components/Refusal.tsx';
import { Allowed } from '../../app/Allowed.tsx';
import { useKeptForm } from '../../app/kept/useKept.ts';
import { RestoredNote } from '../../app/kept/RestoredNote.tsx';
import { useReference } from '../../app/reference.tsx';
import { dayText, today } from '../../app/today.ts';
import { DayInput } from '../../components/DayInput.tsx';
import { SideMark } from '../../components/SideMark.tsx';
import { UnitInput } from '../../components/UnitInput.tsx';
import { useAddPainMutation, useEndPainMutation } from '../athletes/athleteEndpoints.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import { PainPlace } from './PainPlace.tsx';
import { PAIN_WHEN, painWhenText } from './painWhen.ts';
import classes from './Story.module.css';

function PainForm() {
  const { athlete, region } = useWorkspace();
  const [add, { isLoading, error }] = useAddPainMutation();
  const { form, done, ...before } = useKeptForm(`pain/${athlete.id}`, 'A pain', {
    initialValues: {
      region: region as string,
      side: 'left',
      aspect: null as string | null,
      feel: null as string | null,
      when: 'movement',
      nrs: null as number | null,
      since: today(),
    },
    validate: (values) => zod4Resolver(painInputSchema.omit({ id: true }))(bodyOf(values) as never),
  });
  return (
    <form
      onSubmit={form.onSubmit((values) => {
        add({ athleteId: athlete.id, body: bodyOf(values) })
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
        <PainPlace place={form.values} onChange={(change) => form.setValues(change)} />
        <Select
          size="xs"
          w={122}
          label="When"
          data={PAIN_WHEN}
          allowDeselect={false}
          {...form.getInputProps('when')}
        />
        <UnitInput
          size="xs"
          w={80}
          label="How much"
          unit="/10"
          min={0}
          max={10}
          value={form.values.nrs}
          error={form.errors.nrs}
          onChange={(nrs) => form.setFieldValue('nrs', nrs)}
        />
        <DayInput size="xs" label="Since" {...form.getInputProps('since')} />
        <Button size="xs" variant="light" type="submit" loading={isLoading}>
          Add pain
        </Button>
      </Group>
      <Refusal error={error} mt={4} />
    </form>
  );
}

function bodyOf({ aspect, feel, ...rest }: { aspect: string | null; feel: string | null }) {
  return { ...rest, ...(aspect ? { aspect } : {}), ...(feel ? { feel } : {}) };
}

/** What hurts now, and what its place and feel point to. */
export function Pains() {
  const reference = useReference();
  const { athlete, report } = useWorkspace();
  const [end, { error }] = useEndPainMutation();
  const now = athlete.pains.filter((pain) => pain.ended === null);
  const told = report.patterns.filter((hit) => hit.test === null);
  return (
    <section className={`card ${classes.panel}`} aria-labelledby="pains">
      <Title order={2} size={17} id="pains">
        What hurts now
      </Title>
      <ul className={classes.list}>
        {now.map((pain) => (
          <li key={pain.id} className={classes.line}>
            <SideMark side={pain.side} />
            <span>
              <b>
                {withSide(nameOf(reference, pain.region), pain.side)}
                {pain.aspect ? `, ${pain.aspect}` : ''}
              </b>{' '}
              {pain.nrs}/10 {painWhenText(pain.when)}
              {pain.feel ? `, feels like ${pain.feel.replace('-', ' ')}` : ''}, since {dayText(pain.since)}
            </span>
            <Allowed least="assistant">
              <Button
                size="compact-xs"
                variant="subtle"
                onClick={() =>
                  void end({
                    athleteId: athlete.id,
                    id: pain.id,
                    body: { date: today(), version: pain.version },
                  })
                }
              >
                Gone today
              </Button>
            </Allowed>
          </li>
        ))}
        {now.length === 0 ? <li className="muted">Nothing recorded.</li> : null}
      </ul>
      <Refusal error={error} mb={6} />
      {told.map((hit) => (
        <Text
          key={hit.pattern + hit.side}
          size="sm"
          mb={4}
          fw={hit.refer ? 650 : undefined}
          c={hit.refer ? 'var(--danger)' : undefined}
        >
          {hit.restriction ? `${nameOf(reference, hit.restriction)}: ` : ''}
          {hit.says}
        </Text>
      ))}
      <Allowed least="assistant">
        <PainForm />
      </Allowed>
    </section>
  );
}
