import { Button, Group, Select, Text, TextInput, Title } from '@mantine/core';
import { precautionInputSchema } from '@yonder/core/contracts';
import type { PrecautionRow } from '@yonder/core/contracts';
import { REGIONS } from '@yonder/core/domain';
import { boundText, nameOf, REGION_LABEL } from '@yonder/core/words';
import { zod4Resolver } from 'mantine-form-zod-resolver';
import { useState } from 'react';
import { Refusal } from '../../components/Refusal.tsx';
import { Allowed } from '../../app/Allowed.tsx';
import { errorText } from '../../app/api.ts';
import { useKeptForm } from '../../app/kept/useKept.ts';
import { RestoredNote } from '../../app/kept/RestoredNote.tsx';
import { useReference } from '../../app/reference.tsx';
import { DayInput } from '../../components/DayInput.tsx';
import { useAppSelector } from '../../app/store.ts';
import { dayText, today } from '../../app/today.ts';
import { useAddPrecautionMutation, useEndPrecautionMutation } from '../athletes/athleteEndpoints.ts';
import { SIDES } from './sides.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import { ClearanceForm } from './ClearanceForm.tsx';
import classes from './Story.module.css';

const SEVERITY = { exclude: 'never', clearance: 'hidden until cleared', modify: 'with care' } as const;

type Typed = {
  precaution: string;
  reason: string;
  setBy: string;
  until: string;
  region: string | null;
  side: string | null;
};

function PrecautionForm() {
  const reference = useReference();
  const { athlete } = useWorkspace();
  const me = useAppSelector((state) => state.session.me);
  const [add, { isLoading, error }] = useAddPrecautionMutation();
  /** What is sent: a region only where the precaution may bind one alone. */
  const sent = (values: Typed) => {
    const regional = reference.precautions.get(values.precaution)?.regional === true;
    const region = regional ? values.region : null;
    return { ...values, until: values.until || null, region, side: region === null ? null : values.side };
  };
  const { form, done, ...before } = useKeptForm<Typed>(`precaution/${athlete.id}`, 'A precaution', {
    initialValues: {
      precaution: '',
      reason: '',
      setBy: me?.clinician.name ?? '',
      until: '',
      region: null,
      side: null,
    },
    validate: (values) => zod4Resolver(precautionInputSchema.omit({ id: true }))(sent(values)),
  });
  const chosen = reference.precautions.get(form.values.precaution);
  return (
    <form
      onSubmit={form.onSubmit((values) => {
        add({ athleteId: athlete.id, body: sent(values) })
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
          w={230}
          label="Precaution"
          searchable
          data={reference.data.precautions.map((p) => ({
            value: p.id,
            label: `${p.name} (${SEVERITY[p.severity]})`,
          }))}
          {...form.getInputProps('precaution')}
        />
        {chosen?.regional ? (
          <>
            <Select
              size="xs"
              w={150}
              label="Region"
              clearable
              placeholder="whole body"
              data={REGIONS.filter((r) => r !== 'whole-body').map((r) => ({
                value: r,
                label: REGION_LABEL[r],
              }))}
              {...form.getInputProps('region')}
            />
            <Select
              size="xs"
              w={110}
              label="Side"
              clearable
              placeholder="both"
              data={SIDES}
              disabled={form.values.region === null}
              {...form.getInputProps('side')}
            />
          </>
        ) : null}
        <TextInput size="xs" w={180} label="Reason" {...form.getInputProps('reason')} />
        <TextInput size="xs" w={140} label="Set by" {...form.getInputProps('setBy')} />
        <DayInput size="xs" label="Review on" {...form.getInputProps('until')} />
        <Button size="xs" variant="light" type="submit" loading={isLoading}>
          Set precaution
        </Button>
      </Group>
      {chosen ? (
        <Text size="xs" c="var(--muted)" mt={4}>
          {chosen.handling} Usually: {chosen.usualDuration}
        </Text>
      ) : null}
      <Refusal error={error} mt={4} />
    </form>
  );
}

function EndForm({ row }: { row: PrecautionRow }) {
  const { athlete } = useWorkspace();
  const me = useAppSelector((state) => state.session.me);
  const [end, { isLoading, error }] = useEndPrecautionMutation();
  const [by, setBy] = useState(me?.clinician.name ?? '');
  return (
    <Group gap={6} wrap="nowrap">
      <TextInput
        size="xs"
        w={130}
        aria-label="Ended by"
        value={by}
        onChange={(e) => setBy(e.currentTarget.value)}
        error={error ? errorText(error) : null}
      />
      <Button
        size="xs"
        variant="outline"
        loading={isLoading}
        onClick={() =>
          void end({ athleteId: athlete.id, id: row.id, body: { by, date: today(), version: row.version } })
        }
      >
        End {`"`}
        {useReference().precautions.get(row.precaution)?.name}
        {`"`}
      </Button>
    </Group>
  );
}

/** Precautions with who set them and why; each binds until a named person ends it. */
export function Precautions() {
  const reference = useReference();
  const { athlete } = useWorkspace();
  const [ending, setEnding] = useState<string | null>(null);
  const [clearing, setClearing] = useState<string | null>(null);
  const needsClearance = (row: PrecautionRow) =>
    row.clearance === null && reference.precautions.get(row.precaution)?.severity === 'clearance';
  const active = athlete.precautions.filter((p) => p.ended === null);
  const ended = athlete.precautions.filter((p) => p.ended !== null);
  return (
    <section className={`card ${classes.panel}`}>
      <Title order={2} size={17}>
        Precautions
      </Title>
      <ul className={classes.list}>
        {active.map((row) => (
          <li key={row.id} className={classes.line}>
            <span>
              <b>{nameOf(reference, row.precaution)}</b>
              {boundText(row)}, set by {row.setBy} {dayText(row.since)}
              {row.reason ? `: ${row.reason}` : ''}
              {row.until ? `. Review ${dayText(row.until)}${row.until < today() ? ', due' : ''}` : ''}
              {row.clearance
                ? `. Cleared by ${row.clearance.by} ${dayText(row.clearance.date)}: ${row.clearance.scope}`
                : ''}
            </span>
            {clearing === row.id ? (
              <ClearanceForm row={row} of="precaution" onDone={() => setClearing(null)} />
            ) : ending === row.id ? (
              <EndForm row={row} />
            ) : (
              <Allowed least="clinician">
                {needsClearance(row) ? (
                  <Button size="compact-xs" variant="subtle" onClick={() => setClearing(row.id)}>
                    Cleared…
                  </Button>
                ) : null}
                <Button size="compact-xs" variant="subtle" onClick={() => setEnding(row.id)}>
                  End…
                </Button>
              </Allowed>
            )}
          </li>
        ))}
        {active.length === 0 ? <li className="muted">None in force.</li> : null}
        {ended.map((row) => (
          <li key={row.id} className="muted">
            {nameOf(reference, row.precaution)}: ended by {row.ended?.by},{' '}
            {row.ended ? dayText(row.ended.date) : ''}
          </li>
        ))}
      </ul>
      <Allowed least="clinician">
        <PrecautionForm />
      </Allowed>
    </section>
  );
}
