import { Button, Fieldset, Select, TagsInput, TextInput } from '@mantine/core';
import classes from '../Library.module.css';
import type { DrillForm } from './drillForm.ts';

/** Set-up variables with their steps from easier to harder. */
export function SetupFields({ form }: { form: DrillForm }) {
  return (
    <Fieldset legend="Set-up, each with steps from easier to harder">
      {form.values.setupVariables.map((variable, i) => (
        <div key={i} className={classes.rowLine}>
          <TextInput label="What" w={170} {...form.getInputProps(`setupVariables.${i}.name`)} />
          <TextInput label="Harder when" w={150} {...form.getInputProps(`setupVariables.${i}.harder`)} />
          <TagsInput
            label="Steps"
            w={230}
            allowDuplicates={false}
            value={variable.steps.map(String)}
            error={form.errors[`setupVariables.${i}.steps`]}
            onChange={(steps) => {
              const own = steps.every((s) => s.trim() !== '' && Number.isFinite(Number(s)))
                ? steps.map(Number)
                : steps;
              form.setFieldValue(`setupVariables.${i}.steps`, own);
              form.setFieldValue(
                `setupVariables.${i}.scale`,
                typeof own[0] === 'number' ? 'number' : 'ordered',
              );
              if (!own.some((s) => s === variable.default))
                form.setFieldValue(`setupVariables.${i}.default`, own[0] ?? '');
            }}
          />
          <Select
            label="Usual"
            w={110}
            allowDeselect={false}
            data={variable.steps.map(String)}
            value={String(variable.default)}
            onChange={(v) =>
              form.setFieldValue(
                `setupVariables.${i}.default`,
                variable.steps.find((s) => String(s) === v) ?? '',
              )
            }
          />
          <Button
            size="compact-sm"
            variant="subtle"
            color="gray"
            onClick={() => form.removeListItem('setupVariables', i)}
          >
            Remove
          </Button>
        </div>
      ))}
      <Button
        mt={8}
        size="compact-sm"
        variant="light"
        onClick={() =>
          form.insertListItem('setupVariables', {
            id: `own-${form.values.setupVariables.length + 1}`,
            name: 'Height',
            unit: null,
            scale: 'ordered',
            easier: 'lower',
            harder: 'higher',
            steps: ['low', 'high'],
            default: 'low',
          })
        }
      >
        Add a set-up
      </Button>
    </Fieldset>
  );
}
