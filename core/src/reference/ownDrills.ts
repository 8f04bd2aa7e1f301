import { demandIndexOf, drillSeconds } from './drillFigures.ts';
import { inheritedTraits, sourceOf } from './inherited.ts';
import type { Drill, Ladder, OwnDrill, Precaution } from './types.ts';

function drillOf(
  own: OwnDrill,
  shipped: readonly Drill[],
  source: Drill | null,
  precautions: readonly Precaution[],
): Drill {
  const { ladderName: _name, looser, ...rest } = own;
  const traits = inheritedTraits(shipped, own, source, precautions);
  return {
    ...rest,
    ...traits,
    own: true,
    ...(looser && source ? { looser: { ...looser, than: source.id } } : {}),
    demandIndex: demandIndexOf({ ...own, ...traits }),
    estimatedSeconds: {
      default: drillSeconds(own, 'default'),
      min: drillSeconds(own, 'min'),
      max: drillSeconds(own, 'max'),
    },
    precautionOverrides: [],
    staticStretchSeconds: own.category === 'stretch' ? own.dose.amount.default : null,
    easeTo: null,
    progressTo: null,
  };
}

/** Ladders with the practice's drills put in at their level; archived ones stay out. */
function laddersWith(ladders: readonly Ladder[], own: readonly OwnDrill[]): Ladder[] {
  const ids = new Set(own.map((drill) => drill.id));
  const result = new Map(
    ladders.map((ladder) => [ladder.id, { ...ladder, drills: ladder.drills.filter((id) => !ids.has(id)) }]),
  );
  const inOrder = own
    .filter((drill) => !drill.archived)
    .sort((a, b) => a.level - b.level || (a.id < b.id ? -1 : 1));
  for (const drill of inOrder) {
    const ladder = result.get(drill.ladder) ?? {
      id: drill.ladder,
      name: drill.ladderName ?? drill.name,
      purpose: 'Set by the practice.',
      region: drill.regions.primary[0] ?? 'whole-body',
      drills: [],
      startRule: 'First level, confirmed by the practitioner.',
    };
    const at = Math.min(drill.level - 1, ladder.drills.length);
    result.set(drill.ladder, { ...ladder, drills: ladder.drills.toSpliced(at, 0, drill.id) });
  }
  return [...result.values()].filter((ladder) => ladder.drills.length > 0);
}

/** Drills of a changed ladder know their new place and neighbours. */
function relinked(drill: Drill, ladder: Ladder | undefined): Drill {
  const at = ladder?.drills.indexOf(drill.id) ?? -1;
  if (!ladder || at < 0) return drill;
  return {
    ...drill,
    level: at + 1,
    easeTo: ladder.drills[at - 1] ?? null,
    progressTo: ladder.drills[at + 1] ?? null,
  };
}

/**
 * Drills and ladders with a practice's own in place. A drill of the same id is replaced; ladders that hold none of
 * them stay exactly as they are. Archived drills can still be looked up, so that old routines keep their names.
 */
export function withOwnDrills(
  data: {
    readonly drills: readonly Drill[];
    readonly ladders: readonly Ladder[];
    readonly precautions: readonly Precaution[];
  },
  own: readonly OwnDrill[],
): { drills: Drill[]; ladders: Ladder[] } {
  const ids = new Set(own.map((drill) => drill.id));
  const touched = new Set([
    ...own.map((drill) => drill.ladder),
    ...data.drills.filter((drill) => ids.has(drill.id)).map((drill) => drill.ladder),
  ]);
  const ladders = laddersWith(data.ladders, own);
  const byId = new Map(ladders.map((ladder) => [ladder.id, ladder]));
  const shipped = data.drills.filter((drill) => !ids.has(drill.id) && !drill.own);
  const known = new Map(shipped.map((drill) => [drill.id, drill]));
  const ownById = new Map(own.map((drill) => [drill.id, drill]));
  const all = [
    ...data.drills.filter((drill) => !ids.has(drill.id)),
    ...own.map((drill) => drillOf(drill, shipped, sourceOf(known, ownById, drill), data.precautions)),
  ];
  return {
    drills: all.map((drill) => (touched.has(drill.ladder) ? relinked(drill, byId.get(drill.ladder)) : drill)),
    ladders,
  };
}
