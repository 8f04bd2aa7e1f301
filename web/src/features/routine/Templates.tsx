import { Button, FileButton, Group, Select, Stack, Text, Textarea, TextInput } from '@mantine/core';
import { Refusal } from '../../components/Refusal.tsx';
import { Dialog } from '../../components/Dialog.tsx';
import { notifications } from '@mantine/notifications';
import type { Draft, TemplateFields, TemplateRow } from '@yonder/core/contracts';
import { readProtocolFile, writeProtocolFile } from '@yonder/core/protocols';
import { MODE_LABEL, OCCASION_LABEL } from '@yonder/core/words';
import { useState } from 'react';
import { errorText } from '../../app/api.ts';
import type { ApiError } from '../../app/api.ts';
import { RestoredNote } from '../../app/kept/RestoredNote.tsx';
import { useKeptForm } from '../../app/kept/useKept.ts';
import { dayText } from '../../app/today.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import { ApplyToMany } from './ApplyToMany.tsx';
import {
  useRemoveTemplateMutation,
  useSaveTemplateMutation,
  useTemplatesQuery,
  useTemplateVersionsQuery,
} from './templateEndpoints.ts';

/** What can vary, and how it is asked. */
const VARIES = [
  { key: 'minutes', label: 'Minutes' },
  { key: 'place', label: 'Kit and room' },
  { key: 'level', label: 'Levels' },
] as const;
const VARIES_DATA = [
  { value: 'as-written', label: 'as written' },
  { value: 'athlete', label: 'as for the athlete' },
];
/** Keeps the routine being edited as a protocol of the practice, new or as the next version of one of the same name. */
export function SaveTemplate({ draft, onClose }: { draft: Draft; onClose: () => void }) {
  const { athlete, occasion } = useWorkspace();
  const { data: templates } = useTemplatesQuery();
  const [save, { isLoading, error }] = useSaveTemplateMutation();
  const { form, done, ...before } = useKeptForm(`template/${athlete.id}`, 'A protocol', {
    initialValues: {
      name: '',
      sport: athlete.sport,
      role: '',
      purpose: '',
      notFor: '',
      minutes: 'as-written',
      place: 'athlete',
      level: 'athlete',
    },
    validate: { name: (name) => (name.trim().length < 2 ? 'a name is needed' : null) },
  });
  const same = templates?.find((t) => t.name === form.values.name.trim());
  const keep = form.onSubmit(({ minutes, place, level, ...values }) => {
    const { request, structure, sections, items } = draft;
    const body: TemplateFields = {
      ...values,
      name: values.name.trim(),
      author: same?.author ?? '',
      occasion,
      variables: { minutes, place, level } as TemplateFields['variables'],
      request,
      structure,
      sections,
      items,
    };
    save({ same, body })
      .unwrap()
      .then(
        () => {
          done();
          onClose();
          notifications.show({ message: `Protocol “${body.name}” is kept.` });
        },
        () => undefined, // shown in the form
      );
  });
  return (
    <Dialog onClose={onClose} title="Keep as a protocol of the practice" size="lg">
      <form onSubmit={keep}>
        <Stack gap="xs">
          <RestoredNote {...before} />
          <TextInput label="Name" data-autofocus maxLength={120} {...form.getInputProps('name')} />
          <Group grow>
            <TextInput label="Sport" maxLength={80} {...form.getInputProps('sport')} />
            <TextInput
              label="Role"
              placeholder="such as junior"
              maxLength={80}
              {...form.getInputProps('role')}
            />
          </Group>
          <Textarea label="Purpose" rows={2} maxLength={500} {...form.getInputProps('purpose')} />
          <Textarea label="Not for" rows={2} maxLength={500} {...form.getInputProps('notFor')} />
          <Group grow>
            {VARIES.map(({ key, label }) => (
              <Select
                key={key}
                label={label}
                data={VARIES_DATA}
                allowDeselect={false}
                {...form.getInputProps(key)}
              />
            ))}
          </Group>
          <Text size="sm" c="var(--muted)">
            Precautions and the rules of the day hold for everybody it is used for, whatever is written.
          </Text>
          {same ? (
            <Text size="sm">
              A protocol of this name is there: this becomes its version {same.version + 1}; what it was is
              kept.
            </Text>
          ) : null}
          <Refusal error={error} />
          <Button type="submit" loading={isLoading}>
            {same ? `Keep as version ${same.version + 1}` : 'Keep protocol'}
          </Button>
        </Stack>
      </form>
    </Dialog>
  );
}

/** How a protocol is used, the way that it asks for itself first. */
const waysOf = ({ variables }: TemplateRow) =>
  variables.level === 'athlete'
    ? (['fitted', 'word-by-word'] as const)
    : (['word-by-word', 'fitted'] as const);

/** Every version that a protocol had. */
function History({ id }: { id: string }) {
  const { data } = useTemplateVersionsQuery(id);
  return (
    <ul style={{ margin: '4px 0', paddingLeft: 20, fontSize: 13.5 }}>
      {data?.map(({ number, savedBy, savedOn, content }) => (
        <li key={number}>
          Version {number}, {dayText(savedOn)} by {savedBy}: {content.items.length} lines
        </li>
      ))}
    </ul>
  );
}

/** Saves a protocol as a file. */
function download(template: TemplateRow): void {
  const url = URL.createObjectURL(new Blob([writeProtocolFile(template)], { type: 'application/json' }));
  const name = `${template.name.replace(/[^\p{L}\p{N}]+/gu, '-').toLowerCase()}.json`;
  Object.assign(document.createElement('a'), { href: url, download: name }).click();
  URL.revokeObjectURL(url);
}

interface LineProps {
  /** The protocol. */
  template: TemplateRow;
  /** It is fitted to the athlete. */
  onUse: () => void;
  /** It is taken word by word. */
  onWords: () => void;
}

function TemplateLine({ template, onUse, onWords }: LineProps) {
  const [remove, { isLoading }] = useRemoveTemplateMutation();
  const [more, setMore] = useState<'versions' | 'many' | null>(null);
  const about = [
    [template.sport, template.role].filter(Boolean).join(', ') || 'any sport',
    template.occasion
      ? OCCASION_LABEL[template.occasion].toLowerCase()
      : MODE_LABEL[template.request.mode].toLowerCase(),
    `${template.items.length} lines`,
    `by ${template.author}`,
    `version ${template.version}, ${dayText(template.savedOn)}`,
  ];
  return (
    <div role="group" aria-label={template.name}>
      <Text fw={650}>{template.name}</Text>
      <Text size="sm" c="var(--muted)">
        {about.join(' · ')}
      </Text>
      {template.purpose ? <Text size="sm">{template.purpose}</Text> : null}
      {template.notFor ? <Text size="sm">Not for: {template.notFor}</Text> : null}
      <Group gap={6} mt={4}>
        {waysOf(template).map((how) => (
          <Button
            key={how}
            size="xs"
            variant={how === waysOf(template)[0] ? 'light' : 'subtle'}
            onClick={how === 'fitted' ? onUse : onWords}
          >
            {how === 'fitted' ? 'Fit to this athlete' : 'Word by word'}
          </Button>
        ))}
        <Button size="xs" variant="subtle" onClick={() => setMore(more === 'many' ? null : 'many')}>
          Several athletes…
        </Button>
        <Button size="xs" variant="subtle" onClick={() => setMore(more === 'versions' ? null : 'versions')}>
          Versions
        </Button>
        <Button
          size="xs"
          variant="subtle"
          aria-label={`Save ${template.name} as a file`}
          onClick={() => download(template)}
        >
          As a file
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
      {more === 'versions' ? <History id={template.id} /> : null}
      {more === 'many' ? <ApplyToMany template={template} /> : null}
    </div>
  );
}

/** Largest file that is read as a protocol. */
const MOST_BYTES = 1_000_000;

/** Takes a protocol in from a file; says what is wrong with it where it is not one. */
function FromFile() {
  const [save] = useSaveTemplateMutation();
  const { data: templates } = useTemplatesQuery();
  const [problem, setProblem] = useState<string | null>(null);
  const take = async (file: File | null) => {
    if (!file) return;
    setProblem(null);
    if (file.size > MOST_BYTES) {
      setProblem(`${file.name} is too large for a protocol.`);
      return;
    }
    const found = readProtocolFile(await file.text());
    if ('faults' in found) {
      const [first, ...more] = found.faults;
      setProblem(
        `${file.name}, ${first?.path ?? '$'}: ${first?.message ?? ''}${more.length > 0 ? `; and ${more.length} more` : ''}`,
      );
      return;
    }
    const { protocol } = found;
    const same = templates?.find(({ name }) => name === protocol.name);
    save({ same, body: protocol })
      .unwrap()
      .then(
        ({ name, version }) =>
          notifications.show({ message: `Protocol “${name}” is kept, version ${version}.` }),
        (error: ApiError) => setProblem(errorText(error)),
      );
  };
  return (
    <>
      <FileButton onChange={(file) => void take(file)} accept="application/json,.json">
        {(props) => (
          <Button variant="subtle" size="xs" {...props}>
            From a file…
          </Button>
        )}
      </FileButton>
      {problem ? (
        <Text size="sm" c="var(--danger)" role="alert">
          {problem}
        </Text>
      ) : null}
    </>
  );
}

interface PickerProps {
  /** A protocol is fitted to the athlete. */
  onUse: (template: TemplateRow) => void;
  /** A protocol is taken word by word. */
  onWords: (template: TemplateRow) => void;
}

/** Protocols of the practice, those of the athlete's sport first. */
export function TemplatePicker({ onUse, onWords }: PickerProps) {
  const [opened, setOpened] = useState(false);
  const { athlete } = useWorkspace();
  const { data: templates } = useTemplatesQuery();
  const ranked = [...(templates ?? [])].sort(
    (a, b) =>
      Number(b.sport === athlete.sport) - Number(a.sport === athlete.sport) || (a.name < b.name ? -1 : 1),
  );
  const use = (act: (template: TemplateRow) => void, template: TemplateRow) => {
    setOpened(false);
    act(template);
  };
  return (
    <>
      <Button variant="default" size="xs" h={34} onClick={() => setOpened(true)}>
        From a protocol
      </Button>
      {opened ? (
        <Dialog onClose={() => setOpened(false)} title="Protocols of the practice" size="xl">
          <Stack gap="md">
            {ranked.map((template) => (
              <TemplateLine
                key={template.id}
                template={template}
                onUse={() => use(onUse, template)}
                onWords={() => use(onWords, template)}
              />
            ))}
            {templates?.length === 0 ? (
              <Text>None yet. Build or compose a routine and keep it with “Save as protocol”.</Text>
            ) : null}
            <FromFile />
          </Stack>
        </Dialog>
      ) : null}
    </>
  );
}
