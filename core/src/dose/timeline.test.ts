import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Circuit, RoutineItem } from '../domain/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { item } from '../testing/cases.ts';
import { itemSeconds, routineSeconds, routineTime, routineTimeline, tempoSeconds } from './index.ts';
import { forAll } from '../testing/forAll.ts';

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

describe('paced circuits', () => {
  const twice = (circuit: Partial<Circuit>, over: Partial<RoutineItem> = {}) =>
    ['cat-camel', 'dead-bug'].map((id) =>
      item(id, { sets: 1, amount: 6, circuit: { id: 'a', rounds: 3, ...circuit }, ...over }),
    );
  const played = (items: RoutineItem[]) =>
    routineTimeline(bundledReference, items).map((s) => `${s.kind} ${s.item} ${s.seconds}`);

  it('by the clock: 3 rounds of two stations, 30 s on, 15 s off, are 6 × 30 + 5 × 15 s', () => {
    const items = twice({ pace: { by: 'clock', work: 30, rest: 15 } });
    expect(routineSeconds(bundledReference, items)).toBe(6 * 30 + 5 * 15);
    expect(played(items).slice(0, 3)).toEqual(['work 0 30', 'rest 1 15', 'work 1 30']);
    expect(routineTimeline(bundledReference, items)[0]?.amount).toBeNull();
  });
  it('a station of a drill done a side at a time halves its seconds between the sides', () => {
    const circuit = { id: 'a', rounds: 1, pace: { by: 'clock' as const, work: 45, rest: 0 } };
    const segments = routineTimeline(bundledReference, [item('knee-to-wall-rock', { circuit })]);
    expect(segments.map((s) => [s.side, s.seconds, s.otherWay])).toEqual([
      ['left', 22, false],
      ['right', 23, false],
    ]);
  });
  it('every minute: each start is 60 s after the one before, what is left is rest, and a long turn takes as long as it does', () => {
    const items = twice({ pace: { by: 'every', seconds: 60 } });
    expect(routineSeconds(bundledReference, items)).toBe(6 * 60);
    const starts = routineTimeline(bundledReference, items).filter((s) => s.kind === 'work');
    expect(starts.map((s) => s.start % 60)).toEqual([0, 0, 0, 0, 0, 0]);
    const long = twice({ pace: { by: 'every', seconds: 20 } }, { amount: 20 });
    expect(routineSeconds(bundledReference, long)).toBeGreaterThan(6 * 20);
  });
  it('a ladder grows by its step from round to round and rests between rounds instead of changing over', () => {
    const [only] = twice({ step: 2, restSeconds: 40 });
    const segments = routineTimeline(bundledReference, only ? [only] : []);
    expect(segments.filter((s) => s.kind === 'work').map((s) => s.amount)).toEqual([6, 8, 10]);
    expect(segments.filter((s) => s.kind === 'rest').map((s) => s.seconds)).toEqual([40, 40]);
    expect(segments.some((s) => s.kind === 'changeover')).toBe(false);
  });
});

describe('lines that are no drill', () => {
  it('a rest has no change-over beside it, own words have one, and words without time take none at all', () => {
    const drill = item('cat-camel', { sets: 1 });
    const alone = routineSeconds(bundledReference, [drill]);
    const words = item('own-words', { sets: 1, amount: 90, words: 'with the coach' });
    const rest = item('pause', { sets: 1, amount: 60 });
    const note = item('own-words', { sets: 1, amount: 0, words: 'ice if sore' });
    expect(routineSeconds(bundledReference, [drill, rest, drill])).toBe(2 * alone + 60);
    expect(routineSeconds(bundledReference, [drill, words])).toBe(alone + 10 + 90);
    expect(routineTimeline(bundledReference, [note, drill, note])).toHaveLength(
      routineTimeline(bundledReference, [drill]).length,
    );
  });
});

describe('a cadence', () => {
  it('says how long a repetition takes; a drill that is not counted keeps its time', () => {
    const rock = drillOf('knee-to-wall-rock');
    expect(itemSeconds(rock, item(rock.id, { side: 'left', sets: 1, amount: 10, cadence: 20 }))).toBe(
      10 + 30,
    );
    const hold = bundledReference.data.drills.find((d) => d.dose.measure === 'hold-seconds');
    const held = hold && itemSeconds(hold, item(hold.id, { cadence: 20 }));
    expect(held).toBe(hold && itemSeconds(hold, item(hold.id)));
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
    cadence: fc.constantFrom(undefined, undefined, 24),
  });
  const circuits = fc.record({
    rounds: fc.integer({ min: 1, max: 4 }),
    pace: fc.constantFrom(
      undefined,
      { by: 'clock' as const, work: 35, rest: 15 },
      { by: 'clock' as const, work: 20, rest: 0 },
      { by: 'every' as const, seconds: 60 },
    ),
    step: fc.constantFrom(undefined, -3, 2),
    restSeconds: fc.constantFrom(undefined, 0, 90),
  });
  const line = fc.constantFrom(
    item('pause', { amount: 60 }),
    item('own-words', { amount: 150, words: 'Traverse on big holds', ledBy: 'coach' }),
    item('own-words', { amount: 0, words: 'ice if sore' }),
  );
  const drills = fc
    .tuple(fc.array(dosed, { minLength: 1, maxLength: 10 }), circuits, circuits)
    .map(([list, a, b]) =>
      list.map((d): RoutineItem =>
        item(d.id, {
          side: d.side,
          sets: d.sets,
          amount: d.amount,
          restSeconds: d.rest,
          ...(d.bothWays ? { bothWays: true } : {}),
          ...(d.breaths ? { holdBreaths: d.breaths } : {}),
          ...(d.cadence ? { cadence: d.cadence } : {}),
          ...(d.circuit ? { circuit: { id: d.circuit, ...(d.circuit === 'a' ? a : b) } } : {}),
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
  const routine = fc
    .tuple(drills, fc.array(fc.tuple(fc.nat({ max: 10 }), line), { maxLength: 3 }))
    .map(([items, lines]) => lines.reduce((all, [at, own]) => all.toSpliced(at, 0, own), items));

  it('played second by second lasts exactly the seconds of the routine', () => {
    forAll(
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
      300,
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
