import { describe, expect, it } from 'vitest';
import { figureOf } from '../figure/bundled.ts';
import { bodyOf } from '../figure/skeleton.ts';
import { bundledReference } from '../reference/bundled.ts';
import { jolts, kneels, loadOn, onFeet } from '../reference/index.ts';
import { eachOf } from '../testing/eachOf.ts';

const drills = bundledReference.data.drills;

/** Sitting on the heels or just off the floor: the picture alone does not say which it is; read as kneeling. */
const NEAR_THE_FLOOR = [
  'heel-sit-ankle-rock',
  'folded-kneel-side-stretch',
  'heel-sit-chest-lift',
  'bear-hold',
  'fist-support-hold',
  'knuckle-push-up-kneeling',
];

/** Is a knee on the floor in the picture, with the pelvis above it? Heights in cm. */
function kneelsInPicture(id: string): boolean | null {
  const figure = figureOf(id);
  const [first] = figure?.rig === 'body' ? figure.poses : [];
  if (!first) return null;
  const { bones } = bodyOf(first);
  const knees = ['shankL', 'shankR'].map((name) => bones[name]?.at[1] ?? Infinity);
  return Math.min(...knees) < 10 && (bones.pelvis?.at[1] ?? 0) > 18;
}

describe('what a drill loads by its position and action', () => {
  it('a knee that is on the floor in the picture is loaded, and none that is not', () => {
    const kneeling = ['half-kneeling', 'tall-kneeling', 'quadruped'];
    const asked = eachOf(
      drills.filter((d) => kneeling.includes(d.position) && !NEAR_THE_FLOOR.includes(d.id)),
    );
    expect(
      asked
        .filter((d) => kneelsInPicture(d.id) !== null && kneelsInPicture(d.id) !== kneels(d))
        .map((d) => d.id),
    ).toEqual([]);
    for (const drill of eachOf(asked.filter(kneels)))
      expect(loadOn(drill, 'knee'), drill.id).toBeGreaterThanOrEqual(0.3);
  });
  it('whatever jolts goes through ankle, knee, hip and low back', () => {
    for (const drill of eachOf(drills.filter((d) => jolts(d) && onFeet(d))))
      for (const region of ['ankle-foot', 'knee', 'hip-groin', 'lumbopelvic'] as const)
        expect(loadOn(drill, region), `${drill.id} ${region}`).toBeGreaterThanOrEqual(0.5);
    for (const drill of eachOf(drills.filter((d) => d.loadClass === 'impact')))
      expect(jolts(drill)).toBe(true);
  });
  it('whatever hangs goes through hand, elbow and shoulder, and every hinge through the low back', () => {
    for (const drill of eachOf(drills.filter((d) => d.position === 'hanging')))
      for (const region of ['shoulder', 'elbow', 'wrist-hand'] as const)
        expect(loadOn(drill, region), `${drill.id} ${region}`).toBeGreaterThanOrEqual(0.5);
    const hinges = drills.filter((d) => /hinge/.test(d.ladder) && d.loadClass !== 'unloaded');
    for (const drill of eachOf(hinges))
      expect(loadOn(drill, 'lumbopelvic'), drill.id).toBeGreaterThanOrEqual(0.5);
  });
  it('whatever makes the grip stronger, or hardens the inner or outer elbow, goes through the elbow', () => {
    const gripping = drills.filter(({ id, category, serves }) => {
      const holds = serves.some(
        ({ restriction, match }) =>
          match >= 0.4 && /^(grip-|forearm-grip|medial-elbow|lateral-elbow)/.test(restriction),
      );
      // A fist in the air holds nothing.
      return holds && category !== 'release' && !['repeated-fist-squeeze', 'band-finger-spread'].includes(id);
    });
    for (const drill of eachOf(gripping))
      expect(loadOn(drill, 'elbow'), drill.id).toBeGreaterThanOrEqual(0.3);
  });
  it('nothing that is written is less than it was', () => {
    for (const drill of eachOf(drills.filter((d) => d.loadRegions.length > 0)))
      for (const { region, weight } of eachOf(drill.loadRegions))
        expect(loadOn(drill, region), `${drill.id} ${region}`).toBeGreaterThanOrEqual(weight);
  });
});
