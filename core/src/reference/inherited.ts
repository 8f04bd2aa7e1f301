import { forbiddingPrecautions, requiredPrecautions } from './requiredPrecautions.ts';
import type { Drill, OwnDrill, Precaution } from './types.ts';

/** The traits by which safety judges a drill. */
export type SafetyTraits = Pick<
  Drill,
  'regions' | 'loadRegions' | 'loadClass' | 'contraindications' | 'precautionExcludes' | 'youthOk'
>;

const LOAD_ORDER = ['unloaded', 'partial', 'full', 'impact'] as const;
/** So many alike have to ship before what they share is taken as a rule. */
const ALIKE = 3;
/** Share of the drills like it that carry what an own drill copied from none carries as well (judgement). */
const ALONE_SHARE = 0.25;

const unique = <T>(list: readonly T[]): T[] => [...new Set(list)];

/** Shipped drills like an own one: of its region and load, its position and contraction too where enough are. */
function relativesOf(shipped: readonly Drill[], drill: OwnDrill): readonly Drill[] {
  const wider = shipped.filter(
    (other) =>
      other.loadClass === drill.loadClass &&
      other.regions.primary.some((region) => drill.regions.primary.includes(region)),
  );
  const close = wider.filter(
    (other) => other.position === drill.position && other.contraction === drill.contraction,
  );
  return close.length >= ALIKE ? close : drill.from === undefined ? wider : [];
}

/**
 * Precautions that drills like an own one carry: all of them, or a quarter where it was copied from none, so that nothing
 * says what it must keep to. Somebody who says why may go below that.
 */
function sharedByRelatives(shipped: readonly Drill[], drill: OwnDrill): string[] {
  const relatives = relativesOf(shipped, drill);
  if (relatives.length < ALIKE) return [];
  const share = drill.from === undefined && !drill.looser ? ALONE_SHARE : 1;
  const carried = unique(relatives.flatMap((other) => other.contraindications));
  return carried.filter(
    (id) =>
      relatives.filter((other) => other.contraindications.includes(id)).length >= share * relatives.length,
  );
}

/**
 * The drill whose traits an own drill may not fall below: the one it was copied from, else its neighbour below on a
 * shipped ladder. Null for one that stands alone.
 */
export function sourceOf(
  shipped: ReadonlyMap<string, Drill>,
  own: ReadonlyMap<string, OwnDrill>,
  drill: OwnDrill,
): Drill | null {
  const seen = new Set<string>();
  for (let from = drill.from; from !== undefined && !seen.has(from); from = own.get(from)?.from) {
    seen.add(from);
    const source = shipped.get(from);
    if (source) return source;
  }
  const rungs = [...shipped.values()]
    .filter((other) => other.ladder === drill.ladder)
    .sort((a, b) => a.level - b.level);
  return rungs.findLast((other) => other.level < drill.level) ?? rungs[0] ?? null;
}

function higherLoad(a: Drill['loadClass'], b: Drill['loadClass']): Drill['loadClass'] {
  return LOAD_ORDER.indexOf(a) >= LOAD_ORDER.indexOf(b) ? a : b;
}

/**
 * The traits that hold for an own drill: its own, never looser than its source's unless somebody said why, and always
 * with the precautions that its position, load, contraction and regions bring. They can be tightened freely.
 */
export function inheritedTraits(
  shipped: readonly Drill[],
  drill: OwnDrill,
  source: Drill | null,
  precautions: readonly Precaution[],
): SafetyTraits {
  const floor = drill.looser ? null : source;
  const { primary } = drill.regions;
  const secondary = unique([
    ...drill.regions.secondary,
    ...(floor ? [...floor.regions.primary, ...floor.regions.secondary] : []),
  ]).filter((region) => !primary.includes(region));
  const loads = new Map(
    (drill.loadRegions.length > 0 ? drill.loadRegions : primary.map((region) => ({ region, weight: 1 }))).map(
      (load) => [load.region, load.weight],
    ),
  );
  for (const { region, weight } of floor?.loadRegions ?? [])
    loads.set(region, Math.max(weight, loads.get(region) ?? 0));
  // A place on a ladder says what tissue is worked, not how hard: the load is that of what was copied.
  const copied = floor !== null && drill.from !== undefined;
  const traits = {
    regions: { primary, secondary },
    loadRegions: [...loads].map(([region, weight]) => ({ region, weight })),
    loadClass: copied ? higherLoad(drill.loadClass, floor.loadClass) : drill.loadClass,
    youthOk: drill.youthOk && (floor?.youthOk ?? true),
  };
  const derived = requiredPrecautions({ ...drill, ...traits }, precautions);
  // What excludes or needs a clearance does so by itself; a mild precaution has to be told that this is what it forbids.
  const mild = precautions.filter(({ severity }) => severity === 'modify');
  const forbidding = forbiddingPrecautions({ ...drill, ...traits }, mild);
  return {
    ...traits,
    precautionExcludes: unique([...(floor?.precautionExcludes ?? []), ...forbidding]),
    contraindications: unique([
      ...drill.contraindications,
      ...(floor?.contraindications ?? []),
      ...derived,
      ...sharedByRelatives(shipped, { ...drill, ...traits }),
    ]),
  };
}

/** What an own drill itself says that is looser than its source; empty when it is as tight or tighter. */
export function looserTraits(drill: OwnDrill, source: Drill | null): string[] {
  if (!source) return [];
  const regions = [...drill.regions.primary, ...drill.regions.secondary];
  const missing = source.contraindications.filter((id) => !drill.contraindications.includes(id));
  const moved = [...source.regions.primary].filter((region) => !regions.includes(region));
  const lighter =
    drill.from !== undefined && higherLoad(drill.loadClass, source.loadClass) !== drill.loadClass;
  return [
    ...missing,
    ...moved,
    ...(lighter ? [`load ${drill.loadClass} instead of ${source.loadClass}`] : []),
    ...(drill.youthOk && !source.youthOk ? ['offered under sixteen'] : []),
  ];
}
