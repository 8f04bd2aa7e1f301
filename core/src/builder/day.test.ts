import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Case } from '../domain/index.ts';
import { bundledData, bundledReference } from '../reference/bundled.ts';
import { createReference } from '../reference/index.ts';
import type { Reference, ReferenceData } from '../reference/index.ts';
import { caseOf } from '../testing/cases.ts';
import { forAll } from '../testing/forAll.ts';
import { buildCase, prepareCase } from '../testing/prepared.ts';
import { testSolver } from '../testing/solver.ts';
import { elementsAsked } from './index.ts';

const solver = await testSolver();
const { demands, patterns, readiness, restrictions, ladders } = bundledReference.data;
const TASKS = demands.map(({ id }) => id);
const REGIONS = readiness.joints.map(({ region }) => region);
const RANGES = restrictions.filter(({ kind }) => kind === 'range-limit').map(({ id }) => id);
const KIT = ['wall', 'mat', 'long-band', 'step'];

/** A trained adult before these tasks, with whatever else a day brings. */
function dayOf(tasks: readonly string[], minutes: number, athlete: object = {}, rest: object = {}): Case {
  const request = { mode: 'prepare', minutes, kit: KIT };
  const own = { trainingYears: 4, tasks: tasks.map((id) => ({ id })), ...athlete };
  return caseOf({ athlete: own, request, ...rest } as never);
}

/** Parts of what the actions ask for that the routine of a case answers. */
function partsOf(input: Case): Set<string | undefined> {
  const { routine } = buildCase(bundledReference, input, solver);
  const asked = elementsAsked(prepareCase(bundledReference, input), routine?.items ?? []);
  return new Set(
    asked
      .filter(({ of, by }) => of === 'action' && by.length > 0)
      .map(({ element }) => bundledReference.elements.get(element)?.part),
  );
}

/** A limit of range that a practitioner saw, on its left where it has sides. */
const seen = (restriction: string) => ({
  restriction,
  side: bundledReference.restrictions.get(restriction)?.laterality === 'central' ? 'central' : 'left',
  verdict: 'seen',
  degree: 'clear',
  by: 'R. Halloran',
  date: '2027-02-27',
});

describe('whatever else a day brings', () => {
  const drawn = fc.record({
    task: fc.constantFrom(...TASKS),
    other: fc.constantFrom(...TASKS),
    region: fc.constantFrom(...REGIONS),
    found: fc.constantFrom(...RANGES),
    minutes: fc.constantFrom(6, 8, 12),
  });
  it('one more task, an injury, a finding, kit, exposure or minutes takes neither warming nor rehearsing away', () => {
    forAll(
      fc.property(drawn, ({ task, other, region, found, minutes }) => {
        const plain = partsOf(dayOf([task], minutes));
        const side = region === 'lumbopelvic' || region === 'thoracic' ? 'central' : 'left';
        const action = patterns.find(({ tasks }) => tasks.includes(task))?.id;
        const kit = [...KIT, 'ball', 'mini-band', 'pull-up-bar'];
        const days = {
          task: dayOf([task, other], minutes),
          injury: dayOf([task], minutes, { injuries: [{ region, side, date: '2025-11-01' }] }),
          finding: dayOf([task], minutes, {}, { judgements: [seen(found)] }),
          kit: dayOf([task], minutes, {}, { request: { mode: 'prepare', minutes, kit } }),
          exposure: dayOf([task], minutes, { exposure: [{ action, perWeek: 4, effort: 'hard' }] }),
          minutes: dayOf([task], minutes + 4),
        };
        expect(plain).toContain('warm');
        for (const [what, day] of Object.entries(days)) {
          const parts = partsOf(day);
          for (const part of ['warm', 'rehearse'])
            if (plain.has(part)) expect(parts.has(part), `${what}: ${part}`).toBe(true);
        }
      }),
      2,
    );
  });
  it('who has enough of everything is given no shorter session than who was never screened', () => {
    const enough = (regions: readonly string[]) =>
      bundledReference.data.tests
        .filter(({ region, derivedFrom }) => regions.includes(region) && !derivedFrom)
        .flatMap((test) => {
          const best = test.better === 'lower' ? test.reference.low : test.reference.high;
          const sides = test.sides === 'central' ? ['central'] : ['left', 'right'];
          return sides.map((side) => ({ test: test.id, side, trials: [best] }));
        });
    forAll(
      fc.property(
        fc.constantFrom(...TASKS),
        fc.subarray(REGIONS, { minLength: 1, maxLength: 2 }),
        fc.constantFrom('prepare', 'restore'),
        (task, regions, mode) => {
          const request = { mode, minutes: 12, kit: KIT };
          const seconds = (rest: object) =>
            buildCase(bundledReference, dayOf([task], 12, {}, { request, ...rest }), solver).routine
              ?.totalSeconds ?? 0;
          const screened = seconds({ screenings: [{ date: '2027-02-25', results: enough(regions) }] });
          expect(screened).toBeGreaterThanOrEqual(Math.min(seconds({}), 0.85 * 720));
        },
      ),
      6,
    );
  });
  it('another order of tasks changes who leads, never what is rehearsed where there is time', () => {
    forAll(
      fc.property(fc.uniqueArray(fc.constantFrom(...TASKS), { minLength: 2, maxLength: 2 }), (tasks) => {
        const rehearsed = (order: readonly string[]) =>
          prepareCase(bundledReference, dayOf(order, 20))
            .rules.elements.filter(({ element }) => element.part === 'rehearse')
            .map(({ element }) => element.need);
        const [there, back] = [rehearsed(tasks), rehearsed([...tasks].reverse())];
        expect([...there].sort()).toEqual([...back].sort());
        expect(there.length).toBeGreaterThan(0);
      }),
      15,
    );
  });
  it('the name of a ladder says nothing: under another the same drills are chosen', () => {
    forAll(
      fc.property(
        fc.constantFrom(...ladders.map(({ id }) => id)),
        fc.constantFrom(...TASKS),
        (ladder, task) => {
          const text = JSON.stringify(bundledData).replaceAll(`"${ladder}"`, `"z-${ladder}"`);
          const renamed = createReference(JSON.parse(text) as ReferenceData);
          const drills = (reference: Reference) =>
            buildCase(reference, dayOf([task], 8), solver).routine?.items.map(({ drill }) => drill);
          expect(drills(renamed)).toEqual(drills(bundledReference));
        },
      ),
      4,
    );
  });
});
