import { addDays } from '../domain/index.ts';
import type { Standing, DiaryEntry, Region, RoutineItem } from '../domain/index.ts';
import type { Drill, Reference } from '../reference/index.ts';
import { roundsOf, workInRounds } from './circuits.ts';
import { secondsPerRep } from './seconds.ts';

/** Seconds that one jump or hand contact counts as at least (FORMULAS 15, convention, editable). */
const CONTACT_SECONDS = 2;
const WINDOW_DAYS = 7;

/** What a repetition counts for: a contact loads for longer than it lasts. */
function countedSeconds(measure: Drill['dose']['measure'], perRep: number): number {
  return measure === 'contacts' ? Math.max(perRep, CONTACT_SECONDS) : perRep;
}

/** Work seconds of a diary entry; without noted amounts the drill's usual dose stands for "all", half of it for "part". */
function entrySeconds(drill: Drill, entry: DiaryEntry): number {
  const { sets, amount, secondsPerRep, measure } = drill.dose;
  if (entry.done === 'none') return 0;
  const usual = sets.default * amount.default * (entry.done === 'part' ? 0.5 : 1);
  const done = entry.amounts.length > 0 ? entry.amounts.reduce((sum, a) => sum + a, 0) : usual;
  return (
    done *
    countedSeconds(measure, secondsPerRep) *
    (drill.unilateral && entry.side === 'both' ? 2 : 1) *
    (entry.bothWays ? 2 : 1)
  );
}

/** Work of an item once, as load-minutes: seconds × class factor ÷ 60. */
function addLoad(
  reference: Reference,
  loads: Map<Region, number>,
  drill: Drill,
  seconds: number,
  factors: ReadonlyMap<string, number>,
): void {
  const minutes = (seconds * (factors.get(drill.intensityClass) ?? 1)) / 60;
  for (const { region, weight } of drill.loadRegions)
    if (reference.regions.get(region)?.joint) loads.set(region, (loads.get(region) ?? 0) + minutes * weight);
}

/** Load-minutes of lines done once, rounds and all, per joint region. */
export function loadsOnce(reference: Reference, items: readonly RoutineItem[]): Map<Region, number> {
  return loadsOf(reference, items, () => 1);
}

const factorsOf = (reference: Reference) =>
  new Map<string, number>(reference.data.doseModes.intensityClassFactor.map((f) => [f.class, f.factor]));

/** Load-minutes of a week per joint region when each item is done `times` a week, else as often as its drill is meant to be at least. */
export function weeklyLoads(
  reference: Reference,
  items: readonly RoutineItem[],
  times: number | null = null,
): Map<Region, number> {
  return loadsOf(reference, items, (drill) => times ?? drill.dose.timesPerWeek.min);
}

function loadsOf(
  reference: Reference,
  items: readonly RoutineItem[],
  timesOf: (drill: Drill) => number,
): Map<Region, number> {
  const loads = new Map<Region, number>();
  const factors = factorsOf(reference);
  items.forEach((item, i) => {
    const drill = reference.drills.get(item.drill);
    if (!drill) return;
    const perRep = secondsPerRep(drill, item);
    const work = workInRounds(drill, item, roundsOf(items, i));
    const seconds = (work / perRep) * countedSeconds(drill.dose.measure, perRep) * timesOf(drill);
    addLoad(reference, loads, drill, seconds, factors);
  });
  return loads;
}

/**
 * Load-minutes of drills per joint region over the last seven days up to `today`: work seconds × class factor × region
 * weight ÷ 60 (FORMULAS 15). A book-keeping count, not comparable with sport load and no measure of risk.
 */
export function regionLoads(reference: Reference, input: Standing): Map<Region, number> {
  const factors = factorsOf(reference);
  const from = addDays(input.today, -(WINDOW_DAYS - 1));
  const loads = new Map<Region, number>();
  for (const session of input.diary) {
    if (session.date < from || session.date > input.today) continue;
    for (const entry of session.entries) {
      const drill = reference.drills.get(entry.drill);
      if (!drill) continue;
      addLoad(reference, loads, drill, entrySeconds(drill, entry), factors);
    }
  }
  return loads;
}
