import { describe, expect, it } from 'vitest';
import { allowedSets } from '../dose/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { createReference } from '../reference/index.ts';
import type { Reference } from '../reference/index.ts';
import { caseOf, item } from '../testing/cases.ts';
import { assessCase } from '../assess/index.ts';
import { dosedItem, setsFor } from '../dose/index.ts';
import { beyondLimits, mostSets, withinLimits } from './index.ts';
import { limitsText } from './limits.ts';

const active = (id: string) => ({
  id,
  until: null,
  reviewDue: false,
  cleared: true,
  region: null,
  side: null,
  setBy: null,
  reason: null,
});
const drillOf = (id: string, reference: Reference = bundledReference) => {
  const drill = reference.drills.get(id);
  if (!drill) throw new Error(`no drill ${id}`);
  return drill;
};
/** The reference with other limits on a precaution. */
const limited = (id: string, limits: object) =>
  createReference({
    ...bundledReference.data,
    precautions: bundledReference.data.precautions.map((one) => (one.id === id ? { ...one, limits } : one)),
  });

describe('the most sets of a handling', () => {
  const reference = limited('patellar-tendon-irritable', { sets: 2 });
  const one = [active('patellar-tendon-irritable')];
  const squat = drillOf('goblet-squat', reference);
  it('are kept by what is typed, on both sides, and by what is dosed', () => {
    const three = item('goblet-squat', { sets: 3, setup: { depth: 'half' } });
    expect(beyondLimits(reference, squat, three, one)).toEqual({
      precaution: 'patellar-tendon-irritable',
      of: 'sets',
      variable: null,
      most: 2,
    });
    expect(withinLimits(reference, squat, three, one).sets).toBe(2);
    expect(beyondLimits(reference, squat, { ...three, sets: 2 }, one)).toBeNull();
    const uneven = { left: { sets: 1, amount: 20 }, right: { sets: 3, amount: 20 } };
    const mended = withinLimits(reference, squat, { ...three, sets: 2, perSide: uneven }, one);
    expect(mended.perSide).toEqual({ left: uneven.left, right: { sets: 2, amount: 20 } });
    expect(mostSets(reference, squat, [])).toBe(Infinity);
  });
  it('are what may be chosen from, and one where none fits', () => {
    const dose = (sets: number) => {
      const own = limited('patellar-tendon-irritable', { sets });
      const input = caseOf({
        athlete: {
          precautions: [{ id: 'patellar-tendon-irritable', until: null, clearance: null, ended: null }],
        },
      });
      return { own, context: assessCase(own, input).doses.build };
    };
    const { own, context } = dose(2);
    const drill = drillOf('goblet-squat', own);
    expect(Math.max(...allowedSets(own, drill, 'build'))).toBeGreaterThan(2);
    expect(Math.max(...setsFor(context, drill))).toBe(2);
    expect(dosedItem(context, drill, 'both', 4, null).item.sets).toBe(2);
    expect(setsFor(dose(1).context, drill)).toEqual([1]);
  });
});

describe('the sentence of a handling', () => {
  it('says of each drill the figures it is held to, and nothing where there are none', () => {
    const text = (drill: string, precaution: string, reference = bundledReference) =>
      limitsText(reference, drillOf(drill, reference), active(precaution));
    expect(text('supine-ball-squeeze', 'acute-adductor-strain')).toBe(
      'Effort at most 30 % of own maximum, hold at most 10 s.',
    );
    expect(text('supine-ball-squeeze', 'no-impact')).toBe('');
    const sets = limited('patellar-tendon-irritable', { sets: 2 });
    expect(text('goblet-squat', 'patellar-tendon-irritable', sets)).toBe('At most 2 sets.');
  });
});
