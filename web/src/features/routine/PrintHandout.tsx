import { Button } from '@mantine/core';
import type { Problem } from '@yonder/core/contracts';
import { useState } from 'react';
import type { MouseEvent } from 'react';

interface Props {
  /** What is fetched: a sheet, a card, a booklet, a calendar. */
  href: string;
  /** What the button says. */
  label: string;
  /** Saved under this name instead of being shown. */
  saveAs?: string;
  /** Why it must not be printed today; null once it was. */
  onRefused: (why: string | null) => void;
}

/** Fetches something to print or to take along; shows it in another tab or saves it, or says why it must not be today. */
export function PrintHandout({ href, label, saveAs, onRefused }: Props) {
  const [busy, setBusy] = useState(false);
  const open = async (event: MouseEvent) => {
    event.preventDefault();
    setBusy(true);
    try {
      const response = await fetch(href);
      if (response.ok) {
        const url = URL.createObjectURL(await response.blob());
        if (saveAs === undefined) window.open(url, '_blank');
        else Object.assign(document.createElement('a'), { href: url, download: saveAs }).click();
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
      {label}
    </Button>
  );
}
