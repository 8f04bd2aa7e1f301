import { act, cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { Draft } from '@yonder/core/contracts';
import { describe, expect, it, vi } from 'vitest';
import { answerOf } from '../../testing/compute.ts';
import { showIn, workspaceOf } from '../../testing/workspace.tsx';
import { TakeOver } from './TakeOver.tsx';

// The computation itself answers, in this thread.
vi.mock('../../workers/client.ts', () => ({ compute: { call: answerOf } }));

const LIST = 'Legs (4 min):\nbridge 2x12\nwalk or jog 3 min before\nice if sore';

async function show(draft: Draft | null = null, precautions: object[] = []) {
  const onTake = vi.fn();
  const workspace = workspaceOf({ athlete: { birthDate: '1999-01-01', precautions } });
  const asked = { subject: workspace.subject, request: workspace.case.request };
  await showIn(workspace, <TakeOver asked={asked} draft={draft} onTake={onTake} onClose={() => undefined} />);
  return onTake;
}
const paste = (text: string) =>
  fireEvent.paste(screen.getByRole('textbox', { name: 'The list' }), {
    clipboardData: { getData: () => text },
  });
const lines = async () =>
  within(await screen.findByRole('list', { name: 'Lines of the list' })).getAllByRole('listitem');
const press = (name: RegExp | string) => fireEvent.click(screen.getByRole('button', { name }));

describe('taking over a list', () => {
  it('pasted into an empty field it is read at once: what is a head, sure, to choose, or only text', async () => {
    const onTake = await show();
    paste(LIST);
    const [head, bridge, walk, ice] = await lines();
    expect(head?.textContent).toMatch(/section.*Legs, 4 min/);
    expect(bridge?.textContent).toMatch(/sure.*Bridge.*2 × 12/);
    expect(walk?.textContent).toMatch(/choose/);
    expect(ice?.textContent).toMatch(/only read, no time/);
    const take = screen.getByRole<HTMLButtonElement>('button', { name: 'Take over, 4 of 4 lines kept' });
    expect([take.disabled, screen.queryByText(/one line has to be chosen first/) !== null]).toEqual([
      true,
      true,
    ]);
    fireEvent.click(within(walk as HTMLElement).getByRole('button', { name: 'as text' }));
    press('Take over, 4 of 4 lines kept');
    const [{ items, sections }, below] = onTake.mock.calls[0] as [Draft, boolean];
    expect(below).toBe(false);
    expect(sections).toMatchObject([{ name: 'Legs', minutes: 4 }]);
    expect(items.map(({ drill, sets, amount }) => [drill, sets, amount]).at(0)).toEqual([
      'glute-bridge',
      2,
      12,
    ]);
    expect(items).toHaveLength(3);
  });

  it('another meaning, or the words as they are, is one press, and is there again after a reload', async () => {
    await show();
    paste(LIST);
    const walk = async () => (await lines())[2] as HTMLElement;
    fireEvent.click(within(await walk()).getByRole('button', { name: 'Easy jog with arm patterns' }));
    cleanup();
    const onTake = await show();
    const chosen = within(await walk()).getByRole('button', { name: 'Easy jog with arm patterns' });
    expect(chosen.getAttribute('aria-pressed')).toBe('true');
    fireEvent.click(within(await walk()).getByRole('button', { name: 'as text' }));
    press(/^Take over/);
    expect((onTake.mock.calls[0] as [Draft])[0].items[1]).toMatchObject({
      drill: 'own-words',
      words: 'walk or jog, before',
    });
    cleanup();
    await show();
    expect((await screen.findByRole<HTMLTextAreaElement>('textbox', { name: 'The list' })).value).toBe('');
  });

  it('what safety keeps out is held with why, and something near stands there only when it is pressed', async () => {
    const onTake = await show(null, [{ id: 'no-impact', reason: 'shin', setBy: 'R. Halloran' }]);
    paste('bridge 2x10\nhop the line 2x20');
    const held = (await lines())[1] as HTMLElement;
    expect(held.textContent).toMatch(/held.*kept as a note that it is not for now/);
    fireEvent.click(within(held).getByRole('button', { name: /^Instead: / }));
    press(/^Take over/);
    const drills = (onTake.mock.calls[0] as [Draft])[0].items.map(({ drill }) => drill);
    expect(drills).not.toContain('own-words');
    expect(drills).toHaveLength(2);
  });

  it('beside lines that are there it replaces them or goes below', async () => {
    const onTake = await show({ items: [{}, {}] } as Draft);
    paste('bridge 2x10');
    await lines();
    press('Below the 2 there');
    expect(onTake.mock.calls[0]?.[1]).toBe(true);
  });

  it('a file that is no text, one too large, and more lines than a routine holds are said where it was tried', async () => {
    await show();
    const choose = async (content: string) => {
      const field = document.querySelector<HTMLInputElement>('input[type="file"]');
      const file = new File([content], 'list.txt', { type: 'text/plain' });
      await act(async () => {
        if (field) fireEvent.change(field, { target: { files: [file] } });
      });
    };
    await choose('bridge\u0000');
    expect(await screen.findByText(/That is no text file/)).toBeTruthy();
    await choose('x'.repeat(90_000));
    expect(await screen.findByText(/too large for a list/)).toBeTruthy();
    await choose('bridge 2x10\n'.repeat(90));
    const alert = await screen.findByRole('alert');
    expect(alert.textContent).toMatch(/A routine holds \d+ lines; this list makes 90\. Cut it in two\./);
    expect(screen.getByRole<HTMLButtonElement>('button', { name: /^Take over/ }).disabled).toBe(true);
    press('Edit the paper');
    await waitFor(() =>
      expect(screen.getByRole<HTMLTextAreaElement>('textbox', { name: 'The list' }).value).toContain(
        'bridge',
      ),
    );
  });

  it('a line is written on where it stands: kept over a reload in mid-typing, read on Enter or on leaving, given up on Escape', async () => {
    await show();
    paste('bridge 2x12\n\nsquat 3x8\nplank 30s');
    const line = () => screen.findByRole<HTMLTextAreaElement>('textbox', { name: 'Line 2 of the paper' });
    const writes = async (value: string) => fireEvent.change(await line(), { target: { value } });
    await lines();
    press('Change line 2 of the paper');
    await writes('goblet squat 3x8');
    cleanup();
    await show();
    await lines();
    expect((await line()).value).toBe('goblet squat 3x8');
    fireEvent.blur(await line());
    await waitFor(async () => expect((await lines())[1]?.textContent).toMatch(/sure.*Goblet squat.*3 × 8/));
    press('Change line 2 of the paper');
    await writes('nothing of this');
    fireEvent.keyDown(await line(), { key: 'Escape' });
    press('Change line 2 of the paper');
    await writes('squat 3x8\nwall sit 45s');
    fireEvent.keyDown(await line(), { key: 'Enter' });
    await waitFor(async () => expect(await lines()).toHaveLength(4));
    expect(
      (await lines()).map((row) => /Bridge|Slow squat|Wall sit|Forearm plank/.exec(row.textContent)?.[0]),
    ).toEqual(['Bridge', 'Slow squat', 'Wall sit', 'Forearm plank']);
  });
});
