import type { AthleteRow } from '@yonder/core/contracts';
import { ApiProblem, refuse } from '../../http/problem.ts';
import type { Unit } from '../../work/unit.ts';
import { athleteRow } from './rows.ts';
import { loadStory, needAthlete, showAthlete } from './stories.ts';

/** Takes an athlete off the lists, or back onto them; nothing is lost. */
export async function archiveAthlete(
  unit: Unit,
  athleteId: string,
  { archived, version }: { archived: boolean; version: number },
): Promise<AthleteRow> {
  const change = archived
    ? { archivedOn: unit.today, archivedBy: unit.actor.name }
    : { archivedOn: null, archivedBy: null };
  await unit.rows.athletes.change({ id: athleteId }, version, change, () => showAthlete(unit, athleteId));
  return showAthlete(unit, athleteId);
}

/** Everything on record of one athlete as one document: what is theirs to take along. */
export async function exportAthlete(unit: Unit, athleteId: string): Promise<Record<string, unknown>> {
  const story = await loadStory(unit, athleteId);
  const of = { athleteId };
  const { rows } = unit;
  const screenings = await rows.screenings.all(of, { sort: ['date'] });
  const sessions = await rows.sessions.all(of, { sort: ['date'] });
  const ids = (list: readonly { id: string }[]) => list.map((row) => row.id);
  const audit = await unit.query(
    `SELECT e.at, e.action, e.change, c.name AS by FROM audit_events e LEFT JOIN clinicians c ON c.id = e.actor_id
     WHERE e.practice_id = :practiceId AND e.athlete_id = :athleteId ORDER BY e.id`,
    { practiceId: unit.practiceId, athleteId },
  );
  return {
    format: 'yonder-ridge-athlete/1',
    exportedOn: unit.today,
    athlete: athleteRow(story),
    gate: await rows.gate_answers.all(of, { sort: ['createdAt'] }),
    screenings,
    results: await rows.results.all({ screeningId: ids(screenings) }, { sort: ['test', 'side'] }),
    routines: await rows.routines.all(of, { sort: ['occasion', 'number'] }),
    occasions: await rows.occasions.all(of),
    drafts: await rows.routine_drafts.all(of),
    sessions,
    events: await rows.session_events.all({ sessionId: ids(sessions) }),
    entries: await rows.session_entries.all(of, { sort: ['date', 'place'] }),
    decisions: await rows.decisions.all(of, { sort: ['decidedOn'] }),
    checkIns: await rows.check_ins.all(of, { sort: ['date'] }),
    methods: await rows.method_choices.all(of, { sort: ['createdAt'] }),
    audit,
  };
}

/**
 * Erases an athlete: everything on record goes, and what must stay (who saw and changed what, and that and why it was
 * erased) stays without the name. The name has to be typed again.
 */
export async function eraseAthlete(
  unit: Unit,
  athleteId: string,
  { id, name, reason }: { id: string; name: string; reason: string },
): Promise<{ athleteId: string; on: string }> {
  const athlete = await needAthlete(unit, athleteId, true);
  refuse(
    name.trim() === athlete.name
      ? []
      : [{ path: '$.name', message: `type the name exactly: ${athlete.name}` }],
  );
  if (reason.toLowerCase().includes(athlete.name.toLowerCase()))
    throw new ApiProblem('invalid-request', {
      errors: [{ path: '$.reason', message: 'leave the name out: the reason stays on record' }],
    });
  await unit.rows.athletes.drop({ id: athleteId });
  // What a change was before and is now is the athlete's own: it goes as well.
  await unit.query("SELECT set_config('yonder.erasing', 'on', true)", {});
  await unit.query(
    'UPDATE audit_events SET change = NULL WHERE practice_id = :practiceId AND athlete_id = :athleteId',
    { practiceId: unit.practiceId, athleteId },
  );
  await unit.query(
    `DELETE FROM receipts WHERE practice_id = :practiceId AND operation <> 'eraseAthlete'
       AND (athlete_id = :athleteId OR id = :athleteId)`,
    { practiceId: unit.practiceId, athleteId },
  );
  const erased = { erasedBy: unit.actor.name, erasedOn: unit.today };
  await unit.rows.erasures.insert({ id, athleteId, reason, ...erased });
  return { athleteId, on: unit.today };
}

/** What an erasure came to, when it is sent again. */
export async function erasedBefore(unit: Unit, id: string): Promise<{ athleteId: string; on: string }> {
  const { athleteId, erasedOn } = await unit.rows.erasures.need({ id }, 'Erasure');
  return { athleteId, on: erasedOn };
}
