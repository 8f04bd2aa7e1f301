import { Fieldset, MultiSelect, Select, SimpleGrid, Text, Textarea } from '@mantine/core';
import { demandIndexOf, requiredPrecautions } from '@yonder/core/reference';
import { nameOf } from '@yonder/core/words';
import { useReference } from '../../../app/reference.tsx';
import { UnitInput } from '../../../components/UnitInput.tsx';
import { numberProps, plain } from './drillForm.ts';
import type { DrillForm } from './drillForm.ts';
import { useLooser } from './useLooser.ts';

/** Where the drill is looser than what it comes from: the source's traits hold unless somebody says why. */
function LooserField({ form }: { form: DrillForm }) {
  const reference = useReference();
  const { source, traits } = useLooser()(form.values);
  if (!source || traits.length === 0) return null;
  return (
    <Textarea
      mt={6}
      rows={2}
      label={`Why may it be looser than ${source.name.toLowerCase()}?`}
      description={`Left out here: ${traits.map((trait) => nameOf(reference, trait).toLowerCase()).join('; ')}. Without a reason they hold all the same. With one you sign for it, and it is told wherever the drill is used.`}
      value={form.values.looser?.reason ?? ''}
      error={form.errors['looser.reason']}
      onChange={({ currentTarget: { value } }) =>
        form.setFieldValue('looser', value ? { reason: value, by: '', date: '' } : undefined)
      }
    />
  );
}

/** Load, fatigue, skill, and the precautions that stop it; those its traits bring are always among them. */
export function LoadFields({ form }: { form: DrillForm }) {
  const reference = useReference();
  const required = requiredPrecautions(form.values, reference.data.precautions);
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
      <LooserField form={form} />
    </Fieldset>
  );
}
