import { Button, Group, MultiSelect, Select, Text, Textarea, TextInput, Title } from '@mantine/core';
import { IconPlus } from '@tabler/icons-react';
import type { PracticeTestRow } from '@yonder/core/contracts';
import { REGIONS } from '@yonder/core/domain';
import type { OwnTest } from '@yonder/core/domain';
import { testFaults } from '@yonder/core/formats';
import { ownTestSchema } from '@yonder/core/schemas';
import { nameOf, REGION_LABEL, unitWord } from '@yonder/core/words';
import { zod4Resolver } from 'mantine-form-zod-resolver';
import { useState } from 'react';
import { Allowed } from '../../app/Allowed.tsx';
import { RestoredNote } from '../../app/kept/RestoredNote.tsx';
import { useKeptForm } from '../../app/kept/useKept.ts';
import { useBundledReference, useReference } from '../../app/reference.tsx';
import { Refusal } from '../../components/Refusal.tsx';
import { UnitInput } from '../../components/UnitInput.tsx';
import { useFiguresQuery, useRemoveTestMutation, useSaveTestMutation } from './figureEndpoints.ts';
import classes from './Figures.module.css';
import { figureText } from './figures.ts';

/** As it is typed: numbers may still be missing. */
type Typed = Omit<OwnTest, 'id' | 'sem' | 'plausible'> & {
  sem: number | null;
  plausible: { min: number | null; max: number | null };
};

const EMPTY: Typed = {
  name: '',
  region: 'knee',
  quantity: 'endurance-reps',
  sides: 'per-side',
  unit: 'reps',
  better: 'higher',
  procedure: '',
  plausible: { min: 0, max: null },
  sem: null,
  cutOff: null,
  informs: [],
};
const QUANTITIES = ['range', 'strength', 'endurance-reps', 'endurance-hold', 'power', 'balance'];
const UNITS = ownTestSchema.shape.unit.options;
const options = (words: readonly string[]) =>
  words.map((word) => ({ value: word, label: word.replaceAll('-', ' ') }));
const plain = zod4Resolver(ownTestSchema.omit({ id: true }));

/** Everything a test needs to be judged by: what it measures, its error, and what it says something about. */
function TestForm({ test, onDone }: { test: PracticeTestRow | null; onDone: () => void }) {
  const bundled = useBundledReference();
  const [save, { isLoading, error }] = useSaveTestMutation();
  const { rowId, version, id: _id, ...known } = test ?? { rowId: null, version: null, id: '' };
  const { form, done, ...before } = useKeptForm<Typed>(`test/${rowId ?? 'new'}`, 'A test of your own', {
    initialValues: { ...EMPTY, ...known },
    validate: (values) => {
      const faults = plain(values);
      if (Object.keys(faults).length > 0) return faults;
      const whole = { ...values, id: 'new' } as OwnTest;
      return Object.fromEntries(
        testFaults(bundled, whole).map(({ path, message }) => [path.replace('$.', ''), message]),
      );
    },
  });
  const { values } = form;
  const number = (key: 'sem' | 'cutOff' | 'plausible.min' | 'plausible.max', label: string) => {
    const value = { sem: values.sem, cutOff: values.cutOff, 'plausible.min': values.plausible.min };
    return (
      <UnitInput
        label={label}
        unit={unitWord(values.unit)}
        w={150}
        value={key === 'plausible.max' ? values.plausible.max : value[key]}
        error={form.errors[key]}
        onChange={(next) => form.setFieldValue(key, next)}
      />
    );
  };
  return (
    <form
      noValidate
      className={classes.editor}
      onSubmit={form.onSubmit((typed) => {
        save({ rowId, body: { ...(typed as Omit<OwnTest, 'id'>), version } })
          .unwrap()
          .then(
            () => {
              done();
              onDone();
            },
            () => undefined,
          );
      })}
    >
      <RestoredNote {...before} />
      <Group align="flex-start" gap="xs">
        <TextInput label="Name of the test" w={260} {...form.getInputProps('name')} />
        <Select
          label="Region"
          w={160}
          allowDeselect={false}
          data={REGIONS.map((r) => ({ value: r, label: REGION_LABEL[r] }))}
          {...form.getInputProps('region')}
        />
        <Select
          label="Measures"
          w={160}
          allowDeselect={false}
          data={options(QUANTITIES)}
          {...form.getInputProps('quantity')}
        />
        <Select
          label="Unit"
          w={110}
          allowDeselect={false}
          data={UNITS.map((unit) => ({ value: unit, label: unitWord(unit) || unit }))}
          {...form.getInputProps('unit')}
        />
        <Select
          label="Sides"
          w={150}
          allowDeselect={false}
          data={[
            { value: 'per-side', label: 'left and right' },
            { value: 'central', label: 'one value' },
          ]}
          {...form.getInputProps('sides')}
        />
        <Select
          label="Better is"
          w={110}
          allowDeselect={false}
          data={options(['higher', 'lower'])}
          {...form.getInputProps('better')}
        />
      </Group>
      <Textarea label="How it is done" mt={6} autosize minRows={2} {...form.getInputProps('procedure')} />
      <Group align="flex-start" gap="xs" mt={6}>
        {number('plausible.min', 'Least value')}
        {number('plausible.max', 'Most value')}
        {number('sem', 'Error (SEM)')}
        {number('cutOff', `Short ${values.better === 'higher' ? 'below' : 'above'}`)}
      </Group>
      <MultiSelect
        mt={6}
        label="Says something about"
        description="A short result there is a finding of these; leave the cut-off empty to judge by tasks and needs alone"
        searchable
        data={bundled.data.restrictions.map((r) => ({ value: r.id, label: r.name }))}
        {...form.getInputProps('informs')}
      />
      <Group mt="sm" gap="xs">
        <Button type="submit" loading={isLoading}>
          Save test
        </Button>
        <Button variant="subtle" onClick={onDone}>
          Cancel
        </Button>
      </Group>
      <Refusal error={error} mt={6} />
    </form>
  );
}

/** Tests of the practice's own: measured, judged and dosed by like those of the reference. */
export function OwnTests() {
  const reference = useReference();
  const { data } = useFiguresQuery();
  const [remove, { error }] = useRemoveTestMutation();
  const [open, setOpen] = useState<string | null>(null);
  return (
    <section className={`card ${classes.card}`} aria-labelledby="own-tests">
      <Group justify="space-between">
        <Title order={2} size={20} id="own-tests">
          Own tests
        </Title>
        <Allowed least="clinician">
          <Button leftSection={<IconPlus size={16} />} onClick={() => setOpen('new')}>
            Add test
          </Button>
        </Allowed>
      </Group>
      <Text size="sm" c="var(--muted)">
        Measured in a screening and judged with your error and cut-off; confidence low until you know better.
      </Text>
      {open === 'new' ? <TestForm test={null} onDone={() => setOpen(null)} /> : null}
      <ul className={classes.tasks}>
        {(data?.tests ?? []).map((test) => (
          <li key={test.rowId}>
            {open === test.rowId ? (
              <TestForm test={test} onDone={() => setOpen(null)} />
            ) : (
              <Group justify="space-between" wrap="nowrap">
                <span>
                  <b>{test.name}</b> <span className="muted">{REGION_LABEL[test.region]}</span>: error{' '}
                  {figureText(test.sem, test.unit)}
                  {test.cutOff === null
                    ? ', no cut-off'
                    : `, short ${test.better === 'higher' ? 'below' : 'above'} ${figureText(test.cutOff, test.unit)}`}
                  ; {test.informs.map((id) => nameOf(reference, id).toLowerCase()).join(', ')}
                </span>
                <Allowed least="clinician">
                  <Group gap={4} wrap="nowrap">
                    <Button size="compact-sm" variant="subtle" onClick={() => setOpen(test.rowId)}>
                      Edit
                    </Button>
                    <Button
                      size="compact-sm"
                      variant="subtle"
                      aria-label={`Remove ${test.name}`}
                      onClick={() => void remove(test)}
                    >
                      Remove
                    </Button>
                  </Group>
                </Allowed>
              </Group>
            )}
          </li>
        ))}
        {data?.tests.length === 0 && open !== 'new' ? <li className="muted">None yet.</li> : null}
      </ul>
      <Refusal error={error} />
    </section>
  );
}
