import type { AthleteFields, AthleteRow, UpdateAthlete } from '@yonder/core/contracts';
import { refuse } from '../../http/problem.ts';
import { checkNotAfter } from '../../work/days.ts';
import { mayDo } from '../../work/actor.ts';
import type { Unit } from '../../work/unit.ts';
import type { RowOf } from '../../db/schema.ts';
import { NOT_CLEARED } from './endings.ts';
import { checkAthleteFields } from './faults.ts';
import { needAthlete, showAthlete } from './stories.ts';

/** Checks typed fields against the reference with the practice's own tasks and drills. */
async function checkFields(unit: Unit, fields: AthleteFields): Promise<void> {
  checkAthleteFields((await unit.practice()).reference, fields, unit.today);
}

/** Adds an athlete. */
export async function createAthlete(
  unit: Unit,
  { id, ...fields }: AthleteFields & { id: string },
): Promise<AthleteRow> {
  await checkFields(unit, fields);
  await unit.rows.athletes.insert({ id, ...fields, archivedOn: null, archivedBy: null });
  unit.concerns(id);
  return showAthlete(unit, id);
}

/** Changes the typed fields on the version they were read at. */
export async function updateAthlete(
  unit: Unit,
  athleteId: string,
  { version, birthDateWhy = '', ...fields }: UpdateAthlete,
): Promise<AthleteRow> {
  await checkFields(unit, fields);
  const { birthDate } = await unit.rows.athletes.need({ id: athleteId }, 'Athlete');
  // The age decides which limits and drills hold.
  if (fields.birthDate !== birthDate) {
    refuse([
      ...(mayDo(unit.actor, 'clinician')
        ? []
        : [{ path: '$.birthDate', message: 'the age rules hang on it: a clinician or owner changes it' }]),
      ...(birthDateWhy.length >= 3
        ? []
        : [{ path: '$.birthDateWhy', message: 'say why it changes: the age rules hang on it' }]),
    ]);
    unit.changes({ what: 'birth date', was: birthDate, is: fields.birthDate, why: birthDateWhy });
  }
  await unit.rows.athletes.change({ id: athleteId }, version, fields, () => showAthlete(unit, athleteId));
  return showAthlete(unit, athleteId);
}

interface NewInjury {
  id: string;
  region: AthleteRow['injuries'][0]['region'];
  side: AthleteRow['injuries'][0]['side'];
  date: string;
  operated: boolean;
  what: string;
}

/** Adds a past injury. */
export async function addInjury(unit: Unit, athleteId: string, injury: NewInjury): Promise<AthleteRow> {
  checkNotAfter('$.date', injury.date, unit.today);
  await needAthlete(unit, athleteId);
  await unit.rows.injuries.insert({ ...injury, athleteId });
  return showAthlete(unit, athleteId);
}

/** Removes an injury entered by mistake, on its version. */
export async function removeInjury(
  unit: Unit,
  athleteId: string,
  id: string,
  version: number,
): Promise<AthleteRow> {
  await unit.rows.injuries.remove({ id, athleteId }, version);
  return showAthlete(unit, athleteId);
}

type NewPrecaution = Pick<
  RowOf<'precautions'>,
  'id' | 'precaution' | 'reason' | 'setBy' | 'until' | 'region' | 'side'
>;

/** Sets a precaution; one of a kind, region and side is active at a time. */
export async function addPrecaution(
  unit: Unit,
  athleteId: string,
  input: NewPrecaution,
): Promise<AthleteRow> {
  const since = unit.today;
  refuse([
    ...(unit.reference.precautions.has(input.precaution)
      ? []
      : [{ path: '$.precaution', message: 'unknown precaution' }]),
    ...(input.region === null || unit.reference.precautions.get(input.precaution)?.regional
      ? []
      : [
          {
            path: '$.region',
            message: 'this precaution binds wherever a drill lists it; leave the region out',
          },
        ]),
    ...(input.side !== null && input.region === null
      ? [{ path: '$.side', message: 'name the region of this side' }]
      : []),
    ...(input.until !== null && input.until < since
      ? [{ path: '$.until', message: 'the review date has passed' }]
      : []),
  ]);
  await needAthlete(unit, athleteId);
  await unit.rows.precautions.insert({
    ...input,
    since,
    ...NOT_CLEARED,
    fromClearance: null,
    endedBy: null,
    endedOn: null,
    athleteId,
  });
  return showAthlete(unit, athleteId);
}
