import type { RoutineItem } from '@yonder/core/domain';
import { routineSeconds, routineTimeline } from '@yonder/core/dose';
import { bundledReference } from '@yonder/core/reference/bundled';
import { describe, expect, it } from 'vitest';
import { advance, back, entriesOf, repetition, secondsLeft, skip, skipItem } from './runner.ts';
import type { Position } from './runner.ts';

const item = (drill: string, over: Partial<RoutineItem> = {}): RoutineItem => ({
  drill,
  side: 'both',
  phase: null,
  sets: 2,
  amount: 8,
  measure: 'reps',
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
    const entries = entriesOf(ROUTINE, ROUTINE, SEGMENTS, finish(START), new Map());
    expect(entries.map((e) => [e.done, e.amounts])).toEqual([
      ['all', [8, 8]],
      ['all', [8]],
    ]);
  });
  it('a skipped side makes it part, and its set does not count', () => {
    const atRight = SEGMENTS.findIndex((s) => s.kind === 'work' && s.side === 'right');
    const position = skip(SEGMENTS, { segment: atRight, elapsed: 3, skipped: [] });
    const [entry] = entriesOf(ROUTINE, ROUTINE, SEGMENTS, finish(position), new Map());
    expect(entry).toMatchObject({ done: 'part', amounts: [8] });
  });
  it('a drill stopped for pain is not done from there on, and a swap names what it replaced', () => {
    const position = skipItem(SEGMENTS, START);
    const played = [item('half-kneeling-ankle-rock'), ROUTINE[1] ?? item('cat-camel')];
    const pains = new Map([[0, { pain: 6, stopped: true }]]);
    const [entry, second] = entriesOf(ROUTINE, played, SEGMENTS, finish(position), pains);
    expect(entry).toMatchObject({ done: 'none', pain: 6, swappedFor: 'knee-to-wall-rock' });
    expect(second).toMatchObject({ done: 'all' });
  });
});
