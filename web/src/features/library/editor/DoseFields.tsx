import { Fieldset, Select, SimpleGrid, TextInput } from '@mantine/core';
import { UnitInput } from '../../../components/UnitInput.tsx';
import { numberProps, plain } from './drillForm.ts';
import type { DrillForm } from './drillForm.ts';

/** Sets, amount, rest, hold and effort. */
export function DoseFields({ form }: { form: DrillForm }) {
  const { dose } = form.values;
  const unit = { reps: 'reps', 'hold-seconds': 's', seconds: 's', metres: 'm', contacts: 'contacts' }[
    dose.measure
  ];
  const range = (path: 'sets' | 'amount', label: string, own: string) => (
    <SimpleGrid cols={3} spacing="xs" mt={6}>
      {(['min', 'default', 'max'] as const).map((key) => (
        <UnitInput
          key={key}
          label={`${label}, ${key === 'default' ? 'usual' : key === 'min' ? 'least' : 'most'}`}
          unit={own}
          min={1}
          {...numberProps(form, `dose.${path}.${key}`)}
        />
      ))}
    </SimpleGrid>
  );
  return (
    <Fieldset legend="Dose">
      <SimpleGrid cols={2} spacing="xs">
        <Select
          label="Counted in"
          allowDeselect={false}
          data={['reps', 'hold-seconds', 'seconds', 'metres', 'contacts'].map(plain)}
          {...form.getInputProps('dose.measure')}
        />
        <UnitInput label="Seconds for one" unit="s" min={0} {...numberProps(form, 'dose.secondsPerRep')} />
      </SimpleGrid>
      {range('sets', 'Sets', '')}
      {range('amount', 'Amount', unit)}
      <SimpleGrid cols={3} spacing="xs" mt={6}>
        <UnitInput label="Rest" unit="s" min={0} {...numberProps(form, 'dose.restSeconds.default')} />
        <UnitInput
          label="Hold of each"
          unit="s"
          min={0}
          placeholder="none"
          {...numberProps(form, 'dose.holdSeconds')}
        />
        <UnitInput label="Setting up" unit="s" min={0} {...numberProps(form, 'setupSeconds')} />
      </SimpleGrid>
      <TextInput mt={6} label="Effort in words" {...form.getInputProps('dose.intensity')} />
    </Fieldset>
  );
}
