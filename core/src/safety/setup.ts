import type { RoutineItem } from '../domain/index.ts';
import type { Reference } from '../reference/index.ts';
import type { ActivePrecaution } from './precautions.ts';

/** A step of a set-up that a precaution rules out today. */
export interface ForbiddenSetup {
  readonly precaution: string;
  readonly variable: string;
}

/** What of an item's set-up an active precaution rules out although the drill itself may be done; null when nothing. */
export function setupForbidden(
  reference: Reference,
  setup: RoutineItem['setup'],
  active: readonly ActivePrecaution[],
): ForbiddenSetup | null {
  for (const { id } of active)
    for (const { variable, steps } of reference.precautions.get(id)?.forbidsSetup ?? []) {
      const step = setup[variable];
      if (step !== undefined && steps.includes(step)) return { precaution: id, variable };
    }
  return null;
}
