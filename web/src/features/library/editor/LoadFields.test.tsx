import { useForm } from '@mantine/form';
import { fireEvent, screen } from '@testing-library/react';
import { ownDrillOf } from '@yonder/core/formats';
import { bundledReference } from '@yonder/core/reference/bundled';
import type { OwnDrill } from '@yonder/core/reference';
import { expect, it } from 'vitest';
import { showIn, workspaceOf } from '../../../testing/workspace.tsx';
import { LoadFields } from './LoadFields.tsx';

const source = [...bundledReference.drills.values()].find((drill) => drill.loadClass === 'impact');

function Form({ over }: { over: Partial<OwnDrill> }) {
  if (!source) throw new Error('no drill with impact');
  const form = useForm<OwnDrill>({ initialValues: { ...ownDrillOf(source, 'own-x', 'Copy'), ...over } });
  return (
    <>
      <LoadFields form={form} />
      <output>{form.values.looser?.reason ?? 'none'}</output>
    </>
  );
}

it('a copy as tight as its source is asked nothing', async () => {
  await showIn(workspaceOf({}), <Form over={{}} />);
  expect(await screen.findByText(/^Demand/)).toBeTruthy();
  expect(screen.queryByLabelText(/Why may it be looser/)).toBeNull();
});

it('one with less load has to say why, and nothing said is nothing stored', async () => {
  await showIn(workspaceOf({}), <Form over={{ loadClass: 'partial' }} />);
  const why = await screen.findByLabelText(/Why may it be looser/);
  expect(screen.getByText(/load partial instead of impact/)).toBeTruthy();
  fireEvent.change(why, { target: { value: 'hands on a rail' } });
  expect(screen.getByRole('status').textContent).toBe('hands on a rail');
  fireEvent.change(why, { target: { value: '' } });
  expect(screen.getByRole('status').textContent).toBe('none');
});
