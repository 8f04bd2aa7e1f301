import type { Prepared } from '../builder/index.ts';
import type { RoutineItem } from '../domain/index.ts';
import type { RoutineTime } from '../dose/index.ts';
import type { Reason } from '../reasons/index.ts';
import type { Drill } from '../reference/index.ts';

/** An item together with its drill and its place. */
export interface Placed {
  readonly item: RoutineItem;
  readonly drill: Drill;
  readonly index: number;
}

/** A routine being checked, against everything known of the athlete. */
export interface Checked {
  readonly prepared: Prepared;
  readonly items: readonly RoutineItem[];
  readonly placed: readonly Placed[];
  readonly time: RoutineTime;
}

/** A repaired routine, and the rule that says in words what the repair does. */
export interface Repair {
  readonly does: Reason;
  readonly items: readonly RoutineItem[];
}

/**
 * Something wrong or worth a look in a routine. `stop`: it must not be issued; `warn`: it goes against a rule or the
 * school; `note`: worth knowing.
 */
export interface Check {
  readonly level: 'stop' | 'warn' | 'note';
  readonly reason: Reason;
  /** Places of the items it is about; empty when it is about the routine. */
  readonly at: readonly number[];
  readonly repair: Repair | null;
}
