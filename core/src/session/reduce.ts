import type { Provoked, RoutineItem } from '../domain/index.ts';
import { routineTimeline } from '../dose/index.ts';
import type { Segment } from '../dose/index.ts';
import type { Reference } from '../reference/index.ts';
import type { IdentifiedItem } from '../routine/index.ts';
import { entriesOf } from './entries.ts';
import type { ItemEntry } from './entries.ts';
import { AT_THE_START, backTo } from './position.ts';
import type { Position } from './position.ts';
import type { EventOf, SessionEvent } from './types.ts';

/** What is known of a session: everything follows from its events. */
export interface SessionState {
  /** The routine's items in their order, with swapped-in drills in place. */
  readonly items: readonly RoutineItem[];
  readonly segments: readonly Segment[];
  readonly position: Position;
  /** Answers to the questions before the start, by session check. */
  readonly answers: Readonly<Record<string, boolean>>;
  /** Touch-downs by item. */
  readonly touchDowns: Readonly<Record<string, number>>;
  readonly entries: readonly ItemEntry[];
  /** Items that are not for today: they have no segments. */
  readonly leftOut: ReadonlySet<string>;
  /** Scores of the movements that hurt, in the order in which they were first scored. */
  readonly provoked: readonly Provoked[];
  readonly started: boolean;
  readonly finished: boolean;
}

type Amendment = Omit<EventOf<'amended'>, 'type' | 'id' | 'device' | 'seq' | 'at' | 'item'>;

interface Working {
  readonly reference: Reference;
  readonly routine: readonly IdentifiedItem[];
  items: readonly RoutineItem[];
  segments: readonly Segment[];
  position: Position;
  answers: Record<string, boolean>;
  touchDowns: Record<string, number>;
  pains: Record<string, number>;
  said: Record<string, Amendment>;
  carried: EventOf<'carried'> | null;
  readonly leftOut: ReadonlySet<string>;
  provoked: readonly Provoked[];
  started: boolean;
  finished: boolean;
}

/**
 * Events in the one order that holds whatever order they arrived in: each device's own by its count, devices among
 * themselves by their clocks. A clock that was set back never moves an event before an earlier one of its device. The same id
 * counts once.
 */
export function inOrder(events: readonly SessionEvent[]): SessionEvent[] {
  const unique = [...new Map(events.map((event) => [event.id, event])).values()];
  const bySeq = [...unique].sort(
    (a, b) =>
      (a.device < b.device ? -1 : a.device > b.device ? 1 : 0) || a.seq - b.seq || (a.id < b.id ? -1 : 1),
  );
  let device = '';
  let latest = '';
  const timed = bySeq.map((event, index) => {
    latest = event.device === device && latest > event.at ? latest : event.at;
    device = event.device;
    return { event, at: latest, index };
  });
  return timed.sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : a.index - b.index)).map((t) => t.event);
}

/** The timeline of what is played: what is left out takes no time. */
function playedTimeline(
  { reference, routine, leftOut }: Pick<Working, 'reference' | 'routine' | 'leftOut'>,
  items: readonly RoutineItem[],
): readonly Segment[] {
  if (leftOut.size === 0) return routineTimeline(reference, items);
  const kept = items
    .map((item, index) => ({ item, index }))
    .filter((_, i) => !leftOut.has(routine[i]?.id ?? ''));
  const segments = routineTimeline(
    reference,
    kept.map(({ item }) => item),
  );
  return segments.map((segment) => ({ ...segment, item: kept[segment.item]?.index ?? segment.item }));
}

function score(working: Working, { region, side, moment, nrs }: EventOf<'provoked'>): void {
  const known = working.provoked.find((one) => one.region === region && one.side === side);
  const next = { ...(known ?? { region, side, before: null, after: null }), [moment]: nrs };
  working.provoked = known
    ? working.provoked.map((one) => (one === known ? next : one))
    : [...working.provoked, next];
}

function swap(working: Working, { item, to }: EventOf<'swapped'>): void {
  const index = working.routine.findIndex((own) => own.id === item);
  if (index < 0 || !working.reference.drills.has(to.drill)) return;
  working.items = working.items.map((other, i) => (i === index ? to : other));
  working.segments = playedTimeline(working, working.items);
  const start = working.segments.findIndex(
    (s) => s.item === index && s.kind !== 'changeover' && s.kind !== 'floor-change',
  );
  // The new drill begins anew; what was left out before it stays left out.
  const { skipped } = working.position;
  working.position = { segment: Math.max(0, start), elapsed: 0, skipped: skipped.filter((s) => s < start) };
}

function apply(working: Working, event: SessionEvent): void {
  const { position } = working;
  switch (event.type) {
    case 'started':
      working.started = true;
      return;
    case 'answered':
      working.answers[event.check] = event.holds;
      return;
    case 'reached':
      working.position = {
        segment: event.segment + 1,
        elapsed: 0,
        skipped: position.skipped.filter((s) => s !== event.segment),
      };
      return;
    case 'skipped':
      working.position = {
        segment: event.next,
        elapsed: 0,
        skipped: [...new Set([...position.skipped, ...event.segments])],
      };
      return;
    case 'went-back':
      working.position = backTo(position, event.segment);
      return;
    case 'paused':
      working.position = { ...position, segment: event.segment, elapsed: event.elapsed };
      return;
    case 'pain':
      working.pains[event.item] = Math.max(event.nrs, working.pains[event.item] ?? 0);
      return;
    case 'touched-down':
      working.touchDowns[event.item] = (working.touchDowns[event.item] ?? 0) + 1;
      return;
    case 'swapped':
      swap(working, event);
      return;
    case 'left-out':
      return; // known before anything else
    case 'provoked':
      score(working, event);
      return;
    case 'finished':
      working.finished = true;
      return;
    case 'amended': {
      const { type: _t, id: _i, device: _d, seq: _s, at: _a, item, ...said } = event;
      working.said[item] = { ...working.said[item], ...said };
      return;
    }
    case 'carried':
      working.carried = event;
      if (event.played) {
        working.items = event.played;
        working.segments = playedTimeline(working, event.played);
      }
      working.position = { segment: event.segment, elapsed: event.elapsed, skipped: event.skipped };
  }
}

function entriesFrom(working: Working): ItemEntry[] {
  const { routine, items, segments, position, pains, said, carried } = working;
  const fromRun = entriesOf(routine, items, segments, position);
  const base = fromRun.map((entry): ItemEntry => {
    const kept = carried?.entries.find((old) => old.item === entry.item);
    return kept ? { ...kept, item: entry.item } : entry;
  });
  return base.map((entry) => ({
    ...entry,
    pain: Math.max(entry.pain, pains[entry.item] ?? 0),
    ...said[entry.item],
  }));
}

/** What a session comes to: the same set of events gives the same state, in whatever order and however often they came. */
export function reduceSession(
  reference: Reference,
  routine: readonly IdentifiedItem[],
  events: readonly SessionEvent[],
): SessionState {
  const leftOut = new Set(events.flatMap((event) => (event.type === 'left-out' ? event.items : [])));
  const working: Working = {
    reference,
    routine,
    items: routine,
    segments: playedTimeline({ reference, routine, leftOut }, routine),
    leftOut,
    provoked: [],
    position: AT_THE_START,
    answers: {},
    touchDowns: {},
    pains: {},
    said: {},
    carried: null,
    started: false,
    finished: false,
  };
  for (const event of inOrder(events)) apply(working, event);
  const { items, segments, position, answers, touchDowns, provoked, started, finished } = working;
  const entries = entriesFrom(working);
  return { items, segments, position, answers, touchDowns, entries, leftOut, provoked, started, finished };
}
