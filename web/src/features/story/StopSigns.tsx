import { Alert, Button, Group, MultiSelect, TextInput, Title } from '@mantine/core';
import type { RedFlagRow } from '@yonder/core/contracts';
import { clearanceInputSchema } from '@yonder/core/contracts';
import { zod4Resolver } from 'mantine-form-zod-resolver';
import { useState } from 'react';
import { Refusal } from '../../components/Refusal.tsx';
import { Allowed } from '../../app/Allowed.tsx';
import { useKeptForm } from '../../app/kept/useKept.ts';
import { RestoredNote } from '../../app/kept/RestoredNote.tsx';
import { useReference } from '../../app/reference.tsx';
import { DayInput } from '../../components/DayInput.tsx';
import { dayText, today } from '../../app/today.ts';
import { useClearRedFlagMutation } from '../athletes/athleteEndpoints.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import classes from './Story.module.css';

function ClearanceForm({ row, onDone }: { row: RedFlagRow; onDone: () => void }) {
  const { athlete } = useWorkspace();
  const [clear, { isLoading, error }] = useClearRedFlagMutation();
  const reference = useReference();
  const { form, done, ...before } = useKeptForm(`clearance/${row.id}`, 'A clearance', {
    initialValues: { by: '', date: today(), scope: '', avoid: [] as string[], until: '' },
    validate: (values) => ({
      ...zod4Resolver(clearanceInputSchema.omit({ version: true, precautions: true }))({
        by: values.by,
        date: values.date,
        scope: values.scope,
      }),
      ...(values.avoid.length > 0 && values.until === '' ? { until: 'until when is it to be avoided?' } : {}),
    }),
  });
  return (
    <form
      onSubmit={form.onSubmit(({ by, date, scope, avoid, until }) => {
        const precautions = avoid.map((precaution) => ({ precaution, until }));
        clear({
          athleteId: athlete.id,
          id: row.id,
          body: { by, date, scope, precautions, version: row.version },
        })
          .unwrap()
          .then(
            () => {
              done();
              onDone();
            },
            () => undefined,
          );
      })}
      noValidate
    >
      <RestoredNote {...before} />
      <Group align="flex-end" gap="xs" mt={6}>
        <TextInput size="xs" label="Cleared by (clinician's name)" {...form.getInputProps('by')} />
        <DayInput size="xs" label="On" {...form.getInputProps('date')} />
        <TextInput size="xs" label="Written scope" w={260} {...form.getInputProps('scope')} />
        <MultiSelect
          size="xs"
          w={280}
          searchable
          label="Still to avoid (becomes precautions)"
          data={reference.data.precautions.map((p) => ({ value: p.id, label: p.name }))}
          {...form.getInputProps('avoid')}
        />
        <DayInput size="xs" label="Until (review)" {...form.getInputProps('until')} />
        <Button size="xs" type="submit" loading={isLoading}>
          Record clearance
        </Button>
      </Group>
      <Refusal error={error} mt={4} />
    </form>
  );
}

/** Positive stop-and-refer answers, open ones first, each with the way to a named clinician's clearance. */
export function StopSigns() {
  const reference = useReference();
  const { athlete } = useWorkspace();
  const [clearing, setClearing] = useState<string | null>(null);
  if (athlete.redFlags.length === 0) return null;
  const rows = [...athlete.redFlags].sort(
    (a, b) => Number(a.clearance !== null) - Number(b.clearance !== null),
  );
  return (
    <section className={`card ${classes.panel}`}>
      <Title order={2} size={17}>
        Stop-and-refer signs
      </Title>
      <ul className={classes.list}>
        {rows.map((row) => (
          <li key={row.id}>
            <div>
              <b>{reference.redFlags.get(row.redFlag)?.question}</b> Yes, {dayText(row.answeredOn)}, asked by{' '}
              {row.answeredBy}.
            </div>
            {row.clearance ? (
              <div className="muted">
                Cleared by {row.clearance.by}, {dayText(row.clearance.date)}: {row.clearance.scope}
              </div>
            ) : (
              <Alert color="red" p={8} mt={4}>
                {reference.redFlags.get(row.redFlag)?.action}
                {clearing === row.id ? (
                  <ClearanceForm row={row} onDone={() => setClearing(null)} />
                ) : (
                  <div>
                    <Allowed least="clinician">
                      <Button size="compact-xs" variant="default" mt={4} onClick={() => setClearing(row.id)}>
                        Record a clearance
                      </Button>
                    </Allowed>
                  </div>
                )}
              </Alert>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
