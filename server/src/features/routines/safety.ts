import type { ItemSide } from '@yonder/core/domain';
import { routineSafetyFaults, openBlocks } from '@yonder/core/safety';
import type { Case } from '@yonder/core/domain';
import { nameOf, ruleText } from '@yonder/core/words';
import { practiceReference } from '@yonder/core/reference';
import type { Deps } from '../../deps.ts';
import { ApiProblem } from '../../http/problem.ts';

/**
 * Runs the safety rules of the core on what a client wants to store, as of the working date and as of today: neither
 * may forbid an item. Throws `blocked` or `safety-refused` with the path of each item.
 */
export function refuseUnsafe(
  deps: Deps,
  { athlete, overrides }: Pick<Case, 'athlete' | 'overrides'>,
  items: readonly { drill: string; side: ItemSide }[],
  on: string,
): void {
  const reference = practiceReference(deps.reference, overrides);
  for (const day of new Set([on, deps.today()])) {
    const all = openBlocks(reference, athlete, day).find(
      (block) => block.region === 'all' && block.level !== 'P',
    );
    if (all) throw new ApiProblem('blocked', { detail: all.action });
    const faults = routineSafetyFaults(reference, items, athlete, day);
    if (faults.length === 0) continue;
    throw new ApiProblem('safety-refused', {
      errors: faults.map((fault) => ({
        path: `$.items[${fault.index}]`,
        message: `${nameOf(reference, fault.drill)}: ${ruleText(reference, fault.rule, fault.about)}`,
      })),
    });
  }
}
