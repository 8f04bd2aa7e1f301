import { act, fireEvent, screen } from '@testing-library/react';
import { OCCASIONS } from '@yonder/core/domain';
import { expect, it, vi } from 'vitest';
import { store } from '../../app/store.ts';
import { signedIn } from '../../app/sessionSlice.ts';
import { showIn, workspaceOf } from '../../testing/workspace.tsx';
import { Occasions } from './Occasions.tsx';

const rowOf = (occasion: string, over: object = {}) => ({
  occasion,
  routine: null,
  draft: null,
  days: [],
  timesPerDay: 1,
  endedOn: null,
  endedBy: null,
  version: null,
  ...over,
});
const routine = { id: 'r', number: 2, issuedOn: '2027-02-01', mode: 'prepare', totalSeconds: 600, lines: 6 };

async function show(first: object = { routine, days: ['mon', 'thu'], timesPerDay: 2, version: 3 }) {
  const chooseOccasion = vi.fn();
  store.dispatch(
    signedIn({
      clinician: { id: 'c', name: 'K. Tarn', role: 'clinician' },
      practice: { name: 'P' },
      csrfToken: 't',
    } as never),
  );
  const items = OCCASIONS.map((occasion) =>
    rowOf(
      occasion,
      occasion === 'before-training'
        ? first
        : occasion === 'at-home'
          ? { draft: { lines: 4, version: 1 } }
          : {},
    ),
  );
  const workspace = { ...workspaceOf({}), chooseOccasion };
  const sent = await showIn(workspace, <Occasions more />, ({ method, path }) =>
    !path.startsWith('/athletes/ada/occasions')
      ? 'no answer'
      : { status: 200, body: method === 'GET' ? { items } : items[0] },
  );
  return { chooseOccasion, sent };
}

it('shows what is in force and being edited, and offers the rest', async () => {
  const { chooseOccasion } = await show();
  const tabs = await screen.findAllByRole('tab');
  expect(tabs.map((tab) => tab.textContent)).toEqual(['Before trainingversion 2', 'At homedraft']);
  fireEvent.click(tabs[1] as HTMLElement);
  expect(chooseOccasion).toHaveBeenCalledWith('at-home');
  fireEvent.click(screen.getByRole('button', { name: '+ Occasion' }));
  fireEvent.click(await screen.findByText('Called in'));
  expect(chooseOccasion).toHaveBeenCalledWith('called-in');
});

it('says how often it is meant, and keeps another day on the version that was read', async () => {
  const { sent } = await show();
  fireEvent.click(await screen.findByRole('button', { name: 'How often: Mon, Thu, 2 × a day' }));
  await act(async () => fireEvent.click(await screen.findByLabelText('Sat')));
  const put = sent.find(({ method }) => method === 'PUT');
  expect(put?.path).toBe('/athletes/ada/occasions/before-training');
  expect(put?.body).toEqual({ days: ['mon', 'thu', 'sat'], timesPerDay: 2, ended: false, version: 3 });
});

it('one out of force stays there, so that its days can change and it can be put back', async () => {
  const { sent } = await show({ endedOn: '2027-02-20', endedBy: 'K. Tarn', days: ['mon'], version: 5 });
  expect((await screen.findAllByRole('tab'))[0]?.textContent).toBe('Before trainingout of force');
  fireEvent.click(screen.getByRole('button', { name: 'How often: Mon' }));
  await act(async () => fireEvent.click(await screen.findByLabelText('Sat')));
  await act(async () =>
    fireEvent.click(screen.getByRole('button', { name: 'Put its routine in force again' })),
  );
  const put = sent.filter(({ method }) => method === 'PUT').map(({ body }) => body);
  expect(put).toMatchObject([{ days: ['mon', 'sat'], ended: true }, { ended: false }]);
});
