import { act, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { assessCase } from '@yonder/core/assess';
import { bundledReference } from '@yonder/core/reference/bundled';
import { caseSchema } from '@yonder/core/schemas';
import { Suspense } from 'react';
import { describe, expect, it } from 'vitest';
import { ReferenceProvider } from '../../app/reference.tsx';
import { Page } from '../../testing/Page.tsx';
import { fakeServer } from '../../testing/server.ts';
import { WorkspaceContext } from '../athletes/WorkspaceContext.tsx';
import type { Workspace } from '../athletes/WorkspaceContext.tsx';
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
};
const input = caseSchema.parse({
  format: 'yonder-ridge-case/1',
  today: '2027-03-01',
  athlete: { birthDate: '2001-05-02' },
});
const assessment = assessCase(bundledReference, input);
const workspace = {
  athlete: { id: 'ada' },
  case: input,
  assessment,
  report: assessment.report,
  subject: { revision: 'one', case: input },
  routineId: 'r',
  on: '2027-03-01',
} as unknown as Workspace;

async function open() {
  const sent = fakeServer(({ method, path }) => {
    if (path === '/reference') return { status: 200, body: { version: 'v' } };
    if (path === '/reference/v') return { status: 200, body: bundledReference.data };
    if (path === '/routines/r') return { status: 200, body: routine };
    if (method === 'GET' && path.endsWith('/sessions'))
      return { status: 200, body: { items: [], next: null } };
    return 'no answer';
  });
  // What suspends is shown once the act is over.
  await act(
    async () =>
      void render(
        <Page>
          <Suspense>
            <ReferenceProvider>
              <WorkspaceContext value={workspace}>
                <RunPage />
              </WorkspaceContext>
            </ReferenceProvider>
          </Suspense>
        </Page>,
      ),
  );
  return sent;
}
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
