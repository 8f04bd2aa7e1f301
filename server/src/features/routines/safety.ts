import type { Athlete, ItemSide } from '@yonder/core/domain';
import { routineSafetyFaults, openBlocks } from '@yonder/core/safety';
import { nameOf, ruleText } from '@yonder/core/words';
import { ApiProblem } from '../../http/problem.ts';
import type { Unit } from '../../work/unit.ts';

/**
 * Runs the safety rules of the core on what a client wants to store, as of the working date and as of today: neither
 * may forbid an item. Throws `blocked` or `safety-refused` with the path of each item, which `at` names.
 */
export async function refuseUnsafe(
  unit: Unit,
  athlete: Athlete,
  items: readonly { drill: string; side: ItemSide }[],
  on: string,
  at: (index: number) => string = (index) => `$.items[${index}]`,
): Promise<void> {
  const { reference } = await unit.practice();
  for (const day of new Set([on, unit.today])) {
    const all = openBlocks(reference, athlete, day).find(
      (block) => block.region === 'all' && block.level !== 'P',
    );
    if (all) throw new ApiProblem('blocked', { detail: all.action });
    const faults = routineSafetyFaults(reference, items, athlete, day);
    if (faults.length === 0) continue;
    throw new ApiProblem('safety-refused', {
      errors: faults.map((fault) => ({
        path: at(fault.index),
        message: `${nameOf(reference, fault.drill)}: ${ruleText(reference, fault.rule, fault.about)}`,
      })),
    });
  }
}
