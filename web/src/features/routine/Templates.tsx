import { Button, Group, Stack, Text, TextInput } from '@mantine/core';
import { Refusal } from '../../components/Refusal.tsx';
import { Dialog } from '../../components/Dialog.tsx';
import { notifications } from '@mantine/notifications';
import type { Draft, TemplateRow } from '@yonder/core/contracts';
import { MODE_LABEL } from '@yonder/core/words';
import { useState } from 'react';
import { RestoredNote } from '../../app/kept/RestoredNote.tsx';
import { useKeptForm } from '../../app/kept/useKept.ts';
import { dayText } from '../../app/today.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import {
  useRemoveTemplateMutation,
  useSaveTemplateMutation,
  useTemplatesQuery,
} from './templateEndpoints.ts';

/** Keeps the routine being edited as a template of the practice, new or in place of one of the same name. */
export function SaveTemplate({ draft, onClose }: { draft: Draft; onClose: () => void }) {
  const { athlete } = useWorkspace();
  const { data: templates } = useTemplatesQuery();
  const [save, { isLoading, error }] = useSaveTemplateMutation();
  const { form, done, ...before } = useKeptForm(`template/${athlete.id}`, 'A template', {
    initialValues: { name: '', sport: athlete.sport, role: '' },
    validate: { name: (name) => (name.trim().length < 2 ? 'a name is needed' : null) },
  });
  const same = templates?.find((t) => t.name === form.values.name.trim());
  const keep = form.onSubmit((values) => {
    const { request, structure, items } = draft;
    const body = {
      ...values,
      name: values.name.trim(),
      request,
      structure,
      items,
    };
    save({ same, body })
      .unwrap()
      .then(
        () => {
          done();
          onClose();
          notifications.show({ message: `Template “${body.name}” is kept.` });
        },
        () => undefined, // shown in the form
      );
  });
  return (
    <Dialog onClose={onClose} title="Keep as a template of the practice">
      <form onSubmit={keep}>
        <Stack gap="xs">
          <RestoredNote {...before} />
          <TextInput label="Name" data-autofocus {...form.getInputProps('name')} />
          <Group grow>
            <TextInput label="Sport" {...form.getInputProps('sport')} />
            <TextInput label="Role" placeholder="such as junior" {...form.getInputProps('role')} />
          </Group>
          <Text size="sm" c="var(--muted)">
            Whoever it is used for gets it fitted: to what is short, to kit, minutes and precautions.
          </Text>
          {same ? <Text size="sm">A template of this name is there: it will be replaced.</Text> : null}
          <Refusal error={error} />
          <Button type="submit" loading={isLoading}>
            {same ? 'Replace template' : 'Keep template'}
          </Button>
        </Stack>
      </form>
    </Dialog>
  );
}

function TemplateLine({ template, onUse }: { template: TemplateRow; onUse: () => void }) {
  const [remove, { isLoading }] = useRemoveTemplateMutation();
  return (
    <Group justify="space-between" wrap="nowrap" gap="xs">
      <div>
        <Text fw={650}>{template.name}</Text>
        <Text size="sm" c="var(--muted)">
          {[template.sport, template.role].filter(Boolean).join(', ') || 'any sport'} ·{' '}
          {MODE_LABEL[template.request.mode].toLowerCase()} · {template.items.length} drills · kept by{' '}
          {template.savedBy}, {dayText(template.savedOn)}
        </Text>
      </div>
      <Group gap={6} wrap="nowrap">
        <Button size="xs" variant="light" onClick={onUse}>
          Fit to this athlete
        </Button>
        <Button
          size="xs"
          variant="subtle"
          color="gray"
          loading={isLoading}
          onClick={() => void remove(template)}
        >
          Remove
        </Button>
      </Group>
    </Group>
  );
}

/** Templates of the practice, those of the athlete's sport first. */
export function TemplatePicker({ onUse }: { onUse: (template: TemplateRow) => void }) {
  const [opened, setOpened] = useState(false);
  const { athlete } = useWorkspace();
  const { data: templates } = useTemplatesQuery();
  const ranked = [...(templates ?? [])].sort(
    (a, b) =>
      Number(b.sport === athlete.sport) - Number(a.sport === athlete.sport) || (a.name < b.name ? -1 : 1),
  );
  return (
    <>
      <Button variant="default" size="xs" onClick={() => setOpened(true)}>
        From a template
      </Button>
      {opened ? (
        <Dialog onClose={() => setOpened(false)} title="Start from a template" size="lg">
          <Stack gap="sm">
            {ranked.map((template) => (
              <TemplateLine
                key={template.id}
                template={template}
                onUse={() => {
                  setOpened(false);
                  onUse(template);
                }}
              />
            ))}
            {templates?.length === 0 ? (
              <Text>None yet. Build a routine and keep it with “Save as template”.</Text>
            ) : null}
          </Stack>
        </Dialog>
      ) : null}
    </>
  );
}
