import { fireEvent, screen, waitFor, within } from '@testing-library/react';

/** Chooses an option of a field by the words of both. */
export async function choose(
  field: string,
  option: string | RegExp,
  among: Pick<typeof screen, 'getByRole'> = screen,
): Promise<void> {
  const box = among.getByRole('combobox', { name: field });
  fireEvent.click(box);
  const list = await waitFor(() => {
    const found = document.getElementById(box.getAttribute('aria-controls') ?? '');
    if (!found) throw new Error(`${field} is not open`);
    return found;
  });
  fireEvent.click(within(list).getByRole('option', { name: option, hidden: true }));
}
