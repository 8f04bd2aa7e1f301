import { fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { keptUnder } from '../../app/kept/store.ts';
import { choose } from '../../testing/choose.ts';
import { Page } from '../../testing/Page.tsx';
import { fakeServer, problem } from '../../testing/server.ts';
import type { Sent } from '../../testing/server.ts';
import { AccountPage } from './AccountPage.tsx';
import { LinkPage } from './LinkPage.tsx';
import { PracticePage } from './PracticePage.tsx';

vi.setConfig({ testTimeout: 20_000 });
type Answer = Parameters<typeof fakeServer>[0];
const show = (page: React.ReactNode, answer: Answer, at?: string): Sent[] => {
  const sent = fakeServer(answer);
  render(<Page {...(at ? { at } : {})}>{page}</Page>);
  return sent;
};
const type = (field: string, value: string) =>
  fireEvent.change(screen.getByLabelText(field, { selector: 'input' }), { target: { value } });
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }));
const changes = (sent: Sent[]) => sent.filter(({ method }) => method !== 'GET');

describe('one’s own password', () => {
  const answer =
    (changed: () => { status: number; body?: unknown }): Answer =>
    ({ path }) => {
      if (path === '/account/sign-ins')
        return {
          status: 200,
          body: {
            items: [
              { at: '2027-02-28T07:30:00Z', address: '192.0.2.7', browser: 'Browser', succeeded: false },
            ],
          },
        };
      return changed();
    };
  it('is changed only where the new one is long enough and typed twice alike; nothing of it is kept here', async () => {
    const sent = show(
      <AccountPage />,
      answer(() => ({ status: 200, body: { csrfToken: 't2' } })),
    );
    type('Password now', 'ridge-walk');
    type('New password', 'short');
    type('New password again', 'short!');
    press('Change password');
    expect(await screen.findByText('the two are not the same')).toBeTruthy();
    expect(changes(sent)).toEqual([]);
    type('New password', 'a long way up the ridge');
    type('New password again', 'a long way up the ridge');
    expect(JSON.stringify(keptUnder(''))).not.toContain('ridge');
    press('Change password');
    expect(await screen.findByText(/Every other session of yours has ended/)).toBeTruthy();
    expect(changes(sent)).toEqual([
      {
        method: 'POST',
        path: '/account/password',
        body: { current: 'ridge-walk', next: 'a long way up the ridge' },
      },
    ]);
    expect(screen.getByLabelText<HTMLInputElement>('Password now', { selector: 'input' }).value).toBe('');
  });
  it('that is not the one they have is refused in words; refused sign-ins are told apart', async () => {
    show(
      <AccountPage />,
      answer(() => problem(400, 'wrong-password', 'That is not your password now.')),
    );
    const table = within(screen.getByRole('table', { name: 'Last sign-ins' }));
    expect(await table.findByText('refused')).toBeTruthy();
    type('Password now', 'guess');
    type('New password', 'a long way up the ridge');
    type('New password again', 'a long way up the ridge');
    press('Change password');
    expect((await screen.findByRole('alert')).textContent).toContain('That is not your password now.');
  });
  it('signing out everywhere that did not happen is said: nobody is left to think that it did', async () => {
    show(<AccountPage />, ({ path }) =>
      path === '/account/sign-ins' ? { status: 200, body: { items: [] } } : 'no answer',
    );
    press('Sign out everywhere');
    expect((await screen.findByRole('alert')).textContent).toContain('The server does not answer.');
  });
});

describe('people of the practice', () => {
  const kim = {
    id: 'k',
    name: 'Kim Aster',
    email: 'kim@northfell.example',
    role: 'assistant',
    active: true,
    joined: true,
    lastSignIn: null,
    linkUntil: null,
    version: 4,
  };
  const practice = { name: 'Northfell', timeZone: 'Europe/Oslo', seasonStarts: '10-01', version: 2 };
  const link = {
    token: 'x'.repeat(43),
    until: '2027-03-08T09:00:00Z',
    person: { ...kim, name: 'Ivo Marsh' },
  };
  const answer =
    (changed: (one: Sent) => { status: number; body?: unknown }): Answer =>
    (one) => {
      if (one.method !== 'GET') return changed(one);
      if (one.path === '/people') return { status: 200, body: { items: [kim] } };
      if (one.path === '/practice') return { status: 200, body: practice };
      return 'no answer';
    };
  it('are invited by a link that is shown once', async () => {
    const sent = show(
      <PracticePage />,
      answer(() => ({ status: 201, body: link })),
    );
    await screen.findByRole('rowheader', { name: /Kim Aster/ });
    press('Invite');
    await waitFor(() =>
      expect(screen.getByLabelText('E-mail', { selector: 'input' }).getAttribute('aria-invalid')).toBe(
        'true',
      ),
    );
    expect(changes(sent)).toEqual([]);
    fireEvent.change(screen.getAllByLabelText('Name', { selector: 'input' })[1] as Element, {
      target: { value: 'Ivo Marsh' },
    });
    type('E-mail', 'ivo@northfell.example');
    await choose('Role', 'read only: sees, changes nothing');
    press('Invite');
    const note = await screen.findByRole('status');
    expect(note.textContent).toContain(`/link#${link.token}`);
    expect(changes(sent)[0]?.body).toMatchObject({
      name: 'Ivo Marsh',
      email: 'ivo@northfell.example',
      role: 'read-only',
    });
    fireEvent.click(
      within(note)
        .getAllByRole('button')
        .find((one) => one.textContent === '') as Element,
    );
    expect(screen.queryByText(new RegExp(link.token))).toBeNull();
  });
  it('get another role or a closed account with the version that was seen; refused, it stands in their row', async () => {
    const sent = show(
      <PracticePage />,
      answer(() => problem(409, 'last-owner', 'Somebody has to own the practice.')),
    );
    await screen.findByRole('rowheader', { name: /Kim Aster/ });
    await choose('Role of Kim Aster', 'owner');
    await waitFor(() => expect(changes(sent)).toHaveLength(1));
    expect(changes(sent)[0]).toMatchObject({
      method: 'PUT',
      path: '/people/k',
      body: { role: 'owner', active: true, version: 4 },
    });
    expect((await screen.findByRole('alert')).textContent).toContain('Somebody has to own the practice.');
    await waitFor(() => expect(screen.getByRole<HTMLInputElement>('switch').disabled).toBe(false));
    fireEvent.click(screen.getByRole('switch', { name: 'Account of Kim Aster open' }));
    await waitFor(() => expect(changes(sent)).toHaveLength(2));
    expect(changes(sent)[1]?.body).toMatchObject({ role: 'assistant', active: false });
  });
  it('and their practice that cannot be read say so, instead of turning for ever', async () => {
    show(<PracticePage />, () => problem(403, 'forbidden', 'It takes an owner.'));
    await waitFor(() => expect(screen.getAllByRole('alert')).toHaveLength(2));
    expect(screen.getAllByRole('alert')[0]?.textContent).toContain('It takes an owner.');
  });
  it('a season begins on a day that there is', async () => {
    const sent = show(
      <PracticePage />,
      answer(({ body }) => ({ status: 200, body })),
    );
    await screen.findByLabelText('Season starts (month-day)');
    type('Season starts (month-day)', '13-40');
    press('Save practice');
    await waitFor(() =>
      expect(screen.getByLabelText('Season starts (month-day)').getAttribute('aria-invalid')).toBe('true'),
    );
    type('Season starts (month-day)', '11-15');
    press('Save practice');
    await waitFor(() => expect(changes(sent)).toHaveLength(1));
    expect(changes(sent)[0]?.body).toEqual({ ...practice, seasonStarts: '11-15' });
  });
});

describe('the door of a one-time link', () => {
  const token = 'q'.repeat(43);
  it('says who it is for, and sets a password once', async () => {
    const sent = show(
      <LinkPage />,
      ({ path }) =>
        path === '/auth/link/look'
          ? {
              status: 200,
              body: {
                kind: 'invite',
                practice: 'Northfell',
                name: 'Ivo Marsh',
                email: 'ivo@northfell.example',
              },
            }
          : { status: 200, body: null },
      `/link#${token}`,
    );
    expect(
      await screen.findByText(/Northfell has invited you: Ivo Marsh, ivo@northfell.example\./),
    ).toBeTruthy();
    type('New password (at least 10 characters)', 'over the pass and back');
    type('Again', 'over the pass and bac');
    press('Set password');
    expect(await screen.findByText('the two are not the same')).toBeTruthy();
    type('Again', 'over the pass and back');
    press('Set password');
    expect(await screen.findByText(/Your password is set/)).toBeTruthy();
    expect(sent.at(-1)).toMatchObject({
      path: '/auth/link',
      body: { token, password: 'over the pass and back' },
    });
  });
  it('that is cut short or used says so, and asks for no password', async () => {
    const sent = show(<LinkPage />, () => 'no answer', '/link#abc');
    expect((await screen.findByRole('alert')).textContent).toContain('no whole link');
    expect(sent).toEqual([]);
  });
  it('that was used already says what the server says of it', async () => {
    show(<LinkPage />, () => problem(410, 'gone', 'This link was used already.'), `/link#${token}`);
    expect((await screen.findByRole('alert')).textContent).toContain('This link was used already.');
    expect(screen.queryByRole('button', { name: 'Set password' })).toBeNull();
  });
});
