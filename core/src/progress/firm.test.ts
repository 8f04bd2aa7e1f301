import { describe, expect, it } from 'vitest';
import type { Reason } from '../reasons/index.ts';
import { caseOf, entry, item } from '../testing/cases.ts';
import { standingOf } from '../testing/prepared.ts';
import { isFirm, waitingItems } from './index.ts';
import type { Decision } from './index.ts';

const decision = (kind: Decision['decision'], ...reasons: Reason[]): Decision => ({
  drill: 'knee-to-wall-rock',
  side: 'left',
  decision: kind,
  reasons,
  next: null,
});
const guard = (probability: number | null): Reason => ({
  rule: 'guard-test',
  test: 'heel-raise-reps',
  gate: 20,
  probability,
  wanted: 0.8,
  holds: (probability ?? 0) >= 0.8,
});
const change = (real: 'yes' | 'possibly' | 'no', difference: number): Reason => ({
  rule: 'screening-change',
  test: 'heel-raise-reps',
  side: 'left',
  difference,
  real,
});

describe('a proposal is offered as the answer', () => {
  it.each([
    [
      'on clean sessions alone',
      decision('advance-dose', { rule: 'clean-sessions', done: 3, wanted: 3 }),
      true,
    ],
    ['on a guard test that is sure', decision('advance-level', guard(0.9)), true],
    ['not on one that is likely', decision('advance-level', guard(0.89)), false],
    ['not on one never done', decision('keep', guard(null)), false],
    ['not beside a change that is only possible', decision('advance-dose', change('possibly', 2)), false],
    ['not against a real loss', decision('advance-dose', change('yes', -6)), false],
    ['beside a real gain', decision('advance-dose', change('yes', 6)), true],
    ['not after a part', decision('keep', { rule: 'part-done', date: '2027-02-01' }), false],
    [
      'always for safety',
      decision('stop-and-refer', { rule: 'pain-amber', pain: 4, fine: 2 }, change('possibly', 1)),
      true,
    ],
  ] as const)('%s', (_words, given, firm) => expect(isFirm(given)).toBe(firm));
});

describe('what waits for a word', () => {
  const waits = (entries: Parameters<typeof entry>[1][], drill = 'cat-camel', date = '2027-02-25') =>
    waitingItems(
      standingOf(
        caseOf({
          routine: { issued: '2027-02-20', mode: 'prepare', items: [item('cat-camel'), item('dead-bug')] },
          diary: [{ date, entries: entries.map((over) => entry(drill, over)) }],
        }),
      ),
      [decision('keep'), decision('keep')],
    );
  it('is an item that was done, in part, by what stands in for it, or that hurt before it was stopped', () => {
    expect(waits([{}])).toEqual([0]);
    expect(waits([{ done: 'part' }])).toEqual([0]);
    expect(waits([{ swappedFor: 'cat-camel' }], 'quadruped-rock-back')).toEqual([0]);
    expect(waits([{ done: 'none', pain: 4 }])).toEqual([0]);
  });
  it('is none that was left out without pain, not in the routine, or done before it was issued', () => {
    expect(waits([{ done: 'none', pain: 0 }])).toEqual([]);
    expect(waits([{}], 'glute-bridge')).toEqual([]);
    expect(waits([{}], 'cat-camel', '2027-02-19')).toEqual([]);
    expect(waits([{}], 'cat-camel', '2027-02-20')).toEqual([0]);
  });
});
