import { addDays } from '../domain/index.ts';
import type { IsoDay } from '../domain/index.ts';
import type { IdentifiedItem } from '../routine/index.ts';
import type { Reference } from '../reference/index.ts';
import { inOrder, reduceSession } from './reduce.ts';
import type { SessionEvent } from './types.ts';

/** How far the clock of a device may be from the days of its session: a day before it, a day after now. */
const CLOCK_DAYS = 1;
/** What a run says while it is played; what is remembered of it later is amended. */
const PLAYED: ReadonlySet<SessionEvent['type']> = new Set([
  'started',
  'answered',
  'reached',
  'skipped',
  'went-back',
  'paused',
  'pain',
  'touched-down',
  'swapped',
]);

/** A fault of an event in time or place: which event, of what, and what would be right. */
export interface EventFault {
  readonly index: number;
  readonly of: 'at' | 'segment' | 'type';
  readonly message: string;
}

/** The most segments that the timeline has had: each drill swapped in makes it another. */
function mostSegments(
  reference: Reference,
  items: readonly IdentifiedItem[],
  events: readonly SessionEvent[],
): number {
  const ordered = inOrder(events);
  const turns = ordered.flatMap((event, i) => (event.type === 'swapped' ? [i + 1] : []));
  const lengths = [0, ...turns].map(
    (end) => reduceSession(reference, items, [...ordered.slice(0, end), ...leftOut(ordered)]).segments.length,
  );
  return Math.max(...lengths);
}

const leftOut = (events: readonly SessionEvent[]) => events.filter(({ type }) => type === 'left-out');

function placesOf(event: SessionEvent): readonly number[] {
  switch (event.type) {
    case 'reached':
      return [event.segment + 1];
    case 'skipped':
      return [...event.segments.map((one) => one + 1), event.next];
    case 'went-back':
    case 'paused':
      return [event.segment];
    default:
      return [];
  }
}

/**
 * Faults of new events of a session against its days, its timeline and its end: a clock years off, a place that the
 * routine does not have, something played after it was over. `now` is the server's instant, in UTC.
 */
export function eventFaults(
  reference: Reference,
  items: readonly IdentifiedItem[],
  known: readonly SessionEvent[],
  fresh: readonly SessionEvent[],
  { date, now }: { readonly date: IsoDay; readonly now: string },
): EventFault[] {
  const [from, to] = [addDays(date, -CLOCK_DAYS), addDays(now.slice(0, 10), CLOCK_DAYS)];
  const most = mostSegments(reference, items, [...known, ...fresh]);
  const over = known
    .filter(({ type }) => type === 'finished')
    .map(({ at }) => at)
    .sort()[0];
  return fresh.flatMap((event, index): EventFault[] => {
    const day = event.at.slice(0, 10);
    if (day < from || day > to)
      return [{ index, of: 'at', message: `the device's clock is off: between ${from} and ${to}` }];
    if (placesOf(event).some((place) => place > most))
      return [{ index, of: 'segment', message: `the run has ${most} segments` }];
    if (over !== undefined && event.at > over && PLAYED.has(event.type))
      return [{ index, of: 'type', message: `the run was over at ${over}: amend it instead` }];
    return [];
  });
}
