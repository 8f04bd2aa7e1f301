import { safetyOn } from '@yonder/core/assess';
import type { AthleteRow, CheckInRow } from '@yonder/core/contracts';
import type { CheckIn, Region, Side } from '@yonder/core/domain';
import type { DayRule } from '@yonder/core/safety';
import { checkInSchema } from '@yonder/core/schemas';
import { refuse } from '../../http/problem.ts';
import { checkWorkingDay } from '../../work/days.ts';
import type { Unit } from '../../work/unit.ts';
import { loadRecord } from './record.ts';
import { liftRow } from './rows.ts';
import { needAthlete, showAthlete } from './stories.ts';

interface LiftInput {
  readonly id: string;
  readonly region: Region;
  readonly side: Side;
  readonly reason: string;
  /** Ends what a diary asked to refer there. */
  readonly referral: boolean;
}

/** Why a rule is not lifted, or a referral not ended; empty where it may be. */
function whyNotLifted(rule: DayRule | undefined, referral: boolean): string[] {
  const referred = rule !== undefined && rule.referred.length > 0;
  if (referral) return referred ? [] : ['nothing is referred there'];
  if (referred) return ['a diary said to stop and refer there: that is ended by name, not lifted'];
  if (rule?.band === 'amber') return [];
  if (!rule || rule.band === 'fine') return ['no rule of today holds there'];
  return rule.atRest
    ? [`it hurts ${rule.nrs}/10 at rest: that is not lifted`]
    : [`it hurts ${rule.nrs}/10, above the stop limit of ${rule.stop}: that is not lifted`];
}

/**
 * Lifts the amber rule of today for a region and side, with the reason, for pain no higher than now. Above the stop limit
 * nothing is lifted: the pain has to end, or be told lower. What a diary asked to refer is ended the same way, by name.
 */
export async function liftRule(unit: Unit, athleteId: string, input: LiftInput): Promise<AthleteRow> {
  await needAthlete(unit, athleteId, true);
  const { case: record } = await loadRecord(unit, athleteId, unit.today);
  const practice = { ...(await unit.practice()), schools: record.schools };
  const { safety } = safetyOn(practice, record, unit.today);
  const rule = safety.dayRules.find((one) => one.region === input.region && one.side === input.side);
  refuse(whyNotLifted(rule, input.referral).map((message) => ({ path: '$.region', message })));
  const said = {
    ...input,
    nrs: rule?.nrs ?? 0,
    places: [...(rule?.places ?? [])],
    by: unit.actor.name,
    date: unit.today,
  };
  await unit.rows.lifts.insert({ ...said, athleteId });
  return showAthlete(unit, athleteId);
}

/** Takes a lift back: the rule holds again. */
export async function removeLift(
  unit: Unit,
  athleteId: string,
  id: string,
  version: number,
): Promise<AthleteRow> {
  await unit.rows.lifts.remove({ id, athleteId }, version, liftRow);
  return showAthlete(unit, athleteId);
}

/** What was said before the sessions of a day; an empty one with version null where nothing was. */
export async function readCheckIn(unit: Unit, athleteId: string, date: string): Promise<CheckInRow> {
  await needAthlete(unit, athleteId);
  const row = await unit.rows.check_ins.one({ athleteId, date });
  if (!row) return { ...checkInSchema.parse({ date }), by: null, version: null };
  const { id: _i, athleteId: _a, practiceId: _p, actorKind: _k, actorId: _c, ...said } = row;
  return said;
}

/** Puts what is said before the sessions of a day; it counts on that day alone. */
export async function putCheckIn(
  unit: Unit,
  athleteId: string,
  date: string,
  { version, ...input }: Omit<CheckIn, 'date'> & { version: number | null },
): Promise<CheckInRow> {
  checkWorkingDay('$.date', date, unit.today);
  const places = input.sore.map(({ region, side }) => `${region}/${side}`);
  refuse(
    places.flatMap((place, i) =>
      places.indexOf(place) === i ? [] : [{ path: `$.sore[${i}]`, message: 'is there already; say it once' }],
    ),
  );
  await needAthlete(unit, athleteId, true);
  const said = { ...input, by: unit.actor.name };
  await unit.rows.check_ins.putAt({ athleteId, date }, version, said, () =>
    readCheckIn(unit, athleteId, date),
  );
  return readCheckIn(unit, athleteId, date);
}
