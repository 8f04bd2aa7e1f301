import { Button, Group, MultiSelect, TextInput } from '@mantine/core';
import type { ClearanceInput } from '@yonder/core/contracts';
import { clearanceInputSchema } from '@yonder/core/contracts';
import { zod4Resolver } from 'mantine-form-zod-resolver';
import { RestoredNote } from '../../app/kept/RestoredNote.tsx';
import { useKeptForm } from '../../app/kept/useKept.ts';
import { useReference } from '../../app/reference.tsx';
import { today } from '../../app/today.ts';
import { DayInput } from '../../components/DayInput.tsx';
import { Refusal } from '../../components/Refusal.tsx';

/** A named clinician's clearance of a sign or a precaution: who, when, in which words, and what stays closed until when. */
export function ClearanceForm(props: {
  /** Keeps what was typed apart from that of other clearances. */
  of: string;
  clear: (clearance: Omit<ClearanceInput, 'version'>) => Promise<unknown>;
  isLoading: boolean;
  error: unknown;
  onDone: () => void;
}) {
  const reference = useReference();
  const { form, done, ...before } = useKeptForm(`clearance/${props.of}`, 'A clearance', {
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
        props.clear({ ...clearance, precautions }).then(
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
        <Button size="xs" type="submit" loading={props.isLoading}>
          Record clearance
        </Button>
      </Group>
      <Refusal error={props.error} mt={4} />
    </form>
  );
}
