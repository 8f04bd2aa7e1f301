import type { DiarySession, IsoDay, Lift, Region, Side } from '../domain/index.ts';
import type { Drill, Reference } from '../reference/index.ts';
import { painVerdict } from './painVerdict.ts';
import { reportsOf, wasLeftOut } from './reports.ts';
import type { PainLimits, Report } from './reports.ts';

/** A drill that a diary said to stop and refer for, with one region that it closes until a named person ends it. */
export interface Referral {
  readonly drill: string;
  readonly region: Region;
  /** `central` = both: the drill is not done one side at a time. */
  readonly side: Side;
  /** The session that asked for it, and the worst pain it rests on, 0–10. */
  readonly since: IsoDay;
  readonly nrs: number;
}

interface Diary {
  readonly diary: readonly DiarySession[];
  readonly lifts: readonly Lift[];
  readonly today: IsoDay;
}

/** Sides on which a drill is judged by itself. */
function sidesOf(drill: Drill): readonly Side[] {
  return drill.unilateral ? ['left', 'right'] : ['central'];
}

/** The last day on which a named person ended what was referred for a region and side; empty without one. */
export function endedOn(
  { lifts, today }: Pick<Diary, 'lifts' | 'today'>,
  region: Region,
  side: Side,
): IsoDay {
  return lifts
    .filter(
      (lift) =>
        lift.referral &&
        lift.date <= today &&
        lift.region === region &&
        (lift.side === side || lift.side === 'central'),
    )
    .reduce((last, { date }) => (date > last ? date : last), '');
}

/** The first session after which a diary asks to refer; null when it never does. */
function referring(reports: readonly Report[]): Report | null {
  return reports.find((_, i) => painVerdict(reports.slice(0, i + 1))?.ask === 'refer') ?? null;
}

/** What a diary said to refer and nobody has ended: what was referred stays referred, however calm it was since. */
export function referralsOf(reference: Reference, said: Diary, limits: PainLimits): Referral[] {
  const drills = new Set(
    said.diary.flatMap(({ entries }) =>
      entries.filter((entry) => !wasLeftOut(entry)).map(({ drill }) => drill),
    ),
  );
  return [...drills].flatMap((id): Referral[] => {
    const drill = reference.drills.get(id);
    if (!drill) return [];
    return sidesOf(drill).flatMap((side): Referral[] => {
      const all = reportsOf(said, { drill: id, side }, limits);
      return drill.regions.primary.flatMap((region): Referral[] => {
        const ended = endedOn(said, region, side);
        const reports = all.filter(({ date }) => date > ended);
        const found = referring(reports);
        if (!found) return [];
        const nrs = Math.max(...reports.map((r) => Math.max(r.nrs, r.entry.nextDayPain ?? 0)));
        return [{ drill: id, region, side, since: found.date, nrs }];
      });
    });
  });
}
