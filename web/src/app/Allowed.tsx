import { Text } from '@mantine/core';
import type { Role } from '@yonder/core/contracts';
import type { ReactNode } from 'react';
import classes from './Allowed.module.css';
import { useMay } from './may.ts';

interface Props {
  /** The least role the server asks for. */
  least: Role;
  /** What may be pressed or typed with it. */
  children: ReactNode;
}

/** Controls for those whose role the server lets use them; nothing for the others. */
export function Allowed({ least, children }: Props) {
  return useMay()(least) ? children : null;
}

const WHO: Readonly<Record<Role, string>> = {
  owner: 'an owner',
  clinician: 'a clinician',
  assistant: 'an assistant',
  'read-only': 'anybody',
};

/** Fields that everybody may read, and that only those change whose role the server lets. */
export function Locked({ least, children }: Props) {
  const open = useMay()(least);
  return (
    <fieldset disabled={!open} className={classes.locked}>
      {open ? null : (
        <Text size="sm" c="var(--muted)" mb={4}>
          To read; it takes {WHO[least]} to change it.
        </Text>
      )}
      {children}
    </fieldset>
  );
}
