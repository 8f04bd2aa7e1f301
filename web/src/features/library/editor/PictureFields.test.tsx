import { useForm } from '@mantine/form';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { ownDrillOf } from '@yonder/core/formats';
import { pictureFaults, standingFigure } from '@yonder/core/figure';
import { figureOf } from '@yonder/core/figure/bundled';
import { bundledReference } from '@yonder/core/reference/bundled';
import type { Drill, OwnDrill } from '@yonder/core/reference';
import { expect, it, vi } from 'vitest';
import { showIn, workspaceOf } from '../../../testing/workspace.tsx';
import { PictureFields } from './PictureFields.tsx';

vi.setConfig({ testTimeout: 30_000 });
const source = bundledReference.drills.get('split-squat') as Drill;
const copied = ownDrillOf(source, 'own-x', 'Copy');

function Form({ initial }: { initial: OwnDrill }) {
  const form = useForm<OwnDrill>({ initialValues: initial });
  return (
    <>
      <PictureFields form={form} />
      <output>{JSON.stringify(form.values.picture ?? null)}</output>
    </>
  );
}
/** What the form holds as its picture. */
const held = () => JSON.parse(screen.getByRole('status').textContent ?? 'null') as OwnDrill['picture'] | null;
const show = (initial: OwnDrill) =>
  showIn(workspaceOf({}), <Form initial={initial} />, ({ path }) => {
    if (path === '/reference') return { status: 200, body: { version: 'v', pictures: 'p' } };
    if (path === `/reference/pictures/p/${source.ladder}`)
      return { status: 200, body: { [source.id]: figureOf(source.id) } };
    return 'no answer';
  });
/** The page for drawing is fetched when it is asked for. */
const dialog = async () =>
  within(await screen.findByRole('dialog', { name: 'Draw the drill' }, { timeout: 15_000 }));

it('a copy shows the picture of its source until it has its own, and again when that is taken away', async () => {
  await show({ ...copied, picture: standingFigure() });
  expect(screen.getByText('Drawn for this drill.')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'As its source' }));
  expect(await screen.findByText('As the drill it was copied from.')).toBeTruthy();
  expect(held()).toBeNull();
});

it('a drill of nobody’s has none, and is begun with somebody who stands', async () => {
  const { from: _from, ...bare } = copied;
  await show(bare);
  expect(screen.getByText(/None yet/)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Draw a picture' }));
  const drawing = await dialog();
  fireEvent.click(drawing.getByRole('button', { name: 'Add a position' }));
  await waitFor(() => expect(held()?.poses).toHaveLength(2));
  expect(pictureFaults(held() as NonNullable<OwnDrill['picture']>)).toEqual([]);
});

it('every change is in the form at once, and each can be taken back and done again', async () => {
  await show(copied);
  fireEvent.click(await screen.findByRole('button', { name: 'Change the picture' }));
  const drawing = await dialog();
  expect(held()).toBeNull();
  fireEvent.keyDown(drawing.getByRole('button', { name: 'Left hand' }), { key: 'ArrowUp' });
  await waitFor(() => expect(held()).not.toBeNull());
  const once = held();
  fireEvent.click(drawing.getByRole('button', { name: 'Exchange sides' }));
  await waitFor(() => expect(held()?.accent).toEqual(['legR']));
  fireEvent.click(drawing.getByRole('button', { name: 'Undo' }));
  await waitFor(() => expect(held()).toEqual(once));
  fireEvent.click(drawing.getByRole('button', { name: 'Redo' }));
  await waitFor(() => expect(held()?.accent).toEqual(['legR']));
  expect(pictureFaults(held() as NonNullable<OwnDrill['picture']>)).toEqual([]);
});

it('takes the number of a joint as its slider says, within its range', async () => {
  await show(copied);
  fireEvent.click(await screen.findByRole('button', { name: 'Change the picture' }));
  const drawing = await dialog();
  const bent = drawing.getByRole('slider', { name: 'Bent' });
  expect([bent.getAttribute('aria-valuemin'), bent.getAttribute('aria-valuemax')]).toEqual(['-4', '158']);
  const before = Number(bent.getAttribute('aria-valuenow'));
  fireEvent.keyDown(bent, { key: 'Home' });
  await waitFor(() => expect(held()).not.toBeNull());
  const now = drawing.getByRole('slider', { name: 'Bent' }).getAttribute('aria-valuenow');
  expect(Number(now)).toBeLessThan(before);
});
