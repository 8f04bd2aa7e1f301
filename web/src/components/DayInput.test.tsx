import { MantineProvider } from '@mantine/core';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { afterEach, describe, expect, it } from 'vitest';
import { DayInput } from './DayInput.tsx';
import { Dialog } from './Dialog.tsx';

afterEach(cleanup);

function Field({ first = '' }: { first?: string }) {
  const [day, setDay] = useState(first);
  return (
    <MantineProvider>
      <DayInput label="Since" value={day} onChange={setDay} />
      <output>{day || 'none'}</output>
    </MantineProvider>
  );
}
const typed = (text: string) => {
  const field = screen.getByLabelText<HTMLInputElement>('Since');
  fireEvent.change(field, { target: { value: text } });
  fireEvent.blur(field);
  return field;
};

describe('a day', () => {
  it.each([
    ['27 Nov 2026', '2026-11-27'],
    ['27.11.2026', '2026-11-27'],
    ['2026-11-27', '2026-11-27'],
    ['29 Feb 2028', '2028-02-29'],
  ])('typed as %s is %s', (text, day) => {
    render(<Field />);
    typed(text);
    expect(screen.getByRole('status').textContent).toBe(day);
  });

  it.each(['30 Feb 2027', '31.4.2027', 'soon', '1 Jan 0001'])(
    '%s is none, and stays to be put right',
    (text) => {
      render(<Field />);
      expect(typed(text).value).toBe(text);
      expect(screen.getByRole('status').textContent).toBe('none');
    },
  );

  it('shows the one way all days are written, and can be emptied', () => {
    render(<Field first="2027-03-14" />);
    expect(screen.getByLabelText<HTMLInputElement>('Since').value).toBe('14 Mar 2027');
    typed('');
    expect(screen.getByRole('status').textContent).toBe('none');
  });
});

function Opener() {
  const [open, setOpen] = useState(false);
  return (
    <MantineProvider>
      <button type="button" onClick={() => setOpen(true)}>
        Ask
      </button>
      {open ? (
        <Dialog title="Really?" onClose={() => setOpen(false)}>
          <button type="button">Yes</button>
        </Dialog>
      ) : null}
    </MantineProvider>
  );
}

describe('a dialog', () => {
  it('gives the focus back to what opened it, and is no second banner', async () => {
    render(<Opener />);
    const opener = screen.getByRole('button', { name: 'Ask' });
    opener.focus();
    fireEvent.click(opener);
    expect(await screen.findByRole('dialog', { name: 'Really?' })).toBeTruthy();
    expect(screen.queryByRole('banner')).toBeNull();
    screen.getByRole('button', { name: 'Yes' }).focus();
    fireEvent.click(screen.getByRole('button', { name: 'Close' }));
    expect(screen.queryByRole('dialog')).toBeNull();
    expect(document.activeElement).toBe(opener);
  });
});
