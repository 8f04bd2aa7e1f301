import { describe, expect, it } from 'vitest';
import type { Case } from '../domain/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { caseOf, entry, item } from '../testing/cases.ts';
import { decideCase } from '../testing/prepared.ts';

const HOLD = 'wall-sit';
const KNEE = { region: 'knee', side: 'left' } as const;

/** A knee that aches, and a long hold for it, scored before and after in sessions of these days. */
function trial(days: readonly string[], falls: readonly number[], school = 'trial') {
  const input: Case = caseOf({
    schools: { 'tendon-isometrics': school },
    athlete: {
      pains: [
        {
          ...KNEE,
          aspect: 'outer',
          feel: 'ache',
          when: 'movement',
          nrs: 4,
          since: '2027-01-20',
          ended: null,
        },
      ],
    },
    routine: {
      issued: '2027-02-01',
      mode: 'prepare',
      items: [item(HOLD, { amount: 35, measure: 'hold-seconds', sets: 3, restSeconds: 60 })],
    },
    diary: days.map((date, i) => ({
      date,
      entries: [entry(HOLD, { amounts: [35, 35, 35] })],
      provoked: [{ ...KNEE, before: 5, after: 5 - (falls[i] ?? 0) }],
    })),
  });
  const [decision] = decideCase(bundledReference, input).decisions;
  if (!decision) throw new Error('no decision');
  return decision;
}
const DAYS = ['2027-02-10', '2027-02-15', '2027-02-20', '2027-02-26'];

describe('long holds on trial', () => {
  it('go when the pain did not fall by 2 in the middle of two weeks’ scored sessions, and stay when it did', () => {
    const failed = trial(DAYS, [1, 1, 3, 1]);
    expect(failed).toMatchObject({ decision: 'ease', next: null });
    expect(failed.reasons[0]?.rule).toBe('tendon-trial-result');
    expect(failed.reasons).toContainEqual(
      expect.objectContaining({ rule: 'tendon-trial-result', sessions: 4, fall: 1, held: false }),
    );
    const held = trial(DAYS, [2, 1, 3, 2]);
    expect(held.next).not.toBeNull();
    expect(held.reasons).toContainEqual(
      expect.objectContaining({ rule: 'tendon-trial-result', fall: 2, held: true }),
    );
  });
  it('are not judged before two weeks, on two sessions, or where they are used without a trial', () => {
    const soon = trial(DAYS.slice(2), [0, 0]);
    expect(soon.next).not.toBeNull();
    expect(soon.reasons).toContainEqual(expect.objectContaining({ rule: 'tendon-trial-open', sessions: 2 }));
    expect(trial(DAYS, [0, 0, 0, 0], 'use').reasons.map(({ rule }) => rule)).not.toContain(
      'tendon-trial-result',
    );
  });
});

describe('a graded drill for a painful position', () => {
  const ROCK = 'knee-to-wall-rock';
  const after = (mornings: readonly (number | null)[], strategy: string) => {
    const input = caseOf({
      schools: { 'modify-around-or-restore': strategy },
      athlete: {
        pains: [
          {
            region: 'ankle-foot',
            side: 'left',
            aspect: 'back',
            feel: 'ache',
            when: 'movement',
            nrs: 2,
            since: '2026-08-01',
            ended: null,
          },
        ],
      },
      routine: {
        issued: '2027-02-15',
        mode: 'prepare',
        items: [item(ROCK, { side: 'left', amount: 8, setup: { 'foot-wall-distance': 6 } })],
      },
      diary: ['2027-02-24', '2027-02-27'].map((date, i) => ({
        date,
        entries: [entry(ROCK, { side: 'left', amounts: [8, 8], nextDayPain: mornings[i] ?? null })],
      })),
    });
    return decideCase(bundledReference, input).decisions[0];
  };
  it('goes on only after two sessions running that were calm the next morning', () => {
    expect(after([1, 0], 'rule-based')?.decision).toBe('advance-dose');
    const unknown = after([1, null], 'rule-based');
    expect(unknown?.decision).toBe('keep');
    expect(unknown?.reasons[0]).toEqual({ rule: 'mornings-unknown', sessions: 1 });
    expect(after([1, null], 'modify')?.decision).toBe('keep');
    expect(after([1, 0], 'modify')?.decision).toBe('advance-dose');
  });
});
