import { fireEvent, screen, waitFor } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { showIn, workspaceOf } from '../../testing/workspace.tsx';
import type { TypedAbout } from './AthleteForm.tsx';
import { AthleteForm, EMPTY_ATHLETE } from './AthleteForm.tsx';

vi.setConfig({ testTimeout: 20_000 });

/** The form over an athlete, and what it was asked to store. */
async function shown(over: Partial<typeof EMPTY_ATHLETE>) {
  const asked: TypedAbout[] = [];
  await showIn(
    workspaceOf({}),
    <AthleteForm
      initial={{ ...EMPTY_ATHLETE, name: 'Bram Tollgate', ...over }}
      keptAs={{ key: `about/${JSON.stringify(over)}`, label: 'About' }}
      submitLabel="Save changes"
      busy={false}
      error={undefined}
      onSubmit={(fields) => {
        asked.push(fields);
        return Promise.resolve(true);
      }}
    />,
    () => 'no answer',
  );
  return asked;
}
const type = (field: string, value: string) => {
  const input = screen.getByRole('textbox', { name: field });
  fireEvent.change(input, { target: { value } });
  fireEvent.blur(input);
};
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }));

describe('a birth date', () => {
  it('on record is changed with a reason, which goes along; of somebody new none is asked', async () => {
    const asked = await shown({ birthDate: '2001-05-02' });
    expect(screen.queryByRole('textbox', { name: /Why is the birth date/ })).toBeNull();
    type('Birth date', '2010-05-02');
    press('Save changes');
    await screen.findByText('say why: the age rules hang on it');
    expect(asked).toEqual([]);
    type('Why is the birth date another one?', 'typed the wrong year');
    press('Save changes');
    await waitFor(() => expect(asked).toHaveLength(1));
    expect(asked[0]).toMatchObject({ birthDate: '2010-05-02', birthDateWhy: 'typed the wrong year' });
  });
  it('typed for the first time is not asked about', async () => {
    const asked = await shown({});
    type('Birth date', '2010-05-02');
    press('Save changes');
    await waitFor(() => expect(asked).toHaveLength(1));
    expect(asked[0]).not.toHaveProperty('birthDateWhy');
  });
});

describe('a light week', () => {
  it('is marked from today for seven days, asks why, and is taken back', async () => {
    const asked = await shown({ birthDate: '2001-05-02' });
    press('Mark a light week');
    press('Save changes');
    await screen.findByText('say why');
    type('Why', 'regional final');
    press('Save changes');
    await waitFor(() => expect(asked).toHaveLength(1));
    const [span] = asked[0]?.lightSpans ?? [];
    expect(span).toMatchObject({ why: 'regional final' });
    expect(Date.parse(span?.until ?? '') - Date.parse(span?.from ?? '')).toBe(6 * 86_400_000);
    press('Remove');
    press('Save changes');
    await waitFor(() => expect(asked).toHaveLength(2));
    expect(asked[1]?.lightSpans).toEqual([]);
  });
});
