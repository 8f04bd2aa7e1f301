import { describe, expect, it } from 'vitest';
import { safetyOn, practiceOfCase, recordOfCase } from '../assess/index.ts';
import type { Case } from '../domain/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { caseOf, TODAY } from '../testing/cases.ts';
import { binds } from './index.ts';

const AT = { region: 'ankle-foot', side: 'left' } as const;
const pain = (nrs: number) => ({
  ...AT,
  aspect: 'back' as const,
  feel: 'ache' as const,
  when: 'movement' as const,
  nrs,
  since: '2027-02-20',
  ended: null,
});
const lift = (over: object = {}) => ({
  ...AT,
  nrs: 4,
  reason: 'an old scar',
  referral: false,
  places: null,
  by: 'R. Halloran',
  date: '2027-02-27',
  ...over,
});
const rulesOf = (input: Case, day = TODAY) =>
  safetyOn(practiceOfCase(bundledReference, input), recordOfCase(input), day).safety.dayRules;
const rule = (athlete: Partial<Case['athlete']>, over: Partial<Case> = {}) =>
  rulesOf(caseOf({ ...over, athlete }))[0];

describe('a rule of the day', () => {
  it('is lifted for pain no higher than it was, for seven days, and never above the stop limit', () => {
    const bound = rule({ pains: [pain(4)] });
    expect(bound).toMatchObject({
      band: 'amber',
      forbids: ['achilles-insertional-irritation'],
      lifted: null,
    });
    const free = rule({ pains: [pain(4)], lifts: [lift()] });
    expect(free).toMatchObject({
      band: 'amber',
      forbids: [],
      lifted: { by: 'R. Halloran', reason: 'an old scar' },
    });
    expect(free && binds(free)).toBe(false);
    expect(rule({ pains: [pain(5)], lifts: [lift()] })?.lifted).toBeNull();
    expect(rule({ pains: [pain(4)], lifts: [lift({ date: '2027-02-22' })] })?.lifted).toBeNull();
    expect(rule({ pains: [pain(4)], lifts: [lift({ side: 'right' })] })?.lifted).toBeNull();
    const above = rule({ pains: [pain(7)], lifts: [lift({ nrs: 10 })] });
    expect(above && binds(above)).toBe(true);
  });
  it('comes from what is said before a session on that day alone, the worst of what is known', () => {
    const input = caseOf({
      athlete: { pains: [pain(1)] },
      checkIns: [{ date: TODAY, sore: [{ ...AT, nrs: 6 }] }],
    } as never);
    expect(rulesOf(input)).toMatchObject([{ band: 'above', nrs: 6, because: { source: 'check-in' } }]);
    expect(rulesOf(input, '2027-03-02')).toMatchObject([{ band: 'fine', nrs: 1 }]);
  });
  it('follows a practice’s own list of what holds where it hurts', () => {
    const own = [
      {
        region: 'ankle-foot',
        aspects: null,
        feels: null,
        precautions: ['no-impact'],
        aboveOnly: false,
      } as const,
    ];
    const overrides = { painPatterns: own } as unknown as Case['overrides'];
    expect(rule({ pains: [pain(4)] }, { overrides })?.forbids).toEqual(['no-impact']);
  });
});
