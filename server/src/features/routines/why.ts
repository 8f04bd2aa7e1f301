import type { Assessment } from '@yonder/core/assess';
import { explainItems, prepareBuild } from '@yonder/core/builder';
import type { ItemReasons } from '@yonder/core/contracts';
import type { BuildRequest } from '@yonder/core/domain';
import type { IdentifiedItem } from '@yonder/core/routine';

/** Why each item is in, as data: worked out here from the record, whatever the client believes. */
export function reasonsOf(
  assessment: Assessment,
  request: BuildRequest,
  items: readonly IdentifiedItem[],
): ItemReasons[] {
  const explained = explainItems(prepareBuild(assessment, request), items);
  return items.map(({ id }, i) => ({
    item: id,
    serves: [...(explained[i]?.serves ?? [])],
    reasons: [...(explained[i]?.reasons ?? [])],
    cautions: [...(explained[i]?.cautions ?? [])],
  }));
}
