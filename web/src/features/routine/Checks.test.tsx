import { act, fireEvent, screen } from '@testing-library/react';
import type { Check } from '@yonder/core/checks';
import type { Draft } from '@yonder/core/contracts';
import { useState } from 'react';
import { expect, it, vi } from 'vitest';
import { store, useAppSelector } from '../../app/store.ts';
import { showIn, workspaceOf } from '../../testing/workspace.tsx';
import { Checks } from './Checks.tsx';
import { opened } from './draftSlice.ts';

const draft = {
  request: { bans: [] },
  structure: 'short-minimum',
  sections: [],
  items: [{ id: 'a', drill: 'cat-camel' }],
  left: [],
} as unknown as Draft;
const check: Check = {
  level: 'warn',
  reason: { rule: 'too-many-sets', drill: 'cat-camel', sets: 9, most: 4 },
  at: [0],
  repair: { does: { rule: 'repair-fewer-sets', drill: 'cat-camel', sets: 4 }, items: [] },
};
const stop: Check = {
  level: 'stop',
  reason: { rule: 'forbidden-today', drill: 'cat-camel', because: 'precaution-exclude', about: 'no-impact' },
  at: [0],
  repair: null,
};

function Shown({ checks, onRepair }: { checks: Check[]; onRepair: () => void }) {
  const [kept] = useState(draft);
  const now = useAppSelector((state) => state.draft.draft) ?? kept;
  return <Checks draft={now} checks={checks} notes={[]} onRepair={onRepair} onShow={() => undefined} />;
}

async function show(checks: Check[]) {
  const onRepair = vi.fn();
  store.dispatch(opened({ of: 'ada/before-training', draft }));
  await showIn(workspaceOf({}), <Shown checks={checks} onRepair={onRepair} />);
  return onRepair;
}

it('a note is repaired by one press', async () => {
  const onRepair = await show([check]);
  fireEvent.click(await screen.findByRole('button', { name: 'Down to 4 sets' }));
  expect(onRepair).toHaveBeenCalledWith([], expect.any(String));
});

it('or left as it is: remembered with why, shown with the words, and taken up again', async () => {
  await show([check]);
  fireEvent.click(await screen.findByRole('button', { name: /^Leave it so: / }));
  const form = await screen.findByLabelText('Left as it is, because');
  const confirm = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Leave it so' });
  fireEvent.change(form, { target: { value: 'ab' } });
  expect(confirm().disabled).toBe(true);
  await act(async () => fireEvent.click(screen.getByText('agreed with the coach')));
  await act(async () => fireEvent.click(confirm()));
  expect(store.getState().draft.draft?.left).toMatchObject([
    { item: 'a', rule: 'too-many-sets', why: 'agreed with the coach' },
  ]);
  await screen.findByText(/agreed with the coach$/);
  fireEvent.click(screen.getByRole('button', { name: /^Take up again: / }));
  expect(store.getState().draft.draft?.left).toEqual([]);
});

it('what safety forbids is not left as it is', async () => {
  await show([stop]);
  expect(await screen.findByText(/must not be done today/)).toBeTruthy();
  expect(screen.queryByRole('button', { name: /^Leave it so/ })).toBeNull();
});
