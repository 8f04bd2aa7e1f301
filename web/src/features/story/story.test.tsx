import { fireEvent, screen, waitFor } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { problem } from '../../testing/server.ts';
import type { Sent } from '../../testing/server.ts';
import { choose } from '../../testing/choose.ts';
import { showIn, workspaceOf } from '../../testing/workspace.tsx';
import { Injuries } from './Injuries.tsx';
import { Pains } from './Pains.tsx';
import { Precautions } from './Precautions.tsx';

vi.setConfig({ testTimeout: 20_000 });
const pain = {
  id: 'p1',
  region: 'knee',
  side: 'right',
  aspect: 'front',
  feel: null,
  when: 'movement',
  nrs: 4,
  since: '2027-02-20',
  ended: null,
  version: 3,
};
const injury = {
  id: 'i1',
  region: 'ankle-foot',
  side: 'left',
  date: '2026-11-02',
  operated: true,
  what: 'sprain',
  version: 1,
};
const athlete = { pains: [pain], injuries: [injury], protocols: [], precautions: [] };

type Answer = Parameters<typeof showIn>[2];
const stored: Answer = ({ method }) =>
  method === 'GET' ? 'no answer' : { status: method === 'POST' ? 201 : 200, body: {} };
const changes = (sent: Sent[]) => sent.filter(({ method }) => method !== 'GET');
const type = (field: string, value: string) =>
  fireEvent.change(screen.getByRole('textbox', { name: field }), { target: { value } });

describe('what hurts', () => {
  it('is told with its place, and gone by one press with the version that was seen', async () => {
    const sent = await showIn(workspaceOf({}, athlete), <Pains />, stored);
    expect(screen.getByRole('listitem').textContent).toContain(
      'Knee, right, front 4/10 in movement, since 20 Feb 2027',
    );
    fireEvent.click(screen.getByRole('button', { name: 'Gone today' }));
    await waitFor(() => expect(changes(sent)).toHaveLength(1));
    expect(changes(sent)[0]).toMatchObject({ path: '/athletes/ada/pains/p1/end', body: { version: 3 } });
  });

  it('that cannot be ended says why, where it was pressed', async () => {
    await showIn(workspaceOf({}, athlete), <Pains />, ({ method }) =>
      method === 'GET' ? 'no answer' : problem(409, 'conflict', 'Changed by Kim just now.'),
    );
    fireEvent.click(screen.getByRole('button', { name: 'Gone today' }));
    expect((await screen.findByRole('alert')).textContent).toContain('Changed by Kim just now.');
  });

  it('is added only with a number, and what was typed stays until the server has it', async () => {
    let up = false;
    const sent = await showIn(workspaceOf({}, { ...athlete, pains: [] }), <Pains />, (one) =>
      one.method === 'POST' ? (up ? { status: 201, body: {} } : 'no answer') : 'no answer',
    );
    expect(screen.getByText('Nothing recorded.')).toBeTruthy();
    await choose('Where it hurts', 'Elbow and forearm');
    await choose('Aspect', 'outer');
    fireEvent.click(screen.getByRole('button', { name: 'Add pain' }));
    await waitFor(() =>
      expect(screen.getByRole('textbox', { name: 'How much' }).getAttribute('aria-invalid')).toBe('true'),
    );
    expect(changes(sent)).toEqual([]);
    type('How much', '6');
    fireEvent.click(screen.getByRole('button', { name: 'Add pain' }));
    await screen.findByRole('alert');
    expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'How much' }).value).toContain('6');
    up = true;
    fireEvent.click(screen.getByRole('button', { name: 'Add pain' }));
    await waitFor(() => expect(screen.queryByRole('alert')).toBeNull());
    expect(changes(sent).at(-1)?.body).toMatchObject({
      region: 'elbow',
      side: 'left',
      aspect: 'outer',
      when: 'movement',
      nrs: 6,
    });
    expect(changes(sent).at(-1)?.body).not.toHaveProperty('feel');
    await waitFor(() =>
      expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'How much' }).value).toBe(''),
    );
  });
});

describe('past injuries', () => {
  it('say whose protocol leads after an operation, and that none is entered', async () => {
    await showIn(workspaceOf({}, athlete), <Injuries />, stored);
    expect(screen.getByText(/sprain; operated, the treating clinician’s protocol leads/)).toBeTruthy();
  });
  it('with a protocol name who wrote it', async () => {
    const protocols = [{ region: 'ankle-foot', side: 'left', by: 'Dr Sanna Vik' }];
    await showIn(workspaceOf({}, { ...athlete, protocols }), <Injuries />, stored);
    expect(screen.getByText(/operated, Dr Sanna Vik’s protocol leads for 12 months/)).toBeTruthy();
  });
  it('are added with their day as people write it, and refused without one', async () => {
    const sent = await showIn(workspaceOf({}, { ...athlete, injuries: [] }), <Injuries />, stored);
    type('What happened', 'twisted on scree');
    fireEvent.click(screen.getByRole('button', { name: 'Add injury' }));
    await waitFor(() =>
      expect(screen.getByRole('textbox', { name: 'Date' }).getAttribute('aria-invalid')).toBe('true'),
    );
    expect(changes(sent)).toEqual([]);
    type('Date', '3.2.2027');
    fireEvent.blur(screen.getByRole('textbox', { name: 'Date' }));
    fireEvent.click(screen.getByRole('checkbox', { name: 'operated' }));
    fireEvent.click(screen.getByRole('button', { name: 'Add injury' }));
    await waitFor(() => expect(changes(sent)).toHaveLength(1));
    expect(changes(sent)[0]?.body).toMatchObject({
      region: 'ankle-foot',
      side: 'left',
      date: '2027-02-03',
      operated: true,
      what: 'twisted on scree',
    });
  });
  it('are removed with the version that was seen; refused, it is said', async () => {
    const sent = await showIn(workspaceOf({}, athlete), <Injuries />, ({ method }) =>
      method === 'GET' ? 'no answer' : problem(409, 'conflict', 'Somebody changed it.'),
    );
    fireEvent.click(screen.getByRole('button', { name: 'Remove injury of 2 Nov 2026' }));
    expect((await screen.findByRole('alert')).textContent).toContain('Somebody changed it.');
    expect(changes(sent)[0]).toMatchObject({ method: 'DELETE', path: '/athletes/ada/injuries/i1' });
  });
});

describe('precautions', () => {
  const row = {
    id: 'q1',
    precaution: 'generalised-hypermobility',
    region: null,
    side: null,
    since: '2027-01-10',
    until: null,
    setBy: 'Kim Aster',
    reason: 'thumb to forearm',
    ended: null,
    clearance: null,
    version: 2,
  };
  it('bind until a named person ends them', async () => {
    const sent = await showIn(workspaceOf({}, { ...athlete, precautions: [row] }), <Precautions />, stored);
    const line = screen.getAllByRole('listitem')[0];
    expect(line?.textContent).toMatch(/set by Kim Aster 10 Jan 2027: thumb to forearm/);
    fireEvent.click(screen.getByRole('button', { name: 'End…' }));
    fireEvent.change(screen.getByRole('textbox', { name: 'Ended by' }), { target: { value: 'Kim Aster' } });
    fireEvent.click(screen.getByRole('button', { name: /^End "/ }));
    await waitFor(() => expect(changes(sent)).toHaveLength(1));
    expect(changes(sent)[0]).toMatchObject({
      path: '/athletes/ada/precautions/q1/end',
      body: { by: 'Kim Aster', version: 2 },
    });
  });
  it('that were ended stay to be read, with who ended them', async () => {
    const ended = { ...row, ended: { by: 'Kim Aster', date: '2027-02-01' } };
    await showIn(workspaceOf({}, { ...athlete, precautions: [ended] }), <Precautions />, stored);
    expect(screen.getByText('None in force.')).toBeTruthy();
    expect(screen.getByText(/ended by Kim Aster, 1 Feb 2027/)).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'End…' })).toBeNull();
  });
});
