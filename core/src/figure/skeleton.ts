import { aboutX, aboutY, aboutZ, add, between, turned, turns } from './vector.ts';
import type { Turn, Vec } from './vector.ts';

/**
 * The body that figures are drawn with, in hundredths of its height. Segment lengths follow the usual anthropometric fractions,
 * rounded. Angles in degrees; the same sign means the same anatomical action on both sides. They are drawing coordinates, not
 * clinical goniometry, and are never shown as such.
 */
export const LENGTH = {
  hipHalf: 5.4,
  lumbar: 6,
  chest: 9,
  shoulderUp: 13.6,
  shoulderHalf: 11,
  neck: 16.6,
  head: 6.4,
  upperArm: 18,
  foreArm: 14.6,
  palm: 6,
  fingers: 5,
  thigh: 24.5,
  shank: 24.6,
  ankle: 3.9,
  heel: 4.2,
  ball: 7.6,
  toe: 3.8,
} as const;

/** The numbers of one pose with the range each may have; those of a limb stand once for each side, with `L` and `R` after the bone. */
const TRUNK: Readonly<Record<string, readonly [low: number, high: number]>> = {
  'root.x': [-400, 400],
  'root.y': [-50, 300],
  'root.z': [-400, 400],
  'root.yaw': [-360, 360],
  'root.pitch': [-200, 200],
  'root.roll': [-200, 200],
  'spine.flex': [-30, 60],
  'spine.side': [-28, 28],
  'spine.turn': [-14, 14],
  'chest.flex': [-32, 45],
  'chest.side': [-30, 30],
  'chest.turn': [-50, 50],
  'neck.flex': [-60, 55],
  'neck.side': [-45, 45],
  'neck.turn': [-80, 80],
};
const LIMB: Readonly<Record<string, readonly [low: number, high: number]>> = {
  'scap.up': [-12, 38],
  'scap.fwd': [-28, 32],
  'arm.flex': [-75, 185],
  'arm.abd': [-60, 185],
  'arm.rot': [-100, 95],
  elbow: [-5, 150],
  pron: [-90, 90],
  'wrist.flex': [-88, 88],
  'wrist.uln': [-25, 40],
  grip: [-10, 100],
  'hip.flex': [-25, 135],
  'hip.abd': [-32, 75],
  'hip.rot': [-75, 60],
  knee: [-4, 158],
  'ankle.df': [-60, 42],
  'ankle.inv': [-24, 38],
  toes: [-40, 88],
};

/** "arm.flex" on the left: "armL.flex"; "knee": "kneeL". */
const sided = (name: string, side: 'L' | 'R'): string => {
  const [bone = '', axis] = name.split('.');
  return axis ? `${bone}${side}.${axis}` : `${bone}${side}`;
};

/** Names of the 49 numbers of a pose, in their order. */
export const NUMBERS: readonly string[] = [
  ...Object.keys(TRUNK),
  ...(['L', 'R'] as const).flatMap((side) => Object.keys(LIMB).map((name) => sided(name, side))),
];
/** Where each number stands. */
export const PLACE: ReadonlyMap<string, number> = new Map(NUMBERS.map((name, i) => [name, i]));
/** What range each number has, in the order of {@link NUMBERS}. */
export const RANGE: readonly (readonly [low: number, high: number])[] = [
  ...Object.values(TRUNK),
  ...Object.values(LIMB),
  ...Object.values(LIMB),
];

/** Names that a change may use: with a side, or without for both. */
export function placesOf(name: string): readonly number[] {
  const own = PLACE.get(name);
  if (own !== undefined) return [own];
  const both = (['L', 'R'] as const).flatMap((side) => PLACE.get(sided(name, side)) ?? []);
  if (both.length !== 2) throw new Error(`no number is called "${name}"`);
  return both;
}

/** A pose: 49 numbers in the order of {@link NUMBERS}. */
export type Pose = readonly number[];

/** A pose written over another: named numbers replaced. */
export function written(before: Pose, set: Readonly<Record<string, number>> | undefined): number[] {
  const next = [...before];
  for (const [name, value] of Object.entries(set ?? {})) for (const i of placesOf(name)) next[i] = value;
  return next;
}

/** Somebody who stands at the origin, with named numbers replaced. */
export const poseOf = (set: Readonly<Record<string, number>> | undefined): number[] =>
  written(
    NUMBERS.map(() => 0),
    set,
  );

/** A place on the body with the thickness it has there. */
export interface Site {
  readonly at: Vec;
  readonly radius: number;
}

/** Where a bone begins and how it is turned. */
interface Bone {
  readonly at: Vec;
  readonly turn: Turn;
}

/** The body in one pose: its bones, and its named places. */
export interface Body {
  readonly bones: Readonly<Record<string, Bone>>;
  readonly sites: Readonly<Record<string, Site>>;
}

const OWN = Object.keys(TRUNK).length;
const EACH = Object.keys(LIMB).length;

/** Places on each bone: the bone, where on it, how thick. Those of a limb are on the right; z is turned round for the left. */
const TRUNK_SITES: Readonly<
  Record<string, readonly [bone: string, x: number, y: number, z: number, r: number]>
> = {
  pelvis: ['pelvis', 0, 0, 0, 7],
  seat: ['pelvis', -5.2, -3.5, 0, 4.6],
  belly: ['spine', 1.5, 3, 0, 6.6],
  back: ['spine', -3.4, 2, 0, 4.6],
  chest: ['chest', 2.2, 6, 0, 6.6],
  upperBack: ['chest', -4, 8, 0, 4.8],
  neck: ['chest', -0.4, 15, 0, 3.4],
  head: ['head', 1, 3.4, 0, 6.1],
  brow: ['head', 6.2, 4.6, 0, 1],
  backOfHead: ['head', -3.2, 4, 0, 4],
  chin: ['head', 5, -1.6, 0, 1.8],
};
const LIMB_SITES: Readonly<
  Record<string, readonly [bone: string, x: number, y: number, z: number, r: number]>
> = {
  shoulder: ['arm', 0, 0, 0, 4],
  elbow: ['fore', 0, 0, 0, 2.9],
  wrist: ['hand', 0, 0, 0, 2.1],
  palm: ['hand', 0, -4, -0.6, 1.5],
  palmHeel: ['hand', 0.2, -1.2, -0.8, 1.6],
  palmThumb: ['hand', 1.7, -5, -0.6, 1.4],
  palmLittle: ['hand', -1.8, -5, -0.6, 1.4],
  backOfHand: ['hand', 0, -3.6, 1, 1.3],
  fist: ['hand', 0, -6.6, -0.6, 2],
  fingertips: ['fingers', 0, -4.6, 0, 1],
  hip: ['pelvis', 0, 0, LENGTH.hipHalf, 6],
  sideOfHip: ['pelvis', 0, -1, LENGTH.hipHalf + 2, 4.4],
  ribs: ['chest', 0, 5, 6, 3.6],
  knee: ['shank', 0, 0, 0, 4],
  kneecap: ['shank', 1.6, 0.4, 0, 3],
  midThigh: ['thigh', 0, -12, 0, 5.6],
  midShin: ['shank', 0.4, -11, 0, 3.6],
  calf: ['shank', -1.4, -7.5, 0, 3.6],
  ankle: ['foot', 0, 0, 0, 2.6],
  heel: ['foot', -LENGTH.heel + 1.6, -LENGTH.ankle + 1.6, 0, 1.6],
  heelBack: ['foot', -LENGTH.heel + 1.6, -1.4, 0, 1.6],
  ballIn: ['foot', LENGTH.ball - 0.6, -LENGTH.ankle + 1.3, -2, 1.3],
  ballOut: ['foot', LENGTH.ball - 1.4, -LENGTH.ankle + 1.3, 2.2, 1.3],
  laces: ['foot', 5, -1.2, 0, 1.2],
  footIn: ['foot', 2.4, -2.4, -2.2, 1],
  footOut: ['foot', 2.4, -2.4, 2.2, 1],
  toes: ['toe', LENGTH.toe - 1, 0, 0, 1],
  toeTops: ['toe', LENGTH.toe - 1.6, 0.4, 0, 0.9],
};

/** Places that are meant together: a flat foot is three points. */
const GROUPS: Readonly<Record<string, readonly string[]>> = {
  foot: ['heel', 'ballIn', 'ballOut'],
  ball: ['ballIn', 'ballOut'],
  forefoot: ['ballIn', 'ballOut', 'toes'],
  flat: ['palmHeel', 'palmThumb', 'palmLittle'],
  forearm: ['elbow', 'wrist'],
  shin: ['kneecap', 'laces'],
};

/** The single places meant by a name: "foot" is both feet, "footL" three points of the left one, "kneeL" itself. */
export function sitesOf(name: string): readonly string[] {
  const known = (one: string) => one in TRUNK_SITES || (/[LR]$/.test(one) && one.slice(0, -1) in LIMB_SITES);
  if (known(name)) return [name];
  const side = /[LR]$/.test(name) ? name.slice(-1) : '';
  const stem = side ? name.slice(0, -1) : name;
  const parts = GROUPS[stem] ?? (stem in LIMB_SITES ? [stem] : null);
  if (!parts) throw new Error(`no place of the body is called "${name}"`);
  const sides = side ? [side] : ['L', 'R'];
  return sides.flatMap((one) => parts.map((part) => `${part}${one}`));
}

/** The bones and places of a body in a pose. */
export function bodyOf(pose: Pose): Body {
  const q = (i: number) => pose[i] ?? 0;
  const bones: Record<string, Bone> = {};
  const put = (name: string, at: Vec, turn: Turn) => {
    bones[name] = { at, turn };
    return bones[name];
  };
  const beyond = (bone: Bone, offset: Vec): Vec => add(bone.at, turned(bone.turn, offset));
  // Trunk: forwards bending turns the upward bones the other way about z, to the right side about x, a turn to the right about −y.
  const bent = (parent: Turn, i: number) =>
    turns(parent, turns(aboutY(-q(i + 2)), turns(aboutX(q(i + 1)), aboutZ(-q(i)))));
  const pelvis = put('pelvis', [q(0), q(1), q(2)], turns(aboutY(q(3)), turns(aboutZ(q(4)), aboutX(q(5)))));
  const spine = put('spine', beyond(pelvis, [0, LENGTH.lumbar, 0]), bent(pelvis.turn, 6));
  const chest = put('chest', beyond(spine, [0, LENGTH.chest, 0]), bent(spine.turn, 9));
  put('head', beyond(chest, [0, LENGTH.neck + 1.4, 0]), bent(chest.turn, 12));
  for (const [side, start, out] of [
    ['L', OWN, -1],
    ['R', OWN + EACH, 1],
  ] as const) {
    const p = (i: number) => q(start + i);
    const ball = (parent: Turn, i: number) =>
      turns(parent, turns(aboutZ(p(i)), turns(aboutX(-out * p(i + 1)), aboutY(out * p(i + 2)))));
    const up = (38 * p(0)) / 400;
    const fwd = p(1) / 8;
    const arm = put(
      `arm${side}`,
      beyond(chest, [
        fwd,
        LENGTH.shoulderUp + up,
        out * (LENGTH.shoulderHalf - up * 0.25 - Math.abs(fwd) * 0.2),
      ]),
      ball(chest.turn, 2),
    );
    const fore = put(
      `fore${side}`,
      beyond(arm, [0, -LENGTH.upperArm, 0]),
      turns(arm.turn, turns(aboutZ(p(5)), aboutY(out * p(6)))),
    );
    const hand = put(
      `hand${side}`,
      beyond(fore, [0, -LENGTH.foreArm, 0]),
      turns(fore.turn, turns(aboutX(out * p(7)), aboutZ(-p(8)))),
    );
    put(`fingers${side}`, beyond(hand, [0, -LENGTH.palm, 0]), turns(hand.turn, aboutX(out * p(9))));
    const thigh = put(`thigh${side}`, beyond(pelvis, [0, 0, out * LENGTH.hipHalf]), ball(pelvis.turn, 10));
    const shank = put(
      `shank${side}`,
      beyond(thigh, [0, -LENGTH.thigh, 0]),
      turns(thigh.turn, aboutZ(-p(13))),
    );
    const foot = put(
      `foot${side}`,
      beyond(shank, [0, -LENGTH.shank, 0]),
      turns(shank.turn, turns(aboutZ(p(14)), aboutX(out * p(15)))),
    );
    put(`toe${side}`, beyond(foot, [LENGTH.ball, -LENGTH.ankle + 1.1, 0]), turns(foot.turn, aboutZ(p(16))));
  }
  const sites: Record<string, Site> = {};
  for (const [name, [bone, x, y, z, radius]] of Object.entries(TRUNK_SITES))
    sites[name] = { at: beyond(bones[bone] as Bone, [x, y, z]), radius };
  for (const [side, out] of [
    ['L', -1],
    ['R', 1],
  ] as const)
    for (const [name, [bone, x, y, z, radius]] of Object.entries(LIMB_SITES)) {
      const own = bones[bone === 'pelvis' || bone === 'chest' ? bone : `${bone}${side}`] as Bone;
      sites[`${name}${side}`] = { at: beyond(own, [x, y, out * z]), radius };
    }
  return { bones, sites };
}

/** A place of a body; an error where there is none of that name. */
export const siteOf = (body: Body, name: string): Site => {
  const site = body.sites[name];
  if (!site) throw new Error(`no place of the body is called "${name}"`);
  return site;
};

/** A place, or the middle of both sides where no side is named. */
export function middleOf(body: Body, name: string): Vec {
  if (body.sites[name]) return siteOf(body, name).at;
  return between(siteOf(body, `${name}L`).at, siteOf(body, `${name}R`).at, 0.5);
}

/** Shares of the body's mass with where each lies, by the usual anthropometric tables. */
const MASS: readonly (readonly [bone: string, x: number, y: number, z: number, share: number])[] = [
  ['head', 0.5, 3, 0, 0.081],
  ['chest', 0, 6, 0, 0.3],
  ['pelvis', 0, 2, 0, 0.197],
];
const LIMB_MASS: readonly (readonly [bone: string, along: number, share: number])[] = [
  ['arm', -7.9, 0.028],
  ['fore', -6.3, 0.016],
  ['hand', -4, 0.006],
  ['thigh', -10.6, 0.1],
  ['shank', -10.7, 0.0465],
  ['foot', -2, 0.0145],
];

/** Where the centre of mass is. */
export function centreOfMass({ bones }: Body): Vec {
  let sum: Vec = [0, 0, 0];
  const count = (name: string, offset: Vec, share: number) => {
    const bone = bones[name] as Bone;
    const at = add(bone.at, turned(bone.turn, offset));
    sum = [sum[0] + at[0] * share, sum[1] + at[1] * share, sum[2] + at[2] * share];
  };
  for (const [bone, x, y, z, share] of MASS) count(bone, [x, y, z], share);
  for (const side of ['L', 'R'])
    for (const [bone, along, share] of LIMB_MASS) count(`${bone}${side}`, [0, along, 0], share);
  return sum;
}
