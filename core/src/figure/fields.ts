import type { Drill } from '../reference/index.ts';
import { bodyAt } from './pose.ts';
import type { SolvedFigure } from './schema.ts';
import type { Body } from './skeleton.ts';

/** A field of a drill that its picture does not show, and what it shows. */
export interface FieldFault {
  readonly field: 'position' | 'kit' | 'sides' | 'hold' | 'direction';
  readonly says: string;
}

/** What of a body a position is told by: heights in u, and which way the chest looks and stands, as shares of upright. */
interface Stance {
  /** 1 = the chest looks up, −1 = down. */
  readonly looks: number;
  /** 1 = the spine stands upright, 0 = it lies. */
  readonly stands: number;
  readonly pelvis: number;
  readonly head: number;
  readonly knees: readonly [low: number, high: number];
  readonly hands: readonly [low: number, high: number];
  readonly feet: readonly [low: number, high: number];
  /** How much lower each knee is than its hip. */
  readonly thighs: readonly [number, number];
}

function stanceOf({ bones, sites }: Body): Stance {
  const y = (name: string) => sites[name]?.at[1] ?? 0;
  const pair = (name: string): [number, number] => {
    const both = [y(`${name}L`), y(`${name}R`)];
    return [Math.min(...both), Math.max(...both)];
  };
  const turn = bones['chest']?.turn ?? [1, 0, 0, 0, 1, 0, 0, 0, 1];
  const foot = (side: 'L' | 'R') => Math.min(y(`heel${side}`), y(`toes${side}`), y(`ballIn${side}`));
  const feet = [foot('L'), foot('R')];
  return {
    looks: turn[3],
    stands: turn[4],
    pelvis: y('pelvis'),
    head: y('head'),
    knees: pair('knee'),
    hands: pair('wrist'),
    feet: [Math.min(...feet), Math.max(...feet)],
    thighs: [y('hipL') - y('kneeL'), y('hipR') - y('kneeR')],
  };
}

/** How each position of the library shows, in at least one key. */
const POSITION: Readonly<Record<Drill['position'], (s: Stance) => boolean>> = {
  supine: (s) => s.looks > 0.35,
  prone: (s) => s.looks < -0.35,
  'side-lying': (s) => Math.abs(s.stands) < 0.75 && Math.abs(s.looks) < 0.75,
  quadruped: (s) =>
    (s.looks < -0.3 && s.hands[0] < 40 && Math.min(s.knees[0], s.feet[0]) < 12) ||
    (s.hands[1] < 12 && s.pelvis > 40 && s.stands < 0.3),
  seated: (s) => s.pelvis < 20 || (s.stands > 0.3 && s.thighs.some((by) => by < 16)),
  'half-kneeling': (s) => s.knees[0] < 12 && s.knees[1] > 14,
  'tall-kneeling': (s) => s.knees[1] < 12 && s.pelvis > 9,
  standing: (s) => s.pelvis > 14 && s.feet[0] < 40 && s.knees[0] > 6 && s.stands > -0.2,
  'single-leg-standing': (s) => s.pelvis > 24 && s.feet[1] - s.feet[0] > 1.5,
  hanging: (s) => s.hands[1] > s.pelvis + 20 || s.knees[0] > s.head,
  moving: () => true,
};

/** Kit of the library that is drawn, by the kinds that show it. */
const KIT: Readonly<Record<string, readonly string[]>> = {
  'long-band': ['band', 'loop'],
  'mini-band': ['loop'],
  'finger-band': ['loop', 'band'],
  'foam-roller': ['roller'],
  'pull-up-bar': ['bar'],
  'finger-edge': ['edge'],
  'small-ball': ['ball'],
  ball: ['ball'],
  'weighted-ball': ['ball'],
  wall: ['wall'],
  step: ['step', 'box', 'slope'],
  box: ['box', 'step', 'bench'],
  bench: ['bench', 'box', 'couch'],
  'stationary-bike': ['bike'],
  slider: ['slider', 'towel'],
  towel: ['towel', 'strap', 'band', 'rope'],
  strap: ['strap', 'band'],
  rope: ['rope', 'strap', 'band'],
  dowel: ['dowel'],
  'low-hurdle': ['hurdle'],
  'ladder-mat': ['ladder'],
  'sport-gear': ['gear', 'racket', 'ball', 'dowel', 'rope'],
};

/** Which way the drill goes against gravity, where the library's own words say so: over the height of what moves. */
const WORDS: readonly (readonly [RegExp, 'up' | 'down'])[] = [
  [/\b(?:raise|lift)s?\b/i, 'up'],
  [/\bsquats?\b/i, 'down'],
];

function direction(figure: SolvedFigure, drill: Drill, bodies: readonly Body[]): FieldFault[] {
  const meant = WORDS.find(([word]) => word.test(drill.name));
  if (!meant || bodies.length < 2 || drill.contraction === 'isometric-hold') return [];
  // From a key to a later one; who squats comes up again, and may be shown either way.
  const travel = Math.max(
    ...bodies.flatMap((from, i) =>
      bodies.slice(i + 1).flatMap(({ sites }) =>
        Object.entries(sites).map(([name, { at }]) => {
          const by = at[1] - (from.sites[name]?.at[1] ?? at[1]);
          return meant[1] === 'up' ? by : Math.abs(by);
        }),
      ),
    ),
  );
  const least = figure.rig === 'body' ? 2.5 : 0.5;
  return travel < least ? [{ field: 'direction', says: `nothing goes ${meant[1]}` }] : [];
}

/** Do both sides do the same in every key, and neither is marked as the one that works? */
function alike({ accent, rig, kit, marks }: SolvedFigure, bodies: readonly Body[]): boolean {
  const sides = new Set(accent.flatMap((part) => /[LR]$/.exec(part) ?? []));
  const beside = kit.some(({ at, through }) =>
    [at, ...(through ?? [])].some((where) => typeof where === 'object' && Math.abs(where[2]) > 3),
  );
  const aside = marks.some((mark) => 'path' in mark);
  if (sides.size === 1 || rig !== 'body' || beside || aside) return false;
  return bodies.every(({ bones, sites }) => {
    // Across the pelvis, from its middle: a body that is turned as a whole is still alike.
    const [, , rx, , , ry, , , rz] = bones['pelvis']?.turn ?? [];
    const [px, py, pz] = sites['pelvis']?.at ?? [0, 0, 0];
    return Object.entries(sites).every(([name, { at }]) => {
      const twin = name.endsWith('L') ? sites[`${name.slice(0, -1)}R`]?.at : undefined;
      if (!twin) return true;
      const [dx, dy, dz] = [at[0] - px, at[1] - py, at[2] - pz];
      const across = 2 * (dx * (rx ?? 0) + dy * (ry ?? 0) + dz * (rz ?? 0));
      return (
        Math.hypot(
          dx - across * (rx ?? 0) - (twin[0] - px),
          dy - across * (ry ?? 0) - (twin[1] - py),
          dz - across * (rz ?? 0) - (twin[2] - pz),
        ) < 4
      );
    });
  });
}

/** What of a drill's own fields its picture contradicts: how one lies or stands, with what, which side works, whether it is held. */
export function fieldFaults(figure: SolvedFigure, drill: Drill): FieldFault[] {
  const bodies = figure.poses.map((pose) => bodyAt(figure, pose));
  const faults: FieldFault[] = direction(figure, drill, bodies);
  if (figure.rig === 'body' && !bodies.some((body) => POSITION[drill.position](stanceOf(body))))
    faults.push({ field: 'position', says: `not ${drill.position}` });
  const types = figure.kit.map(({ type }) => type as string);
  for (const one of drill.equipment) {
    const shows = KIT[one];
    if (shows && !shows.some((type) => types.includes(type)))
      faults.push({ field: 'kit', says: `no ${one}` });
  }
  if (drill.unilateral && alike(figure, bodies))
    faults.push({ field: 'sides', says: 'both sides are alike' });
  const held = figure.marks.some((mark) => 'hold' in mark);
  if (drill.contraction === 'isometric-hold' && !held && figure.marks.length === 0 && figure.poses.length > 1)
    faults.push({ field: 'hold', says: 'moves, and is held' });
  return faults;
}
