import { Button, Fieldset, Group, Select } from '@mantine/core';
import type { UseFormReturnType } from '@mantine/form';
import type { AthleteFields } from '@yonder/core/contracts';
import { nameOf } from '@yonder/core/words';
import { useReference } from '../../app/reference.tsx';
import { UnitInput } from '../../components/UnitInput.tsx';
import classes from './AthleteForm.module.css';

type Effort = AthleteFields['exposure'][0]['effort'];

const EFFORTS: readonly { effort: Effort; label: string }[] = [
  { effort: 'easy', label: 'easy' },
  { effort: 'hard', label: 'hard' },
];

/** The list with this many sessions a week of one action at one effort; an action stays while either is asked for. */
function withSessions(
  exposure: AthleteFields['exposure'],
  action: string,
  effort: Effort,
  perWeek: number,
): AthleteFields['exposure'] {
  const at = exposure.findIndex((entry) => entry.action === action && entry.effort === effort);
  return at < 0
    ? [...exposure, { action, effort, perWeek }]
    : exposure.map((entry, i) => (i === at ? { ...entry, perWeek } : entry));
}

/** What the athlete does every week: it opens starting levels of what rehearses it, to be confirmed. */
export function ExposureFields({ form }: { form: UseFormReturnType<AthleteFields> }) {
  const reference = useReference();
  const { exposure } = form.values;
  const actions = [...new Set(exposure.map(({ action }) => action))];
  const set = (next: AthleteFields['exposure']) => form.setFieldValue('exposure', next);
  return (
    <Fieldset legend="Done every week" className={classes.group}>
      {actions.map((action) => (
        <Group key={action} align="flex-end" gap={6} mb={6}>
          {EFFORTS.map(({ effort, label }) => (
            <UnitInput
              key={effort}
              label={`${nameOf(reference, action)}, ${label}`}
              unit="a week"
              w={170}
              min={0}
              max={21}
              value={exposure.find((e) => e.action === action && e.effort === effort)?.perWeek ?? 0}
              onChange={(perWeek) => set(withSessions(exposure, action, effort, perWeek ?? 0))}
            />
          ))}
          <Button
            size="xs"
            variant="subtle"
            color="gray"
            aria-label={`Remove ${nameOf(reference, action)}`}
            onClick={() => set(exposure.filter((entry) => entry.action !== action))}
          >
            Remove
          </Button>
        </Group>
      ))}
      <Select
        label="Add an action"
        description="Weekly and easy opens more of its drills, twice a week and hard opens most; each is to be confirmed at the first run"
        placeholder="run, climb, throw …"
        searchable
        data={reference.data.patterns
          .filter(({ id }) => !actions.includes(id))
          .map(({ id, name }) => ({ value: id, label: name }))}
        value={null}
        onChange={(action) => {
          if (action) set(withSessions(exposure, action, 'easy', 2));
        }}
      />
    </Fieldset>
  );
}
