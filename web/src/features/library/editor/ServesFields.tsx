import { Button, Fieldset, Select } from '@mantine/core';
import { useReference } from '../../../app/reference.tsx';
import classes from '../Library.module.css';
import type { DrillForm } from './drillForm.ts';

const MATCHES = [
  { value: '1', label: '1 main purpose' },
  { value: '0.7', label: '0.7 strong' },
  { value: '0.4', label: '0.4 useful' },
  { value: '0.2', label: '0.2 side benefit' },
];

/** Which restrictions it serves, and how well. */
export function ServesFields({ form }: { form: DrillForm }) {
  const reference = useReference();
  const data = reference.data.restrictions.map((r) => ({ value: r.id, label: r.name }));
  return (
    <Fieldset legend="What it serves">
      {form.values.serves.map((serve, i) => (
        <div key={`${serve.restriction}-${i}`} className={classes.rowLine}>
          <Select
            aria-label={`Restriction ${i + 1}`}
            searchable
            allowDeselect={false}
            w={260}
            data={data}
            {...form.getInputProps(`serves.${i}.restriction`)}
          />
          <Select
            aria-label={`Match ${i + 1}`}
            allowDeselect={false}
            w={150}
            data={
              MATCHES.some((m) => m.value === String(serve.match))
                ? MATCHES
                : [...MATCHES, { value: String(serve.match), label: String(serve.match) }]
            }
            value={String(serve.match)}
            onChange={(v) => form.setFieldValue(`serves.${i}.match`, Number(v))}
          />
          <Button
            size="compact-sm"
            variant="subtle"
            color="gray"
            disabled={form.values.serves.length === 1}
            onClick={() => form.removeListItem('serves', i)}
          >
            Remove
          </Button>
        </div>
      ))}
      <Button
        mt={8}
        size="compact-sm"
        variant="light"
        onClick={() => form.insertListItem('serves', { restriction: data[0]?.value ?? '', match: 0.4 })}
      >
        Add a restriction
      </Button>
    </Fieldset>
  );
}
