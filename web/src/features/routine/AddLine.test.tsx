import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { DndContext } from '@dnd-kit/core';
import type { Draft } from '@yonder/core/contracts';
import type { RoutineItem } from '@yonder/core/domain';
import { describe, expect, it, vi } from 'vitest';
import { answerOf } from '../../testing/compute.ts';
import { showIn, workspaceOf } from '../../testing/workspace.tsx';
import { AddLine } from './AddLine.tsx';

// The computation itself answers, in this thread.
vi.mock('../../workers/client.ts', () => ({ compute: { call: answerOf } }));

async function show(precautions: object[] = []) {
  const onPut = vi.fn<(items: RoutineItem[]) => void>();
  const workspace = workspaceOf({ athlete: { birthDate: '1999-01-01', precautions } });
  const asked = { subject: workspace.subject, request: workspace.case.request };
  const nothing = () => undefined;
  await showIn(
    workspace,
    <DndContext>
      <AddLine
        draft={{ items: [] } as unknown as Draft}
        asked={asked}
        after=""
        onPut={onPut}
        onSection={nothing}
        onTakeOver={nothing}
      />
    </DndContext>,
  );
  return onPut;
}
const field = () => screen.getByRole<HTMLInputElement>('textbox', { name: 'Add a drill' });
const types = (text: string) => {
  fireEvent.change(field(), { target: { value: text } });
  fireEvent.keyDown(field(), { key: 'Enter' });
};

describe('composing at the keyboard', () => {
  it.each<[string, object]>([
    [
      'copenhagen short 2x20s L',
      { drill: 'copenhagen-short-lever', sets: 2, amount: 20, side: 'left', measure: 'hold-seconds' },
    ],
    ['Brücke einbeinig 3x10 bds.', { drill: 'single-leg-bridge', sets: 3, amount: 10, side: 'both' }],
    ['goblet squat 3x8 @12kg', { drill: 'goblet-squat', sets: 3, amount: 8, setup: { load: 12 } }],
    ['rest 90 s', { drill: 'pause', amount: 90 }],
    ['no jumping', { drill: 'own-words', caution: true, words: 'no jumping' }],
    ['quxzly 3x12 ea', { drill: 'own-words-reps-sides', words: 'quxzly', sets: 3, amount: 12 }],
  ])(
    '%s and Enter: it is in with what was typed, and the field is empty for the next',
    async (text, item) => {
      const onPut = await show();
      types(text);
      await waitFor(() => expect(onPut).toHaveBeenCalledTimes(1));
      expect(onPut.mock.calls[0]?.[0]).toMatchObject([item]);
      expect(field().value).toBe('');
    },
  );

  it('what is named comes first of what is found, and what safety keeps out is said, with the text still there', async () => {
    const onPut = await show([{ id: 'no-impact', reason: 'shin', setBy: 'R. Halloran' }]);
    fireEvent.change(field(), { target: { value: 'pogos 2x20' } });
    const list = await screen.findByRole('list', { name: 'Drills found' });
    await waitFor(() =>
      expect(within(list).getAllByRole('button')[0]?.getAttribute('aria-label')).toBe(
        'Add Two-leg pogo hops',
      ),
    );
    fireEvent.keyDown(field(), { key: 'Enter' });
    expect((await screen.findByRole('alert')).textContent).toMatch(/Two-leg pogo hops: not today/);
    expect([onPut.mock.calls.length, field().value]).toEqual([0, 'pogos 2x20']);
  });

  it('Enter held down puts it in once, and what is typed meanwhile stands', async () => {
    const onPut = await show();
    types('squat 3x8');
    for (let again = 0; again < 20; again += 1) fireEvent.keyDown(field(), { key: 'Enter' });
    fireEvent.change(field(), { target: { value: 'plank 40s' } });
    await waitFor(() => expect(onPut).toHaveBeenCalled());
    expect([onPut.mock.calls.length, field().value]).toEqual([1, 'plank 40s']);
  });
});
