import type { RoutineItem } from '../domain/index.ts';
import type { Reason } from '../reasons/index.ts';
import type { Prepared } from './prepared.ts';
import type { BuildReport } from './report.ts';

/** What fitting a routine or template to an athlete changed for one drill, and why. */
export interface RefitChange {
  readonly drill: string;
  readonly what: 'kept' | 'one-side' | 'level' | 'swapped' | 'left-out' | 'added';
  /** The drill in its place, of its ladder or of another. */
  readonly instead: string | null;
  readonly why: Reason;
}

/** Why a drill that was wanted is not in the re-fitted routine. */
function whyLeftOut(prepared: Prepared, drill: string): Reason {
  const rule = prepared.options.ineligible.get(drill);
  if (!rule) return { rule: 'better-use-of-time', drill };
  return { rule: 'not-offered', drill, because: rule.rule, about: rule.about };
}

/**
 * Compares the drills a re-fit started from with what it came to: kept, moved along their ladder, left out with the
 * rule, or added with what they serve.
 */
export function refitChanges(
  prepared: Prepared,
  from: readonly Pick<RoutineItem, 'drill'>[],
  report: BuildReport,
): RefitChange[] {
  const items = report.routine?.items ?? [];
  const ladderOf = (id: string) => prepared.reference.drills.get(id)?.ladder ?? id;
  const moved = new Set<string>();
  const before = from.map(({ drill }): RefitChange => {
    const same = items.find((item) => item.drill === drill);
    if (same)
      return { drill, what: 'kept', instead: null, why: same.reasons[0] ?? { rule: 'preferred', drill } };
    const other = items.find((item) => ladderOf(item.drill) === ladderOf(drill));
    if (!other) return { drill, what: 'left-out', instead: null, why: whyLeftOut(prepared, drill) };
    moved.add(other.drill);
    return { drill, what: 'level', instead: other.drill, why: whyLeftOut(prepared, drill) };
  });
  const known = new Set(from.map(({ drill }) => drill));
  const added = items
    .filter((item) => !known.has(item.drill) && !moved.has(item.drill))
    .map((item): RefitChange => ({
      drill: item.drill,
      what: 'added',
      instead: null,
      why: item.reasons[0] ?? { rule: 'fills-phase', phase: item.phase ?? '' },
    }));
  return [...before, ...added];
}
