import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { RoutineItem } from '../domain/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { item } from '../testing/cases.ts';
import { itemSeconds, routineSeconds, routineTime, routineTimeline, tempoSeconds } from './index.ts';

const drillOf = (id: string) => {
  const drill = bundledReference.drills.get(id);
  if (!drill) throw new Error(`no drill ${id}`);
  return drill;
};

describe('seconds of a drill', () => {
  it('knee-to-wall rock, 2 × 10 each side: 10 + 160 + 2 × 5 switch + 10 rest = 190 s', () => {
    expect(itemSeconds(drillOf('knee-to-wall-rock'), item('knee-to-wall-rock'))).toBe(190);
  });
  it('one side only counts one side and no switch: 10 + 80 + 10 = 100 s', () => {
    expect(itemSeconds(drillOf('knee-to-wall-rock'), item('knee-to-wall-rock', { side: 'left' }))).toBe(100);
  });
  it('an extra set on the weak side: left 3 × 10, right 2 × 10', () => {
    const uneven = item('knee-to-wall-rock', {
      perSide: { left: { sets: 3, amount: 10 }, right: { sets: 2, amount: 10 } },
    });
    expect(itemSeconds(drillOf('knee-to-wall-rock'), uneven)).toBe(10 + 50 * 4 + 2 * 5 + 2 * 10);
  });
  it('a longer hold adds its difference to every repetition', () => {
    const drill = drillOf('short-foot-seated');
    const usual = item(drill.id, { sets: 1, amount: 10, holdSeconds: 5 });
    const longer = itemSeconds(drill, { ...usual, holdSeconds: 8 }) - itemSeconds(drill, usual);
    expect(longer).toBe(10 * 3);
  });
});

describe('both ways round, breaths and circuits', () => {
  it('ten circles each way are twenty', () => {
    const drill = drillOf('wrist-circles');
    const once = item(drill.id, { sets: 1, amount: 10 });
    expect(itemSeconds(drill, { ...once, bothWays: true }) - itemSeconds(drill, once)).toBe(
      10 * drill.dose.secondsPerRep * (drill.unilateral ? 2 : 1),
    );
  });
  it('a hold of three breaths is twelve seconds', () => {
    const drill = drillOf('short-foot-seated');
    const usual = item(drill.id, { sets: 1, amount: 10, holdSeconds: 5 });
    expect(itemSeconds(drill, { ...usual, holdBreaths: 3 }) - itemSeconds(drill, usual)).toBe(10 * (12 - 5));
  });
  it('two rounds of two drills: each set up once, changed over between every visit, sets counted on', () => {
    const circuit = { id: 'a', rounds: 2 };
    const items = [
      item('cat-camel', { sets: 1, circuit }),
      item('dead-bug', { sets: 1, circuit }),
      item('knee-to-wall-rock', { side: 'left', sets: 1 }),
    ];
    const segments = routineTimeline(bundledReference, items);
    expect(segments.filter((s) => s.kind === 'work').map((s) => `${s.item}:${s.set}/${s.sets}`)).toEqual([
      '0:1/2',
      '1:1/2',
      '0:2/2',
      '1:2/2',
      '2:1/1',
    ]);
    expect(segments.filter((s) => s.kind === 'setup').map((s) => s.item)).toEqual([0, 1, 2]);
    const { items: perItem, changes, between, total } = routineTime(bundledReference, items);
    // To the first once, to the second twice: a circuit changes over in every round.
    expect(changes.map((seconds) => seconds > 0)).toEqual([true, true, true]);
    expect(changes.reduce((a, b) => a + b, 0)).toBe(between);
    expect([changes[0], changes[1]]).toEqual([10, 20]);
    expect(between).toBe(4 * 10 + 10);
    expect(total).toBe(between + perItem.reduce((a, b) => a + b, 0));
  });
});

describe('a tempo', () => {
  it.each([
    ['3-1-1', 5],
    ['2.5-1', 3.5],
    ['slow', null],
    ['3', null],
    [null, null],
  ])('%s takes %s s a repetition', (tempo, seconds) => {
    expect(tempoSeconds(tempo)).toBe(seconds);
  });
});

describe('the timeline', () => {
  const ids = bundledReference.data.drills.map((drill) => drill.id);
  const dosed = fc.record({
    id: fc.constantFrom(...ids),
    side: fc.constantFrom('left' as const, 'right' as const, 'both' as const),
    sets: fc.integer({ min: 1, max: 4 }),
    amount: fc.integer({ min: 1, max: 40 }),
    rest: fc.constantFrom(0, 10, 45),
    extra: fc.boolean(),
    bothWays: fc.boolean(),
    breaths: fc.option(fc.integer({ min: 1, max: 5 }), { nil: undefined }),
    circuit: fc.constantFrom(undefined, 'a', 'b'),
  });
  const routine = fc.uniqueArray(dosed, { minLength: 1, maxLength: 10, selector: (d) => d.id }).map((list) =>
    list.map((d): RoutineItem =>
      item(d.id, {
        side: d.side,
        sets: d.sets,
        amount: d.amount,
        restSeconds: d.rest,
        ...(d.bothWays ? { bothWays: true } : {}),
        ...(d.breaths ? { holdBreaths: d.breaths } : {}),
        ...(d.circuit ? { circuit: { id: d.circuit, rounds: 3 } } : {}),
        ...(d.extra && d.side === 'both'
          ? {
              perSide: {
                left: { sets: d.sets, amount: d.amount },
                right: { sets: d.sets + 1, amount: d.amount },
              },
            }
          : {}),
      }),
    ),
  );

  it('played second by second lasts exactly the seconds of the routine', () => {
    fc.assert(
      fc.property(routine, (items) => {
        const segments = routineTimeline(bundledReference, items);
        // A clock that ticks in thousandths, knowing nothing of the formula.
        let clock = 0;
        for (const segment of segments) {
          expect(segment.start).toBeCloseTo(clock / 1000, 6);
          clock += Math.round(segment.seconds * 1000);
        }
        expect(clock / 1000).toBeCloseTo(routineSeconds(bundledReference, items), 6);
      }),
      { numRuns: 300 },
    );
  });

  it('only work is done the other way round', () => {
    const items = [
      item('ankle-circles', { side: 'both', sets: 2, bothWays: true }),
      item('cat-camel', { bothWays: true }),
    ];
    const around = routineTimeline(bundledReference, items).filter((s) => s.otherWay);
    expect(around.length).toBeGreaterThan(0);
    expect(new Set(around.map((s) => s.kind))).toEqual(new Set(['work']));
  });
  it('does every set of every side once, with a switch between sides and rest between sets', () => {
    const segments = routineTimeline(bundledReference, [
      item('knee-to-wall-rock'),
      item('cat-camel', { sets: 1 }),
    ]);
    expect(segments.map((s) => `${s.kind}${s.set ?? ''}${s.kind === 'work' ? s.side : ''}`)).toEqual([
      'setup',
      'work1left',
      'switch1',
      'work1right',
      'rest1',
      'work2left',
      'switch2',
      'work2right',
      'changeover',
      'floor-change',
      'setup',
      'work1both',
    ]);
  });
});
