import { Button, Group, MultiSelect, Select, Textarea, TextInput } from '@mantine/core';
import type { PracticeTestRow } from '@yonder/core/contracts';
import { REGIONS } from '@yonder/core/domain';
import type { OwnTest } from '@yonder/core/domain';
import { testFaults } from '@yonder/core/formats';
import { ownTestSchema } from '@yonder/core/schemas';
import { nameOf, REGION_LABEL, unitWord } from '@yonder/core/words';
import { zod4Resolver } from 'mantine-form-zod-resolver';
import { RestoredNote } from '../../app/kept/RestoredNote.tsx';
import { useKeptForm } from '../../app/kept/useKept.ts';
import { useBundledReference, useReference } from '../../app/reference.tsx';
import { Refusal } from '../../components/Refusal.tsx';
import { UnitInput } from '../../components/UnitInput.tsx';
import { useFiguresQuery, useRemoveTestMutation, useSaveTestMutation } from './figureEndpoints.ts';
import classes from './Figures.module.css';
import { figureText } from './figures.ts';
import { OwnList } from './OwnList.tsx';

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
const shortWord = (better: OwnTest['better']) => (better === 'higher' ? 'below' : 'above');
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
  const number = (key: string, label: string, value: number | null) => (
    <UnitInput
      label={label}
      unit={unitWord(values.unit)}
      w={150}
      value={value}
      error={form.errors[key]}
      onChange={(next) => form.setFieldValue(key, next)}
    />
  );
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
        {number('plausible.min', 'Least value', values.plausible.min)}
        {number('plausible.max', 'Most value', values.plausible.max)}
        {number('sem', 'Error (SEM)', values.sem)}
        {number('cutOff', `Short ${shortWord(values.better)}`, values.cutOff)}
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
  const shortText = ({ better, cutOff, unit }: PracticeTestRow) =>
    cutOff === null ? 'no cut-off' : `short ${shortWord(better)} ${figureText(cutOff, unit)}`;
  return (
    <OwnList
      id="own-tests"
      title="Own tests"
      one="test"
      rows={data?.tests}
      line={(test) => (
        <>
          <span className="muted">{REGION_LABEL[test.region]}</span>: error {figureText(test.sem, test.unit)},{' '}
          {shortText(test)}; {test.informs.map((id) => nameOf(reference, id).toLowerCase()).join(', ')}
        </>
      )}
      form={(test, onDone) => <TestForm test={test} onDone={onDone} />}
      onRemove={(test) => void remove(test)}
      error={error}
    >
      Measured in a screening and judged with your error and cut-off; confidence low until you know better.
    </OwnList>
  );
}
