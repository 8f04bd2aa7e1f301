import { Table } from '@mantine/core';
import { Dialog } from '../components/Dialog.tsx';
import { useWindowEvent } from '@mantine/hooks';
import { useState } from 'react';

const KEYS: readonly (readonly [string, string, string])[] = [
  ['everywhere', '?', 'this list'],
  ['Today', 'J, K', 'next, previous line; Enter opens its work'],
  ['the gate', 'Y or N', 'none of the signs is there; each topic has its own key'],
  ['the gate', 'D', 'does not know: stays open'],
  ['a visit', 'N', 'nothing new'],
  ['Screen', 'Enter', 'next field; behind the last, the next test'],
  ['Screen', 'S', 'the other side'],
  ['Screen', 'H', 'how the test is done'],
  ['Ridge', 'B', 'on to the routine'],
  ['Routine', 'Ctrl Z, Ctrl Shift Z', 'undo, redo'],
  ['Routine', 'Alt ↑, Alt ↓', 'move the drill'],
  ['Run', 'Space, ←, →', 'go or pause, back, skip to the next phase'],
  ['Run', 'Shift →', 'skip the whole drill'],
  ['dialogs', 'Escape', 'close; the focus goes back to where it was'],
];

/** Every key of the application, on `?`; never while something is typed. */
export function Shortcuts() {
  const [open, setOpen] = useState(false);
  useWindowEvent('keydown', (event) => {
    const typing = event.target instanceof Element && event.target.closest('input, textarea, select');
    if (event.key === '?' && !typing) setOpen((shown) => !shown);
  });
  if (!open) return null;
  return (
    <Dialog onClose={() => setOpen(false)} title="Keys" size="lg">
      <Table fz="sm" verticalSpacing={4} aria-label="Keys">
        <Table.Tbody>
          {KEYS.map(([where, key, what]) => (
            <Table.Tr key={`${where}/${key}`}>
              <Table.Th scope="row" fw={400} c="var(--muted)">
                {where}
              </Table.Th>
              <Table.Td>
                <kbd>{key}</kbd>
              </Table.Td>
              <Table.Td>{what}</Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
    </Dialog>
  );
}
