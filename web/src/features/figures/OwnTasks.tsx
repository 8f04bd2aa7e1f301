import { ActionIcon, Button, Group, Select, TextInput } from '@mantine/core';
import { IconPlus, IconTrash } from '@tabler/icons-react';
import type { PracticeTaskRow } from '@yonder/core/contracts';
import { nameOf, unitWord } from '@yonder/core/words';
import { Refusal } from '../../components/Refusal.tsx';
import { useKeptForm } from '../../app/kept/useKept.ts';
import { RestoredNote } from '../../app/kept/RestoredNote.tsx';
import { useReference } from '../../app/reference.tsx';
import { UnitInput } from '../../components/UnitInput.tsx';
import { useFiguresQuery, useRemoveTaskMutation, useSaveTaskMutation } from './figureEndpoints.ts';
import classes from './Figures.module.css';
import { figureText } from './figures.ts';
import { OwnList } from './OwnList.tsx';

type Row = { test: string; value: number | null; side: 'lead' | 'trail' | 'both' };
const EMPTY_ROW: Row = { test: '', value: null, side: 'both' };
const SIDES = [
  { value: 'both', label: 'both sides' },
  { value: 'lead', label: 'leading side' },
  { value: 'trail', label: 'trailing side' },
];

/** Name, sport and what the task asks of which test. */
function TaskForm({ task, onDone }: { task: PracticeTaskRow | null; onDone: () => void }) {
  const reference = useReference();
  const [save, { isLoading, error }] = useSaveTaskMutation();
  const { form, done, ...before } = useKeptForm(`task/${task?.rowId ?? 'new'}`, 'A sport task', {
    initialValues: {
      name: task?.name ?? '',
      sport: task?.sport ?? '',
      demands: (task?.demands ?? [EMPTY_ROW]) as Row[],
    },
    validate: {
      name: (value) => (value.trim() ? null : 'a name is needed'),
      demands: {
        test: (value) => (value ? null : 'choose a test'),
        value: (value) => (value === null ? 'how much is asked?' : null),
      },
    },
  });
  const tests = reference.data.tests.map((t) => ({ value: t.id, label: t.name }));
  const submit = form.onSubmit(({ name, sport, demands }) => {
    const rows = demands.map(({ test, value, side }) => ({ test, value: value ?? 0, side }));
    save({ rowId: task?.rowId ?? null, body: { name, sport, demands: rows, version: task?.version ?? null } })
      .unwrap()
      .then(
        () => {
          done();
          onDone();
        },
        () => undefined,
      );
  });
  return (
    <form onSubmit={submit} noValidate className={classes.editor}>
      <RestoredNote {...before} />
      <Group align="flex-start" gap="xs">
        <TextInput label="Name of the task" w={260} {...form.getInputProps('name')} />
        <TextInput label="Sport" w={200} {...form.getInputProps('sport')} />
      </Group>
      {form.values.demands.map((row, index) => (
        <Group key={index} align="flex-start" gap="xs" mt={6}>
          <Select
            aria-label={`Test ${index + 1}`}
            placeholder="Test"
            searchable
            w={330}
            data={tests}
            {...form.getInputProps(`demands.${index}.test`)}
          />
          <UnitInput
            aria-label={`Asked of test ${index + 1}`}
            unit={unitWord(reference.tests.get(row.test)?.unit ?? '')}
            w={130}
            value={row.value}
            error={form.errors[`demands.${index}.value`]}
            onChange={(value) => form.setFieldValue(`demands.${index}.value`, value)}
          />
          <Select
            aria-label={`Side of test ${index + 1}`}
            w={130}
            data={SIDES}
            allowDeselect={false}
            {...form.getInputProps(`demands.${index}.side`)}
          />
          {form.values.demands.length > 1 ? (
            <ActionIcon
              variant="subtle"
              color="gray"
              mt={6}
              aria-label={`Remove test ${index + 1}`}
              onClick={() => form.removeListItem('demands', index)}
            >
              <IconTrash size={16} />
            </ActionIcon>
          ) : null}
        </Group>
      ))}
      <Group mt="sm" gap="xs">
        <Button
          variant="light"
          leftSection={<IconPlus size={14} />}
          onClick={() => form.insertListItem('demands', EMPTY_ROW)}
        >
          Another test
        </Button>
        <Button type="submit" loading={isLoading}>
          Save task
        </Button>
        <Button variant="subtle" onClick={onDone}>
          Cancel
        </Button>
      </Group>
      <Refusal error={error} mt={6} />
    </form>
  );
}

/** Sport tasks of the practice's own beside those of the reference. */
export function OwnTasks() {
  const reference = useReference();
  const { data } = useFiguresQuery();
  const [remove, { error }] = useRemoveTaskMutation();
  const asked = (d: PracticeTaskRow['demands'][0]) =>
    `${nameOf(reference, d.test)} ${figureText(d.value, reference.tests.get(d.test)?.unit ?? '')}`;
  return (
    <OwnList
      id="tasks-title"
      title="Own sport tasks"
      one="task"
      rows={data?.tasks}
      line={(task) => (
        <>
          <span className="muted">{task.sport}</span>: {task.demands.map(asked).join('; ')}
        </>
      )}
      form={(task, onDone) => <TaskForm task={task} onDone={onDone} />}
      onRemove={(task) => void remove(task)}
      error={error}
    >
      What your sport asks of which test. An athlete’s need is the most demanding of their tasks and the
      floor.
    </OwnList>
  );
}
