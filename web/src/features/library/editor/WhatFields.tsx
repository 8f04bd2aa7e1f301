import { Checkbox, Fieldset, Group, MultiSelect, Select, SimpleGrid, Text, TextInput } from '@mantine/core';
import { REGIONS } from '@yonder/core/domain';
import { kitWords } from '@yonder/core/formats';
import type { OwnDrill } from '@yonder/core/reference';
import { CATEGORY_LABEL, nameOf, REGION_LABEL } from '@yonder/core/words';
import { useReference } from '../../../app/reference.tsx';
import { UnitInput } from '../../../components/UnitInput.tsx';
import { numberProps, NEW_LADDER, plain } from './drillForm.ts';
import type { DrillForm } from './drillForm.ts';

/** Name, ladder and place, kind, movement, position, kit, regions, when. */
export function WhatFields({ form }: { form: DrillForm }) {
  const reference = useReference();
  const { ladder } = form.values;
  const known = reference.ladders.get(ladder);
  const ladders = reference.data.ladders.map((l) => ({ value: l.id, label: l.name }));
  const isNew = !known || form.values.ladderName !== undefined;
  return (
    <Fieldset legend="What it is">
      <TextInput label="Name" {...form.getInputProps('name')} />
      <SimpleGrid cols={2} spacing="xs" mt={6}>
        <Select
          label="Ladder"
          searchable
          limit={60}
          data={[
            { value: NEW_LADDER, label: '— a new ladder —' },
            ...ladders.filter((l) => l.value !== NEW_LADDER),
          ]}
          value={ladder}
          allowDeselect={false}
          onChange={(value) => {
            form.setFieldValue('ladder', value ?? NEW_LADDER);
            form.setFieldValue('ladderName', reference.ladders.has(value ?? '') ? undefined : 'New ladder');
          }}
        />
        <UnitInput
          label="Place in the ladder"
          unit="from the easiest"
          min={1}
          max={30}
          {...numberProps(form, 'level')}
        />
      </SimpleGrid>
      {isNew && form.values.ladderName !== undefined ? (
        <TextInput
          mt={6}
          label="Name of the new ladder"
          value={form.values.ladderName}
          error={form.errors.ladderName}
          onChange={(e) => form.setFieldValue('ladderName', e.currentTarget.value)}
        />
      ) : (
        <Text size="sm" c="var(--muted)" mt={4}>
          {known?.drills.map((id, i) => `${i + 1} ${nameOf(reference, id)}`).join(' · ')}
        </Text>
      )}
      <SimpleGrid cols={2} spacing="xs" mt={6}>
        <Select
          label="Kind"
          allowDeselect={false}
          data={Object.entries(CATEGORY_LABEL).map(([value, label]) => ({ value, label }))}
          {...form.getInputProps('category')}
        />
        <Select
          label="Movement"
          allowDeselect={false}
          data={['isometric-hold', 'dynamic', 'ballistic', 'passive'].map(plain)}
          {...form.getInputProps('contraction')}
        />
        <Select
          label="Position"
          allowDeselect={false}
          data={[...new Set(reference.data.drills.map((d) => d.position))].sort().map(plain)}
          {...form.getInputProps('position')}
        />
        <MultiSelect
          label="Kit"
          searchable
          data={[...kitWords(reference)].sort().map(plain)}
          {...form.getInputProps('equipment')}
        />
        <MultiSelect
          label="Regions"
          data={REGIONS.map((r) => ({ value: r, label: REGION_LABEL[r] }))}
          value={form.values.regions.primary}
          error={form.errors['regions.primary']}
          onChange={(v) => form.setFieldValue('regions.primary', v as OwnDrill['regions']['primary'])}
        />
        <MultiSelect
          label="When"
          data={['before-activity', 'standalone', 'after-activity'].map(plain)}
          {...form.getInputProps('timing')}
        />
      </SimpleGrid>
      <Group mt={8} gap="md">
        <Checkbox label="one side at a time" {...form.getInputProps('unilateral', { type: 'checkbox' })} />
        <Checkbox
          label="left and right in turn"
          {...form.getInputProps('alternating', { type: 'checkbox' })}
        />
        <Checkbox label="needs a helper" {...form.getInputProps('needsPartner', { type: 'checkbox' })} />
        <Checkbox label="offered under 16" {...form.getInputProps('youthOk', { type: 'checkbox' })} />
      </Group>
    </Fieldset>
  );
}
