import { addDays } from '../domain/index.ts';
import { endedOn, referralsOf, wasLeftOut } from '../diary/index.ts';
import type { PainLimits } from '../diary/index.ts';
import type {
  AthleteRecord,
  CurrentPain,
  DiaryEntry,
  IsoDay,
  Region,
  ScreeningResult,
  Side,
} from '../domain/index.ts';
import { resultValue } from '../measure/index.ts';
import type { Drill, Reference, Test } from '../reference/index.ts';

/** Days for which pain on a test or in a session still says something of today (editable). */
const PAIN_DAYS = 14;

/** Pain of a region and side that counts today, 0–10, with where and how it is felt and where it was told. */
export interface Soreness {
  readonly region: Region;
  readonly side: Side;
  readonly nrs: number;
  readonly aspect: CurrentPain['aspect'];
  readonly feel: CurrentPain['feel'];
  /** When it hurts, where that was told. */
  readonly when: CurrentPain['when'] | null;
  readonly source: SoreSource;
  readonly since: string;
  /** The test on which it was felt, or the drill in or after which it was. */
  readonly test: string | null;
  readonly drill: string | null;
}

/** Where a pain was told: in the story, on a test, before, in or the morning after a session; or a diary asked to refer. */
export type SoreSource = 'told' | 'test' | 'check-in' | 'session' | 'morning' | 'referred';

type Place = Pick<Soreness, 'region' | 'side' | 'nrs' | 'source' | 'since'> & Partial<Soreness>;

const sore = (place: Place): Soreness => ({
  aspect: undefined,
  feel: undefined,
  when: null,
  test: null,
  drill: null,
  ...place,
});

/** The pain that a provocation test itself measures; 0 for tests of anything else, such as felt stiffness. */
function provoked(reference: Reference, test: Test, result: ScreeningResult): number {
  const ofLoad = test.informs.some((id) => reference.restrictions.get(id)?.kind === 'load-tolerance');
  return test.unit === 'nrs-0-10' && ofLoad ? (resultValue(test, result) ?? 0) : 0;
}

/** What of a record the rules of a day are made from. */
export type SoreRecord = Pick<AthleteRecord, 'athlete' | 'screenings' | 'checkIns' | 'diary'>;

/** Pain that was told in the story and has not ended. */
function told({ athlete }: SoreRecord, today: IsoDay): Soreness[] {
  return athlete.pains
    .filter((pain) => pain.since <= today && (pain.ended === null || pain.ended > today))
    .map(({ region, side, nrs, aspect, feel, when, since }) =>
      sore({ region, side, nrs, aspect, feel, when, since, source: 'told' }),
    );
}

/** Pain on a test of the last days, the latest of each test and side. */
function onTests(reference: Reference, { screenings }: SoreRecord, today: IsoDay): Soreness[] {
  const from = addDays(today, -PAIN_DAYS);
  const latest = new Map<string, Soreness>();
  for (const { date, results } of screenings) {
    if (date < from || date > today) continue;
    for (const result of results) {
      const { test, side, pain } = result;
      const known = reference.tests.get(test);
      const key = `${test}/${side}`;
      const before = latest.get(key);
      if (!known || (before && before.since > date)) continue;
      const { aspect, feel } = pain ?? {};
      const nrs = Math.max(pain?.nrs ?? 0, provoked(reference, known, result));
      latest.set(
        key,
        sore({ region: known.region, side, nrs, aspect, feel, source: 'test', since: date, test }),
      );
    }
  }
  return [...latest.values()];
}

/** Sides that an entry of a diary says something of; both of a drill that is not done one side at a time. */
function sidesOf(drill: Drill, { side }: DiaryEntry): readonly Side[] {
  if (!drill.unilateral || side === 'central') return ['central'];
  return side === 'both' ? ['left', 'right'] : [side];
}

/** Pain in a drill or the morning after it, of the last days: the latest session of each drill and side, since a referral was ended. */
function inSessions(reference: Reference, { diary, athlete }: SoreRecord, today: IsoDay): Soreness[] {
  const from = addDays(today, -PAIN_DAYS);
  const latest = new Map<string, readonly Soreness[]>();
  for (const { date, entries } of diary) {
    if (date < from || date > today) continue;
    for (const entry of entries) {
      const drill = reference.drills.get(entry.drill);
      if (!drill || wasLeftOut(entry)) continue;
      const morning = entry.nextDayPain !== null && entry.nextDayPain > entry.pain;
      for (const side of sidesOf(drill, entry)) {
        const key = `${drill.id}/${side}`;
        const before = latest.get(key);
        if (before?.some(({ since }) => since > date)) continue;
        const open = drill.regions.primary.filter(
          (region) => date > endedOn({ lifts: athlete.lifts, today }, region, side),
        );
        const here = open.map((region) =>
          sore({
            region,
            side,
            nrs: Math.max(entry.pain, entry.nextDayPain ?? 0),
            source: morning ? 'morning' : 'session',
            since: date,
            drill: drill.id,
          }),
        );
        const sameDay = before?.every(({ since }) => since === date) ? before : [];
        latest.set(key, [...sameDay, ...here]);
      }
    }
  }
  return [...latest.values()].flat();
}

/** What was said before a session of this very day. */
function checkedIn({ checkIns }: SoreRecord, today: IsoDay): Soreness[] {
  return checkIns
    .filter(({ date }) => date === today)
    .flatMap(({ date, sore: said }) =>
      said.map(({ when = null, ...place }) => sore({ ...place, when, source: 'check-in', since: date })),
    );
}

/** What a diary asked to refer and nobody has ended. */
function referred(reference: Reference, record: SoreRecord, today: IsoDay, limits: PainLimits): Soreness[] {
  const said = { diary: record.diary, lifts: record.athlete.lifts, today };
  return referralsOf(reference, said, limits).map((one) => sore({ ...one, source: 'referred' }));
}

/**
 * What hurts on a day, from everything that says so: the story, tests, the check-in of that day, sessions and the mornings
 * after them, and what a diary asked to refer. Everything that decides reads this and nothing else.
 */
export function soreness(
  reference: Reference,
  record: SoreRecord,
  today: IsoDay,
  limits: PainLimits,
): Soreness[] {
  const all = [
    ...told(record, today),
    ...onTests(reference, record, today),
    ...inSessions(reference, record, today).filter(({ nrs }) => nrs > limits.fine),
    ...checkedIn(record, today),
    ...referred(reference, record, today, limits),
  ];
  return all.filter(({ nrs }) => nrs > 0);
}
