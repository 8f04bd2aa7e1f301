import type { Drill, Reference } from '../../reference/index.ts';

/** Words that hardly change which drill is meant. */
export const LIGHT = new Set(
  'easy light slow slowly fast quick quickly controlled control good nice small big gentle gently smooth clean quality tall relaxed dynamic active bodyweight floor hip shoulder leg arm body free max strong strict low general regular normal standard basic alternating simple soft deep practice warm-up mobility walking flow red green blue yellow black grey gray purple orange heavy heavier lighter more'.split(
    ' ',
  ),
);

/** Words that make another drill of a name, or a harder or easier one. */
const TELLING = new Set(
  'single-leg double-leg single-arm kneeling half-kneeling tall-kneeling seated standing supine prone side-lying quadruped lying wall eyes-closed straight-knee bent-knee straight-leg straight-arm long-lever short-lever overhead shoulder-height external internal eccentric isometric hold jump hop side forward backward reverse stretch roll knead squeeze incline decline assisted weight barbell dumbbell kettlebell medicine-ball swiss-ball machine cable band mini-band run walk skip throw hang carry'.split(
    ' ',
  ),
);

/** How much a word counts: of what is done most, of how it is done a little less, of what is said beside it hardly. */
export function weightOf(word: string): number {
  return LIGHT.has(word) ? 0.15 : 1;
}

/** Does a word change which drill is meant, so that one without it is another? */
export function isTelling(word: string): boolean {
  return TELLING.has(word);
}

/** Kit, purpose and position that a drill's name carries and people leave out: "clam" is lying on the side, "pull apart" has a band. */
const LEFT_OUT = new Set(
  'band mini-band roll ball bar bench box step supine prone side-lying standing stretch ladder hurdle cone rope slider towel'.split(
    ' ',
  ),
);

/** May a word of a drill's name be left out where the drill is so anyway, and the drill still be the one that is named? */
export function isLeftOut(word: string): boolean {
  return LEFT_OUT.has(word);
}

/** Do some words say only with what or in which position, so that they name no drill? */
export function isBare(words: readonly string[]): boolean {
  return words.every(
    (word) => LIGHT.has(word) || LEFT_OUT.has(word) || word === 'wall' || word.endsWith('kneeling'),
  );
}

const POSITIONS: Readonly<Record<string, readonly string[]>> = {
  seated: ['seated'],
  standing: ['standing'],
  'half-kneeling': ['half-kneeling', 'kneeling'],
  'tall-kneeling': ['tall-kneeling', 'kneeling'],
  'single-leg-standing': ['standing', 'single-leg'],
  quadruped: ['quadruped'],
  prone: ['prone', 'lying', 'face'],
  supine: ['supine', 'lying', 'hooklying'],
  'side-lying': ['side-lying', 'lying'],
  moving: ['standing', 'moving'],
  hanging: ['hang', 'bar'],
};

const KIT: Readonly<Record<string, readonly string[]>> = {
  'foam-roller': ['roll', 'foam'],
  'small-ball': ['ball', 'tennis', 'lacrosse'],
  ball: ['ball', 'foot'],
  'weighted-ball': ['medicine-ball', 'ball', 'weight'],
  'long-band': ['band', 'tube', 'elastic', 'loop'],
  'mini-band': ['mini-band', 'band', 'loop'],
  'pull-up-bar': ['bar'],
  'low-bar': ['bar', 'low'],
  rings: ['ring'],
  step: ['step', 'box', 'stair'],
  box: ['box', 'step', 'bench', 'chair', 'plyo'],
  bench: ['bench', 'box', 'chair'],
  kettlebell: ['kettlebell', 'weight', 'dumbbell'],
  dumbbell: ['dumbbell', 'weight', 'kettlebell'],
  plate: ['plate', 'weight', 'disc'],
  bottle: ['bottle', 'weight', 'hammer'],
  'low-hurdle': ['hurdle'],
  'ladder-mat': ['ladder'],
  'stationary-bike': ['bike', 'stationary', 'trainer'],
  'finger-band': ['band', 'rubber'],
  'finger-edge': ['edge', 'fingerboard', 'board'],
  dowel: ['stick', 'dowel', 'pole'],
  towel: ['towel'],
  'rolled-towel': ['towel'],
  slider: ['slider'],
  wall: ['wall'],
  rope: ['rope'],
  cone: ['cone'],
  strap: ['strap'],
};

const CATEGORIES: Readonly<Record<Drill['category'], readonly string[]>> = {
  stretch: ['stretch'],
  release: ['release'],
  mobilise: ['mobilise', 'mobilisation'],
  activate: ['activation'],
  strengthen: ['strength', 'strengthening'],
  stabilise: ['stability'],
  neuromuscular: [],
  raise: ['warm'],
};

/** Words that fit a drill without standing in its name: position, kit, side, hold, what it is for, its region. */
export function traitsOf(reference: Reference, drill: Drill): ReadonlySet<string> {
  const kit = [...drill.equipment, ...drill.optionalEquipment, ...(drill.equipmentAny ?? []).flat()];
  const upper = drill.regions.primary.some((region) => ['shoulder', 'elbow', 'wrist-hand'].includes(region));
  const holds = drill.dose.measure === 'hold-seconds' || drill.dose.holdSeconds !== null;
  return new Set([
    ...(POSITIONS[drill.position] ?? []),
    ...kit.flatMap((word) => KIT[word] ?? word.split('-')),
    ...(drill.unilateral ? [upper ? 'single-arm' : ''] : ['double-leg']),
    ...(holds ? ['hold', 'isometric'] : []),
    ...CATEGORIES[drill.category],
    ...drill.regions.primary.flatMap((region) =>
      (reference.regions.get(region)?.name ?? '').toLowerCase().split(/[^a-z]+/),
    ),
  ]);
}

const OPPOSITES: readonly (readonly [string, string])[] = [
  ['external', 'internal'],
  ['straight-knee', 'bent-knee'],
  ['straight-leg', 'bent-knee'],
  ['long-lever', 'short-lever'],
  ['forward', 'backward'],
  ['forward', 'reverse'],
  ['supine', 'prone'],
  ['single-leg', 'double-leg'],
  ['eyes-open', 'eyes-closed'],
  ['seated', 'standing'],
  ['flexion', 'extension'],
  ['abduction', 'adduction'],
];

/** Says a line the opposite of what a drill is? */
export function isOpposite(word: string, words: ReadonlySet<string>): boolean {
  return OPPOSITES.some(([a, b]) => (word === a && words.has(b)) || (word === b && words.has(a)));
}
