import type { DoorOfRun } from '@yonder/core/contracts';
import { reduceSession } from '@yonder/core/session';
import type { RowOf } from '../../db/schema.ts';
import type { Deps } from '../../deps.ts';
import { ApiProblem } from '../../http/problem.ts';
import { referenceAsIssued } from '../../work/practice.ts';
import type { Unit } from '../../work/unit.ts';
import { loadRecord, revisionOf } from '../athletes/record.ts';
import { needRoutine } from '../routines/versions.ts';
import { asSwapped, eventsOf, judgeRun, needSession } from './service.ts';

const OPEN: DoorOfRun = { blocked: null, items: [] };

/**
 * What the rules forbid by now of what is still to come in a run: everything, or single items with the reason. A sign, a
 * precaution or a pain that was told meanwhile is among it.
 */
export async function doorOf(deps: Deps, unit: Unit, sessionId: string): Promise<DoorOfRun> {
  const session = await needSession(unit, sessionId);
  if (session.finished) return OPEN;
  // Most of the time nothing has happened since it was asked last: then nothing is judged again.
  const athlete = await unit.rows.athletes.need({ id: session.athleteId }, 'Athlete');
  const happened = await unit.rows.session_events.count({ sessionId });
  const key = [sessionId, happened, revisionOf(unit, athlete, session.date), unit.today].join(' ');
  const known = deps.doors.get(key) ?? (await judgedDoor(unit, session));
  deps.doors.set(key, known);
  return known;
}

async function judgedDoor(unit: Unit, session: RowOf<'sessions'>): Promise<DoorOfRun> {
  const routine = await needRoutine(unit, session.routineId);
  const reference = referenceAsIssued(await unit.practice(), routine.ownDrills);
  const items = session.items ?? routine.items;
  const events = await eventsOf(unit, session.id);
  const { segments, position } = reduceSession(reference, items, events);
  const toCome = new Set(
    segments.flatMap(({ item }, place) =>
      place >= position.segment && !position.skipped.includes(place) ? [items[item]?.id] : [],
    ),
  );
  const out = new Set(items.flatMap(({ id }) => (toCome.has(id) ? [] : [id])));
  const record = await loadRecord(unit, session.athleteId, session.date);
  try {
    const run = {
      items: asSwapped(items, events),
      out,
      date: session.date,
      schools: routine.request.schools,
    };
    await judgeRun(unit, record, run);
    return OPEN;
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error;
    const ofItems = error.errors.flatMap(({ path, message }) => {
      const item = items[Number(/^\$\.items\[(\d+)\]/.exec(path)?.[1])];
      return item ? [{ item: item.id, why: message }] : [];
    });
    const whole = error.errors.find(({ path }) => path === '$')?.message;
    return { blocked: whole ?? (ofItems.length === 0 ? error.message : null), items: ofItems };
  }
}
