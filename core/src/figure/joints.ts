import { closeUpNumbers } from './closeUp.ts';
import type { SolvedFigure } from './schema.ts';
import { NUMBERS, RANGE } from './skeleton.ts';

/** One number of a pose as it is set by hand. */
export interface Setting {
  readonly place: number;
  readonly label: string;
  readonly range: readonly [low: number, high: number];
  /** Degrees; else hundredths of the body's height. */
  readonly degrees: boolean;
}

/** A joint that can be taken hold of: where it is, what it is called, what turns there, and between which places its angle is. */
export interface Joint {
  readonly site: string;
  readonly name: string;
  readonly settings: readonly Setting[];
  readonly angle: readonly [string, string, string] | null;
}

const WORDS: Readonly<Record<string, string>> = {
  'root.x': 'Forwards',
  'root.y': 'Up',
  'root.z': 'To the right',
  'root.yaw': 'Turned',
  'root.pitch': 'Tipped back',
  'root.roll': 'Rolled',
  'spine.flex': 'Low back, forwards',
  'spine.side': 'Low back, to the right',
  'spine.turn': 'Low back, turned right',
  'chest.flex': 'Upper back, forwards',
  'chest.side': 'Upper back, to the right',
  'chest.turn': 'Upper back, turned right',
  'neck.flex': 'Nod',
  'neck.side': 'To the right',
  'neck.turn': 'Turned right',
  'scap.up': 'Shoulder up',
  'scap.fwd': 'Shoulder forwards',
  'arm.flex': 'Arm forwards',
  'arm.abd': 'Arm out',
  'arm.rot': 'Arm turned in',
  elbow: 'Bent',
  pron: 'Thumb turned in',
  'wrist.flex': 'Palm bent in',
  'wrist.uln': 'To the little finger',
  grip: 'Fist',
  'hip.flex': 'Thigh forwards',
  'hip.abd': 'Thigh out',
  'hip.rot': 'Thigh turned in',
  knee: 'Bent',
  'ankle.df': 'Foot up',
  'ankle.inv': 'Sole in',
  toes: 'Toes up',
};

const TRUNK: readonly (readonly [site: string, name: string, numbers: readonly string[]])[] = [
  ['pelvis', 'Whole body', ['root.x', 'root.y', 'root.z', 'root.yaw', 'root.pitch', 'root.roll']],
  ['chest', 'Back', ['spine.flex', 'spine.side', 'spine.turn', 'chest.flex', 'chest.side', 'chest.turn']],
  ['head', 'Head', ['neck.flex', 'neck.side', 'neck.turn']],
];
const LIMB: readonly (readonly [
  site: string,
  name: string,
  numbers: readonly string[],
  angle: readonly [string, string, string],
])[] = [
  [
    'shoulder',
    'shoulder',
    ['arm.flex', 'arm.abd', 'arm.rot', 'scap.up', 'scap.fwd'],
    ['hip', 'shoulder', 'elbow'],
  ],
  ['elbow', 'elbow', ['elbow', 'pron'], ['shoulder', 'elbow', 'wrist']],
  ['wrist', 'hand', ['wrist.flex', 'wrist.uln', 'grip'], ['elbow', 'wrist', 'fist']],
  ['hip', 'hip', ['hip.flex', 'hip.abd', 'hip.rot'], ['shoulder', 'hip', 'knee']],
  ['knee', 'knee', ['knee'], ['hip', 'knee', 'ankle']],
  ['ankle', 'foot', ['ankle.df', 'ankle.inv', 'toes'], ['knee', 'ankle', 'ballIn']],
];

function settingOf(name: string, label: string): Setting {
  const place = NUMBERS.indexOf(name);
  return { place, label, range: RANGE[place] ?? [0, 0], degrees: !/^root\.[xyz]$/.test(name) };
}

const sided = (name: string, side: 'L' | 'R') => name.replace(/^[a-z]+/i, (bone) => `${bone}${side}`);
const SIDE = { L: 'Left', R: 'Right' } as const;

const BODY: readonly Joint[] = [
  ...TRUNK.map(([site, name, numbers]) => ({
    site,
    name,
    settings: numbers.map((one) => settingOf(one, WORDS[one] ?? one)),
    angle: null,
  })),
  ...(['L', 'R'] as const).flatMap((side) =>
    LIMB.map(([site, name, numbers, [a, b, c]]) => ({
      site: `${site}${side}`,
      name: `${SIDE[side]} ${name}`,
      settings: numbers.map((one) => settingOf(sided(one, side), WORDS[one] ?? one)),
      angle: [`${a}${side}`, `${b}${side}`, `${c}${side}`] as const,
    })),
  ),
];

const CLOSE_UP: Readonly<Record<string, readonly [label: string, low: number, high: number]>> = {
  x: ['Forwards', -40, 40],
  y: ['Up', -40, 40],
  z: ['To the side', -40, 40],
  yaw: ['Turned', -180, 180],
  pitch: ['Tipped', -180, 180],
  roll: ['Rolled', -180, 180],
  flex: ['Wrist bent in', -85, 85],
  uln: ['To the little finger', -25, 40],
  mcp: ['Knuckles bent', -30, 95],
  pip: ['Fingers bent', -5, 110],
  spread: ['Spread', -6, 26],
  thumb: ['Thumb out', -10, 80],
  oppose: ['Thumb across', -30, 90],
  thumbFlex: ['Thumb bent', -20, 80],
  index: ['Index finger bent', -60, 95],
  little: ['Little finger bent', -60, 95],
  lean: ['Shin forwards', -60, 60],
  arch: ['Arch lifted', 0, 1],
  big: ['Big toe up', -40, 90],
  toes: ['Other toes up', -40, 90],
  curl: ['Toes curled', -10, 90],
};

function closeUpJoints(rig: 'hands' | 'feet', sides: readonly ('L' | 'R')[]): Joint[] {
  const names = closeUpNumbers(rig);
  return sides.map((side) => ({
    site: rig === 'hands' ? `wrist${side}` : `ankle${side}`,
    name: `${SIDE[side]} ${rig === 'hands' ? 'hand' : 'foot'}`,
    settings: names.flatMap((name, place): Setting[] => {
      if (!name.endsWith(side)) return [];
      const [label, low, high] = CLOSE_UP[name.slice(0, -1)] ?? [name, -90, 90];
      return [{ place, label, range: [low, high], degrees: !/^(?:[xyz]|arch)[LR]$/.test(name) }];
    }),
    angle: null,
  }));
}

/** The joints of a figure that can be set. */
export function jointsOf({ rig, sides }: Pick<SolvedFigure, 'rig' | 'sides'>): readonly Joint[] {
  return rig === 'body' ? BODY : closeUpJoints(rig, sides);
}
