import type { AthleteRow } from '@yonder/core/contracts';
import type { CurrentPain, Judgement, Placement, Region, Side } from '@yonder/core/domain';
import { isPlausible } from '@yonder/core/measure';
import { covers } from '@yonder/core/safety';
import { notFound, refuse } from '../../http/problem.ts';
import { checkNotAfter } from '../../work/days.ts';
import type { Unit } from '../../work/unit.ts';
import { needRow, placementRow, protocolRow } from './rows.ts';
import { needAthlete, showAthlete } from './stories.ts';

/** Records what hurts now. */
export async function addPain(
  unit: Unit,
  athleteId: string,
  { when, aspect, feel, ...pain }: Omit<CurrentPain, 'ended'> & { id: string },
): Promise<AthleteRow> {
  checkNotAfter('$.since', pain.since, unit.today);
  await needAthlete(unit, athleteId);
  const places = { moment: when, aspect: aspect ?? null, feel: feel ?? null };
  await unit.rows.pains.insert({ ...pain, ...places, ended: null, athleteId });
  return showAthlete(unit, athleteId);
}

interface ProtocolInput {
  by: string;
  date: string;
  drills: string[];
  tests: string[];
  version: number | null;
}

/** Stores what the treating clinician ticked for a region and side; nothing else is shown there (level P). */
export async function putProtocol(
  unit: Unit,
  athleteId: string,
  place: { region: Region; side: Side },
  { version, ...protocol }: ProtocolInput,
): Promise<AthleteRow> {
  checkNotAfter('$.date', protocol.date, unit.today);
  const { drills, tests } = (await unit.practice()).reference;
  refuse([
    ...protocol.drills.flatMap((id, i) =>
      drills.has(id) ? [] : [{ path: `$.drills[${i}]`, message: `unknown drill "${id}"` }],
    ),
    ...protocol.tests.flatMap((id, i) =>
      tests.has(id) ? [] : [{ path: `$.tests[${i}]`, message: `unknown test "${id}"` }],
    ),
  ]);
  await needAthlete(unit, athleteId, true);
  const operated = await unit.rows.injuries.all(
    { athleteId, region: place.region, operated: true },
    { sort: [['date', 'DESC']] },
  );
  const since = operated.find(({ side }) => covers(side, place.side))?.date;
  refuse(
    since && protocol.date < since
      ? [{ path: '$.date', message: `before the operation it is for, ${since}` }]
      : [],
  );
  await unit.rows.protocols.putAt(
    { athleteId, ...place },
    version,
    { ...protocol, changed: [] },
    protocolRow,
  );
  return showAthlete(unit, athleteId);
}

/** Sets an athlete's own need for a test and side, with a reason; it replaces task and floor. */
export async function putNeed(
  unit: Unit,
  athleteId: string,
  place: { test: string; side: Side },
  { version, ...input }: { value: number; reason: string; version: number | null },
): Promise<AthleteRow> {
  const test = (await unit.practice()).reference.tests.get(place.test);
  if (!test) throw notFound('Test');
  const { min, max } = test.plausible;
  refuse([
    ...((test.sides === 'central') === (place.side === 'central')
      ? []
      : [{ path: '$.side', message: `wrong side for ${test.id}` }]),
    ...(isPlausible(test, input.value)
      ? []
      : [{ path: '$.value', message: `${input.value} is outside ${min} to ${max} ${test.unit}` }]),
  ]);
  await needAthlete(unit, athleteId, true);
  const need = { ...input, setBy: unit.actor.name, setOn: unit.today };
  await unit.rows.need_overrides.putAt({ athleteId, ...place }, version, need, needRow);
  return showAthlete(unit, athleteId);
}

/** Takes an athlete's own need back: task and floor speak again. */
export async function removeNeed(
  unit: Unit,
  athleteId: string,
  place: { test: string; side: Side },
  version: number,
): Promise<AthleteRow> {
  await unit.rows.need_overrides.remove({ athleteId, ...place }, version, needRow);
  return showAthlete(unit, athleteId);
}

/** What was seen of a level, by its drill and side. */
interface LevelPlace {
  drill: string;
  side: Placement['side'];
}

/** Records that a level was seen fine, or too hard; the last word on a drill and side stands. */
export async function putPlacement(
  unit: Unit,
  athleteId: string,
  place: LevelPlace,
  { version, verdict }: { verdict: Placement['verdict']; version: number | null },
): Promise<AthleteRow> {
  const drill = (await unit.practice()).reference.drills.get(place.drill);
  if (!drill) throw notFound('Drill');
  refuse(
    place.side === 'both' || (drill.unilateral && place.side !== 'central')
      ? []
      : [
          {
            path: '$.side',
            message: drill.unilateral ? 'use left, right or both' : `${drill.name} has no sides: use "both"`,
          },
        ],
  );
  await needAthlete(unit, athleteId, true);
  // The wall clock, whatever day the work is of: it only tells which of two words came later.
  const said = { verdict, by: unit.actor.name, date: unit.today, saidAt: new Date() };
  await unit.rows.placements.putAt({ athleteId, ...place }, version, said, placementRow);
  return showAthlete(unit, athleteId);
}

/** Takes back what was seen of a level: tests, diary and start rule speak again. */
export async function removePlacement(
  unit: Unit,
  athleteId: string,
  place: LevelPlace,
  version: number,
): Promise<AthleteRow> {
  await unit.rows.placements.remove({ athleteId, ...place }, version, placementRow);
  return showAthlete(unit, athleteId);
}

/** Records what a practitioner says of a finding, or one seen by eye. */
export async function addJudgement(
  unit: Unit,
  athleteId: string,
  input: Omit<Judgement, 'by' | 'date'> & { id: string },
): Promise<AthleteRow> {
  const restriction = unit.reference.restrictions.get(input.restriction);
  const central = restriction?.laterality === 'central';
  refuse([
    ...(restriction
      ? []
      : [{ path: '$.restriction', message: `unknown restriction "${input.restriction}"` }]),
    ...(restriction && restriction.laterality !== 'either' && central !== (input.side === 'central')
      ? [{ path: '$.side', message: central ? 'central: use side "central"' : 'use left or right' }]
      : []),
    ...(input.verdict === 'dismissed' && input.reason.trim() === ''
      ? [{ path: '$.reason', message: 'say why it is set aside' }]
      : []),
  ]);
  await needAthlete(unit, athleteId);
  await unit.rows.judgements.insert({ ...input, athleteId, by: unit.actor.name, date: unit.today });
  return showAthlete(unit, athleteId);
}

/** Takes a judgement back. */
export async function removeJudgement(
  unit: Unit,
  athleteId: string,
  id: string,
  version: number,
): Promise<AthleteRow> {
  await unit.rows.judgements.remove({ id, athleteId }, version);
  return showAthlete(unit, athleteId);
}
