import { Button, Group, MultiSelect, TextInput } from '@mantine/core';
import { clearanceInputSchema } from '@yonder/core/contracts';
import { zod4Resolver } from 'mantine-form-zod-resolver';
import { RestoredNote } from '../../app/kept/RestoredNote.tsx';
import { useKeptForm } from '../../app/kept/useKept.ts';
import { useReference } from '../../app/reference.tsx';
import { today } from '../../app/today.ts';
import { DayInput } from '../../components/DayInput.tsx';
import { Refusal } from '../../components/Refusal.tsx';
import { useClearPrecautionMutation, useClearRedFlagMutation } from '../athletes/athleteEndpoints.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';

/** A named clinician's clearance of a sign or a precaution: who, when, in which words, and what stays closed until when. */
export function ClearanceForm(props: {
  /** What is cleared. */
  row: { readonly id: string; readonly version: number };
  of: 'sign' | 'precaution';
  onDone: () => void;
}) {
  const reference = useReference();
  const { athlete } = useWorkspace();
  const { row } = props;
  const sign = useClearRedFlagMutation();
  const precaution = useClearPrecautionMutation();
  const [clear, { isLoading, error }] = props.of === 'sign' ? sign : precaution;
  const { form, done, ...before } = useKeptForm(`clearance/${row.id}`, 'A clearance', {
    initialValues: { by: '', date: today(), scope: '', avoid: [] as string[], until: '' },
    validate: ({ by, date, scope, avoid, until }) => ({
      ...zod4Resolver(clearanceInputSchema.omit({ version: true, precautions: true }))({ by, date, scope }),
      ...(avoid.length > 0 && until === '' ? { until: 'until when is it to be avoided?' } : {}),
    }),
  });
  return (
    <form
      noValidate
      onSubmit={form.onSubmit(({ avoid, until, ...clearance }) => {
        const precautions = avoid.map((precaution) => ({ precaution, until }));
        const body = { ...clearance, precautions, version: row.version };
        clear({ athleteId: athlete.id, id: row.id, body })
          .unwrap()
          .then(
            () => {
              done();
              props.onDone();
            },
            () => undefined,
          );
      })}
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
