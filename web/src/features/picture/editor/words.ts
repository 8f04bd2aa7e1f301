import type { Kit } from '@yonder/core/figure';

/** Kinds of kit in words. */
export const KIT_WORDS: Readonly<Record<Kit['type'], string>> = {
  wall: 'wall',
  box: 'box',
  step: 'step',
  bench: 'bench',
  chair: 'chair',
  table: 'table',
  mat: 'mat',
  roller: 'foam roller',
  ball: 'ball',
  bar: 'bar overhead',
  rings: 'rings',
  edge: 'finger edge',
  dumbbell: 'dumbbell',
  kettlebell: 'kettlebell',
  bottle: 'bottle',
  racket: 'racket',
  gear: 'sports gear',
  dowel: 'stick',
  cone: 'cone',
  hurdle: 'hurdle',
  ladder: 'floor ladder',
  line: 'line on the floor',
  towel: 'towel',
  slider: 'slider',
  rope: 'rope',
  strap: 'strap',
  band: 'band',
  loop: 'loop band',
  bike: 'bike',
  helper: 'helper',
  slope: 'slope',
  sensor: 'sensor',
  tape: 'tape',
  couch: 'couch',
};

/** Marks in words. */
export const MARK_WORDS: Readonly<Record<string, string>> = {
  move: 'arrow along its way',
  push: 'arrow of a push',
  spin: 'turning arrow',
  hold: 'held still',
  breath: 'breath',
  gaze: 'looks there',
  shut: 'eyes closed',
  tint: 'glow where it is felt',
};

/** Places of the body in words, for kit and marks. */
export const PLACE_WORDS: readonly (readonly [string, string])[] = [
  ['head', 'head'],
  ['chest', 'chest'],
  ['belly', 'belly'],
  ['back', 'low back'],
  ['pelvis', 'pelvis'],
  ...(['L', 'R'] as const).flatMap((side) => {
    const word = side === 'L' ? 'left' : 'right';
    return (
      [
        ['shoulder', 'shoulder'],
        ['elbow', 'elbow'],
        ['fist', 'hand'],
        ['hip', 'hip'],
        ['midThigh', 'thigh'],
        ['knee', 'knee'],
        ['midShin', 'shin'],
        ['calf', 'calf'],
        ['ankle', 'ankle'],
        ['heel', 'heel'],
        ['toes', 'toes'],
      ] as const
    ).map(([site, name]) => [`${site}${side}`, `${word} ${name}`] as const);
  }),
];

/** A place of the body in words, whichever it is: those of the list, or what its name says ("upperBack", "footInL"). */
export function placeWord(site: string): string {
  const known = PLACE_WORDS.find(([value]) => value === site)?.[1];
  if (known) return known;
  const [, stem = site, side = ''] = /^(.*?[a-z])([LR])?$/.exec(site) ?? [];
  const words = stem.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);
  return `${side === 'L' ? 'left ' : side === 'R' ? 'right ' : ''}${words}`;
}

/** Views by name. */
export const VIEW_WORDS: readonly (readonly [string, string])[] = [
  ['side', 'right side'],
  ['sideL', 'left side'],
  ['front', 'front'],
  ['back', 'back'],
  ['quarter', 'half from the right'],
  ['quarterL', 'half from the left'],
  ['high', 'from above'],
];
/** Parts that work, in words. */
export const PART_WORDS: Readonly<Record<string, string>> = {
  armL: 'left arm',
  armR: 'right arm',
  legL: 'left leg',
  legR: 'right leg',
  trunk: 'trunk',
  head: 'head',
};
/** What is in the picture, in words. */
export const FRAME_WORDS: Readonly<Record<string, string>> = {
  full: 'all of it',
  upper: 'the upper body',
  lower: 'the legs',
};
