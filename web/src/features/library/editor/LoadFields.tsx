import { Fieldset, MultiSelect, Select, SimpleGrid, Text } from '@mantine/core';
import { demandIndexOf, requiredPrecautions } from '@yonder/core/reference';
import { nameOf } from '@yonder/core/words';
import { useReference } from '../../../app/reference.tsx';
import { UnitInput } from '../../../components/UnitInput.tsx';
import { numberProps, plain } from './drillForm.ts';
import type { DrillForm } from './drillForm.ts';

/** Load, fatigue, skill, and the precautions that stop it; those its traits bring are always among them. */
export function LoadFields({ form }: { form: DrillForm }) {
  const reference = useReference();
  const required = requiredPrecautions(form.values);
  return (
    <Fieldset legend="Load and precautions">
      <SimpleGrid cols={2} spacing="xs">
        <Select
          label="Load"
          allowDeselect={false}
          data={['unloaded', 'partial', 'full', 'impact'].map(plain)}
          {...form.getInputProps('loadClass')}
        />
        <Select
          label="Class for the weekly count"
          allowDeselect={false}
          data={['low', 'moderate', 'high'].map(plain)}
          {...form.getInputProps('intensityClass')}
        />
        <UnitInput label="Fatigue" unit="0–4" min={0} max={4} {...numberProps(form, 'fatigue')} />
        <UnitInput label="Skill" unit="1–5" min={1} max={5} {...numberProps(form, 'skill')} />
        <UnitInput label="Warms" unit="0–3" min={0} max={3} {...numberProps(form, 'raisesTemperature')} />
      </SimpleGrid>
      <Text size="sm" mt={6}>
        Demand {demandIndexOf(form.values)}: load + fatigue + skill, one more when ballistic.
      </Text>
      <MultiSelect
        mt={6}
        label="Stops or changes with these precautions"
        searchable
        data={reference.data.precautions.map((p) => ({ value: p.id, label: p.name }))}
        value={[...new Set([...form.values.contraindications, ...required])]}
        error={form.errors.contraindications}
        onChange={(v) => form.setFieldValue('contraindications', v)}
      />
      {required.length > 0 ? (
        <Text size="sm" c="var(--muted)">
          Always with a drill like this:{' '}
          {required.map((id) => nameOf(reference, id).toLowerCase()).join('; ')}.
        </Text>
      ) : null}
    </Fieldset>
  );
}
