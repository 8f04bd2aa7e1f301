import type { Page, PageQuery, RecentSessions, SessionRow, SessionWithEvents } from '@yonder/core/contracts';
import { sameJson } from '@yonder/core/domain';
import { assessedAt } from '@yonder/core/assess';
import { prepareBuild } from '@yonder/core/builder';
import { itemsFaults } from '@yonder/core/formats';
import { isLine } from '@yonder/core/reference';
import { todaysCopy } from '@yonder/core/checkin';
import { eventFaults, inOrder, reduceSession } from '@yonder/core/session';
import type { ItemEntry, SessionEvent } from '@yonder/core/session';
import type { NewRow } from '../../db/rows.ts';
import type { RowOf } from '../../db/schema.ts';
import { cursorOf, pageOfRows } from '../../http/page.ts';
import { ApiProblem, notFound, refuse } from '../../http/problem.ts';
import { checkWorkingDay } from '../../work/days.ts';
import type { Deps } from '../../deps.ts';
import { idWithin, newId } from '../../work/newId.ts';
import { referenceAsIssued } from '../../work/practice.ts';
import type { Unit } from '../../work/unit.ts';
import { assessRecord, loadRecord } from '../athletes/record.ts';
import type { LoadedRecord } from '../athletes/record.ts';
import { groupBy, needAthlete } from '../athletes/stories.ts';
import { needRoutine } from '../routines/versions.ts';
import { passDoor } from '../routines/door.ts';

type Session = Pick<
  RowOf<'sessions'>,
  'id' | 'routineId' | 'date' | 'finished' | 'provoked' | 'items' | 'changes' | 'version'
>;

function entryOf(row: RowOf<'session_entries'>): ItemEntry {
  const { itemId, drill, side, done, amounts, painBefore, pain, nextDayPain, effort, quality } = row;
  const { swappedFor, bothWays } = row;
  return {
    item: itemId,
    drill,
    side,
    done,
    amounts,
    painBefore,
    pain,
    nextDayPain,
    effort,
    quality,
    ...(swappedFor === null ? {} : { swappedFor }),
    ...(bothWays ? { bothWays } : {}),
  };
}

function sessionRow(
  { id, routineId, date, finished, provoked, items, changes, version }: Session,
  entries: readonly RowOf<'session_entries'>[],
): SessionRow {
  const session = { id, routineId, date, finished, provoked, items, changes, version };
  return { ...session, entries: entries.map(entryOf) };
}

/** A page of an athlete's sessions, newest first, in three queries. */
export async function listSessions(
  unit: Unit,
  athleteId: string,
  page: PageQuery,
): Promise<Page<SessionRow>> {
  await needAthlete(unit, athleteId);
  const [day = null, id = null] = cursorOf(page, 2) ?? [];
  const sessions = await unit.query<Session>(
    `SELECT id, routine_id AS "routineId", date, finished, provoked, items, changes, version FROM sessions
     WHERE practice_id = :practiceId AND athlete_id = :athleteId
       AND (:day IS NULL OR (date, id) < (CAST(:day AS date), CAST(:id AS uuid)))
     ORDER BY date DESC, id DESC LIMIT :limit`,
    { practiceId: unit.practiceId, athleteId, day, id, limit: page.limit + 1 },
  );
  const entries = await unit.rows.session_entries.all(
    { sessionId: sessions.map((session) => session.id) },
    { sort: ['place'] },
  );
  const ofSession = groupBy(entries, (row) => row.sessionId);
  return pageOfRows(
    sessions,
    page,
    (session) => [session.date, session.id],
    (session) => sessionRow(session, ofSession.get(session.id) ?? []),
  );
}

const RECENT_MOST = 500;

/** Sessions since a day over all athletes of the practice, newest first. */
export async function recentSessions(unit: Unit, since: string): Promise<RecentSessions> {
  const items = await unit.query<RecentSessions['items'][number]>(
    `SELECT s.id, s.athlete_id AS "athleteId", a.name AS athlete, s.date, s.finished, max(e.pain) AS pain,
            count(*) FILTER (WHERE e.done <> 'all')::int AS "left"
     FROM sessions s JOIN athletes a ON a.id = s.athlete_id LEFT JOIN session_entries e ON e.session_id = s.id
     WHERE s.practice_id = :practiceId AND s.date >= :since AND s.date <= :today AND a.archived_on IS NULL
     GROUP BY s.id, a.name ORDER BY s.date DESC, a.name, s.id LIMIT :limit`,
    { practiceId: unit.practiceId, since, today: unit.today, limit: RECENT_MOST },
  );
  return { since, items };
}

export async function needSession(unit: Unit, id: string, lock = false): Promise<RowOf<'sessions'>> {
  const session = await unit.rows.sessions.need({ id }, 'Session', { lock });
  unit.concerns(session.athleteId);
  return session;
}

export async function eventsOf(unit: Unit, sessionId: string): Promise<SessionEvent[]> {
  return inOrder((await unit.rows.session_events.all({ sessionId })).map((row) => row.event));
}

/** A session with its events. */
export async function readSession(unit: Unit, id: string): Promise<SessionWithEvents> {
  const session = await needSession(unit, id);
  const entries = await unit.rows.session_entries.all({ sessionId: id }, { sort: ['place'] });
  return { ...sessionRow(session, entries), events: await eventsOf(unit, id) };
}

interface Start {
  readonly id: string;
  readonly routineId: string;
  readonly date: string;
  readonly leaveOut: readonly string[];
  readonly adapt?: boolean;
  readonly undone?: readonly string[];
  readonly shown?: RowOf<'sessions'>['changes'] | undefined;
}

/** Items that a run has left out so far. */
const leftOutBefore = (events: readonly SessionEvent[]): Set<string> =>
  new Set(events.flatMap((event) => (event.type === 'left-out' ? event.items : [])));

/** Items that are left out of a session: those said now, and those said before; and whether it is under way. */
async function leftOutOf(
  unit: Unit,
  open: RowOf<'sessions'> | null,
  items: readonly { id: string }[],
  leaveOut: readonly string[],
): Promise<{ all: Set<string>; fresh: string[]; underWay: boolean }> {
  const events = open ? await eventsOf(unit, open.id) : [];
  const before = leftOutBefore(events);
  const fresh = [...new Set(leaveOut)].filter((item) => !before.has(item));
  const underWay = events.some(({ type }) => type === 'reached' || type === 'skipped');
  refuse(
    fresh.flatMap((item) =>
      items.some(({ id }) => id === item)
        ? []
        : [{ path: `$.leaveOut[${leaveOut.indexOf(item)}]`, message: 'not an item of this routine' }],
    ),
  );
  const all = new Set([...before, ...fresh]);
  refuse(
    items.every(({ id }) => all.has(id))
      ? [{ path: '$.leaveOut', message: 'nothing is left of the routine today' }]
      : [],
  );
  return { all, fresh, underWay };
}

type Items = RowOf<'routines'>['items'];

/** The items as they are played: the drill that was last swapped in, in place of the one it stands for. */
export function asSwapped(items: Items, events: readonly SessionEvent[]): Items {
  return items.map((item) => {
    const swap = events.findLast((event) => event.type === 'swapped' && event.item === item.id);
    return swap?.type === 'swapped' ? { ...swap.to, id: item.id } : item;
  });
}

/** Refuses a run while the rules forbid a line of it that is not left out, by the place of the line. */
export async function judgeRun(
  unit: Unit,
  record: LoadedRecord,
  run: {
    readonly items: Items;
    readonly out: ReadonlySet<string>;
    readonly date: string;
    readonly schools: Readonly<Record<string, string>>;
  },
): Promise<void> {
  const places = run.items.flatMap((item, index) => (run.out.has(item.id) ? [] : [{ item, index }]));
  await passDoor(
    unit,
    record,
    places.map(({ item }) => item),
    run.date,
    { schools: run.schools, at: (i) => `$.items[${places[i]?.index}]` },
  );
}

/** Today's copy of a version by what was said before it is run; a line that comes in gets an id made from the run's. */
async function copyFor(
  deps: Deps,
  unit: Unit,
  routine: RowOf<'routines'>,
  record: LoadedRecord,
  { id, date, undone = [], shown }: Start,
): Promise<{ items: Items; out: string[]; changes: RowOf<'sessions'>['changes'] } | null> {
  const said = record.case.checkIns.find((one) => one.date === date);
  if (!said) return null;
  const assessment = assessedAt(await assessRecord(deps, unit, record), routine.occasion);
  // The same request as the page works it out with.
  const request = { ...record.case.request, mode: routine.mode, schools: routine.request.schools };
  const copy = todaysCopy(prepareBuild(assessment, request), routine.items, said, new Set(undone));
  if (shown && !sameJson(shown, copy.changes))
    throw new ApiProblem('proposal-changed', { current: copy.changes });
  if (copy.changes.length === 0) return null;
  const own = new Set(routine.items.map((item) => item.id));
  const idOf = (name: string) => (own.has(name) ? name : idWithin(id, name));
  return {
    items: copy.items.map((item) => ({ ...item, id: idOf(item.id) })),
    out: [...copy.out].map(idOf),
    changes: [...copy.changes],
  };
}

/** Throws when a newer version of the routine was in force on a day; a run of the old one that is under way goes on. */
async function checkInForce(unit: Unit, routine: RowOf<'routines'>, date: string): Promise<void> {
  const { athleteId, occasion, number } = routine;
  const [newer] = await unit.query<{ id: string; number: number }>(
    `SELECT id, number FROM routines WHERE practice_id = :practiceId AND athlete_id = :athleteId
       AND occasion = :occasion AND number > :number AND issued_on <= :date ORDER BY number DESC LIMIT 1`,
    { practiceId: unit.practiceId, athleteId, occasion, number, date },
  );
  if (newer)
    throw new ApiProblem('superseded', { detail: `Version ${newer.number} is in force.`, current: newer });
}

/**
 * Starts a run of a routine on a day, or goes on with an unfinished one; by today's copy where that is asked for. What is not
 * for today is left out, and where that comes up in the middle, the run ends as it is and another begins. Refused while the
 * rules forbid a drill that is not.
 */
export async function startSession(deps: Deps, unit: Unit, start: Start): Promise<SessionWithEvents> {
  const { id, routineId, date, leaveOut, adapt = false } = start;
  checkWorkingDay('$.date', date, unit.today);
  const routine = await needRoutine(unit, routineId);
  const { athleteId, issuedOn, request } = routine;
  refuse(date < issuedOn ? [{ path: '$.date', message: `before the version was issued, ${issuedOn}` }] : []);
  const record = await loadRecord(unit, athleteId, date);
  await needAthlete(unit, athleteId, true);
  const where = { athleteId, routineId, date, finished: false };
  const open = await unit.rows.sessions.one(where);
  if (!open) await checkInForce(unit, routine, date);
  const copy = adapt && open === null ? await copyFor(deps, unit, routine, record, start) : null;
  const items: Items = copy?.items ?? open?.items ?? routine.items;
  const wanted = [...new Set([...(copy?.out ?? []), ...leaveOut])];
  const { all, fresh, underWay } = await leftOutOf(unit, open, items, wanted);
  // What was swapped in is what goes on.
  const played = open ? asSwapped(items, await eventsOf(unit, open.id)) : items;
  await judgeRun(unit, record, { items: played, out: all, date, schools: request.schools });
  const stamp = () => ({ id: newId(), device: 'server', seq: 0, at: deps.clock().toISOString() });
  // What was done under other conditions stays as it was done; without the drill it is another session.
  const anew = open === null || (underWay && fresh.length > 0);
  if (open && anew) await appendEvents(deps, unit, open.id, [{ type: 'finished', ...stamp() }]);
  const done = {
    items: copy?.items ?? (open ? played : null),
    changes: copy?.changes ?? open?.changes ?? [],
  };
  if (anew) await unit.rows.sessions.insert({ id, ...where, ...done, provoked: [] });
  const sessionId = anew ? id : open.id;
  const leftOut = anew ? [...all] : fresh;
  if (leftOut.length > 0)
    await addEvents(unit, sessionId, [{ type: 'left-out', ...stamp(), items: leftOut }]);
  return readSession(unit, sessionId);
}

/** The session that a start came to: its own, or the one it went on with; through the door again while it is not finished. */
export async function startedBefore(
  unit: Unit,
  { id, routineId, date }: { id: string; routineId: string; date: string },
): Promise<SessionWithEvents> {
  const own = await unit.rows.sessions.one({ id });
  const other = own ?? (await unit.rows.sessions.one({ routineId, date }, { sort: [['finished', 'DESC']] }));
  if (!other) throw notFound('Session');
  const found = await readSession(unit, other.id);
  if (found.finished) return found;
  const routine = await needRoutine(unit, other.routineId);
  const record = await loadRecord(unit, other.athleteId, other.date);
  await judgeRun(unit, record, {
    items: asSwapped(found.items ?? routine.items, found.events),
    out: leftOutBefore(found.events),
    date: other.date,
    schools: routine.request.schools,
  });
  return found;
}

/** Events stand within the session's time and place, and name items of the routine; a swapped-in drill must be known and pass the safety rules. */
async function checkEvents(
  { clock }: Deps,
  unit: Unit,
  session: RowOf<'sessions'>,
  routine: RowOf<'routines'>,
  events: readonly SessionEvent[],
): Promise<void> {
  const items = session.items ?? routine.items;
  const own = new Set(items.map((item) => item.id));
  const reference = referenceAsIssued(await unit.practice(), routine.ownDrills);
  const known = await eventsOf(unit, session.id);
  const unknown = new Set(known.map(({ id }) => id));
  const fresh = events
    .map((event, index) => ({ event, index }))
    .filter(({ event }) => !unknown.has(event.id));
  const bounds = { date: session.date, now: clock().toISOString() };
  refuse(
    eventFaults(
      reference,
      items,
      known,
      fresh.map(({ event }) => event),
      bounds,
    ).map(({ index, of, message }) => ({ path: `$.events[${fresh[index]?.index}].${of}`, message })),
  );
  refuse(
    events.flatMap((event, i) => {
      if (event.type === 'carried' || event.type === 'left-out')
        return [{ path: `$.events[${i}].type`, message: 'is not for new sessions' }];
      if ('item' in event && !own.has(event.item))
        return [{ path: `$.events[${i}].item`, message: 'not an item of this routine' }];
      if (event.type !== 'swapped') return [];
      if (isLine(event.to.drill))
        return [{ path: `$.events[${i}].to.drill`, message: 'a drill is swapped for a drill' }];
      return itemsFaults(reference, [event.to]).map(({ path, message }) => ({
        path: path.replace('$.items[0]', `$.events[${i}].to`),
        message,
      }));
    }),
  );
  const swaps = events.flatMap((event, index) => (event.type === 'swapped' ? [{ index, ...event.to }] : []));
  if (swaps.length === 0) return;
  const record = await loadRecord(unit, session.athleteId, session.date);
  await passDoor(unit, record, swaps, session.date, {
    schools: routine.request.schools,
    at: (i) => `$.events[${swaps[i]?.index}].to`,
  });
}

/** Adds events that are not there yet; the same id with other content is refused. True when there were any. */
async function addEvents(unit: Unit, sessionId: string, events: readonly SessionEvent[]): Promise<boolean> {
  const unique = [...new Map(events.map((event) => [event.id, event])).values()];
  const known = await unit.rows.session_events.all({ id: unique.map((event) => event.id) });
  for (const row of known) {
    const event = unique.find((e) => e.id === row.id);
    if (row.sessionId !== sessionId || !event || !sameJson(row.event, event))
      throw new ApiProblem('id-taken');
  }
  const fresh = unique.filter((event) => !known.some((row) => row.id === event.id));
  await unit.rows.session_events.insertAll(fresh.map((event) => ({ id: event.id, sessionId, event })));
  return fresh.length > 0;
}

const ENTRY_COLUMNS = [
  'drill',
  'side',
  'done',
  'amounts',
  'painBefore',
  'pain',
  'nextDayPain',
  'effort',
  'quality',
  'swappedFor',
  'bothWays',
] as const;

/** Works the session out anew from all its events and keeps what happened per item as rows. */
async function keepState(unit: Unit, session: RowOf<'sessions'>, routine: RowOf<'routines'>): Promise<void> {
  const reference = referenceAsIssued(await unit.practice(), routine.ownDrills);
  const items = session.items ?? routine.items;
  const state = reduceSession(reference, items, await eventsOf(unit, session.id));
  const rows = state.entries.map(
    ({ item, swappedFor, bothWays, done, ...entry }, place): NewRow<RowOf<'session_entries'>> => {
      const issued = routine.items.find((own) => own.id === item);
      const copied = items.find((own) => own.id === item);
      const eased = issued && copied && copied.sets * copied.amount < issued.sets * issued.amount;
      return {
        sessionId: session.id,
        itemId: item,
        athleteId: session.athleteId,
        date: session.date,
        place,
        ...entry,
        // All of less than was issued is a part of it.
        done: eased && done === 'all' ? 'part' : done,
        swappedFor: swappedFor ?? (issued && issued.drill !== entry.drill ? issued.drill : null),
        bothWays: bothWays ?? false,
      };
    },
  );
  await unit.rows.session_entries.put(rows, ENTRY_COLUMNS);
  await unit.rows.sessions.update(
    { id: session.id },
    { finished: state.finished, provoked: [...state.provoked], version: session.version + 1 },
  );
}

/**
 * Adds a batch of events of a session, in any order and as often as it likes: what is known already changes nothing. Events
 * are never changed or deleted; the database refuses it.
 */
export async function appendEvents(
  deps: Deps,
  unit: Unit,
  sessionId: string,
  events: readonly SessionEvent[],
): Promise<SessionRow> {
  const session = await needSession(unit, sessionId, true);
  const routine = await needRoutine(unit, session.routineId);
  await checkEvents(deps, unit, session, routine, events);
  if (await addEvents(unit, sessionId, events)) await keepState(unit, session, routine);
  const { events: _events, ...row } = await readSession(unit, sessionId);
  return row;
}
