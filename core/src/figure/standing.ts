import type { Region } from '../domain/index.ts';
import { bodyPieces } from './bodyPieces.ts';
import { cameraOf } from './camera.ts';
import type { Shape } from './draw.ts';
import { spot } from './painting.ts';
import { bodyOf, poseOf } from './skeleton.ts';
import type { Vec } from './vector.ts';

type At = readonly [x: number, y: number];

/** Somebody who stands, seen from behind so that the left is on the left, and where the joints of each region are. */
export interface StandingBody {
  readonly shapes: readonly Shape[];
  readonly joints: Readonly<Partial<Record<Region, { readonly left: At; readonly right: At }>>>;
}

const SET = { 'root.y': 53, 'arm.abd': 4, 'hip.abd': 1.5, pron: 30, elbow: 5 };
const JOINT = {
  shoulder: 'shoulder',
  elbow: 'elbow',
  'wrist-hand': 'wrist',
  'hip-groin': 'hip',
  knee: 'knee',
  'ankle-foot': 'ankle',
} as const;
/** Regions of the back have a place each; their sides are marked so far beside it. */
const BACK = { thoracic: 'upperBack', lumbopelvic: 'back' } as const;
const BESIDE = 4.4;

/** Draws it `scale` units to a hundredth of its height, its middle at `x`, its crown at `top`. */
export function standingBody(x: number, top: number, scale: number): StandingBody {
  const pose = poseOf(SET);
  const camera = cameraOf({ az: 180, el: 0 });
  const body = bodyOf(pose);
  const crown = camera.see(body.sites['head']?.at ?? [0, 0, 0]).y - 8;
  const put = (p: Vec) => {
    const seen = camera.see(p);
    return { x: x + seen.x * scale, y: top + (seen.y - crown) * scale, near: seen.near };
  };
  const drawing = { body, camera, scale, put };
  const at = (p: Vec): At => {
    const { x: across, y } = put(p);
    return [across, y];
  };
  const joints: Partial<Record<Region, { left: At; right: At }>> = {};
  for (const [region, site] of Object.entries(JOINT))
    joints[region as Region] = { left: at(spot(drawing, `${site}L`)), right: at(spot(drawing, `${site}R`)) };
  for (const [region, site] of Object.entries(BACK)) {
    const [middle, y] = at(spot(drawing, site));
    joints[region as Region] = { left: [middle - BESIDE * scale, y], right: [middle + BESIDE * scale, y] };
  }
  return {
    shapes: bodyPieces(drawing, { rig: 'body', sides: [], accent: [], z: {} }, pose)
      .sort((a, b) => a.near - b.near)
      .flatMap(({ strokes }) => strokes),
    joints,
  };
}
