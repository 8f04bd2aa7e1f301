import { Chip, Fieldset, Group, TagsInput, Text, Textarea, TextInput } from '@mantine/core';
import { useReference } from '../../../app/reference.tsx';
import type { DrillForm } from './drillForm.ts';

/** Words for the athlete and the practitioner; the actions it rehearses. */
export function WordsFields({ form }: { form: DrillForm }) {
  const reference = useReference();
  const { patterns } = form.values;
  return (
    <Fieldset legend="In words">
      <Textarea
        label="For the athlete, one plain sentence"
        autosize
        minRows={2}
        {...form.getInputProps('athleteText')}
      />
      <TagsInput mt={6} label="Cues, one each" splitChars={[';']} {...form.getInputProps('cues')} />
      <TagsInput
        mt={6}
        label="Faults to watch, one each"
        splitChars={[';']}
        {...form.getInputProps('faults')}
      />
      <TextInput mt={6} label="What it feels like" {...form.getInputProps('feelsLike')} />
      <Text size="sm" fw={500} mt={10} mb={4}>
        Rehearses these actions (else its ladder says so)
      </Text>
      <Chip.Group
        multiple
        value={Object.keys(patterns)}
        onChange={(ids) =>
          form.setFieldValue('patterns', Object.fromEntries(ids.map((id) => [id, patterns[id] ?? 0.7])))
        }
      >
        <Group gap={5}>
          {reference.data.patterns.map(({ id, name }) => (
            <Chip key={id} value={id} size="xs">
              {name}
            </Chip>
          ))}
        </Group>
      </Chip.Group>
    </Fieldset>
  );
}
