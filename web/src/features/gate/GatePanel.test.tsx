import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { DAY, showIn, workspaceOf } from '../../testing/workspace.tsx';
import { GatePanel } from './GatePanel.tsx';

const posted = (sent: { method: string; body: unknown }[]) =>
  sent.filter(({ method }) => method === 'POST').map(({ body }) => body);
const stored = ({ method }: { method: string }) =>
  method === 'POST' ? ({ status: 201, body: { id: 'ada', asked: [] } } as const) : ('no answer' as const);
const title = () => screen.getByRole('heading', { level: 2, name: /\?$/ }).textContent ?? '';

async function open(props: object = {}) {
  const onDone = vi.fn();
  const workspace = workspaceOf({ athlete: { birthDate: '2001-05-02', asked: [] } });
  const sent = await showIn(workspace, <GatePanel onDone={onDone} {...props} />, stored);
  return { sent, onDone };
}

describe('the gate', () => {
  it('takes the key of the open topic alone, and goes on once it is stored', async () => {
    const { sent } = await open();
    await waitFor(() => expect(title()).toContain('chest pain'));
    fireEvent.keyDown(document.documentElement, { key: 'y' });
    expect(posted(sent)).toEqual([]);
    fireEvent.keyDown(document.documentElement, { key: 'n' });
    await waitFor(() => expect(title()).toContain('knock'));
    expect(posted(sent)).toMatchObject([{ topic: 'heart', outcome: 'none', signs: [] }]);
  });

  it('with a sign ticked says "none" no more, asks for its region, and tells what to do', async () => {
    const { sent, onDone } = await open({ only: ['use'] });
    await waitFor(() => expect(title()).toContain('every limb'));
    fireEvent.click(screen.getByLabelText(/cannot take four steps/));
    expect(screen.queryByRole('button', { name: /all of it/ })).toBeNull();
    fireEvent.keyDown(document.documentElement, { key: 'y' });
    expect(posted(sent)).toEqual([]);
    const record = screen.getByRole<HTMLButtonElement>('button', { name: 'Record this sign' });
    expect(record.disabled).toBe(true);
    fireEvent.click(screen.getByRole('combobox', { name: 'Which region?' }));
    fireEvent.click(await screen.findByRole('option', { name: 'Knee', hidden: false }));
    fireEvent.click(record);
    await screen.findByRole('alert');
    expect(posted(sent)).toMatchObject([
      { topic: 'use', outcome: 'signs', signs: [{ redFlag: 'gen-fracture', region: 'knee' }] },
    ]);
    expect(onDone).not.toHaveBeenCalled();
    fireEvent.click(screen.getByRole('button', { name: /^Said and recorded/ }));
    expect(onDone).toHaveBeenCalled();
  });

  it('asks nothing twice in a season: what holds is not waited for', async () => {
    const asked = [{ topic: 'heart', on: DAY, until: '2027-09-30' }];
    const workspace = workspaceOf({ athlete: { birthDate: '2001-05-02', asked } });
    await showIn(workspace, <GatePanel onDone={() => undefined} />, stored);
    await waitFor(() => expect(title()).toContain('knock'));
    expect(screen.getByText('9 topics left')).toBeTruthy();
  });

  it('what was ticked and not recorded is there again, and can be thrown away', async () => {
    await open({ only: ['use'] });
    fireEvent.click(await screen.findByLabelText(/cannot take four steps/));
    cleanup();
    const { sent } = await open({ only: ['use'] });
    const sign = await screen.findByLabelText<HTMLInputElement>(/cannot take four steps/);
    expect(sign.checked).toBe(true);
    expect(posted(sent)).toEqual([]);
    fireEvent.click(screen.getByRole('button', { name: 'Throw it away' }));
    expect(sign.checked).toBe(false);
    cleanup();
    await open({ only: ['use'] });
    expect((await screen.findByLabelText<HTMLInputElement>(/cannot take four steps/)).checked).toBe(false);
  });
});
