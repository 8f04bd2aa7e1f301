import type { Drill } from './types.ts';

type Described = Pick<Drill, 'position' | 'loadClass' | 'category' | 'equipment' | 'loadRegions'>;

const LEG_REGIONS: readonly string[] = ['ankle-foot', 'knee', 'hip-groin'];

/** What each trait of a drill must bring with it; every shipped drill keeps to it, a practice's own must as well. */
const RULES: readonly { applies: (drill: Described) => boolean; precautions: readonly string[] }[] = [
  { applies: (d) => d.position === 'half-kneeling', precautions: ['no-kneeling-pressure'] },
  { applies: (d) => d.position === 'prone', precautions: ['pregnancy-prone'] },
  { applies: (d) => d.position === 'supine', precautions: ['pregnancy-supine'] },
  { applies: (d) => d.position === 'hanging', precautions: ['no-hanging', 'no-overhead'] },
  { applies: (d) => d.category === 'stretch', precautions: ['generalised-hypermobility'] },
  { applies: (d) => d.equipment.includes('foam-roller'), precautions: ['no-deep-pressure'] },
  {
    applies: (d) => d.loadClass === 'full' || d.loadClass === 'impact',
    precautions: ['post-surgical-clearance-needed'],
  },
  { applies: (d) => d.loadClass === 'impact', precautions: ['bone-stress-suspected'] },
  {
    applies: (d) => d.loadClass === 'impact' && d.loadRegions.some((l) => LEG_REGIONS.includes(l.region)),
    precautions: ['no-impact', 'pelvic-floor-symptoms'],
  },
];

/** Precautions that a drill like this has to carry, so that setting one of them always keeps it out. */
export function requiredPrecautions(drill: Described): string[] {
  return [...new Set(RULES.filter((r) => r.applies(drill)).flatMap((r) => r.precautions))].sort();
}
