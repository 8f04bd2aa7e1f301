import { inForceOf, occasionOf, WEEKDAYS } from '../domain/index.ts';
import type { IssuedRoutine, Occasion, Region, Standing, Weekday } from '../domain/index.ts';
import { weeklyLoads } from '../dose/index.ts';
import { loadOn } from '../reference/index.ts';
import { isLine } from '../reference/index.ts';
import type { Reference } from '../reference/index.ts';

/** What a week of all routines in force puts on a joint region. */
interface WeekLoad {
  readonly region: Region;
  /** Load-minutes a week (FORMULAS 15), all occasions together. */
  readonly minutes: number;
  /** The most that the practitioner set; null where none is. */
  readonly limit: number | null;
  readonly parts: readonly { readonly occasion: Occasion; readonly minutes: number }[];
}

/** Hard work of a region the day before something hard of it again. */
interface Clash {
  readonly region: Region;
  readonly day: Weekday;
  readonly occasion: Occasion;
  readonly next: Occasion;
}

/** What the weeks of an athlete add up to, and where they clash; said, never forbidden. */
interface Week {
  readonly loads: readonly WeekLoad[];
  readonly clashes: readonly Clash[];
}

/** Share of a drill's load from which a region counts as worked hard by it (editable, judgement). */
const HARD_LOAD = 0.5;
/** A clash counts before these: there it matters to be fresh. */
const FRESH_FOR: readonly Occasion[] = ['before-competition', 'at-competition', 'before-training'];

/** Regions that a routine works hard: near maximal, or against full load or impact with sets of it. */
function hardRegions(reference: Reference, { items }: IssuedRoutine): Set<Region> {
  return new Set(
    items.flatMap((item): Region[] => {
      const drill = isLine(item.drill) ? undefined : reference.drills.get(item.drill);
      if (!drill || (drill.intensityClass !== 'high' && drill.loadClass !== 'full')) return [];
      return drill.loadRegions.flatMap(({ region }) =>
        reference.regions.get(region)?.joint && loadOn(drill, region) >= HARD_LOAD ? [region] : [],
      );
    }),
  );
}

/**
 * Adds up all routines in force per joint region: each as often as its occasion is meant, else as often as its drills are at
 * least; and finds hard work of a region on the day before something that asks for it fresh. `days` are the days of the
 * week of each occasion.
 */
export function weekOf(
  reference: Reference,
  standing: Standing,
  days: ReadonlyMap<Occasion, readonly Weekday[]>,
): Week {
  const routines = inForceOf(standing);
  const parts = new Map<Region, { occasion: Occasion; minutes: number }[]>();
  for (const routine of routines)
    for (const [region, minutes] of weeklyLoads(reference, routine.items, routine.perWeek ?? null))
      parts.set(region, [...(parts.get(region) ?? []), { occasion: occasionOf(routine), minutes }]);
  const limitOf = (region: Region) =>
    standing.athlete.loadLimits.find((limit) => limit.region === region)?.perWeek ?? null;
  const hard = new Map(routines.map((routine) => [occasionOf(routine), hardRegions(reference, routine)]));
  const clashes = [...hard].flatMap(([occasion, regions]) =>
    (days.get(occasion) ?? []).flatMap((day) => {
      const after = WEEKDAYS[(WEEKDAYS.indexOf(day) + 1) % WEEKDAYS.length];
      return FRESH_FOR.flatMap((next) => {
        if (next === occasion || !after || !days.get(next)?.includes(after)) return [];
        const again = hard.get(next) ?? new Set<Region>();
        return [...regions]
          .filter((region) => again.has(region))
          .map((region): Clash => ({ region, day, occasion, next }));
      });
    }),
  );
  return {
    loads: [...parts]
      .map(([region, own]) => ({
        region,
        minutes: own.reduce((sum, { minutes }) => sum + minutes, 0),
        limit: limitOf(region),
        parts: own,
      }))
      .sort((a, b) => b.minutes - a.minutes),
    clashes,
  };
}
