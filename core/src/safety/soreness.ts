import { addDays } from '../domain/index.ts';
import type { AthleteRecord, IsoDay, Region, ScreeningResult, Side, Standing } from '../domain/index.ts';
import { resultValue } from '../measure/index.ts';
import type { Reference, Test } from '../reference/index.ts';

/** Days for which pain on a test still says something of today (editable). */
const PAIN_DAYS = 14;

/** Pain of a region and side that counts today, 0–10, with where and how it is felt and where it was told. */
export interface Soreness {
  readonly region: Region;
  readonly side: Side;
  readonly nrs: number;
  readonly aspect: Standing['athlete']['pains'][0]['aspect'];
  readonly feel: Standing['athlete']['pains'][0]['feel'];
  readonly source: 'told' | 'test' | 'check-in';
  readonly since: string;
  /** The test on which it was felt; null when it was told or said before a session. */
  readonly test: string | null;
}

/** The pain that a provocation test itself measures; 0 for tests of anything else, such as felt stiffness. */
function provoked(reference: Reference, test: Test, result: ScreeningResult): number {
  const ofLoad = test.informs.some((id) => reference.restrictions.get(id)?.kind === 'load-tolerance');
  return test.unit === 'nrs-0-10' && ofLoad ? (resultValue(test, result) ?? 0) : 0;
}

/** What of a record the rules of a day are made from. */
export type SoreRecord = Pick<AthleteRecord, 'athlete' | 'screenings' | 'checkIns'>;

/**
 * What hurts on a day: pain told and not ended, pain on a test of the last days (the latest of each test and side), and
 * what was said before a session of that day.
 */
export function soreness(reference: Reference, standing: SoreRecord, today: IsoDay): Soreness[] {
  const told = standing.athlete.pains
    .filter((pain) => pain.since <= today && (pain.ended === null || pain.ended > today))
    .map((pain): Soreness => {
      const { region, side, nrs, aspect, feel, since } = pain;
      return { region, side, nrs, aspect, feel, source: 'told', since, test: null };
    });
  const from = addDays(today, -PAIN_DAYS);
  const latest = new Map<string, Soreness>();
  for (const { date, results } of standing.screenings) {
    if (date < from || date > today) continue;
    for (const result of results) {
      const { test, side, pain } = result;
      const known = reference.tests.get(test);
      const region = known?.region;
      const key = `${test}/${side}`;
      const before = latest.get(key);
      if (!region || (before && before.since > date)) continue;
      const { aspect, feel } = pain ?? {};
      const nrs = Math.max(pain?.nrs ?? 0, known ? provoked(reference, known, result) : 0);
      latest.set(key, { region, side, nrs, aspect, feel, source: 'test', since: date, test });
    }
  }
  const checkedIn = standing.checkIns
    .filter(({ date }) => date === today)
    .flatMap(({ date, sore }) =>
      sore.map((one): Soreness => ({
        region: one.region,
        side: one.side,
        nrs: one.nrs,
        aspect: one.aspect,
        feel: one.feel,
        source: 'check-in',
        since: date,
        test: null,
      })),
    );
  return [...told, ...latest.values(), ...checkedIn].filter(({ nrs }) => nrs > 0);
}
