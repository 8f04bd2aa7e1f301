import { cleanup, screen } from '@testing-library/react';
import { ROLES } from '@yonder/core/contracts';
import type { Me, Role } from '@yonder/core/contracts';
import { afterEach, describe, expect, it } from 'vitest';
import { Protocols } from '../features/story/Protocols.tsx';
import { Injuries } from '../features/story/Injuries.tsx';
import { Precautions } from '../features/story/Precautions.tsx';
import { showIn, workspaceOf } from '../testing/workspace.tsx';
import { RANK } from './may.ts';
import { signedIn, signedOut } from './sessionSlice.ts';
import { store } from './store.ts';

afterEach(() => {
  cleanup();
  store.dispatch(signedOut());
});

const precaution = {
  id: 'p',
  version: 1,
  precaution: 'no-overhead',
  reason: '',
  setBy: 'A. Fell',
  since: '2027-02-01',
  until: null,
  region: null,
  side: null,
  clearance: null,
  ended: null,
};

/** What somebody of a role is offered on the story: buttons that can be pressed, fields that can be typed into. */
async function offered(role: Role): Promise<string[]> {
  const me = { clinician: { id: 'c', name: 'K. Tarn', role }, practice: { name: 'P' }, csrfToken: 't' };
  store.dispatch(signedIn(me as unknown as Me));
  const workspace = workspaceOf({}, { injuries: [], precautions: [precaution], protocols: [] });
  await showIn(
    workspace,
    <>
      <Injuries />
      <Precautions />
      <Protocols gates={[{ region: 'knee', side: 'left' }]} />
    </>,
  );
  expect(screen.getByText('No overhead')).toBeTruthy(); // everybody reads it
  return screen
    .getAllByRole<HTMLButtonElement>('button', { hidden: true })
    .filter((button) => !button.matches(':disabled, fieldset:disabled *'))
    .map((button) => button.textContent ?? '');
}

describe('what a role may not do', () => {
  it('follows the order of the roles', () => {
    expect([...ROLES].sort((a, b) => RANK[a] - RANK[b])).toEqual(ROLES);
  });

  it('is not offered: an owner and a clinician set precautions, an assistant adds injuries, a reader nothing', async () => {
    for (const role of ['owner', 'clinician'] as const) {
      expect(await offered(role)).toEqual(expect.arrayContaining(['Set precaution', 'End…', 'Add injury']));
      cleanup();
    }
    const assistant = await offered('assistant');
    expect(assistant).toContain('Add injury');
    for (const closed of ['Set precaution', 'End…', 'Save protocol']) expect(assistant).not.toContain(closed);
    cleanup();
    expect(await offered('read-only').catch((error: Error) => error.message)).toEqual([]);
  });

  it('is said where the fields stand to be read', async () => {
    await offered('assistant');
    expect(screen.getByText('To read; it takes a clinician to change it.')).toBeTruthy();
  });
});
