import type { ItemExplanation } from '@yonder/core/builder';
import type { Draft } from '@yonder/core/contracts';
import { useEffect, useState } from 'react';
import { compute } from '../../workers/client.ts';
import type { Asked, Explained } from '../../workers/protocol.ts';

/** What is known of items, with the ids of those it is about: they may have been edited since. */
export type ExplainedItems = Explained & { readonly ids: readonly string[] };

/** Why an item is in; undefined while that is worked out. */
export function explanationOf(
  explained: ExplainedItems | null,
  id: string | undefined,
): ItemExplanation | undefined {
  return explained?.items[explained.ids.indexOf(id ?? '')];
}

/** Explanations, checks and order of the items as they stand; worked out in the worker after every edit. */
export function useExplained({ subject, request }: Asked, draft: Draft | null): ExplainedItems | null {
  const [explained, setExplained] = useState<ExplainedItems | null>(null);
  const items = draft?.items;
  useEffect(() => {
    if (!items) return undefined;
    let stale = false;
    compute.call('explain', subject, { request, items }).then(
      (answer) => {
        if (!stale) setExplained({ ...answer, ids: items.map(({ id }) => id) });
      },
      () => undefined, // the worker broke: the next edit asks a new one
    );
    return () => {
      stale = true;
    };
  }, [subject, request, items]);
  return items ? explained : null;
}
