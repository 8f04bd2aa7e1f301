import type { Standing, Region, Side } from '../domain/index.ts';
import type { Reference } from '../reference/index.ts';

type Aspect = NonNullable<Standing['athlete']['pains'][0]['aspect']>;
type Feel = NonNullable<Standing['athlete']['pains'][0]['feel']>;

/** Where and how something hurts, and the restriction that speaks for. General professional knowledge, low confidence. */
export interface PainPattern {
  readonly id: string;
  readonly region: Region;
  readonly aspects: readonly Aspect[];
  readonly feels: readonly Feel[];
  /** Restriction to look at; null where the pattern asks for the stop-and-refer questions instead. */
  readonly suggests: string | null;
  readonly says: string;
}

const pattern = (
  id: string,
  region: Region,
  aspects: readonly Aspect[],
  feels: readonly Feel[],
  suggests: string,
  says: string,
): PainPattern => ({ id, region, aspects, feels, suggests, says });

/** What a place and feel of pain speaks for, and what holds then; defaults that a practice can edit. */
export const PAIN_PATTERNS: readonly PainPattern[] = [
  pattern(
    'ankle-front-pinch',
    'ankle-foot',
    ['front'],
    ['pinch'],
    'ankle-dorsiflexion-limit',
    'A pinch at the front of the ankle points to the joint, not the calf: mobilise short of the pinch, no calf stretching into it.',
  ),
  pattern(
    'ankle-back-stretch',
    'ankle-foot',
    ['back'],
    ['stretch'],
    'ankle-dorsiflexion-limit',
    'A stretch felt at the back of the ankle points to calf length: stretch and load the calf at length.',
  ),
  pattern(
    'calf-back-ache',
    'ankle-foot',
    ['back'],
    ['ache', 'sharp'],
    'achilles-calf-load-irritability',
    'Ache at the back of the ankle under load points to an irritable tendon: dose the load before range.',
  ),
  pattern(
    'knee-front-ache',
    'knee',
    ['front'],
    ['ache', 'sharp'],
    'anterior-knee-load-irritability',
    'Ache at the front of the knee points to the load on the kneecap and its tendon.',
  ),
  pattern(
    'knee-front-stretch',
    'knee',
    ['front'],
    ['stretch'],
    'quadriceps-length-limit',
    'A stretch at the front of the thigh when the knee bends points to its length.',
  ),
  pattern(
    'knee-back-stretch',
    'knee',
    ['back'],
    ['stretch'],
    'hamstring-length-limit',
    'A stretch behind the knee points to hamstring length.',
  ),
  pattern(
    'hip-front-pinch',
    'hip-groin',
    ['front', 'deep'],
    ['pinch', 'sharp'],
    'anterior-hip-load-irritability',
    'A pinch deep at the front of the hip points to the joint: work short of it, do not push the bend.',
  ),
  pattern(
    'hip-front-stretch',
    'hip-groin',
    ['front'],
    ['stretch'],
    'hip-extension-limit',
    'A stretch at the front of the hip points to the length of the hip flexors.',
  ),
  pattern(
    'hip-inner-ache',
    'hip-groin',
    ['inner'],
    ['ache', 'sharp'],
    'groin-load-irritability',
    'Ache at the inner thigh points to the load on the groin.',
  ),
  pattern(
    'hip-inner-stretch',
    'hip-groin',
    ['inner'],
    ['stretch'],
    'hip-abduction-limit',
    'A stretch at the inner thigh points to its length.',
  ),
  pattern(
    'low-back-pinch',
    'lumbopelvic',
    ['back', 'deep'],
    ['pinch', 'ache', 'sharp'],
    'lumbar-extension-load-irritability',
    'Pinch or ache in the low back on bending backwards points to extension load.',
  ),
  pattern(
    'upper-back-stiff',
    'thoracic',
    ['front', 'back', 'inner', 'outer', 'deep'],
    ['stretch', 'ache'],
    'thoracic-stiffness-perceived',
    'Stretch or ache at the end of a turn is felt stiffness: compare it with the measured range before chasing range.',
  ),
  pattern(
    'shoulder-back-stretch',
    'shoulder',
    ['back'],
    ['stretch'],
    'posterior-shoulder-tightness-limit',
    'A stretch at the back of the shoulder points to the tissue there; compare both sides and the whole arc first.',
  ),
  pattern(
    'shoulder-front-stretch',
    'shoulder',
    ['front'],
    ['stretch'],
    'anterior-shoulder-tightness-limit',
    'A stretch at the front of the shoulder points to the chest and front of the capsule.',
  ),
  pattern(
    'shoulder-pinch',
    'shoulder',
    ['front', 'outer', 'deep'],
    ['pinch', 'sharp'],
    'shoulder-overhead-tolerance-deficit',
    'A pinch at the front or outside on lifting points to overhead tolerance: work below the painful arc.',
  ),
  pattern(
    'shoulder-ache',
    'shoulder',
    ['front', 'outer', 'deep'],
    ['ache'],
    'shoulder-load-irritability',
    'Ache under or after load points to an irritable shoulder: dose the load first.',
  ),
  pattern(
    'elbow-outer-ache',
    'elbow',
    ['outer'],
    ['ache', 'sharp'],
    'lateral-elbow-load-irritability',
    'Ache at the outside of the elbow points to the wrist extensors.',
  ),
  pattern(
    'elbow-inner-ache',
    'elbow',
    ['inner'],
    ['ache', 'sharp'],
    'medial-elbow-load-irritability',
    'Ache at the inside of the elbow points to grip and pull load.',
  ),
  pattern(
    'elbow-back-pinch',
    'elbow',
    ['back'],
    ['pinch'],
    'elbow-extension-limit',
    'A pinch at the back of the elbow points to the end of straightening.',
  ),
  pattern(
    'elbow-front-ache',
    'elbow',
    ['front'],
    ['ache', 'sharp'],
    'elbow-flexor-tolerance-deficit',
    'Ache at the front of the elbow points to the flexors under pull.',
  ),
  pattern(
    'wrist-back-pinch',
    'wrist-hand',
    ['back'],
    ['pinch', 'sharp', 'ache'],
    'wrist-load-irritability',
    'Pain at the back of the loaded wrist points to load in extension: unload it, do not stretch into it.',
  ),
  pattern(
    'wrist-front-stretch',
    'wrist-hand',
    ['front'],
    ['stretch'],
    'wrist-extension-limit',
    'A stretch at the front of the forearm points to the length of the flexors.',
  ),
];

/** Feels that speak for the stop-and-refer questions wherever they are. */
const REFER_FEELS: readonly Feel[] = ['giving-way', 'locking', 'numb'];

/** A told pain that fits a pattern, and what to look at because of it. */
export interface PatternHit {
  readonly pattern: string;
  readonly region: Region;
  readonly side: Side;
  readonly restriction: string | null;
  /** The test it hurt on, or null when the athlete told it. */
  readonly test: string | null;
  readonly nrs: number;
  readonly says: string;
  readonly refer: boolean;
}

interface Told {
  readonly region: Region;
  readonly side: Side;
  readonly aspect: Aspect | undefined;
  readonly feel: Feel | undefined;
  readonly nrs: number;
  readonly test: string | null;
}

function hitsOf(told: Told): PatternHit[] {
  const { region, side, aspect, feel, nrs, test } = told;
  if (feel === undefined || nrs <= 0) return [];
  const common = { region, side, test, nrs };
  if (REFER_FEELS.includes(feel)) {
    const says = `"${feel.replace('-', ' ')}" is no training matter: ask the stop-and-refer questions of this region before going on.`;
    return [{ ...common, pattern: `refer-${feel}`, restriction: null, says, refer: true }];
  }
  if (aspect === undefined) return [];
  return PAIN_PATTERNS.filter(
    (p) => p.region === region && p.aspects.includes(aspect) && p.feels.includes(feel),
  ).map((p) => ({ ...common, pattern: p.id, restriction: p.suggests, says: p.says, refer: false }));
}

/**
 * What the pains told and those felt on the newest result of each test and side suggest. A suggestion is not a finding:
 * it has no severity and moves no priority; the practitioner measures it or records it as seen.
 */
export function painPatterns(reference: Reference, input: Standing): PatternHit[] {
  const told: Told[] = input.athlete.pains
    .filter((pain) => pain.since <= input.today && (pain.ended === null || pain.ended > input.today))
    .map(({ region, side, aspect, feel, nrs }) => ({ region, side, aspect, feel, nrs, test: null }));
  const newest = new Map<string, Told>();
  const visits = [...input.screenings]
    .filter((s) => s.date <= input.today)
    .sort((a, b) => (a.date < b.date ? -1 : 1));
  for (const { results } of visits) {
    for (const { test: id, side, pain } of results) {
      const test = reference.tests.get(id);
      if (!test) continue;
      newest.set(`${id}/${side}`, {
        region: test.region,
        side,
        aspect: pain?.aspect,
        feel: pain?.feel,
        nrs: pain?.nrs ?? 0,
        test: id,
      });
    }
  }
  const seen = new Set<string>();
  return [...told, ...newest.values()].flatMap(hitsOf).filter((hit) => {
    const key = `${hit.pattern}/${hit.side}/${hit.test ?? ''}`;
    return !seen.has(key) && seen.add(key);
  });
}
