import { describe, expect, it } from 'vitest';
import type { Reason } from '../reasons/index.ts';
import { isFirm } from './index.ts';
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
