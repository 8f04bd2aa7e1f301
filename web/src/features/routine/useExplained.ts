import type { Draft } from '@yonder/core/contracts';
import type { Case } from '@yonder/core/domain';
import { useEffect, useState } from 'react';
import { compute } from '../../workers/client.ts';
import type { Explained } from '../../workers/protocol.ts';

/** Explanations, checks and order of the items as they stand; worked out in the worker after every edit. */
export function useExplained(input: Case, draft: Draft | null): Explained | null {
  const [explained, setExplained] = useState<Explained | null>(null);
  const items = draft?.items;
  useEffect(() => {
    if (!items) return undefined;
    let stale = false;
    compute.call('explain', { case: input, items }).then(
      (answer) => {
        if (!stale) setExplained(answer);
      },
      () => undefined, // a cancelled build ends the worker; the next edit asks again
    );
    return () => {
      stale = true;
    };
  }, [input, items]);
  return items ? explained : null;
}
