import { describe, expect, it } from 'vitest';
import { bundledReference } from '../reference/bundled.ts';
import { assessCase } from '../assess/index.ts';
import { decideCase } from '../testing/prepared.ts';
import { caseOf, entry, item } from '../testing/cases.ts';
import { hardenedIn, hardenedRegions, isHarder } from './hardened.ts';

const rock = (over: object = {}) =>
  item('knee-to-wall-rock', { sets: 2, amount: 10, setup: { 'foot-wall-distance': 6 }, ...over });
const harder = (from: object, to: object) => isHarder(bundledReference, rock(from), rock(to));

describe('what is harder than before', () => {
  it('more of it, a set more, a step further, a longer hold or a level up; nothing else', () => {
    expect(harder({}, { amount: 12 })).toBe(true);
    expect(harder({}, { sets: 3 })).toBe(true);
    expect(harder({}, { setup: { 'foot-wall-distance': 8 } })).toBe(true);
    expect(harder({ holdSeconds: 3 }, { holdSeconds: 5 })).toBe(true);
    const squat = (setup: object) => item('goblet-squat', { setup: { load: 8, depth: 'half', ...setup } });
    expect(isHarder(bundledReference, squat({}), squat({ load: 10 }))).toBe(true); // of two variables one
    expect(harder({}, {})).toBe(false);
    expect(harder({}, { amount: 8, sets: 1, setup: { 'foot-wall-distance': 4 } })).toBe(false);
    expect(harder({}, { restSeconds: 60, side: 'left' })).toBe(false);
    const even = { sets: 2, amount: 10 };
    expect(
      harder(
        { perSide: { left: even, right: even } },
        { perSide: { left: { sets: 3, amount: 10 }, right: even } },
      ),
    ).toBe(true);
    const [low, high] = [item('double-leg-heel-raise'), item('single-leg-heel-raise')];
    expect([isHarder(bundledReference, low, high), isHarder(bundledReference, high, low)]).toEqual([
      true,
      false,
    ]);
    expect(isHarder(bundledReference, rock(), high)).toBe(false); // another ladder
  });
  it('is kept with the version, with what was made harder in the seven days before it', () => {
    const before = (on: string) => ({ items: [rock()], hardened: [{ drill: 'wall-sit', on }] });
    const now = (on: string) =>
      hardenedIn(bundledReference, before(on), [rock({ amount: 12 })], '2027-03-01');
    expect(now('2027-02-23')).toEqual([
      { drill: 'wall-sit', on: '2027-02-23' },
      { drill: 'knee-to-wall-rock', on: '2027-03-01' },
    ]);
    expect(now('2027-02-22')).toEqual([{ drill: 'knee-to-wall-rock', on: '2027-03-01' }]);
    // Two levels side by side, both as they were.
    const levels = [item('double-leg-heel-raise'), item('single-leg-heel-raise')];
    expect(hardenedIn(bundledReference, { items: levels }, levels, '2027-03-01')).toEqual([]);
    expect(
      hardenedIn(bundledReference, { items: levels.slice(0, 1) }, levels.slice(1), '2027-03-01'),
    ).toHaveLength(1);
    expect(hardenedIn(bundledReference, null, [rock()], '2027-03-01')).toEqual([]);
    expect(hardenedIn(bundledReference, { items: [rock()] }, [rock()], '2027-03-01')).toEqual([]);
  });
});

describe('regions in which something was made harder of late', () => {
  const regions = (issued: string, over: object = {}, diary: readonly [string, object][] = []) =>
    hardenedRegions(
      bundledReference,
      assessCase(
        bundledReference,
        caseOf({
          routine: { issued, mode: 'build', items: [rock({ amount: 12 })], ...over },
          diary: diary.map(([date, said]) => ({
            date,
            provoked: [],
            entries: [entry('knee-to-wall-rock', said)],
          })),
        }),
      ).standing,
    ).get('ankle-foot');
  it('come from what versions kept, for seven days', () => {
    const kept = (on: string) => regions('2027-02-01', { hardened: [{ drill: 'knee-to-wall-rock', on }] });
    expect(kept('2027-02-23')).toBe('2027-02-23');
    expect(kept('2027-02-22')).toBeUndefined();
    expect(kept('2027-03-02')).toBeUndefined();
  });
  it('or from a diary that shows less before the version was issued', () => {
    expect(regions('2027-02-25', {}, [['2027-02-20', { amounts: [10, 10] }]])).toBe('2027-02-25');
    expect(regions('2027-02-25', {}, [['2027-02-20', { amounts: [12] }]])).toBe('2027-02-25'); // a set less
    expect(regions('2027-02-25', {}, [['2027-02-20', { amounts: [12, 12] }]])).toBeUndefined();
    expect(regions('2027-02-25', {}, [['2027-02-26', { amounts: [10, 10] }]])).toBeUndefined();
    expect(regions('2027-02-25', {}, [['2027-02-20', { amounts: [10], done: 'part' }]])).toBeUndefined();
    expect(regions('2027-02-25', { hardened: [] }, [['2027-02-20', { amounts: [10, 10] }]])).toBeUndefined();
    expect(regions('2027-02-20', {}, [['2027-02-10', { amounts: [10, 10] }]])).toBeUndefined();
  });
});

describe('back after time off', () => {
  const after = (days: number, over: object = {}) => {
    const last = new Date(Date.UTC(2027, 2, 1) - days * 86_400_000).toISOString().slice(0, 10);
    const own = item('goblet-squat', { sets: 3, amount: 12, setup: { load: 16, depth: 'full' }, ...over });
    const [decision] = decideCase(
      bundledReference,
      caseOf({
        routine: { issued: '2026-06-01', mode: 'build', items: [own] },
        diary: [{ date: last, provoked: [], entries: [entry('goblet-squat', { amounts: [12, 12, 12] })] }],
      }),
    ).decisions;
    return decision;
  };
  it('one step at 28 days, two at 60, and from 120 the first level at its easiest', () => {
    expect(after(27)).toMatchObject({ decision: 'keep' });
    expect(after(28)).toMatchObject({ decision: 'ease', next: { amount: 10, setup: { load: 16 } } });
    expect(after(60)).toMatchObject({
      decision: 'ease',
      next: { drill: 'goblet-squat', amount: 6, setup: { load: 12 } },
    });
    const anew = after(120);
    const ladder = bundledReference.ladders.get(bundledReference.drills.get('goblet-squat')?.ladder ?? '');
    const first = bundledReference.drills.get(ladder?.drills[0] ?? '');
    expect(anew).toMatchObject({ decision: 'ease', next: { drill: first?.id } });
    expect(anew?.next?.setup).toEqual(
      Object.fromEntries(first?.setupVariables.map((v) => [v.id, v.steps[0]]) ?? []),
    );
  });
});

describe('a way down', () => {
  it('is none where the easier level is closed today: the drill is left out, and why is said', () => {
    const pair = bundledReference.data.drills.flatMap((drill) => {
      const below = bundledReference.drills.get(drill.easeTo ?? '');
      const id = below?.contraindications.find(
        (one) =>
          bundledReference.precautions.get(one)?.severity === 'exclude' &&
          !drill.contraindications.includes(one) &&
          !below.precautionOverrides.some((o) => o.precaution === one),
      );
      return below && id && !drill.unilateral && !below.unilateral ? [{ drill, below, id }] : [];
    })[0];
    if (!pair) throw new Error('no such pair of levels');
    const { drill, below, id } = pair;
    const easiest = Object.fromEntries(drill.setupVariables.map((v) => [v.id, v.steps[0] ?? v.default]));
    const own = item(drill.id, {
      sets: 1,
      amount: drill.dose.amount.min,
      measure: drill.dose.measure,
      setup: easiest,
    });
    const decided = (precautions: string[]) =>
      decideCase(
        bundledReference,
        caseOf({
          athlete: {
            precautions: precautions.map((one) => ({ id: one, until: null, clearance: null, ended: null })),
          },
          routine: { issued: '2027-01-01', mode: 'build', items: [own] },
          diary: [
            {
              date: '2027-02-10',
              provoked: [],
              entries: [entry(drill.id, { pain: 6, amounts: [own.amount] })],
            },
          ],
        }),
      ).decisions[0];
    expect(decided([])).toMatchObject({ decision: 'ease', next: { drill: below.id } });
    const shut = decided([id]);
    expect(shut).toMatchObject({ decision: 'ease', next: null });
    expect(shut?.reasons.map(({ rule }) => rule)).toContain('next-level-not-offered');
  });
});
