import { describe, expect, it } from 'vitest';
import { bundledReference } from '../reference/bundled.ts';
import { item } from '../testing/cases.ts';
import { eventFaults } from './index.ts';
import type { SessionEvent } from './index.ts';

const A = '00000000-0000-4000-8000-00000000000a';
const items = [{ ...item('knee-to-wall-rock', { sets: 2, amount: 8 }), id: A }];
const at = '2027-03-01T10:00:00.000Z';
let made = 0;
const event = (type: string, over: object = {}) => {
  made += 1;
  const id = `00000000-0000-4000-8000-${String(made).padStart(12, '0')}`;
  return { type, id, device: 'phone', seq: made, at, ...over } as unknown as SessionEvent;
};
const faults = (fresh: SessionEvent[], known: SessionEvent[] = []) =>
  eventFaults(bundledReference, items, known, fresh, {
    date: '2027-03-01',
    now: '2027-03-01T12:00:00.000Z',
  }).map(({ index, of }) => [index, of]);

describe('events stand within', () => {
  it('the days of their session: a clock a day off is taken, one years off is not', () => {
    const when = (day: string) => faults([event('pain', { item: A, nrs: 2, at: `${day}T10:00:00.000Z` })]);
    expect(when('2027-02-28')).toEqual([]);
    expect(when('2027-03-02')).toEqual([]);
    expect(when('2027-02-27')).toEqual([[0, 'at']]);
    expect(when('2027-03-03')).toEqual([[0, 'at']]);
    expect(when('0001-01-01')).toEqual([[0, 'at']]);
    expect(when('9999-12-31')).toEqual([[0, 'at']]);
  });
  it('their timeline, that of a drill swapped in too', () => {
    const reached = (segment: number) =>
      event('reached', { item: A, segment, set: 1, side: 'both', amount: 8 });
    expect(faults([reached(0), reached(5000)])).toEqual([[1, 'segment']]);
    expect(faults([event('skipped', { item: A, segments: [0], next: 5000 })])).toEqual([[0, 'segment']]);
    expect(faults([event('went-back', { segment: 5000 })])).toEqual([[0, 'segment']]);
    expect(faults([event('paused', { segment: 5000, elapsed: 1 })])).toEqual([[0, 'segment']]);
    // Twelve sets have more pieces than two.
    const many = item('knee-to-wall-rock', { sets: 12, amount: 8 });
    const short = faults([reached(10)]);
    expect(short).toEqual([[0, 'segment']]);
    expect(faults([reached(10)], [event('swapped', { item: A, to: many })])).toEqual([]);
  });
  it('their session: what is played after the end is refused, what is remembered or late is not', () => {
    const over = event('finished');
    const later = { at: '2027-03-01T10:05:00.000Z' };
    expect(faults([event('pain', { item: A, nrs: 9, ...later })], [over])).toEqual([[0, 'type']]);
    expect(faults([event('pain', { item: A, nrs: 9, at: '2027-03-01T09:59:00.000Z' })], [over])).toEqual([]);
    expect(faults([event('amended', { item: A, pain: 9, ...later })], [over])).toEqual([]);
    expect(faults([event('pain', { item: A, nrs: 9, ...later })])).toEqual([]);
  });
});
