import type { Draft } from '@yonder/core/contracts';
import { useEffect, useState } from 'react';
import { compute } from '../../workers/client.ts';
import type { Asked, Explained } from '../../workers/protocol.ts';

/** Explanations, checks and order of the items as they stand; worked out in the worker after every edit. */
export function useExplained({ subject, request }: Asked, draft: Draft | null): Explained | null {
  const [explained, setExplained] = useState<Explained | null>(null);
  const items = draft?.items;
  useEffect(() => {
    if (!items) return undefined;
    let stale = false;
    compute.call('explain', subject, { request, items }).then(
      (answer) => {
        if (!stale) setExplained(answer);
      },
      () => undefined, // a cancelled build ends the worker; the next edit asks again
    );
    return () => {
      stale = true;
    };
  }, [subject, request, items]);
  return items ? explained : null;
}
