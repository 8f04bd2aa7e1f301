import { Alert } from '@mantine/core';
import type { AlertProps } from '@mantine/core';
import { errorText } from '../app/api.ts';

interface Props extends Pick<AlertProps, 'mt' | 'mb' | 'className'> {
  /** What a request failed with; undefined while it did not. */
  error: unknown;
}

/** Why the server did not do it, shown where it was asked; nothing while nothing was refused. */
export function Refusal({ error, ...place }: Props) {
  if (!error) return null;
  return (
    <Alert color="copper" role="alert" p={8} {...place}>
      {errorText(error)}
    </Alert>
  );
}
