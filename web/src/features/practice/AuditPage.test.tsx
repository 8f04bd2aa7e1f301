import { fireEvent, render, screen, waitFor } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { Page } from '../../testing/Page.tsx';
import { fakeServer, problem } from '../../testing/server.ts';
import { AuditPage } from './AuditPage.tsx';

const row = (id: number, over: object = {}) => ({
  id: String(id),
  at: '2027-03-01T10:30:00.000Z',
  actor: { kind: 'clinician', id: null, name: 'R. Halloran' },
  athlete: { id: 'a', name: 'Una Fellgate' },
  action: 'red-flag.clear',
  ...over,
});

describe('the audit', () => {
  it('says when, who, what and of whom, and goes back page by page', async () => {
    let pages = 0;
    fakeServer(({ path }) => {
      if (path !== '/audit') return { status: 200, body: { items: [], next: null, pending: 0 } };
      pages += 1;
      return {
        status: 200,
        body:
          pages === 1 ? { items: [row(2)], next: '2' } : { items: [row(1, { athlete: null })], next: null },
      };
    });
    render(<AuditPage />, { wrapper: Page });
    expect(await screen.findByText('red flag: clear')).toBeTruthy();
    expect(screen.getByRole('link', { name: 'Una Fellgate' }).getAttribute('href')).toBe('/athletes/a/story');
    fireEvent.click(screen.getByRole('button', { name: 'Earlier' }));
    await waitFor(() => expect(screen.getAllByText('R. Halloran')).toHaveLength(2));
    expect(screen.queryByRole('button', { name: 'Earlier' })).toBeNull();
    expect(screen.getByText('the newest 2')).toBeTruthy();
  });

  it('says why it cannot be shown', async () => {
    fakeServer(() => problem(403, 'not-allowed', 'Your role does not allow this'));
    render(<AuditPage />, { wrapper: Page });
    expect((await screen.findByRole('alert')).textContent).toContain('Your role does not allow this');
  });
});
