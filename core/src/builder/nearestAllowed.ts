import type { RoutineItem } from '../domain/index.ts';
import { dosedItem, setsFor } from '../dose/index.ts';
import type { Drill } from '../reference/index.ts';
import { drillSafety, routineSafetyFaults } from '../safety/index.ts';
import type { SafetyFault } from '../safety/index.ts';
import type { Prepared } from './prepared.ts';
import { hardRuleOf } from './rules.ts';

/** How much of one drill's job another does, 0–1. */
function shared(own: Drill, other: Drill): number {
  const total = own.serves.reduce((sum, { match }) => sum + match, 0);
  const same = own.serves.reduce((sum, { restriction, match }) => {
    const theirs = other.serves.find((s) => s.restriction === restriction)?.match ?? 0;
    return sum + Math.min(match, theirs);
  }, 0);
  return total > 0 ? same / total : 0;
}

/**
 * The drill nearest to one that cannot stand, allowed today on the item's side: an easier rung of its ladder first, else what
 * does most of its job without being harder. Only safety and the rules that nothing lifts are asked, and what the caller asks
 * besides; null when nothing is near.
 */
export function nearestAllowed(
  prepared: Prepared,
  item: RoutineItem,
  may: (drill: Drill) => boolean = (drill) => hardRuleOf(prepared, drill) === null,
): RoutineItem | null {
  const { reference, safety, dose } = prepared;
  const own = reference.drills.get(item.drill);
  if (!own) return null;
  const side = item.side === 'central' ? 'both' : item.side;
  const [best] = reference.data.drills
    .filter((drill) => {
      if (drill.id === own.id || drill.archived || drill.demandIndex > own.demandIndex) return false;
      if (!may(drill)) return false;
      const { sides } = drillSafety(reference, drill, safety);
      return (side === 'right' || sides.left) && (side === 'left' || sides.right);
    })
    .map((drill) => ({
      drill,
      near:
        shared(own, drill) +
        (drill.ladder === own.ladder ? 1 : 0) +
        (own.equivalents.includes(drill.id) ? 0.3 : 0),
    }))
    .filter(({ near }) => near > 0)
    .sort(
      (a, b) =>
        b.near - a.near || b.drill.demandIndex - a.drill.demandIndex || (a.drill.id < b.drill.id ? -1 : 1),
    );
  if (!best) return null;
  const counts = setsFor(dose, best.drill);
  const sets = counts.includes(item.sets) ? item.sets : (counts[0] ?? 1);
  return dosedItem(dose, best.drill, best.drill.unilateral ? side : 'both', sets, item.phase).item;
}

/** What safety says against a line today, with the nearest that is allowed. */
export interface Held {
  readonly fault: SafetyFault;
  readonly instead: RoutineItem | null;
}

/** Whether safety keeps a line out as of today; null where it does not. What has only to be asked first is said elsewhere. */
export function heldToday(prepared: Prepared, item: RoutineItem): Held | null {
  const { reference, standing, safety } = prepared;
  const faults = routineSafetyFaults(reference, [item], standing.athlete, standing.today, safety.dayRules);
  const fault = faults.find(({ index, rule }) => index !== null && rule !== 'not-asked');
  return fault ? { fault, instead: nearestAllowed(prepared, item) } : null;
}
