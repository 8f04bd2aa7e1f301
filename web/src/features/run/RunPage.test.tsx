import { fireEvent, screen, waitFor } from '@testing-library/react';
import { bundledReference } from '@yonder/core/reference/bundled';
import { describe, expect, it } from 'vitest';
import { showIn, workspaceOf } from '../../testing/workspace.tsx';
import { RunPage } from './RunPage.tsx';

const asking = bundledReference.data.drills.find((drill) => drill.entryCriteria.some((c) => c.check));
const check = bundledReference.data.sessionChecks.find((one) =>
  asking?.entryCriteria.some((criterion) => criterion.check === one.id),
);
if (!asking || !check) throw new Error('no drill asks anything first');
const item = {
  id: '00000000-0000-4000-8000-0000000000c0',
  drill: asking.id,
  side: asking.unilateral ? 'left' : 'both',
  phase: null,
  sets: 1,
  amount: asking.dose.amount.min,
  measure: asking.dose.measure,
  holdSeconds: null,
  restSeconds: 0,
  tempo: null,
  setup: {},
};
const routine = {
  id: 'r',
  number: 1,
  totalSeconds: 60,
  items: [item],
  changes: [],
  findings: [],
  reasons: [],
  overrides: [],
};

const open = () =>
  showIn(workspaceOf({}), <RunPage />, ({ method, path }) => {
    if (path === '/routines/r') return { status: 200, body: routine };
    if (method === 'GET' && path.endsWith('/sessions'))
      return { status: 200, body: { items: [], next: null } };
    return 'no answer';
  });
const start = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Start' });
const answer = (word: string) => {
  for (const choice of screen.getAllByLabelText<HTMLInputElement>(word)) fireEvent.click(choice);
};

describe('before a run', () => {
  it('every question is asked, and one that does not hold keeps the run closed with what follows', async () => {
    const sent = await open();
    await waitFor(() => expect(start().disabled).toBe(true));
    expect(screen.getByText(/to answer first/)).toBeTruthy();
    answer('does not');
    expect(start().disabled).toBe(true);
    expect(screen.getByText(new RegExp(check.ifFailed.slice(0, 30)))).toBeTruthy();
    answer('holds');
    expect(start().disabled).toBe(false);
    fireEvent.click(start());
    await waitFor(() =>
      expect(sent.find(({ method }) => method === 'POST')?.body).toMatchObject({
        routineId: 'r',
        date: '2027-03-01',
      }),
    );
  });
});
