import { describe, expect, it } from 'vitest';
import { bundledReference } from '../reference/bundled.ts';
import { eachOf } from '../testing/eachOf.ts';
import { findDrills } from './index.ts';

const found = (text: string) =>
  [...(findDrills(bundledReference, text, 8) ?? [])].sort((a, b) => b[1] - a[1]).map(([id]) => id);

describe('drills for something typed', () => {
  it.each([
    ['RDL', 'hands-to-hip-crease-hinge'],
    ['face pull 3x15', 'band-high-row'],
    ['frog 2x60s', 'quadruped-wide-knee-rock'],
    ['cossack', 'lateral-squat-shift'],
    ['skin the cat', 'inverted-hang-turn-through'],
    ['Kniebeuge 3x10', 'bodyweight-squat'],
    ['Seitstütz auf Knien', 'kneeling-side-plank'],
    ['triceps', 'band-elbow-straighten'],
  ])('%s is found by its name, whatever dose stands beside it', (text, drill) => {
    expect(found(text)[0]).toBe(drill);
  });
  it('muscles and kit that no drill is named after find what is for them', () => {
    for (const text of eachOf([
      'deltoid',
      'abs',
      'obliques',
      'lats',
      'medicine ball',
      'biceps',
      'Hüfte dehnen',
    ]))
      expect(found(text).length, text).toBeGreaterThan(0);
  });
  it('nothing typed is no search, and what nobody knows finds nothing', () => {
    expect(findDrills(bundledReference, '  ')).toBeNull();
    expect(found('xylophone')).toEqual([]);
  });
});
