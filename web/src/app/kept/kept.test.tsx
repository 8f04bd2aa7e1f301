import { TextInput } from '@mantine/core';
import { act, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { useMemo } from 'react';
import { describe, expect, it } from 'vitest';
import { Page } from '../../testing/Page.tsx';
import { RestoredNote } from './RestoredNote.tsx';
import { forget, keep, keptAt, keptUnder, openKept } from './store.ts';
import { unsaved } from './unsaved.ts';
import { useKeptForm } from './useKept.ts';

function NameForm({ initial = '' }: { initial?: string }) {
  // Frozen, as what comes from the server's cache is.
  const initialValues = useMemo(() => Object.freeze({ name: initial }), [initial]);
  const { form, done, ...before } = useKeptForm('test/name', 'A name', { initialValues });
  return (
    <form onSubmit={form.onSubmit(done)}>
      <RestoredNote {...before} />
      <TextInput label="Name" {...form.getInputProps('name')} />
      <button type="submit">Save</button>
    </form>
  );
}
const show = (initial?: string) =>
  render(
    <Page>
      <NameForm {...(initial === undefined ? {} : { initial })} />
    </Page>,
  );
const field = () => screen.getByRole<HTMLInputElement>('textbox', { name: 'Name' });
const type = (value: string) => fireEvent.change(field(), { target: { value } });

describe('what is typed', () => {
  it('is there again when the form is drawn anew, and says so until it is thrown away', async () => {
    const first = show('Ada');
    type('Ada Fellgate');
    expect(unsaved.get('test/name')?.label).toBe('A name');
    first.unmount();
    expect(unsaved.size).toBe(0);
    show('Ada');
    await waitFor(() => expect(field().value).toBe('Ada Fellgate'));
    fireEvent.click(screen.getByRole('button', { name: 'Throw it away' }));
    await waitFor(() => expect(field().value).toBe('Ada'));
    expect(keptAt('test/name')).toBeUndefined();
    expect(screen.queryByText(/Typed earlier/)).toBeNull();
  });

  it('thrown away takes along what was added to it', async () => {
    keep('test/name', { name: 'Ada', picture: 'drawn' });
    show('Ada');
    fireEvent.click(await screen.findByRole('button', { name: 'Throw it away' }));
    type('Adaa');
    expect(keptAt('test/name')).toEqual({ name: 'Adaa' });
    type('Ada');
  });

  it('is forgotten once it is stored, and when it is typed back to what it was', async () => {
    const first = show('Ada');
    type('Ada F');
    fireEvent.click(screen.getByRole('button', { name: 'Save' }));
    await waitFor(() => expect(unsaved.size).toBe(0));
    expect(keptAt('test/name')).toBeUndefined();
    first.unmount();
    show('Ada');
    type('Adaa');
    type('Ada');
    expect(keptAt('test/name')).toBeUndefined();
  });
});

describe('the store of this device', () => {
  it('gives back to each clinician what that one typed, and to nobody else', async () => {
    await act(() => openKept('rowan'));
    keep('form/a', { words: 'typed by Rowan' });
    await act(() => openKept('kim'));
    expect(keptUnder('')).toEqual([]);
    keep('form/a', { words: 'typed by Kim' });
    await act(() => openKept('rowan'));
    expect(keptAt('form/a')).toEqual({ words: 'typed by Rowan' });
    forget('form/a');
    await act(() => openKept('kim'));
    expect(keptAt('form/a')).toEqual({ words: 'typed by Kim' });
    await act(() => openKept('rowan'));
    expect(keptAt('form/a')).toBeUndefined();
  });

  it('has a key stroke at once, where a reload right after it finds it', async () => {
    await act(() => openKept('rowan'));
    const waiting = () => Object.keys(localStorage).filter((at) => at.includes('/rowan/'));
    keep('form/b', 'typed just now');
    expect(waiting()).toHaveLength(1);
    await waitFor(() => expect(waiting()).toEqual([]));
    forget('form/b');
    await waitFor(() => expect(waiting()).toEqual([]));
    // As a reload leaves it: the database is behind what was noted.
    const note = (key: string, value: unknown, gone: boolean) =>
      localStorage.setItem(
        `yonder-ridge/typed/rowan/${key}`,
        JSON.stringify({ owner: 'rowan', key, value, gone }),
      );
    await act(() => openKept('kim'));
    note('form/c', 'the last key', false);
    expect(keptAt('form/c')).toBeUndefined();
    await act(() => openKept('rowan'));
    expect(keptAt('form/c')).toBe('the last key');
    await act(() => openKept('kim'));
    note('form/c', null, true);
    await act(() => openKept('rowan'));
    expect(keptAt('form/c')).toBeUndefined();
    await waitFor(() => expect(waiting()).toEqual([]));
  });
});
