import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bundledReference } from '../reference/bundled.ts';
import type { IdentifiedItem } from '../routine/index.ts';
import { item } from '../testing/cases.ts';
import { sessionEventSchema } from './schema.ts';
import { inOrder, reduceSession } from './index.ts';
import type { Happening, SessionEvent } from './index.ts';
import { forAll } from '../testing/forAll.ts';
import { eachOf } from '../testing/eachOf.ts';

const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const ROCK = uuid(901);
const CAMEL = uuid(902);
const ROUTINE: IdentifiedItem[] = [
  { ...item('knee-to-wall-rock', { amount: 8 }), id: ROCK },
  { ...item('cat-camel', { sets: 1, amount: 8 }), id: CAMEL },
];
const SEGMENTS = reduceSession(bundledReference, ROUTINE, []).segments;
const works = SEGMENTS.flatMap((s, segment) => (s.kind === 'work' ? [{ ...s, segment }] : []));

/** Stamps what happened one second after the other on a device. */
function told(happenings: readonly Happening[], device = 'tablet', from = 0): SessionEvent[] {
  return happenings.map((happening, i) => ({
    ...happening,
    id: uuid(from + i + 1),
    device,
    seq: i,
    at: new Date(Date.UTC(2027, 2, 1, 9, 0, from + i)).toISOString(),
  }));
}
const reached = ({ segment, item: index, set, side, amount }: (typeof works)[number]): Happening => ({
  type: 'reached',
  item: ROUTINE[index]?.id ?? '',
  segment,
  set: set ?? 1,
  side,
  amount: amount ?? 0,
});
const state = (events: readonly SessionEvent[]) => reduceSession(bundledReference, ROUTINE, events);
const WHOLE: Happening[] = [{ type: 'started' }, ...works.map(reached), { type: 'finished' }];

describe('a session from its events', () => {
  it('everything reached is all, with each set’s amount', () => {
    const { entries, finished, started } = state(told(WHOLE));
    expect({ started, finished }).toEqual({ started: true, finished: true });
    expect(entries.map((e) => [e.item, e.done, e.amounts])).toEqual([
      [ROCK, 'all', [8, 8]],
      [CAMEL, 'all', [8]],
    ]);
  });
  it('what is not for today takes no time and counts as not done; the rest is played as if it stood alone', () => {
    const [leftOut] = told([{ type: 'left-out', items: [ROCK] }], 'server', 500);
    const alone = reduceSession(bundledReference, ROUTINE.slice(1), []).segments;
    const { segments } = state(leftOut ? [leftOut] : []);
    expect(segments.map((s) => ({ ...s, item: s.item - 1 }))).toEqual(alone);
    const played = segments.flatMap((s, segment) => (s.kind === 'work' ? [reached({ ...s, segment })] : []));
    const { entries } = state([...told(played), ...(leftOut ? [leftOut] : [])]);
    expect(entries.map((e) => e.done)).toEqual(['none', 'all']);
  });
  it('scores of the movement that hurts stand by region and side, the last word on each moment', () => {
    const at = { type: 'provoked', region: 'knee', side: 'left' } as const;
    const { provoked } = state(
      told([
        { ...at, moment: 'before', nrs: 5 },
        { ...at, moment: 'before', nrs: 4 },
        { ...at, side: 'right', moment: 'after', nrs: 1 },
        { ...at, moment: 'after', nrs: 2 },
      ]),
    );
    expect(provoked).toEqual([
      { region: 'knee', side: 'left', before: 4, after: 2 },
      { region: 'knee', side: 'right', before: null, after: 1 },
    ]);
  });
  it('pain is kept at its worst and survives whatever comes after, until it is amended', () => {
    const events: Happening[] = [
      { type: 'pain', item: ROCK, nrs: 6 },
      { type: 'pain', item: ROCK, nrs: 3 },
      ...WHOLE,
    ];
    expect(state(told(events)).entries[0]).toMatchObject({ pain: 6 });
    const mended: Happening[] = [...events, { type: 'amended', item: ROCK, pain: 4, quality: 2 }];
    expect(state(told(mended)).entries[0]).toMatchObject({ pain: 4, quality: 2, painBefore: 0 });
  });
  it('a drill left out is not done, and going back to it takes that back', () => {
    const own = SEGMENTS.flatMap((s, i) => (s.item === 0 ? [i] : []));
    const next = SEGMENTS.findIndex((s) => s.item === 1);
    const out: Happening[] = [{ type: 'started' }, { type: 'skipped', item: ROCK, segments: own, next }];
    const rest = works.filter((w) => w.item === 1).map(reached);
    expect(state(told([...out, ...rest])).entries[0]).toMatchObject({ done: 'none', amounts: [] });
    const back = state(told([...out, { type: 'went-back', segment: 0 }, ...WHOLE.slice(1)]));
    expect(back.entries[0]).toMatchObject({ done: 'all' });
  });
  it('a swapped-in drill is played in the place of the other and says so', () => {
    const to = item('half-kneeling-ankle-rock', { amount: 6 });
    const swapped = state(told([{ type: 'started' }, { type: 'swapped', item: ROCK, to }]));
    expect(swapped.items[0]?.drill).toBe('half-kneeling-ankle-rock');
    expect(swapped.position).toEqual({ segment: 0, elapsed: 0, skipped: [] });
    const second = state(told([{ type: 'started' }, { type: 'swapped', item: CAMEL, to: item('dead-bug') }]));
    const at = second.segments[second.position.segment];
    expect([at?.item, at?.kind, second.position.elapsed]).toEqual([1, 'setup', 0]);
    expect(swapped.entries[0]).toMatchObject({ item: ROCK, swappedFor: 'knee-to-wall-rock' });
  });
  it('what is reached or skipped begins the next piece at its start', () => {
    const [work] = works;
    if (!work) throw new Error('no work');
    expect(state(told([reached(work)])).position).toEqual({
      segment: work.segment + 1,
      elapsed: 0,
      skipped: [],
    });
    const skipped = state(told([{ type: 'skipped', item: ROCK, segments: [work.segment], next: 4 }]));
    expect(skipped.position).toEqual({ segment: 4, elapsed: 0, skipped: [work.segment] });
  });
  it('answers and touch-downs are kept, the pause says where to go on', () => {
    const { answers, touchDowns, position } = state(
      told([
        { type: 'answered', check: 'warm', holds: false },
        { type: 'touched-down', item: CAMEL, set: 1, side: 'both' },
        { type: 'touched-down', item: CAMEL, set: 1, side: 'both' },
        { type: 'paused', segment: 2, elapsed: 3.5 },
      ]),
    );
    expect(answers).toEqual({ warm: false });
    expect(touchDowns).toEqual({ [CAMEL]: 2 });
    expect(position).toMatchObject({ segment: 2, elapsed: 3.5 });
  });
  it('what was stored before events keeps its entries, and the morning after is added to them', () => {
    const kept = { ...state(told(WHOLE)).entries[0], pain: 5 } as never;
    const [camel] = state(told(WHOLE)).entries.slice(1);
    const carried: Happening = {
      type: 'carried',
      entries: [kept, camel as never],
      segment: SEGMENTS.length,
      elapsed: 0,
      skipped: [],
      played: null,
    };
    const { entries } = state(
      told([carried, { type: 'finished' }, { type: 'amended', item: ROCK, nextDayPain: 2 }]),
    );
    expect(entries[0]).toMatchObject({ done: 'all', pain: 5, nextDayPain: 2 });
  });
});

describe('events of several devices', () => {
  const phone = told(
    [{ type: 'started' }, ...works.slice(0, 3).map(reached), { type: 'pain', item: ROCK, nrs: 7 }],
    'phone',
  );
  const tablet = told(
    [
      { type: 'amended', item: ROCK, effort: 4 },
      { type: 'paused', segment: 1, elapsed: 1 },
    ],
    'tablet',
    40,
  );
  const all = [...phone, ...tablet];

  it('come to the same in every order of arrival, however often they are sent', () => {
    const expected = state(all);
    forAll(
      fc.property(
        fc.shuffledSubarray(all, { minLength: all.length }),
        fc.array(fc.constantFrom(...all), { maxLength: 6 }),
        (shuffled, again) => {
          expect(state([...shuffled, ...again])).toEqual(expected);
        },
      ),
      60,
    );
  });
  it('a clock set back on one device does not turn its own order round', () => {
    const [first, second, ...rest] = phone;
    if (!first || !second) throw new Error('events');
    const later = { ...first, at: '2027-03-01T12:00:00.000Z' };
    expect(inOrder([second, later, ...rest]).map((e) => e.seq)).toEqual(phone.map((e) => e.seq));
  });
  it('are what the schema takes, stamps and all', () => {
    for (const event of eachOf(all)) expect(sessionEventSchema.parse(event)).toEqual(event);
    expect(sessionEventSchema.safeParse({ ...phone[0], seq: -1 }).success).toBe(false);
  });
  it.each<[Happening, string, readonly unknown[], readonly unknown[]]>([
    [{ type: 'started' }, 'seq', [0, 1_000_000], [-1, 1_000_001, 0.5]],
    [{ type: 'started' }, 'device', ['a', 'a'.repeat(64)], ['', 'a'.repeat(65)]],
    [{ type: 'answered', check: 'warm', holds: true }, 'check', ['a', 'a'.repeat(80)], ['', 'a'.repeat(81)]],
    [{ type: 'went-back', segment: 0 }, 'segment', [0, 5000], [-1, 5001]],
    [{ type: 'paused', segment: 0, elapsed: 0 }, 'elapsed', [0, 3.5], [-0.1]],
    [{ type: 'pain', item: ROCK, nrs: 0 }, 'nrs', [0, 10], [-1, 11]],
    [{ type: 'touched-down', item: ROCK, set: 1, side: 'left' }, 'set', [1, 200], [0, 201]],
    [
      { type: 'skipped', item: ROCK, segments: [1], next: 2 },
      'segments',
      [[0], Array(2000).fill(1)],
      [[], Array(2001).fill(1)],
    ],
  ])('%o takes %s within its limits and no further', (happening, field, within, beyond) => {
    const [event] = told([happening]);
    const takes = (value: unknown) => sessionEventSchema.safeParse({ ...event, [field]: value }).success;
    expect(within.map(takes)).toEqual(within.map(() => true));
    expect(beyond.map(takes)).toEqual(beyond.map(() => false));
  });
  it.each([
    ['pain', [0, 10], [-1, 11]],
    ['painBefore', [0, 10], [-1, 11]],
    ['nextDayPain', [0, 10], [-1, 11]],
    ['effort', [0, 10, 5.5, null], [-1, 11]],
    ['quality', [0, 3, null], [-1, 4, 1.5]],
  ])('afterwards %s is taken within its limits and no further', (field, within, beyond) => {
    const [event] = told([{ type: 'amended', item: ROCK }]);
    const takes = (value: unknown) => sessionEventSchema.safeParse({ ...event, [field]: value }).success;
    expect(within.map(takes)).toEqual(within.map(() => true));
    expect(beyond.map(takes)).toEqual(beyond.map(() => false));
  });
  it('a piece of work reached is bounded in set and amount', () => {
    const [event] = told([reached(works[0] as (typeof works)[0])]);
    const takes = (over: object) => sessionEventSchema.safeParse({ ...event, ...over }).success;
    expect([{ set: 1 }, { set: 200 }, { amount: 0 }, { amount: 5000 }].map(takes)).toEqual([
      true,
      true,
      true,
      true,
    ]);
    expect([{ set: 0 }, { set: 201 }, { amount: -1 }, { amount: 5001 }].map(takes)).toEqual([
      false,
      false,
      false,
      false,
    ]);
  });
});

describe('events of several devices', () => {
  const event = (n: number, device: string, seq: number, second: number): SessionEvent => ({
    type: 'started',
    id: uuid(n),
    device,
    seq,
    at: new Date(Date.UTC(2027, 2, 1, 9, 0, second)).toISOString(),
  });
  const ids = (events: readonly SessionEvent[]) => inOrder(events).map(({ id }) => Number(id.slice(-4)));
  it('go by the count of the device that told them, however their ids and clocks stand', () => {
    // The tablet's clock was set back between the two.
    expect(ids([event(1, 'tablet', 2, 5), event(2, 'tablet', 1, 9)])).toEqual([2, 1]);
    expect(ids([event(1, 'tablet', 2, 9), event(2, 'tablet', 1, 5)])).toEqual([2, 1]);
  });
  it('between devices go by the clock, and by the id where all else is equal', () => {
    expect(ids([event(1, 'tablet', 1, 9), event(2, 'phone', 7, 5)])).toEqual([2, 1]);
    expect(ids([event(1, 'phone', 7, 5), event(2, 'tablet', 1, 9)])).toEqual([1, 2]);
    expect(ids([event(4, 'phone', 1, 5), event(3, 'phone', 1, 5)])).toEqual([3, 4]);
  });
  it('are the same in whatever order they arrive, and one told twice counts once', () => {
    forAll(
      fc.property(
        fc.uniqueArray(fc.tuple(fc.constantFrom('phone', 'tablet', 'server'), fc.nat(4), fc.nat(8)), {
          selector: ([device, seq]) => `${device}/${seq}`,
          minLength: 2,
        }),
        fc.infiniteStream(fc.double({ min: 0, max: 1, noNaN: true })),
        (drawn, chance) => {
          const events = drawn.map(([device, seq, second], n) => event(n + 1, device, seq, second));
          const mixed = [...events, ...events.slice(0, 1)]
            .map((one) => ({ one, by: chance.next().value }))
            .sort((a, b) => a.by - b.by)
            .map(({ one }) => one);
          const order = inOrder(mixed);
          expect(order).toEqual(inOrder(events));
          expect(order).toHaveLength(events.length);
          for (const device of ['phone', 'tablet', 'server']) {
            const counts = order.filter((one) => one.device === device).map(({ seq }) => seq);
            expect(counts).toEqual([...counts].sort((a, b) => a - b));
          }
        },
      ),
    );
  });
});
