import type { Body, Site } from './skeleton.ts';
import { aboutX, aboutY, aboutZ, add, turned, turns } from './vector.ts';
import type { Turn, Vec } from './vector.ts';

/** Close-ups: hands with their fingers, feet with their toes. They are written as they stand; nothing in them is solved. */
export type CloseUp = 'hands' | 'feet';

/** Where a hand or foot is and how it is turned, then how it is bent; degrees, the same sign on both sides. */
const PLACED = ['x', 'y', 'z', 'yaw', 'pitch', 'roll'] as const;
const BENT: Readonly<Record<CloseUp, readonly string[]>> = {
  hands: ['flex', 'uln', 'mcp', 'pip', 'spread', 'thumb', 'oppose', 'thumbFlex', 'index', 'little'],
  feet: ['lean', 'arch', 'big', 'toes', 'curl', 'spread'],
};
/** How a hand or foot is where nothing is said. */
const AT_REST: Readonly<Record<string, number>> = { thumb: 42, oppose: 20, spread: 4, mcp: 8, pip: 10 };

/** Names of the numbers of a close-up, in their order: those of the left, then those of the right. */
export const closeUpNumbers = (rig: CloseUp): readonly string[] =>
  (['L', 'R'] as const).flatMap((side) => [...PLACED, ...BENT[rig]].map((name) => `${name}${side}`));

/** The numbers of a close-up with changes; a name without side is meant for both. */
export function closeUpPose(
  rig: CloseUp,
  before: readonly number[] | null,
  set: Readonly<Record<string, number>> | undefined,
): number[] {
  const names = closeUpNumbers(rig);
  const pose = before ? [...before] : names.map((name) => AT_REST[name.slice(0, -1)] ?? 0);
  for (const [name, value] of Object.entries(set ?? {})) {
    const places = names.flatMap((own, i) => (own === name || own.slice(0, -1) === name ? [i] : []));
    if (places.length === 0) throw new Error(`no number of ${rig} is called "${name}"`);
    for (const i of places) pose[i] = value;
  }
  return pose;
}

interface Bones {
  [name: string]: { at: Vec; turn: Turn };
}

/** Fingers from the thumb's side: where they begin, how long they are, how far they are spread. */
const FINGERS = [
  { name: 'index', x: 6.3, z: -2.3, length: 5, out: 1 },
  { name: 'middle', x: 6.6, z: -0.8, length: 5.6, out: 0.25 },
  { name: 'ring', x: 6.2, z: 0.8, length: 5.1, out: -0.45 },
  { name: 'little', x: 5.5, z: 2.2, length: 4.1, out: -1.1 },
] as const;
/** Toes from the big one. */
const TOES = [
  { name: 'toe1', x: 7.2, z: -1.9, length: 3.2, out: 1 },
  { name: 'toe2', x: 7.5, z: -0.4, length: 2.7, out: 0.3 },
  { name: 'toe3', x: 7.2, z: 0.6, length: 2.4, out: -0.1 },
  { name: 'toe4', x: 6.7, z: 1.5, length: 2.1, out: -0.5 },
  { name: 'toe5', x: 6, z: 2.3, length: 1.8, out: -1 },
] as const;

const placed = (q: (name: string) => number): { at: Vec; turn: Turn } => ({
  at: [q('x'), q('y'), q('z')],
  turn: turns(aboutY(q('yaw')), turns(aboutZ(q('pitch')), aboutX(q('roll')))),
});

/** One hand: the forearm comes from −x, the palm looks down, the thumb is on the inner side. */
function hand(bones: Bones, sites: Record<string, Site>, side: 'L' | 'R', q: (name: string) => number): void {
  const out = side === 'L' ? -1 : 1;
  const fore = placed(q);
  bones[`fore${side}`] = fore;
  const palm = { at: fore.at, turn: turns(fore.turn, turns(aboutZ(-q('flex')), aboutY(-out * q('uln')))) };
  bones[`palm${side}`] = palm;
  const on = ({ at, turn }: { at: Vec; turn: Turn }, x: number, y: number, z: number): Vec =>
    add(at, turned(turn, [x, y, out * z]));
  const site = (name: string, at: Vec, radius: number) => {
    sites[`${name}${side}`] = { at, radius };
  };
  for (const { name, x, z, length, out: spread } of FINGERS) {
    const bend = q('mcp') + (name === 'index' ? q('index') : name === 'little' ? q('little') : 0);
    const first = {
      at: on(palm, x, 0, z),
      turn: turns(palm.turn, turns(aboutY(out * q('spread') * spread), aboutZ(-bend))),
    };
    const second = { at: on(first, length * 0.46, 0, 0), turn: turns(first.turn, aboutZ(-q('pip'))) };
    const third = { at: on(second, length * 0.31, 0, 0), turn: turns(second.turn, aboutZ(-q('pip') * 0.7)) };
    bones[`${name}1${side}`] = first;
    bones[`${name}2${side}`] = second;
    bones[`${name}3${side}`] = third;
    site(`${name}Tip`, on(third, length * 0.23, 0, 0), 0.9);
  }
  const thumb = {
    at: on(palm, 1.6, -0.5, -1.9),
    turn: turns(palm.turn, turns(aboutY(out * q('thumb')), aboutZ(-q('oppose')))),
  };
  const tip = { at: on(thumb, 3.4, 0, 0), turn: turns(thumb.turn, aboutY(-out * q('thumbFlex'))) };
  bones[`thumb1${side}`] = thumb;
  bones[`thumb2${side}`] = tip;
  site('thumbTip', on(tip, 2.8, 0, 0), 1);
  site('wrist', palm.at, 2.2);
  site('palm', on(palm, 4, -1.2, 0), 1.6);
  site('web', on(palm, 4.6, -0.2, -3), 0.8);
  site('back', on(palm, 4, 1.2, 0), 1.6);
  site('knuckles', on(palm, 6.4, 0.6, 0), 1.6);
  site('foreEnd', on(fore, -13, 0, 0), 3.2);
  site('grip', on(palm, 6, -2.2, 0), 1);
}

/** One foot: toes towards +x, the sole down; the shin leans over it. */
function foot(bones: Bones, sites: Record<string, Site>, side: 'L' | 'R', q: (name: string) => number): void {
  const out = side === 'L' ? -1 : 1;
  const own = placed(q);
  bones[`foot${side}`] = own;
  bones[`shank${side}`] = { at: own.at, turn: aboutZ(-q('lean')) };
  const arch = q('arch');
  bones[`mid${side}`] = { at: add(own.at, turned(own.turn, [0, arch * 1.1, 0])), turn: own.turn };
  bones[`front${side}`] = { at: add(own.at, turned(own.turn, [-arch * 1.1, 0, 0])), turn: own.turn };
  const front = bones[`front${side}`] as { at: Vec; turn: Turn };
  const on = ({ at, turn }: { at: Vec; turn: Turn }, x: number, y: number, z: number): Vec =>
    add(at, turned(turn, [x, y, out * z]));
  const site = (name: string, at: Vec, radius: number) => {
    sites[`${name}${side}`] = { at, radius };
  };
  for (const { name, x, z, length, out: spread } of TOES) {
    const lift = name === 'toe1' ? q('big') : q('toes');
    const first = {
      at: on(front, x, -2.9, z),
      turn: turns(front.turn, turns(aboutY(out * q('spread') * spread), aboutZ(lift))),
    };
    const second = { at: on(first, length * 0.55, 0, 0), turn: turns(first.turn, aboutZ(-q('curl'))) };
    bones[`${name}a${side}`] = first;
    bones[`${name}b${side}`] = second;
    site(name, on(second, length * 0.45, 0, 0), 0.9);
  }
  site('ankle', own.at, 2.6);
  site('heel', on(own, -3, -2.2, 0), 1.8);
  site('ball', on(front, 7, -2.8, 0), 1.2);
  site('inner', on(own, 3, -2, -2.4), 1);
  site('outer', on(own, 3, -2.6, 2.4), 1);
  site('instep', on(bones[`mid${side}`] as { at: Vec; turn: Turn }, 3, 0, 0), 1.6);
  site('shin', add(own.at, turned(aboutZ(-q('lean')), [0, 14, 0])), 2.6);
}

/** The bones and places of a close-up. */
export function closeUpOf(rig: CloseUp, pose: readonly number[], sides: readonly ('L' | 'R')[]): Body {
  const names = closeUpNumbers(rig);
  const bones: Bones = {};
  const sites: Record<string, Site> = {};
  for (const side of sides) {
    const q = (name: string) => pose[names.indexOf(`${name}${side}`)] ?? 0;
    if (rig === 'hands') hand(bones, sites, side, q);
    else foot(bones, sites, side, q);
  }
  return { bones, sites };
}
