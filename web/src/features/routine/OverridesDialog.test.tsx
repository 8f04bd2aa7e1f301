import { cleanup, fireEvent, screen } from '@testing-library/react';
import type { Check } from '@yonder/core/checks';
import type { Draft } from '@yonder/core/contracts';
import { expect, it, vi } from 'vitest';
import { showIn, workspaceOf } from '../../testing/workspace.tsx';
import { OverridesDialog } from './OverridesDialog.tsx';

const draft = {
  items: [
    { id: 'a', drill: 'cat-camel' },
    { id: 'b', drill: 'cat-camel' },
  ],
} as unknown as Draft;
const checks: Check[] = [
  { level: 'warn', reason: { rule: 'drill-repeated', drill: 'cat-camel' }, at: [0, 1], repair: null },
  {
    level: 'warn',
    reason: { rule: 'too-many-sets', drill: 'cat-camel', sets: 9, most: 4 },
    at: [0],
    repair: null,
  },
];

async function open() {
  const onIssue = vi.fn();
  const props = { checks, draft, number: 2, onIssue, onClose: () => undefined };
  await showIn(workspaceOf({}), <OverridesDialog {...props} />);
  const [repeated, sets] = await screen.findAllByRole<HTMLInputElement>('textbox');
  const issue = () => fireEvent.click(screen.getByRole('button', { name: /Issue version 2/ }));
  const say = (field: HTMLInputElement | undefined, value: string) => {
    if (field) fireEvent.change(field, { target: { value } });
  };
  return { onIssue, repeated, sets, issue, say };
}

it('a version against two rules is issued with a reason for each, not with one', async () => {
  const { onIssue, repeated, sets, issue, say } = await open();
  say(repeated, 'before and after the climb');
  say(sets, '  no');
  issue();
  expect(onIssue).not.toHaveBeenCalled();
  expect(screen.getAllByText('Say why, in a few words.')).toHaveLength(1);
  say(sets, 'nine short ones');
  issue();
  expect(onIssue).toHaveBeenCalledWith([
    { item: 'b', rule: 'drill-repeated', why: 'before and after the climb' },
    { item: 'a', rule: 'too-many-sets', why: 'nine short ones' },
  ]);
});

it('reasons typed and not issued are there again', async () => {
  const before = await open();
  before.say(before.repeated, 'asked for by the coach');
  cleanup();
  const { repeated } = await open();
  expect(repeated?.value).toBe('asked for by the coach');
});
