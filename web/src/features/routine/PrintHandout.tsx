import { Button } from '@mantine/core';
import type { Problem } from '@yonder/core/contracts';
import { useState } from 'react';
import type { MouseEvent } from 'react';

interface Props {
  /** The issued version. */
  routineId: string;
  /** Why it must not be printed today; null once it was. */
  onRefused: (why: string | null) => void;
}

/** Opens the handout, or says here why it must not be printed today. */
export function PrintHandout({ routineId, onRefused }: Props) {
  const [busy, setBusy] = useState(false);
  const href = `/api/v1/routines/${routineId}/handout.pdf`;
  const open = async (event: MouseEvent) => {
    event.preventDefault();
    setBusy(true);
    try {
      const response = await fetch(href);
      if (response.ok) {
        window.open(URL.createObjectURL(await response.blob()), '_blank');
        onRefused(null);
      } else {
        const problem = (await response.json()) as Problem;
        const errors = problem.errors ?? [];
        onRefused(errors.map((e) => e.message).join('; ') || (problem.detail ?? problem.title));
      }
    } catch {
      onRefused('The server cannot be reached; try again.');
    }
    setBusy(false);
  };
  return (
    <Button
      component="a"
      href={href}
      target="_blank"
      variant="default"
      size="xs"
      loading={busy}
      onClick={(event: MouseEvent) => void open(event)}
    >
      Print handout
    </Button>
  );
}
