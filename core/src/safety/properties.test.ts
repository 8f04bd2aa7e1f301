import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Athlete, Case } from '../domain/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { arbitraryCase } from '../testing/arbitraries.ts';
import { drillSafety, isBlocked, openBlocks, routineSafetyFaults, safetyState } from './index.ts';
import { forAll } from '../testing/forAll.ts';

const drills = bundledReference.data.drills;
const stateOf = (input: Case, over: Partial<Athlete> = {}) =>
  safetyState(bundledReference, { ...input.athlete, ...over }, input.today);
const openDrills = (input: Case, over: Partial<Athlete> = {}) => {
  const state = stateOf(input, over);
  const open = new Map<string, number>();
  for (const drill of drills) {
    const { forbidden, sides } = drillSafety(bundledReference, drill, state);
    open.set(drill.id, forbidden.length > 0 ? 0 : Number(sides.left) + Number(sides.right));
  }
  return open;
};

/** No drill is open on more sides in `after` than in `before`. */
function neverWider(before: Map<string, number>, after: Map<string, number>): void {
  const wider = drills.filter((d) => (after.get(d.id) ?? 0) > (before.get(d.id) ?? 0)).map((d) => d.id);
  expect(wider).toEqual([]);
}

const precaution = fc.constantFrom(...bundledReference.data.precautions.map((p) => p.id));
const sign = fc.constantFrom(...bundledReference.data.redFlags.map((f) => f.id));
const anyCase = arbitraryCase(true);

describe('what is known about an athlete only ever narrows what is offered', () => {
  it('one more precaution opens no drill', () => {
    forAll(
      fc.property(anyCase, precaution, (input, id) => {
        const more = [...input.athlete.precautions, { id, until: null, clearance: null, ended: null }];
        neverWider(openDrills(input), openDrills(input, { precautions: more }));
      }),
    );
  });

  it('one more stop-and-refer sign opens no drill and lifts no block', () => {
    forAll(
      fc.property(anyCase, sign, (input, id) => {
        const more = [
          ...input.athlete.redFlags,
          { id, answer: true, region: null, side: null, clearance: null },
        ];
        neverWider(openDrills(input), openDrills(input, { redFlags: more }));
        const was = openBlocks(bundledReference, input.athlete, input.today).map((b) => b.redFlag);
        const is = openBlocks(bundledReference, { ...input.athlete, redFlags: more }, input.today);
        expect(is.map((b) => b.redFlag)).toEqual(expect.arrayContaining(was));
      }),
    );
  });

  it('a recent operation opens no drill', () => {
    forAll(
      fc.property(anyCase, fc.constantFrom('left' as const, 'right' as const), (input, side) => {
        const more = [
          ...input.athlete.injuries,
          { region: 'knee' as const, side, date: '2026-12-20', operated: true },
        ];
        neverWider(openDrills(input), openDrills(input, { injuries: more as Athlete['injuries'] }));
      }),
    );
  });
});

describe('the check before issuing', () => {
  it('agrees with what is offered: a fault for every closed drill, and none for one open on both sides', () => {
    forAll(
      fc.property(anyCase, (input) => {
        const open = openDrills(input);
        const items = drills.map((drill) => ({ drill: drill.id, side: 'both' as const }));
        const faults = routineSafetyFaults(bundledReference, items, input.athlete, input.today);
        const faulty = new Set(faults.map((f) => f.drill));
        for (const drill of drills) {
          if (open.get(drill.id) === 0) expect(faulty).toContain(drill.id);
          if (open.get(drill.id) === 2) expect(faulty).not.toContain(drill.id);
        }
      }),
      40,
    );
  });

  it('leaves nothing of a blocked region', () => {
    forAll(
      fc.property(
        anyCase,
        sign,
        fc.constantFrom(...bundledReference.data.regions),
        (input, id, { id: region }) => {
          const redFlags = [{ id, answer: true, region, side: null, clearance: null }];
          const blocks = openBlocks(bundledReference, { ...input.athlete, redFlags }, input.today);
          fc.pre(isBlocked(blocks, region));
          const open = openDrills(input, { redFlags });
          const left = drills.filter((d) => d.regions.primary.includes(region) && (open.get(d.id) ?? 0) > 0);
          expect(left.map((d) => d.id)).toEqual([]);
        },
      ),
    );
  });
});
