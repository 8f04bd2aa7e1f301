import { LENGTH } from './skeleton.ts';

/** A ball fixed to a bone: where on it and how thick. On a limb z is meant on the right side. */
type Ball = readonly [bone: string, x: number, y: number, z: number, r: number];

/** A part of the body as rounded hulls, each over the balls that it spans. */
export interface Part {
  readonly hulls: readonly (readonly Ball[])[];
}

const pair = (bone: string, x: number, y: number, z: number, r: number): readonly Ball[] => [
  [bone, x, y, z, r],
  [bone, x, y, -z, r],
];

const SEAT = [...pair('pelvis', -1.6, -2.6, 3.8, 5.4), ...pair('pelvis', 0.4, 0.6, 5, 5.6)];
const WAIST = pair('spine', 0.5, 2.4, 3.2, 5);
const RIBS = pair('chest', 0.8, 2.6, 4.4, 5.3);
const UPPER = pair('chest', 0.5, 9, 5.4, 5);

/** The trunk above the waist, and the hips in the tone of shorts over it. */
export const TRUNK: Part = {
  hulls: [
    [...SEAT, ...WAIST],
    [...WAIST, ...RIBS],
    [...RIBS, ...UPPER],
    [...UPPER, ['armL', 0, 0, 0, 3.5], ['armR', 0, 0, 0, 3.5], ['chest', -0.8, 14.4, 0, 3.6]],
    [
      ['chest', -0.6, 13.6, 0, 3.3],
      ['head', -0.2, 1.4, 0, 3],
    ],
  ],
};
/** Hips. */
export const HIPS: Part = { hulls: [[...SEAT, ...pair('pelvis', 0.6, 4, 3.4, 5)]] };
/** The head. */
export const HEAD: Part = {
  hulls: [
    [
      ['head', 0.4, 5, 0, 5.4],
      ['head', 2.8, -0.4, 0, 3],
      ['head', 1.6, 2.6, 0, 5],
    ],
  ],
};
/** Face with a nose that shows where it looks. */
export const FACE: Part = {
  hulls: [
    [
      ['head', 2.2, 4.6, 0, 4],
      ['head', 2.9, -0.4, 0, 2.8],
      ['head', 2.4, 2.4, 0, 4.1],
    ],
    [
      ['head', 4.8, 3.4, 0, 1.2],
      ['head', 6.6, 1.7, 0, 0.8],
    ],
  ],
};
/** Hair: the back and the top of the head. */
export const HAIR: Part = {
  hulls: [
    [
      ['head', -0.2, 6.2, 0, 5.2],
      ['head', -1.6, 2.8, 0, 4.1],
      ['head', 2, 7.8, 0, 3.5],
    ],
  ],
};

/** Parts of an arm by the bones of its right side. */
export const ARM = {
  upper: {
    hulls: [
      [
        ['arm', 0, 0, 0, 3.8],
        ['arm', 0.2, -6, 0, 3.4],
        ['fore', 0, 0, 0, 2.6],
      ],
    ],
  },
  fore: {
    hulls: [
      [
        ['fore', 0, 0, 0, 2.6],
        ['fore', 0.2, -4, 0, 2.9],
        ['hand', 0, 0, 0, 1.9],
      ],
    ],
  },
  hand: {
    hulls: [
      [
        ['hand', 0, -0.4, 0, 1.8],
        ['hand', 1.1, -5, 0, 1.6],
        ['hand', -1.3, -5, 0, 1.5],
      ],
      [
        ['fingers', 1, 0.4, 0, 1.5],
        ['fingers', -1.2, 0.4, 0, 1.4],
        ['fingers', 0.7, -4.4, 0, 1.1],
        ['fingers', -0.9, -4, 0, 1],
      ],
      [
        ['hand', 1, -1.6, 0, 1.2],
        ['hand', 3, -4.4, -0.8, 0.9],
      ],
    ],
  },
  fist: {
    hulls: [
      [
        ['hand', 0.9, -3.6, -0.4, 2],
        ['hand', -0.9, -3.6, -0.4, 2],
        ['hand', 1.3, -6.2, -1, 2.3],
        ['hand', -1.5, -6.2, -1, 2.2],
      ],
    ],
  },
} as const satisfies Record<string, Part>;

/** Parts of a leg by the bones of its right side. */
export const LEG = {
  thigh: {
    hulls: [
      [
        ['thigh', 0, 0, 0.4, 5.9],
        ['thigh', 0.4, -9, 0.2, 5],
        ['shank', 0.2, 0, 0, 3.8],
      ],
    ],
  },
  shank: {
    hulls: [
      [
        ['shank', 0.2, 0, 0, 3.7],
        ['shank', -1.1, -7.4, 0, 3.8],
        ['foot', 0, 0.6, 0, 2.3],
      ],
    ],
  },
  foot: {
    hulls: [
      [
        ['foot', -0.2, -0.6, 0, 2.4],
        ['foot', 1.6, -1.8, 0, 2],
        ['foot', -2.8, -LENGTH.ankle + 1.8, 0, 1.8],
        ['foot', LENGTH.ball - 1, -LENGTH.ankle + 1.4, -1.3, 1.4],
        ['foot', LENGTH.ball - 1, -LENGTH.ankle + 1.4, 1.3, 1.4],
      ],
      [
        ['foot', LENGTH.ball - 1, -LENGTH.ankle + 1.4, -1.2, 1.4],
        ['foot', LENGTH.ball - 1, -LENGTH.ankle + 1.4, 1.2, 1.4],
        ['toe', 2.7, 0, -0.7, 1.1],
        ['toe', 2.4, 0, 0.9, 1],
      ],
    ],
  },
} as const satisfies Record<string, Part>;

/** Parts of a hand seen close, by the bones of its right side. */
export const HAND: Part = {
  hulls: [
    [
      ['palm', 0.4, 0, -1.2, 1.9],
      ['palm', 0.4, 0, 1.2, 1.8],
      ['palm', 6.2, 0, -2.2, 1.25],
      ['palm', 6.4, 0, 0, 1.35],
      ['palm', 5.4, 0, 2.2, 1.2],
    ],
  ],
};
/** The forearm that comes into the picture. */
export const FOREARM: Part = {
  hulls: [
    [
      ['fore', 0.6, 0, 0, 2.1],
      ['fore', -8, 0, 0, 2.9],
      ['fore', -40, 0, 0, 4],
    ],
  ],
};
const digit = (name: string, length: number, r: number): Part => ({
  hulls: [
    [
      [`${name}1`, 0, 0, 0, r],
      [`${name}2`, 0, 0, 0, r * 0.94],
    ],
    [
      [`${name}2`, 0, 0, 0, r * 0.94],
      [`${name}3`, 0, 0, 0, r * 0.88],
    ],
    [
      [`${name}3`, 0, 0, 0, r * 0.88],
      [`${name}3`, length * 0.23, 0, 0, r * 0.8],
    ],
  ],
});
/** Fingers, each by itself. */
export const FINGER_PARTS: Readonly<Record<string, Part>> = {
  index: digit('index', 5, 0.98),
  middle: digit('middle', 5.6, 1),
  ring: digit('ring', 5.1, 0.96),
  little: digit('little', 4.1, 0.84),
  thumb: {
    hulls: [
      [
        ['palm', 1.6, -0.4, -1.4, 1.7],
        ['thumb1', 1, 0, 0, 1.5],
        ['thumb2', 0, 0, 0, 1.08],
      ],
      [
        ['thumb2', 0, 0, 0, 1.08],
        ['thumb2', 2.6, 0, 0, 0.9],
      ],
    ],
  },
};

/** Parts of a foot seen close. */
export const FOOT: Part = {
  hulls: [
    [
      ['foot', 0, 0.2, 0, 2.5],
      ['foot', -3, -1.6, 0, 2.1],
      ['foot', -2.8, -2.2, 0, 1.75],
      ['mid', 3, -1.4, -0.6, 1.7],
    ],
    [
      ['foot', 0, 0, 0, 2.4],
      ['mid', 3, -1.3, -0.8, 1.7],
      ['front', 6.9, -2.5, -1.8, 1.35],
      ['front', 5.8, -2.7, 2, 1.1],
    ],
    [
      ['foot', -2.4, -2.2, 1, 1.6],
      ['foot', 2.6, -2.7, 1.9, 1.15],
      ['front', 5.8, -2.75, 2.1, 1.1],
    ],
  ],
};
/** The shin that comes into the picture. */
export const SHIN: Part = {
  hulls: [
    [
      ['shank', 0, 0.4, 0, 2.4],
      ['shank', -0.4, 12, 0, 3.2],
      ['shank', -0.6, 46, 0, 4],
    ],
  ],
};
const toe = (name: string, length: number, r: number): Part => ({
  hulls: [
    [
      [`${name}a`, -0.6, 0, 0, r * 1.1],
      [`${name}b`, 0, 0, 0, r],
    ],
    [
      [`${name}b`, 0, 0, 0, r],
      [`${name}b`, length * 0.45, 0, 0, r * 0.94],
    ],
  ],
});
/** Toes, each by itself. */
export const TOE_PARTS: Readonly<Record<string, Part>> = {
  toe1: toe('toe1', 3.2, 1.2),
  toe2: toe('toe2', 2.7, 0.86),
  toe3: toe('toe3', 2.4, 0.82),
  toe4: toe('toe4', 2.1, 0.78),
  toe5: toe('toe5', 1.8, 0.74),
};
