import type { RoutineItem } from '../domain/index.ts';
import { routineSeconds, routineTimeline } from '../dose/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { describe, expect, it } from 'vitest';
import { entriesOf } from './entries.ts';
import { advance, back, backTo, repetition, secondsLeft, skip, skipItem, skipRest } from './position.ts';
import type { Position } from './position.ts';

const item = (drill: string, over: Partial<RoutineItem> = {}) => ({
  id: `00000000-0000-4000-8000-${drill.length.toString().padStart(12, '0')}`,
  drill,
  side: 'both' as const,
  phase: null,
  sets: 2,
  amount: 8,
  measure: 'reps' as const,
  holdSeconds: null,
  restSeconds: 10,
  tempo: null,
  setup: {},
  ...over,
});
const ROUTINE = [item('knee-to-wall-rock'), item('cat-camel', { sets: 1 })];
const SEGMENTS = routineTimeline(bundledReference, ROUTINE);
const START: Position = { segment: 0, elapsed: 0, skipped: [] };

describe('the runner', () => {
  it('played in uneven ticks ends exactly when the routine is over', () => {
    let position = START;
    let clock = 0;
    while (position.segment < SEGMENTS.length) {
      position = advance(SEGMENTS, position, 0.25);
      clock += 0.25;
    }
    expect(clock).toBe(routineSeconds(bundledReference, ROUTINE));
    expect(secondsLeft(SEGMENTS, position)).toBe(0);
  });
  it('catches up over several segments after the device slept', () => {
    const jumped = advance(SEGMENTS, START, 100);
    let stepped = START;
    for (let i = 0; i < 100; i += 1) stepped = advance(SEGMENTS, stepped, 1);
    expect(jumped).toEqual(stepped);
  });
  it('has less left with every second', () => {
    const whole = routineSeconds(bundledReference, ROUTINE);
    expect([0, 1, 7].map((elapsed) => secondsLeft(SEGMENTS, { ...START, elapsed }))).toEqual([
      whole,
      whole - 1,
      whole - 7,
    ]);
  });
  it('counts repetitions from one to the last', () => {
    const work = SEGMENTS.find((s) => s.kind === 'work');
    if (!work) throw new Error('no work');
    expect([0, 3.9, 4, 31.9].map((t) => repetition(work, t))).toEqual([1, 1, 2, 8]);
  });
  it('goes back to the start of a segment, then to the one before', () => {
    const inside = advance(SEGMENTS, START, 15);
    expect(back(SEGMENTS, inside)).toMatchObject({ segment: 1, elapsed: 0 });
    expect(back(SEGMENTS, back(SEGMENTS, inside))).toMatchObject({ segment: 0 });
  });
});

describe('what a run amounts to', () => {
  const finish = (position: Position) => ({ ...position, segment: SEGMENTS.length, elapsed: 0 });
  it('everything played is all, with each set’s amount', () => {
    const entries = entriesOf(ROUTINE, ROUTINE, SEGMENTS, finish(START));
    expect(entries.map((e) => [e.done, e.amounts])).toEqual([
      ['all', [8, 8]],
      ['all', [8]],
    ]);
  });
  it('a skipped side makes it part, and its set does not count', () => {
    const atRight = SEGMENTS.findIndex((s) => s.kind === 'work' && s.side === 'right');
    const position = skip(SEGMENTS, { segment: atRight, elapsed: 3, skipped: [] });
    const [entry] = entriesOf(ROUTINE, ROUTINE, SEGMENTS, finish(position));
    expect(entry).toMatchObject({ done: 'part', amounts: [8] });
  });
  it('sides of unequal amounts count as the smaller', () => {
    const uneven = [
      item('knee-to-wall-rock', { perSide: { left: { sets: 1, amount: 6 }, right: { sets: 1, amount: 9 } } }),
    ];
    const segments = routineTimeline(bundledReference, uneven);
    const [entry] = entriesOf(uneven, uneven, segments, { ...START, segment: segments.length });
    expect(entry).toMatchObject({ done: 'all', amounts: [6] });
  });
  it('a drill stopped for pain is not done from there on, and a swap names what it replaced', () => {
    const position = skipItem(SEGMENTS, START);
    const played = [item('half-kneeling-ankle-rock'), ROUTINE[1] ?? item('cat-camel')];
    const [entry, second] = entriesOf(ROUTINE, played, SEGMENTS, finish(position));
    expect(entry).toMatchObject({ done: 'none', swappedFor: 'knee-to-wall-rock' });
    expect(second).toMatchObject({ done: 'all' });
  });
});

describe('going back', () => {
  it('does again what was left out from there up to here, and nothing else', () => {
    const at = (segment: number, elapsed: number): Position => ({ segment, elapsed, skipped: [1, 2, 5, 6] });
    expect(backTo(at(5, 0), 2)).toEqual({ segment: 2, elapsed: 0, skipped: [1, 6] });
    expect(back(SEGMENTS, at(5, 0)).skipped).toEqual([1, 2, 6]);
  });
  it('starts this one over once it has run for more than two seconds, else the one before', () => {
    const at = (elapsed: number): Position => ({ segment: 3, elapsed, skipped: [] });
    expect(back(SEGMENTS, at(2)).segment).toBe(2);
    expect(back(SEGMENTS, at(2.1)).segment).toBe(3);
    expect(back(SEGMENTS, { ...at(0), segment: 0 }).segment).toBe(0);
  });
});

describe('a circuit', () => {
  const circuit = { id: 'a', rounds: 3 };
  const routine = [
    item('cat-camel', { sets: 1, circuit }),
    item('dead-bug', { sets: 1, circuit }),
    item('glute-bridge', { sets: 1 }),
  ];
  const segments = routineTimeline(bundledReference, routine);
  const firstOf = (index: number) => segments.findIndex((s) => s.item === index && s.kind === 'work');

  it('skipped drill stays skipped in every later round, the others are played', () => {
    let position = skipItem(segments, { segment: firstOf(1), elapsed: 0, skipped: [] });
    const visited = new Set<number>();
    while (position.segment < segments.length) {
      visited.add(position.segment);
      position = advance(segments, position, segments[position.segment]?.seconds ?? 0);
    }
    const works = [...visited].map((s) => segments[s]).filter((s) => s?.kind === 'work');
    expect(works.filter((s) => s?.item === 1)).toEqual([]);
    expect(works.filter((s) => s?.item === 0)).toHaveLength(2);
    const [camel, bug, bridge] = entriesOf(routine, routine, segments, position);
    expect([camel?.done, bug?.done, bridge?.done]).toEqual(['all', 'none', 'all']);
    expect(camel?.amounts).toEqual([8, 8, 8]);
  });
  it('counts the time that is really left once a drill is skipped', () => {
    const at: Position = { segment: firstOf(1), elapsed: 0, skipped: [] };
    const saved = secondsLeft(segments, at) - secondsLeft(segments, skipItem(segments, at));
    const own = segments
      .filter((s, i) => s.item === 1 && i >= at.segment)
      .reduce((sum, s) => sum + s.seconds, 0);
    expect(saved).toBe(own);
  });
  it('leaves out a line that is still to come, and goes on past what was left out before', () => {
    const here: Position = { segment: firstOf(0), elapsed: 4, skipped: [] };
    const ahead = skipItem(segments, here, 1);
    expect(ahead).toMatchObject({ segment: here.segment, elapsed: 4 });
    expect(new Set(ahead.skipped.map((s) => segments[s]?.item))).toEqual(new Set([1]));
    // The one beside it goes as well: only the bridge is left.
    const both = skipItem(segments, ahead);
    expect(segments[both.segment]?.item).toBe(2);
    expect(both.elapsed).toBe(0);
    expect(skipItem(segments, both, 2)).toEqual(skipRest(segments, both));
    expect(skipRest(segments, both)).toMatchObject({ segment: segments.length, elapsed: 0 });
    expect(secondsLeft(segments, skipRest(segments, both))).toBe(0);
  });
  it('going back does not bring a stopped drill back in the rounds to come', () => {
    const stopped = skipItem(segments, { segment: firstOf(1), elapsed: 0, skipped: [] });
    const later = back(segments, stopped);
    const ahead = segments.flatMap((s, i) => (s.item === 1 && i > stopped.segment ? [i] : []));
    expect(later.skipped).toEqual(expect.arrayContaining(ahead));
  });
});

describe('both ways round and uneven sides', () => {
  it('plays the amount once each way, and notes each set once', () => {
    const routine = [item('wrist-circles', { sets: 2, bothWays: true })];
    const segments = routineTimeline(bundledReference, routine);
    const works = segments.filter((s) => s.kind === 'work');
    expect(works.filter((s) => s.otherWay)).toHaveLength(works.length / 2);
    const done = { segment: segments.length, elapsed: 0, skipped: [] };
    expect(entriesOf(routine, routine, segments, done)[0]?.amounts).toEqual([8, 8]);
  });
  it('a set with one side left out is no full set; a set of one side alone is', () => {
    const perSide = { left: { sets: 2, amount: 9 }, right: { sets: 1, amount: 6 } };
    const routine = [item('knee-to-wall-rock', { perSide })];
    const segments = routineTimeline(bundledReference, routine);
    const right = segments.findIndex((s) => s.kind === 'work' && s.side === 'right');
    const played = { segment: segments.length, elapsed: 0, skipped: [right] };
    expect(entriesOf(routine, routine, segments, played)[0]).toMatchObject({
      done: 'part',
      amounts: [9],
    });
  });
});
