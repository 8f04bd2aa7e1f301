import { act, render } from '@testing-library/react';
import { assessCase } from '@yonder/core/assess';
import { bundledReference } from '@yonder/core/reference/bundled';
import { caseSchema } from '@yonder/core/schemas';
import { Suspense } from 'react';
import type { ReactNode } from 'react';
import { ReferenceProvider } from '../app/reference.tsx';
import { WorkspaceContext } from '../features/athletes/WorkspaceContext.tsx';
import type { Workspace } from '../features/athletes/WorkspaceContext.tsx';
import { Page } from './Page.tsx';
import { fakeServer } from './server.ts';
import type { Sent } from './server.ts';

/** The day on which pages under test work. */
export const DAY = '2027-03-01';

/** A workspace over a case; `athlete` is what the server shows of the athlete beside it. */
export function workspaceOf(input: object, athlete: object = {}): Workspace {
  const parsed = caseSchema.parse({
    format: 'yonder-ridge-case/1',
    today: DAY,
    athlete: { birthDate: '2001-05-02' },
    ...input,
  });
  const assessment = assessCase(bundledReference, parsed);
  return {
    athlete: { id: 'ada', name: 'Ada Fellgate', birthDate: '2001-05-02', pains: [], asked: [], ...athlete },
    case: parsed,
    assessment,
    report: assessment.report,
    subject: { revision: 'one', case: parsed },
    occasion: 'before-training',
    chooseOccasion: () => undefined,
    routineId: 'r',
    on: DAY,
    region: 'ankle-foot',
    selectRegion: () => undefined,
  } as unknown as Workspace;
}

/** Shows part of a workspace with the shipped reference; `answer` stands in for the rest of the server. */
export async function showIn(
  workspace: Workspace,
  children: ReactNode,
  answer: Parameters<typeof fakeServer>[0] = () => 'no answer',
): Promise<Sent[]> {
  const sent = fakeServer((one) => {
    const own = answer(one);
    if (own !== 'no answer') return own;
    if (one.path === '/reference') return { status: 200, body: { version: 'v' } };
    if (one.path === '/reference/v') return { status: 200, body: bundledReference.data };
    return own;
  });
  // What suspends is shown once the act is over.
  await act(
    async () =>
      void render(
        <Page>
          <Suspense>
            <ReferenceProvider>
              <WorkspaceContext value={workspace}>{children}</WorkspaceContext>
            </ReferenceProvider>
          </Suspense>
        </Page>,
      ),
  );
  return sent;
}
