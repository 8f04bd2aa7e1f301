import { cameraOf } from './camera.ts';
import { bodyAt } from './pose.ts';
import type { Kit, SolvedFigure } from './schema.ts';
import { bodyOf, NUMBERS, poseOf, RANGE, sitesOf } from './skeleton.ts';
import type { Body, Pose } from './skeleton.ts';
import { nothingHeld, PRIOR, settle, wayBetween } from './solve.ts';
import { gapOf, surfacesOf, within } from './surfaces.ts';
import { add, less, times } from './vector.ts';
import type { Vec } from './vector.ts';

/** How near a surface something has to be to lie on it, in u. */
const LIES = 1.2;
/** How near it has to be drawn to snap onto it, in u. */
const SNAPS = 3.5;

/** Places that bear on something, by the end of a limb or the trunk that they belong to. */
const BEARING: Readonly<Record<string, readonly string[]>> = {
  wrist: ['palmHeel', 'palmThumb', 'palmLittle', 'fist', 'fingertips'],
  elbow: ['elbow'],
  ankle: ['heel', 'ballIn', 'ballOut', 'toes', 'laces'],
  knee: ['kneecap'],
  pelvis: ['seat', 'sideOfHipL', 'sideOfHipR', 'back', 'upperBack', 'belly', 'chest'],
  head: ['backOfHead', 'brow'],
};
/** What of it comes to lie on a surface that it is drawn to. */
const SNAPPING: Readonly<Record<string, readonly string[]>> = {
  wrist: ['palmHeel', 'palmThumb', 'palmLittle'],
  elbow: ['elbow'],
  ankle: ['heel', 'ballIn', 'ballOut'],
  knee: ['kneecap'],
};
const TRUNK_ENDS = ['pelvis', 'head'];

const stemOf = (site: string) => site.replace(/[LR]$/, '');
const sideOf = (site: string) => site.slice(stemOf(site).length);
const ofEnd = (table: Readonly<Record<string, readonly string[]>>, site: string): readonly string[] =>
  (table[stemOf(site)] ?? []).map((name) => `${name}${TRUNK_ENDS.includes(site) ? '' : sideOf(site)}`);

/** Places of a body that lie on the floor, a wall or a top, each with its surface. */
export function heldSites(body: Body, kit: readonly Kit[]): ReadonlyMap<string, string> {
  const held = new Map<string, string>();
  const surfaces = surfacesOf(kit);
  for (const [end, names] of Object.entries(BEARING))
    for (const name of TRUNK_ENDS.includes(end) ? names : names.flatMap((one) => [`${one}L`, `${one}R`])) {
      const site = body.sites[name];
      if (!site) continue;
      for (const [called, surface] of surfaces)
        if (Math.abs(gapOf(site, surface)) < LIES && within(kit, called, site.at)) held.set(name, called);
    }
  return held;
}

const rounded = (pose: Pose): number[] => pose.map((value) => Math.round(value * 10) / 10);

/** How much each number gives way when an end is drawn: the trunk hardly where a hand or a foot is free. */
function resistsOf(site: string): readonly number[] {
  if (!/[LR]$/.test(site)) return PRIOR;
  const side = sideOf(site);
  return PRIOR.map((weight, i) => {
    const name = NUMBERS[i] ?? '';
    if (/^(?:root|spine|chest|neck)/.test(name)) return Math.max(0.6, weight * 5);
    return new RegExp(`^[a-z]+${side}`).test(name) ? weight * 0.5 : weight * 4;
  });
}

/**
 * A pose with a place drawn towards a point: what lies on something stays there, what is drawn near a surface snaps onto it, and every
 * joint keeps to its range. `rounds` bounds the work: few while it is drawn, more when it is let go.
 */
export function pulled(
  pose: Pose,
  kit: readonly Kit[],
  site: string,
  target: Vec,
  rounds = 4,
): { readonly pose: number[]; readonly snapped: string | null } {
  const body = bodyOf(pose);
  const own = new Set(ofEnd(BEARING, site));
  const at = new Map<string, Vec>();
  for (const [name] of heldSites(body, kit)) if (!own.has(name)) at.set(name, body.sites[name]?.at as Vec);
  // Who is taken by the trunk or the head moves on hands and feet: the seat and the back let go.
  if (site === 'pelvis' || site === 'chest') for (const name of ofEnd(BEARING, 'pelvis')) at.delete(name);
  const snap = snapOf(body, kit, site, target);
  const on = new Map(snap ? ofEnd(SNAPPING, site).map((name) => [name, snap] as const) : []);
  const settled = settle(
    pose,
    { ...nothingHeld(), at, on, wish: new Map([[site, target]]) },
    kit,
    resistsOf(site),
    rounds,
  );
  return { pose: rounded(settled), snapped: snap };
}

function snapOf(body: Body, kit: readonly Kit[], site: string, target: Vec): string | null {
  const [first] = ofEnd(SNAPPING, site);
  const joint = body.sites[site]?.at;
  const place = first ? body.sites[first] : undefined;
  if (!place || !joint) return null;
  // Where the sole or the palm would be if the joint were where it is drawn to.
  const there = add(target, less(place.at, joint));
  for (const [name, surface] of surfacesOf(kit)) {
    const gap = gapOf({ ...place, at: there }, surface);
    if (gap < SNAPS && gap > -SNAPS * 3 && within(kit, name, there)) return name;
  }
  return null;
}

/** A pose with numbers set, by where they stand; what lies on something stays there as far as it can. */
export function withNumbers(pose: Pose, kit: readonly Kit[], set: ReadonlyMap<number, number>): number[] {
  const body = bodyOf(pose);
  const start = pose.map((one, i) => {
    const [low, high] = RANGE[i] ?? [one, one];
    return Math.min(high, Math.max(low, set.get(i) ?? one));
  });
  // Who moves as a whole lets go.
  if ([...set.keys()].some((place) => /^root\.[xz]$/.test(NUMBERS[place] ?? ''))) return rounded(start);
  const at = new Map([...heldSites(body, kit)].map(([name]) => [name, body.sites[name]?.at as Vec]));
  const resists = PRIOR.map((weight, i) => (set.has(i) ? 60 : weight));
  return rounded(settle(start, { ...nothingHeld(), at }, kit, resists, 12));
}

/** A point of the picture as far from the camera as a place is: where that place is drawn to, by units of the picture. */
export function drawnTo(figure: SolvedFigure, from: Vec, across: number, up: number): Vec {
  const { right, up: high } = cameraOf(figure.view);
  return add(from, add(times(right, across), times(high, up)));
}

/** A figure whose ways between its keys are worked out anew, so that what stands in both stays where it is. */
export function joined(figure: SolvedFigure): SolvedFigure {
  const { poses, kit } = figure;
  const between = poses.slice(1).map((pose, i) => {
    const before = poses[i] as Pose;
    if (figure.rig !== 'body') return [];
    const [first, second] = [bodyAt(figure, before), bodyAt(figure, pose)];
    const stays = heldSites(second, kit);
    const both = [...heldSites(first, kit)]
      .filter(([name, surface]) => stays.get(name) === surface)
      .map(([name]) => name);
    return wayBetween(before, pose, both, kit, PRIOR);
  });
  return { ...figure, between };
}

/** Somebody who stands: where a picture begins when there is none to begin with. */
export function standingFigure(): SolvedFigure {
  const on = new Map(sitesOf('foot').map((site) => [site, 'floor']));
  const pose = rounded(settle(poseOf({ 'root.y': 53 }), { ...nothingHeld(), on }, [], PRIOR));
  return {
    rig: 'body',
    sides: ['L'],
    poses: [pose],
    between: [],
    shown: 0,
    ghost: true,
    view: { az: -60, el: 10 },
    frame: ['full'],
    accent: [],
    kit: [],
    marks: [],
    z: {},
  };
}
