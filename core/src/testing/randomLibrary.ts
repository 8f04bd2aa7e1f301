import { createReference, demandIndexOf, requiredPrecautions } from '../reference/index.ts';
import type { Category, Drill, Ladder, Position, Reference } from '../reference/index.ts';
import { seededRandom } from '../random/index.ts';

const SHARES: readonly (readonly [Category, number])[] = [
  ['release', 0.06],
  ['raise', 0.07],
  ['mobilise', 0.2],
  ['activate', 0.2],
  ['stabilise', 0.14],
  ['strengthen', 0.16],
  ['neuromuscular', 0.11],
  ['stretch', 0.06],
];
/** Kit words that made-up drills and athletes draw from. */
export const SOME_KIT = [
  'wall',
  'step',
  'mini-band',
  'long-band',
  'foam-roller',
  'bench',
  'towel',
  'box',
  'dumbbell',
  'ball',
];
const PLACES: readonly Position[] = [
  'supine',
  'prone',
  'side-lying',
  'quadruped',
  'seated',
  'half-kneeling',
  'standing',
  'single-leg-standing',
  'moving',
];

class Draw {
  private readonly random: () => number;
  constructor(seed: number) {
    this.random = seededRandom(seed);
  }
  chance(share: number): boolean {
    return this.random() < share;
  }
  whole(min: number, max: number): number {
    return min + Math.floor(this.random() * (max - min + 1));
  }
  of<T>(list: readonly T[]): T {
    const picked = list[Math.floor(this.random() * list.length)];
    if (picked === undefined) throw new RangeError('nothing to draw from');
    return picked;
  }
  category(): Category {
    let left = this.random();
    for (const [category, share] of SHARES) {
      left -= share;
      if (left < 0) return category;
    }
    return 'mobilise';
  }
}

function doseOf(draw: Draw, category: Category): Drill['dose'] {
  const held = category === 'stretch' || draw.chance(0.25);
  const least = held ? draw.whole(2, 4) * 5 : draw.whole(5, 8);
  const most = held ? least + draw.whole(2, 5) * 5 : least + draw.whole(4, 10);
  const usual = held ? least + 5 : least + 2;
  return {
    measure: held ? 'hold-seconds' : 'reps',
    sets: { default: 2, min: 1, max: draw.whole(2, 4) },
    amount: { default: usual, min: least, max: most },
    holdSeconds: null,
    restSeconds: { default: draw.whole(0, 4) * 10 },
    tempo: null,
    secondsPerRep: held ? 1 : draw.whole(2, 6),
    timesPerWeek: { min: 2, max: 5 },
    intensity: 'stop well short of failure',
  };
}

function drillOf(draw: Draw, reference: Reference, id: string, ladder: string, level: number): Drill {
  const base = reference.data.drills[0];
  if (!base) throw new RangeError('the reference has no drills');
  const category = draw.category();
  const chosen = new Map(
    Array.from({ length: draw.whole(1, 4) }, () => [
      draw.of(reference.data.restrictions).id,
      draw.of([0.2, 0.4, 0.7, 0.7, 1]),
    ]),
  );
  const impact = category === 'neuromuscular' && draw.chance(0.4);
  const region = draw.of(reference.data.regions).id;
  const drill: Drill = {
    ...base,
    id,
    name: id.replaceAll('-', ' '),
    ladder,
    level,
    category,
    regions: { primary: [region], secondary: [] },
    serves: [...chosen].map(([restriction, match]) => ({ restriction, match })),
    contraction: impact ? 'ballistic' : category === 'stretch' ? 'passive' : 'dynamic',
    position: draw.of(PLACES),
    loadClass: impact ? 'impact' : draw.of(['unloaded', 'partial', 'full']),
    loadRegions: [{ region, weight: 1 }],
    equipment: draw.chance(0.35) ? [draw.of(SOME_KIT)] : [],
    optionalEquipment: [],
    unilateral: draw.chance(0.5),
    alternating: false,
    needsPartner: false,
    dose: doseOf(draw, category),
    setupVariables: [],
    setupSeconds: draw.whole(0, 3) * 5,
    fatigue: Math.min(3, level - 1 + draw.whole(0, 1)),
    skill: Math.min(3, level - 1),
    contraindications: [],
    precautionOverrides: [],
    entryCriteria: [],
    easeTo: null,
    progressTo: null,
    equivalents: [],
    timing:
      category === 'stretch'
        ? ['after-activity', 'standalone']
        : ['before-activity', 'standalone', 'after-activity'],
  };
  return {
    ...drill,
    demandIndex: demandIndexOf(drill),
    contraindications: requiredPrecautions(drill, reference.data.precautions),
  };
}

/**
 * A seeded made-up library of a number of drills in ladders of one to five, over the restrictions, tests and structures
 * of a reference: for measuring and for properties that must hold whatever the library.
 */
export function randomLibrary(reference: Reference, seed: number, count: number): Reference {
  const draw = new Draw(seed);
  const drills: Drill[] = [];
  const ladders: Ladder[] = [];
  while (drills.length < count) {
    const id = `ladder-${String(ladders.length).padStart(3, '0')}`;
    const levels = Math.min(draw.whole(1, 5), count - drills.length);
    const own = Array.from({ length: levels }, (_, i) =>
      drillOf(draw, reference, `drill-${String(drills.length + i).padStart(3, '0')}`, id, i + 1),
    ).map((drill, i, all) => ({
      ...drill,
      easeTo: all[i - 1]?.id ?? null,
      progressTo: all[i + 1]?.id ?? null,
    }));
    drills.push(...own);
    ladders.push({
      id,
      name: id,
      purpose: 'made up',
      region: own[0]?.regions.primary[0] ?? 'whole-body',
      drills: own.map((drill) => drill.id),
      startRule: 'first level',
    });
  }
  return createReference({ ...reference.data, drills, ladders });
}
