import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bundledReference } from '../reference/bundled.ts';
import { arbitraryCase } from '../testing/arbitraries.ts';
import { caseOf, stiffAnkle } from '../testing/cases.ts';
import { safetyState, YOUTH_AGE } from '../safety/index.ts';
import { BATTERY_SECONDS, offeredTests, proposeBattery } from './index.ts';
import type { Case } from '../domain/index.ts';
import { assessCase } from '../assess/index.ts';
import { forAll } from '../testing/forAll.ts';

const propose = (input: Case, minutes: number, done?: ReadonlySet<string>) =>
  proposeBattery(assessCase(bundledReference, input), minutes, done);
const testOf = (id: string) => {
  const test = bundledReference.tests.get(id);
  if (!test) throw new Error(id);
  return test;
};

describe('a proposed battery', () => {
  it('fits the minutes, holds no test twice, and only tests that may be done', () => {
    forAll(
      fc.property(arbitraryCase(true), fc.integer({ min: 2, max: 60 }), (input, minutes) => {
        const battery = propose(input, minutes);
        const ids = battery.tests.map((t) => t.test);
        expect(battery.totalSeconds).toBeLessThanOrEqual(minutes * 60);
        expect(new Set(ids).size).toBe(ids.length);
        const safety = safetyState(bundledReference, input.athlete, input.today);
        const offered = offeredTests(bundledReference, safety, YOUTH_AGE).map((t) => t.id);
        expect(offered).toEqual(expect.arrayContaining(ids));
        expect(ids.filter((id) => battery.leftOut.includes(id))).toEqual([]);
      }),
      60,
    );
  });

  it('offers nothing of a region that a sign blocks, nor under sixteen what is not meant for the young', () => {
    const offered = (athlete: Parameters<typeof caseOf>[0] = {}) => {
      const input = caseOf(athlete);
      return offeredTests(
        bundledReference,
        safetyState(bundledReference, input.athlete, input.today),
        YOUTH_AGE,
      );
    };
    const sign = { id: 'ankle-bone', answer: true, region: null, side: null, clearance: null };
    const blocking = bundledReference.data.redFlags.find(
      (one) => one.scope === 'ankle-foot' && one.blocks === 'regions',
    );
    const blocked = offered({ athlete: { redFlags: [{ ...sign, id: blocking?.id ?? '' }] } });
    expect(blocked.length).toBeGreaterThan(20);
    expect(blocked.filter((test) => test.region === 'ankle-foot')).toEqual([]);
    expect(offered().some((test) => test.region === 'ankle-foot')).toBe(true);
    expect(offered({ athlete: { birthDate: '2012-01-01' } }).every((test) => test.youthOk)).toBe(true);
    expect(offered().some((test) => !test.youthOk)).toBe(true);
    expect(offered().some((test) => test.derivedFrom)).toBe(false);
  });

  it('takes the time of its tests and of each change of position and kit', () => {
    const battery = propose(stiffAnkle(), 15);
    const own = battery.tests.reduce((sum, t) => sum + testOf(t.test).timeSeconds, 0);
    const { position, kit } = BATTERY_SECONDS;
    expect(battery.totalSeconds).toBe(own + battery.positionChanges * position + battery.kitChanges * kit);
    expect(battery.tests.length).toBeGreaterThan(2);
    const tests = battery.tests.map((t) => testOf(t.test));
    const changes = (of: (test: (typeof tests)[0]) => string) =>
      tests.filter((test, i) => i > 0 && of(test) !== of(tests[i - 1] ?? test)).length;
    expect(battery.positionChanges).toBe(changes((test) => test.position));
    expect(battery.kitChanges).toBe(changes((test) => test.equipment));
    expect(BATTERY_SECONDS).toEqual({ position: 20, kit: 20 });
  });

  it('visits each position once', () => {
    const positions = propose(
      caseOf({ athlete: { tasks: [{ id: 'climbing-high-step', lead: 'left' }] } }),
      45,
    ).tests.map((t) => testOf(t.test).position);
    const blocks = positions.filter((p, i) => p !== positions[i - 1]);
    expect(new Set(blocks).size).toBe(blocks.length);
  });

  it('asks first for what the tasks ask; nothing is asked again in the same visit', () => {
    const fresh = caseOf({ athlete: { tasks: [{ id: 'fell-running-descent', lead: 'either' }] } });
    const asked = bundledReference.demands.get('fell-running-descent')?.demands.map((d) => d.test) ?? [];
    const first = propose(fresh, 10);
    expect(first.tests.every((t) => asked.includes(t.test))).toBe(true);
    const done = new Set(first.tests.map((t) => t.test));
    expect(propose(fresh, 10, done).tests.filter((t) => done.has(t.test))).toEqual([]);
  });

  it('leaves out a test whose answer is clear, until time has made it open again', () => {
    const reps = {
      date: '2027-02-27',
      results: [
        { test: 'heel-raise-reps', side: 'left' as const, trials: [36] },
        { test: 'heel-raise-reps', side: 'right' as const, trials: [36] },
      ],
    };
    const input = stiffAnkle({ screenings: [reps] });
    const holds = (today: string) =>
      propose({ ...input, today }, 60).tests.some((t) => t.test === 'heel-raise-reps');
    expect(holds('2027-03-01')).toBe(false);
    expect(holds('2030-03-01')).toBe(true);
  });
});
