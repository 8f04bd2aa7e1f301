import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { assessCase } from '../assess/index.ts';
import { prepareBuild } from '../builder/index.ts';
import type { Case, CheckIn, RoutineItem } from '../domain/index.ts';
import { loadsOnce, routineSeconds } from '../dose/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { routineSafetyFaults } from '../safety/index.ts';
import { checkInSchema } from '../schemas/index.ts';
import { arbitraryCase } from '../testing/arbitraries.ts';
import { caseOf, item, TODAY } from '../testing/cases.ts';
import { buildCase } from '../testing/prepared.ts';
import { testSolver } from '../testing/solver.ts';
import { reasonText } from '../words/index.ts';
import { todaysCopy } from './index.ts';
import { forAll } from '../testing/forAll.ts';
import { eachOf } from '../testing/eachOf.ts';

const solver = await testSolver();
const named = (items: RoutineItem[]) => items.map((one, i) => ({ ...one, id: `line-${i}` }));
const walk = item('brisk-walk-build', { measure: 'seconds', sets: 1, amount: 150, restSeconds: 0 });
const hops = item('pogo-hop', { measure: 'contacts', sets: 2, amount: 20 });
const ROUTINE = named([
  walk,
  item('cat-camel', { sets: 2 }),
  item('single-leg-heel-raise', { sets: 3, amount: 12 }),
  hops,
]);

/** Today's copy of a routine for somebody who says something before it. */
function copyOf(said: Partial<CheckIn>, over: object = {}, undone: string[] = [], items = ROUTINE) {
  const checkIn = checkInSchema.parse({ date: TODAY, ...said });
  const input = caseOf({ ...over, checkIns: [checkIn] } as never);
  const prepared = prepareBuild(assessCase(bundledReference, input), input.request);
  return todaysCopy(prepared, items, checkIn, new Set(undone));
}
const kinds = (copy: ReturnType<typeof copyOf>) =>
  copy.changes.map(({ kind, because }) => `${kind}: ${because.rule}`);

describe('today’s copy', () => {
  it('is the routine as issued when nothing is said', () => {
    const { items, changes, out } = copyOf({});
    expect(items).toEqual(ROUTINE);
    expect([changes.length, out.size]).toEqual([0, 0]);
  });
  it('a heel at 4: hops are out, calf work is eased to two sets, and that is not put back by a press', () => {
    const heel = { region: 'ankle-foot', side: 'left', aspect: 'back', feel: 'ache', nrs: 4 } as const;
    const copy = copyOf({ sore: [heel] }, {}, ['out/line-3', 'eased/line-2']);
    expect(copy.out.has('line-3')).toBe(true);
    expect(copy.items.find(({ id }) => id === 'line-2')?.sets ?? 0).toBeLessThanOrEqual(2);
    expect(copy.changes.filter(({ kind }) => kind === 'out').every(({ firm }) => firm)).toBe(true);
  });
  it('tense: a quiet start of a minute, put back by its name', () => {
    const copy = copyOf({ tension: 'tense' });
    expect(copy.items[0]).toMatchObject({ drill: 'seated-breathing-reset', amount: 60 });
    expect(kinds(copy)).toEqual(['added: calm-start']);
    expect(copyOf({ tension: 'tense' }, {}, ['calm-start']).items).toEqual(ROUTINE);
  });
  it('slept badly: warming 45 s longer; warm a quarter of an hour ago: half of it', () => {
    expect(copyOf({ slept: 'badly' }).items[0]?.amount).toBe(195);
    expect(copyOf({ slept: 'badly', warmMinutesAgo: 15 }).items[0]?.amount).toBe(75);
    expect(copyOf({ warmMinutesAgo: 45 }).items).toEqual(ROUTINE);
    const by = (option: string) =>
      copyOf({ warmMinutesAgo: 15 }, { schools: { 'still-warm': option } }).items[0]?.amount;
    expect([by('half'), by('quarter'), by('whole')]).toEqual([75, 40, 150]);
  });
  it('five minutes: fits them, warming and what serves a finding last', () => {
    const copy = copyOf({ minutes: 5 });
    expect(copy.seconds).toBeLessThanOrEqual(300);
    expect(copy.out.has('line-0')).toBe(false);
    expect(copy.changes.reduce((sum, { seconds }) => sum + seconds, 0)).toBe(
      copy.seconds - routineSeconds(bundledReference, ROUTINE),
    );
  });
  it('a minute less takes sets one by one, from where most are, and no drill', () => {
    const minutes = Math.floor(routineSeconds(bundledReference, ROUTINE) / 60);
    const setsIn = (copy: ReturnType<typeof copyOf>) => copy.items.map(({ sets }) => sets);
    const first = copyOf({ minutes });
    expect(first.out.size).toBe(0);
    expect(setsIn(first)[2]).toBe(2);
    for (const fewer of eachOf([1, 2, 3])) {
      const copy = copyOf({ minutes: minutes - fewer });
      expect(copy.seconds).toBeLessThanOrEqual((minutes - fewer) * 60);
      // No drill goes while any of the others has a set to give.
      if (copy.out.size > 0) expect(Math.max(...setsIn(copy))).toBe(1);
    }
  });
  it('half the time: warming and a rehearsal stay, in their order, and nothing goes for nothing', () => {
    for (const task of eachOf(['uphill-running', 'sprint', 'cut-side-step', 'kayak-bow-draw'])) {
      const request = { mode: 'prepare', minutes: 14, kit: ['wall', 'dowel', 'long-band'] };
      const input = caseOf({ athlete: { tasks: [{ id: task }] }, request } as never);
      const built = buildCase(bundledReference, input, solver).routine?.items ?? [];
      const items = named(built.map(({ reasons: _reasons, ...one }) => one as unknown as RoutineItem));
      const copy = copyOf({ minutes: 7 }, { athlete: input.athlete, request }, [], items);
      const left = copy.items.filter(({ id }) => !copy.out.has(id));
      expect(copy.seconds, task).toBeLessThanOrEqual(420);
      expect(left.map(({ id }) => id)).toEqual(items.map(({ id }) => id).filter((id) => !copy.out.has(id)));
      const drills = left.map(({ drill }) => bundledReference.drills.get(drill));
      expect(
        drills.some((d) => d?.category === 'raise'),
        task,
      ).toBe(true);
      expect(
        drills.some((d) => d && bundledReference.ladders.get(d.ladder)?.rehearsal),
        task,
      ).toBe(true);
      for (const { seconds } of eachOf(copy.changes)) expect(seconds).toBeLessThan(0);
      const several = left.filter(({ sets, perSide }) => sets > 1 && !perSide);
      if (copy.out.size > 0) expect(several, task).toEqual([]);
    }
  });
  it('half the time: what hurts keeps the gentle drill that comes before everything else of it', () => {
    const pains = [
      {
        region: 'ankle-foot',
        side: 'left',
        aspect: 'back',
        feel: 'ache',
        when: 'movement',
        nrs: 4,
        since: '2027-02-20',
      },
    ];
    const items = named([
      walk,
      item('double-leg-heel-raise', { sets: 1, amount: 12 }),
      ...['cat-camel', 'glute-bridge', 'wall-plank-hold', 'single-leg-balance'].map((id) =>
        item(id, { sets: 1 }),
      ),
    ]);
    const standing = (minutes: number | null) => {
      const copy = copyOf({ minutes }, { athlete: { pains } }, [], items);
      if (minutes !== null) expect(copy.seconds).toBeLessThanOrEqual(minutes * 60);
      return copy.items.filter(({ id }) => !copy.out.has(id));
    };
    const lead = standing(null)[1]?.drill ?? '';
    expect(bundledReference.drills.get(lead)?.regions.primary).toContain('ankle-foot');
    for (const minutes of eachOf([5, 4])) expect(standing(minutes).map(({ drill }) => drill)).toContain(lead);
    // What is kept to the end is warming, by less time before not at all.
    expect(standing(3).map(({ drill }) => drill)).toEqual([walk.drill, lead]);
    expect(standing(3)[0]?.amount).toBeLessThan(150);
  });
  it('no room to run: what needs a lane is swapped or out', () => {
    const running = bundledReference.data.drills.find(
      (d) => d.space === 'lane' && d.dose.measure === 'seconds',
    );
    const jog = named([
      item(running?.id ?? '', { measure: 'seconds', sets: 1, amount: 120 }),
      item('cat-camel'),
    ]);
    const lanes = jog.filter(({ drill }) => bundledReference.drills.get(drill)?.space === 'lane');
    const copy = copyOf({ space: 'mat' }, {}, [], jog);
    for (const { id } of eachOf(lanes)) {
      const now = copy.items.find((one) => one.id === id);
      expect(copy.out.has(id) || bundledReference.drills.get(now?.drill ?? '')?.space !== 'lane').toBe(true);
    }
  });
});

const sore = fc.record({
  region: fc.constantFrom(...bundledReference.data.regions.filter((r) => r.joint).map((r) => r.id)),
  side: fc.constantFrom('left' as const, 'right' as const),
  feel: fc.constantFrom('ache' as const, 'pinch' as const),
  nrs: fc.integer({ min: 0, max: 10 }),
});
const checkIn = fc.record({
  slept: fc.constantFrom(null, 'badly' as const, 'so-so' as const),
  tension: fc.constantFrom(null, 'very-tense' as const),
  minutes: fc.option(fc.integer({ min: 3, max: 30 }), { nil: null }),
  space: fc.constantFrom(null, 'mat' as const, 'lane' as const),
  warmMinutesAgo: fc.constantFrom(null, 10, 90),
  sore: fc.uniqueArray(sore, { maxLength: 2, selector: ({ region }) => region }),
});
const drills = bundledReference.data.drills;

describe('whatever is said before a session', () => {
  it('adds no load to a region that hurts, does nothing the day forbids, takes what it says, and can be put back', () => {
    const routine = fc
      .array(
        fc.tuple(
          fc.nat({ max: drills.length - 1 }),
          fc.integer({ min: 1, max: 4 }),
          fc.integer({ min: 1, max: 20 }),
        ),
        { minLength: 1, maxLength: 7 },
      )
      .map((list) =>
        named(
          list.map(([at, sets, amount]) => {
            const drill = drills[at];
            return item(drill?.id ?? '', { sets, amount, measure: drill?.dose.measure ?? 'reps' });
          }),
        ),
      );
    forAll(
      fc.property(arbitraryCase(true), checkIn, routine, (base, said, items) => {
        const one = checkInSchema.parse({ date: base.today, ...said });
        const input: Case = { ...base, checkIns: [one] };
        const prepared = prepareBuild(assessCase(bundledReference, input), input.request);
        const copy = todaysCopy(prepared, items, one);
        const done = copy.items.filter(({ id }) => !copy.out.has(id));
        const before = loadsOnce(bundledReference, items);
        const after = loadsOnce(bundledReference, done);
        for (const { region, nrs } of said.sore)
          if (nrs > 0) expect(after.get(region) ?? 0).toBeLessThanOrEqual((before.get(region) ?? 0) + 1e-9);
        const faults = routineSafetyFaults(
          bundledReference,
          done,
          input.athlete,
          input.today,
          prepared.safety.dayRules,
        );
        expect(faults.filter(({ index, rule }) => index !== null && rule !== 'not-asked')).toEqual([]);
        expect(copy.seconds).toBe(routineSeconds(bundledReference, done));
        for (const { because } of copy.changes)
          expect(reasonText(bundledReference, because)).not.toMatch(/undefined|NaN|null/);
        // What was put back does not come again; what safety keeps out does.
        const undone = new Set(copy.changes.map(({ id }) => id));
        const back = todaysCopy(prepared, items, one, undone);
        expect(back.changes.filter(({ id, firm }) => undone.has(id) && !firm)).toEqual([]);
      }),
      30,
    );
  }, 120_000);
});
