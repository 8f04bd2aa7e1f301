import { act, fireEvent, screen, waitFor } from '@testing-library/react';
import type { TemplateRow } from '@yonder/core/contracts';
import { writeProtocolFile } from '@yonder/core/protocols';
import { requestSchema } from '@yonder/core/schemas';
import { expect, it, vi } from 'vitest';
import { showIn, workspaceOf } from '../../testing/workspace.tsx';
import { ApplyToMany } from './ApplyToMany.tsx';
import { SaveTemplate, TemplatePicker } from './Templates.tsx';

const item = {
  drill: 'cat-camel',
  side: 'both',
  phase: null,
  sets: 1,
  amount: 8,
  measure: 'reps',
  holdSeconds: null,
  restSeconds: 0,
  tempo: null,
  setup: {},
};
const template = {
  id: 't',
  version: 2,
  savedBy: 'K. Tarn',
  savedOn: '2027-02-01',
  name: 'Descent day',
  sport: 'fell running',
  role: '',
  author: 'A. Wold',
  purpose: 'before long descents',
  notFor: 'a fresh ankle',
  occasion: 'before-training',
  sections: [],
  variables: { minutes: 'as-written', place: 'athlete', level: 'athlete' },
  structure: 'short-minimum',
  request: { mode: 'prepare' },
  items: [item],
} as unknown as TemplateRow;
const answer = ({ path, method }: { path: string; method: string }) => {
  if (path === '/templates' && method === 'GET')
    return { status: 200, body: { items: [template], next: null } };
  if (path === '/templates') return { status: 201, body: { ...template, id: 'n', version: 1 } };
  return path.startsWith('/templates/t')
    ? { status: 200, body: { ...template, version: 3 } }
    : ('no answer' as const);
};

it('a protocol says whose it is, what for and for whom not, and is fitted or taken word by word', async () => {
  const onUse = vi.fn();
  const onWords = vi.fn();
  await showIn(workspaceOf({}), <TemplatePicker onUse={onUse} onWords={onWords} />, answer);
  const open = () => fireEvent.click(screen.getByRole('button', { name: 'From a protocol' }));
  open();
  expect(await screen.findByText(/by A. Wold · version 2/)).toBeTruthy();
  expect(screen.getByText('Not for: a fresh ankle')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Word by word' }));
  expect(onWords).toHaveBeenCalledWith(template);
  open();
  fireEvent.click(await screen.findByRole('button', { name: 'Fit to this athlete' }));
  expect(onUse).toHaveBeenCalledWith(template);
});

it('a file that is no protocol is refused where it was chosen, and nothing is sent', async () => {
  const sent = await showIn(workspaceOf({}), <TemplatePicker onUse={vi.fn()} onWords={vi.fn()} />, answer);
  fireEvent.click(screen.getByRole('button', { name: 'From a protocol' }));
  await screen.findByText('Descent day');
  const field = document.querySelector<HTMLInputElement>('input[type="file"]');
  const choose = async (text: string) => {
    const file = new File([text], 'protocol.json');
    if (field) await act(async () => void fireEvent.change(field, { target: { files: [file] } }));
  };
  await choose('{"format": "something else"}');
  expect(await screen.findByText(/\$\.format: must be "yonder-ridge-protocol\/1"/)).toBeTruthy();
  await choose('not json');
  expect(await screen.findByText(/\$: not JSON/)).toBeTruthy();
  expect(sent.filter(({ method }) => method !== 'GET')).toEqual([]);
});

it('a protocol of another practice is kept as ours, with whose it was', async () => {
  const sent = await showIn(workspaceOf({}), <TemplatePicker onUse={vi.fn()} onWords={vi.fn()} />, answer);
  fireEvent.click(screen.getByRole('button', { name: 'From a protocol' }));
  await screen.findByText('Descent day');
  const text = writeProtocolFile({ ...template, request: requestSchema.parse({}), name: 'Ice day' });
  const field = document.querySelector<HTMLInputElement>('input[type="file"]');
  await act(async () => {
    if (field) fireEvent.change(field, { target: { files: [new File([text], 'protocol.json')] } });
  });
  await waitFor(() =>
    expect(sent.find(({ method }) => method === 'POST')?.body).toMatchObject({
      name: 'Ice day',
      author: 'A. Wold',
      items: [{ drill: 'cat-camel' }],
    }),
  );
});

it('kept under a name that is there, it becomes the next version of that one', async () => {
  const draft = {
    request: {},
    structure: 'short-minimum',
    sections: [],
    items: [{ id: 'a', ...item }],
    left: [],
  };
  const onClose = vi.fn();
  const sent = await showIn(
    workspaceOf({}),
    <SaveTemplate draft={draft as never} onClose={onClose} />,
    answer,
  );
  fireEvent.change(await screen.findByLabelText('Name'), { target: { value: 'Descent day' } });
  fireEvent.change(screen.getByLabelText('Purpose'), { target: { value: 'for the season' } });
  await act(
    async () => void fireEvent.click(await screen.findByRole('button', { name: 'Keep as version 3' })),
  );
  const put = sent.find(({ method }) => method === 'PUT');
  expect(put?.path).toBe('/templates/t');
  expect(put?.body).toMatchObject({
    version: 2,
    author: 'A. Wold',
    purpose: 'for the season',
    occasion: 'before-training',
  });
  expect(onClose).toHaveBeenCalled();
});

it('for several athletes it says what became of each', async () => {
  const athletes = [
    { id: 'x', name: 'Isla Crowmarsh' },
    { id: 'y', name: 'Bram Tollgate' },
  ];
  const sent = await showIn(workspaceOf({}), <ApplyToMany template={template} />, (one) => {
    if (one.path === '/athletes') return { status: 200, body: { items: athletes, next: null, pending: 0 } };
    if (!one.path.startsWith('/templates')) return 'no answer';
    const { athleteId } = (one.body ?? {}) as { athleteId?: string };
    return athleteId === 'x'
      ? {
          status: 200,
          body: { athleteId, stored: true, lines: 6, changed: ['Low hops: a precaution forbids it.'] },
        }
      : { status: 200, body: { athleteId, stored: false, lines: 6, changed: [] } };
  });
  fireEvent.click(await screen.findByRole('combobox', { name: 'Athletes' }));
  for (const { name } of athletes) fireEvent.click(await screen.findByText(name));
  await act(async () => void fireEvent.click(screen.getByRole('button', { name: 'Make 2 drafts' })));
  expect(await screen.findByText('2 of 2 done')).toBeTruthy();
  expect(screen.getByText(/a draft of 6 lines; otherwise: Low hops/)).toBeTruthy();
  expect(screen.getByText(/something is being edited there/)).toBeTruthy();
  const asked = sent.filter(({ path }) => path === '/templates/t/apply').map(({ body }) => body);
  expect(asked).toEqual([
    { athleteId: 'x', occasion: 'before-training', how: 'fitted' },
    { athleteId: 'y', occasion: 'before-training', how: 'fitted' },
  ]);
});
