import { Modal } from '@mantine/core';
import type { ModalProps } from '@mantine/core';
import { useEffect } from 'react';

/** A dialog that is drawn while it is open; when it goes, the focus goes back to where it was. */
export function Dialog(props: Omit<ModalProps, 'opened'>) {
  useEffect(() => {
    const before = document.activeElement;
    return () => {
      // The page under it may have been left meanwhile.
      if (before instanceof HTMLElement && before.isConnected) before.focus();
    };
  }, []);
  return (
    <Modal
      opened
      returnFocus={false}
      closeButtonProps={{ 'aria-label': 'Close' }}
      attributes={{ header: { role: 'presentation' } }}
      {...props}
    />
  );
}
