import { describe, expect, it } from 'vitest';
import { assessCase } from '../assess/index.ts';
import type { Case } from '../domain/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { caseOf, result, stiffAnkle } from '../testing/cases.ts';
import { todoOf } from './index.ts';

const kinds = (input: Case) => todoOf(assessCase(bundledReference, input)).map((todo) => todo.kind);
const todo = (input: Case, kind: string) =>
  todoOf(assessCase(bundledReference, input)).find((one) => one.kind === kind);
const ROCK = {
  id: '00000000-0000-4000-8000-0000000000c0',
  drill: 'knee-to-wall-rock',
  side: 'left' as const,
  phase: null,
  sets: 2,
  amount: 8,
  measure: 'reps' as const,
  holdSeconds: null,
  restSeconds: 10,
  tempo: null,
  setup: {},
};
const entry = (pain: number) => ({
  item: ROCK.id,
  drill: ROCK.drill,
  side: 'left' as const,
  done: 'all' as const,
  amounts: [8, 8],
  painBefore: 0,
  pain,
  nextDayPain: null,
  effort: 3,
  quality: 3,
});
const routine = (issued: string, over: object = {}) => ({
  issued,
  mode: 'prepare' as const,
  items: [ROCK],
  ...over,
});
const ASKED = [...bundledReference.data.gate.map((group) => group.id), 'ankle-foot', 'knee'].map((topic) => ({
  topic,
  on: '2027-01-01',
  until: '2027-09-30',
}));
const day = caseOf({}).today;

describe('what waits today', () => {
  it('is nothing for somebody asked, screened and without a routine', () => {
    expect(kinds(caseOf({ athlete: { asked: ASKED } }))).toEqual([]);
  });

  it('an open stop sign comes first, and nothing is screened beside it', () => {
    const sign = { id: 'gen-cauda', answer: true, region: null, side: null, clearance: null };
    const input = stiffAnkle({ athlete: { asked: ASKED, redFlags: [sign] } });
    expect(kinds(input)[0]).toBe('blocked');
    expect(kinds(input)).not.toContain('rescreen');
    expect(todo(input, 'blocked')).toMatchObject({ redFlag: 'gen-cauda', region: 'all' });
  });

  it('the gate waits when topics are due, and says whether it was ever asked', () => {
    expect(todo(caseOf({ athlete: { asked: [] } }), 'not-asked')).toMatchObject({ never: true });
    const old = ASKED.map((one) => ({ ...one, until: '2026-09-30' }));
    expect(todo(caseOf({ athlete: { asked: old } }), 'not-asked')).toMatchObject({ never: false });
    // Where it is kept elsewhere, nothing is asked.
    expect(kinds(caseOf({}))).not.toContain('not-asked');
  });

  it('pain told in the last two days waits, over the limit or not; older or fine pain does not', () => {
    const told = (date: string, pain: number) =>
      todo(
        caseOf({
          athlete: { asked: ASKED },
          routine: routine('2027-01-01'),
          diary: [{ date, entries: [entry(pain)] }],
        }),
        'pain',
      );
    expect(told(day, 7)).toMatchObject({ drill: ROCK.drill, pain: 7, above: true });
    expect(told(day, 4)).toMatchObject({ pain: 4, above: false });
    expect(told(day, 2)).toBeUndefined();
    expect(told('2027-01-05', 7)).toBeUndefined();
  });

  it('what a diary asked to refer stands there however long ago it was, until a named person ends it', () => {
    const hurt = ['2026-12-10', '2026-12-14'].map((date) => ({ date, entries: [entry(8)] }));
    const calm = ['2027-02-20', '2027-02-24'].map((date) => ({ date, entries: [entry(0)] }));
    const end = {
      region: 'ankle-foot' as const,
      side: 'left' as const,
      nrs: 8,
      referral: true,
      places: null,
    };
    const record = (lifts: Case['athlete']['lifts']) =>
      caseOf({ athlete: { asked: ASKED, lifts }, diary: [...hurt, ...calm] });
    expect(todo(record([]), 'referred')).toEqual({
      kind: 'referred',
      region: 'ankle-foot',
      side: 'left',
      pain: 8,
      since: '2026-12-14',
    });
    const ended = { ...end, by: 'R. Halloran', date: '2027-01-10', reason: 'seen by the physician' };
    expect(todo(record([ended]), 'referred')).toBeUndefined();
    expect(todo(record([{ ...ended, side: 'right' }]), 'referred')).toBeDefined();
    expect(todo(record([{ ...ended, date: '2026-12-01' }]), 'referred')).toBeDefined();
  });

  it('a precaution past its review waits with its days, one before it does not', () => {
    const precaution = (until: string) =>
      caseOf({
        athlete: { asked: ASKED, precautions: [{ id: 'no-impact', until, clearance: null, ended: null }] },
      });
    expect(todo(precaution('2027-01-01'), 'review')).toMatchObject({ precaution: 'no-impact' });
    expect(kinds(precaution('2027-12-01'))).not.toContain('review');
  });

  it('a rescreen waits only where an old result near the line carries a drill', () => {
    const screened = (value: number, date: string) => [
      { date, results: [result('wblt-distance', 'left', value)] },
    ];
    const input = (value: number, date: string, over: object = {}) =>
      caseOf({
        athlete: { asked: ASKED },
        screenings: screened(value, date),
        routine: routine('2026-12-01'),
        ...over,
      });
    const near = todo(input(9.2, '2027-01-10'), 'rescreen');
    expect(near).toMatchObject({ test: 'wblt-distance', side: 'left', drills: 1 });
    expect(near?.kind === 'rescreen' && near.chance).toBeGreaterThan(0.15);
    expect(kinds(input(2, '2027-01-10'))).not.toContain('rescreen'); // short beyond doubt
    expect(kinds(input(9.2, day))).not.toContain('rescreen'); // of today
    expect(kinds(input(9.2, '2027-01-10', { routine: null }))).not.toContain('rescreen'); // carries nothing
  });
});

describe('decisions', () => {
  const trained = (date: string) => ({ date, entries: [entry(0)] });
  const waits = (over: object) => {
    const input = caseOf({ athlete: { asked: ASKED }, ...over });
    const found = todo(input, 'decisions');
    return found?.kind === 'decisions' ? found.items : 0;
  };
  it('wait once somebody trained since the last verdicts, not for having been issued', () => {
    expect(waits({ routine: routine(day) })).toBe(0);
    expect(waits({ routine: routine('2027-02-01'), diary: [trained('2027-02-10')] })).toBe(1);
    const decided = routine('2027-02-01', { decided: '2027-02-10' });
    expect(waits({ routine: decided, diary: [trained('2027-02-10')] })).toBe(0);
    expect(waits({ routine: decided, diary: [trained('2027-02-10'), trained('2027-02-11')] })).toBe(1);
  });
  it('sessions of the version before do not count for this one', () => {
    expect(waits({ routine: routine('2027-02-20'), diary: [trained('2027-02-10')] })).toBe(0);
  });
});
