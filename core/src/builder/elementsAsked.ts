import type { RoutineItem } from '../domain/index.ts';
import { FIT, fitOf } from '../readiness/index.ts';
import type { WantedElement } from '../readiness/index.ts';
import type { Reason } from '../reasons/index.ts';
import type { Prepared } from './prepared.ts';
import { whatBound } from './room.ts';
import { answerOf } from './rules.ts';
import { nearestBarrier } from './unserved.ts';

/** An element that a routine should hold, the places of the items that answer it, and why none does. */
export interface AskedElement {
  readonly element: string;
  readonly of: WantedElement['of'];
  readonly by: readonly number[];
  /** Answered only by what fits it less well. */
  readonly inPart: boolean;
  readonly because: Reason | null;
}

/** What the actions that follow and the joints to look after ask for, with what of a routine answers each. */
export function elementsAsked(prepared: Prepared, items: readonly RoutineItem[]): AskedElement[] {
  const { reference, rules, problem } = prepared;
  return rules.elements.map(({ element, of }) => {
    const fits = items.map(({ drill }) => {
      const known = reference.drills.get(drill);
      return known ? answerOf(rules.request, element, known) : 0;
    });
    const by = fits.flatMap((fit, place) => (fit >= FIT.half ? [place] : []));
    const inPart = by.length > 0 && Math.max(...fits) < FIT.good;
    if (by.length > 0) return { element: element.id, of, by, inPart, because: null };
    const good = reference.data.drills.filter((drill) => fitOf(element, drill) >= FIT.good);
    const open = problem.options.filter((option) => good.some(({ id }) => id === option.drill));
    const because: Reason =
      open.length > 0
        ? whatBound(prepared, items, open)
        : (nearestBarrier(
            prepared,
            good.map((drill) => ({ drill, match: fitOf(element, drill) })),
          ) ?? { rule: 'away-from-today' });
    return { element: element.id, of, by, inPart, because };
  });
}
