import { nearestAllowed } from '../builder/index.ts';
import type { Prepared } from '../builder/index.ts';
import type { RoutineItem } from '../domain/index.ts';
import { OWN_WORDS } from '../reference/index.ts';
import { routineSafetyFaults } from '../safety/index.ts';
import type { SafetyFault } from '../safety/index.ts';
import { lineName } from '../words/index.ts';

/** A line that safety keeps out for this athlete today, with the nearest that is allowed. */
export interface Held {
  readonly index: number;
  readonly fault: SafetyFault;
  readonly instead: RoutineItem | null;
}

/**
 * Lines taken word by word for an athlete: all as they are written, but for what safety keeps out today, which stays as a
 * note that it is not for now.
 */
export function wordByWord(
  prepared: Prepared,
  items: readonly RoutineItem[],
): { items: RoutineItem[]; held: Held[] } {
  const { reference, standing, safety } = prepared;
  const faults = routineSafetyFaults(reference, items, standing.athlete, standing.today, safety.dayRules);
  const held = items.flatMap((item, index): Held[] => {
    const fault = faults.find((one) => one.index === index && one.rule !== 'not-asked');
    return fault ? [{ index, fault, instead: nearestAllowed(prepared, item) }] : [];
  });
  const out = new Set(held.map(({ index }) => index));
  return {
    held,
    items: items.map((item, i): RoutineItem => {
      if (!out.has(i)) return item;
      const words = `Not now: ${lineName(reference, item)}`;
      return {
        drill: OWN_WORDS,
        side: 'both',
        phase: item.phase,
        sets: 1,
        amount: 0,
        measure: 'seconds',
        holdSeconds: null,
        restSeconds: 0,
        tempo: null,
        setup: {},
        words,
      };
    }),
  };
}
