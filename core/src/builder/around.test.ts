import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { routineSeconds } from '../dose/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { routineSafetyFaults } from '../safety/index.ts';
import { arbitraryCase } from '../testing/arbitraries.ts';
import { item, stiffAnkle } from '../testing/cases.ts';
import { prepareCase, preparedOf } from '../testing/prepared.ts';
import { testSolver } from '../testing/solver.ts';
import { benefitOf, completeAround, nearestAllowed, sideBySide } from './index.ts';
import { forAll } from '../testing/forAll.ts';
import { eachOf } from '../testing/eachOf.ts';

const solver = await testSolver();
const words = item('own-words', { sets: 1, amount: 120, measure: 'seconds', words: 'with the coach' });

describe('completing a routine', () => {
  const prepared = preparedOf(stiffAnkle({ request: { minutes: 12, kit: ['wall', 'step'] } as never }));
  const fixed = [words, item('cat-camel', { sets: 1 })];

  it('keeps what stands, in its order, fills the time that is left and says what came in', () => {
    const { items, added } = completeAround(prepared, fixed, solver);
    expect(items.filter((own) => fixed.includes(own))).toEqual(fixed);
    expect(added.length).toBeGreaterThan(2);
    expect(items).toHaveLength(fixed.length + added.length);
    const seconds = routineSeconds(bundledReference, items);
    expect(seconds).toBeLessThanOrEqual(12 * 60);
    expect(seconds).toBeGreaterThan(0.75 * 12 * 60);
    expect(benefitOf(prepared, items)).toBeGreaterThan(benefitOf(prepared, fixed));
  });
  it('adds nothing where no time is left', () => {
    const full = item('own-words', { sets: 1, amount: 719, measure: 'seconds', words: 'match' });
    expect(completeAround(prepared, [full], solver)).toEqual({ items: [full], added: [] });
  });
  it('never tears a circuit apart', () => {
    const circuit = { id: 'a', rounds: 2 };
    const round = [item('cat-camel', { sets: 1, circuit }), item('dead-bug', { sets: 1, circuit })];
    const { items } = completeAround(prepared, round, solver);
    const first = items.findIndex((own) => own.circuit);
    expect(items[first + 1]?.circuit).toEqual(circuit);
  });
  it('whatever stands, what comes in is allowed and the time is kept', () => {
    const drills = bundledReference.data.drills.map(({ id }) => id);
    forAll(
      fc.property(arbitraryCase(true), fc.subarray(drills, { maxLength: 4 }), (input, chosen) => {
        const own = prepareCase(bundledReference, input);
        const stands = chosen.map((id) => item(id, { sets: 1, amount: 5 }));
        const { items, added } = completeAround(own, stands, solver);
        const came = items.filter((one) => !stands.includes(one));
        expect(came).toHaveLength(added.length);
        const faults = routineSafetyFaults(
          bundledReference,
          came,
          input.athlete,
          input.today,
          own.safety.dayRules,
        );
        expect(faults.filter(({ rule, index }) => index !== null && rule !== 'not-asked')).toEqual([]);
        if (added.length > 0)
          expect(routineSeconds(bundledReference, items)).toBeLessThanOrEqual(own.problem.seconds);
      }),
      15,
    );
  }, 60_000);
});

describe('side by side with what would be built', () => {
  it('names each finding with the places of the drills that answer it, and the benefit of both', () => {
    const prepared = preparedOf(stiffAnkle());
    const own = [item('knee-to-wall-rock', { side: 'left' })];
    const { findings, own: mine, built } = sideBySide(prepared, own, [...own, item('cat-camel')]);
    const ankle = findings.find((f) => f.restriction === 'ankle-dorsiflexion-limit' && f.side === 'left');
    expect(ankle).toMatchObject({ own: [0], built: [0] });
    expect(built?.benefit).toBeGreaterThanOrEqual(mine.benefit);
    expect(sideBySide(prepared, own, null).built).toBeNull();
  });
});

describe('the nearest allowed', () => {
  it('is an easier rung of the ladder where one is open, and never what safety keeps out', () => {
    const input = stiffAnkle({ athlete: { precautions: [{ id: 'no-impact' }] } as never });
    const prepared = preparedOf(input);
    for (const drill of eachOf(
      bundledReference.data.drills.filter(({ loadClass }) => loadClass === 'impact'),
    )) {
      const near = nearestAllowed(prepared, item(drill.id, { measure: drill.dose.measure }));
      if (!near) continue;
      const faults = routineSafetyFaults(bundledReference, [near], input.athlete, input.today);
      expect(
        faults.filter(({ rule, index }) => index !== null && rule !== 'not-asked'),
        near.drill,
      ).toEqual([]);
    }
    expect(nearestAllowed(prepared, item('pogo-hops', {}))?.drill ?? 'none').not.toBe('pogo-hops');
  });
});
