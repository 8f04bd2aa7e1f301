import { describe, expect, it } from 'vitest';
import type { Case, DiaryEntry, RoutineItem } from '../domain/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { ankleResults, entry, item, result, stiffAnkle } from '../testing/cases.ts';
import type { Decision } from './index.ts';
import { decideCase } from '../testing/prepared.ts';

const ROCK = 'knee-to-wall-rock';
const rock = (over: Partial<RoutineItem> = {}) =>
  item(ROCK, { amount: 8, setup: { 'foot-wall-distance': 6 }, ...over });

/** Decides one item after sessions on the given days. */
function after(
  current: RoutineItem,
  days: readonly string[],
  entries: readonly Partial<DiaryEntry>[],
  over: Parameters<typeof stiffAnkle>[0] = {},
): Decision {
  const input: Case = stiffAnkle({
    routine: { issued: '2027-02-15', mode: 'prepare', items: [current] },
    diary: days.map((date, index) => ({
      date,
      entries: [entry(current.drill, { amounts: [current.amount, current.amount], ...entries[index] })],
    })),
    ...over,
  });
  const [decision] = decideCase(bundledReference, input).decisions;
  if (!decision) throw new Error('no decision');
  return decision;
}
const rules = (decision: Decision) => decision.reasons.map((reason) => reason.rule);
const TWO_DAYS = ['2027-02-24', '2027-02-27'];

describe('a drill that stood in for another', () => {
  const A = '00000000-0000-4000-8000-00000000000a';
  const B = '00000000-0000-4000-8000-00000000000b';
  const standIn = { drill: 'half-kneeling-ankle-rock', swappedFor: ROCK, pain: 9 };
  const said = (current: Partial<RoutineItem>, over: Partial<DiaryEntry>) =>
    rules(after(rock(current), ['2027-02-27'], [{ ...standIn, ...over }]))[0];
  it('tells of the item it stood in for, by its id where both have one', () => {
    expect(said({ id: A }, { item: A })).toBe('pain-above-limit');
    expect(said({ id: A }, { item: B })).toBe('no-sessions-yet');
  });
  it('else by its side', () => {
    expect(said({ id: A, side: 'left' }, { side: 'left' })).toBe('pain-above-limit');
    expect(said({ side: 'left' }, { item: B, side: 'left' })).toBe('pain-above-limit');
    expect(said({ side: 'left' }, { side: 'right' })).toBe('no-sessions-yet');
  });
});

describe('advancing', () => {
  it('first the amount, one step towards the criterion', () => {
    const decision = after(rock(), TWO_DAYS, []);
    expect(decision.decision).toBe('advance-dose');
    expect(decision.next).toMatchObject({ drill: ROCK, amount: 10, setup: { 'foot-wall-distance': 6 } });
  });
  it('then the set-up, one step, nothing else', () => {
    const decision = after(rock({ amount: 12 }), TWO_DAYS, []);
    expect(decision).toMatchObject({
      decision: 'change-setup',
      next: { amount: 12, setup: { 'foot-wall-distance': 8 } },
    });
  });
  it('then the level', () => {
    const decision = after(rock({ amount: 12, setup: { 'foot-wall-distance': 14 } }), TWO_DAYS, []);
    expect(decision).toMatchObject({ decision: 'advance-level', next: { drill: 'band-ankle-mobilisation' } });
  });
  it('not to a set-up that a precaution rules out: the level is next then', () => {
    const balance = bundledReference.drills.get('single-leg-balance');
    const amount = balance?.dose.amount.max ?? 0;
    const others = Object.fromEntries(
      (balance?.setupVariables ?? []).map((v) => [v.id, v.id === 'eyes' ? 'open' : (v.steps.at(-1) ?? '')]),
    );
    const current = item('single-leg-balance', { measure: 'hold-seconds', amount, sets: 3, setup: others });
    const next = (id: string) =>
      after(
        current,
        TWO_DAYS,
        [{ amounts: [amount, amount, amount] }, { amounts: [amount, amount, amount] }],
        {
          athlete: { precautions: [{ id, until: null, clearance: null, ended: null }] },
        },
      );
    expect(next('no-heavy-grip').next?.setup.eyes).toBe('closed');
    expect(next('eyes-closed-fall-risk').decision).not.toBe('change-setup');
  });
  it('effort at the limit counts, and one point above it does not', () => {
    const most = bundledReference.drills.get(ROCK)?.progressWhen.maxRpe ?? 0;
    const with_ = (effort: number) => after(rock(), TWO_DAYS, [{ effort }, { effort }]).decision;
    expect([with_(most), with_(most + 1)]).toEqual(['advance-dose', 'keep']);
    const once = (effort: number) => rules(after(rock(), ['2027-02-27'], [{ effort }]))[0];
    expect([once(most), once(most + 1)]).toEqual(['clean-sessions', 'effort-too-high']);
  });
  it('of uneven sides asks for no more than the smaller amount on the smaller side', () => {
    const uneven = rock({ perSide: { left: { sets: 2, amount: 6 }, right: { sets: 2, amount: 8 } } });
    const done = (amounts: number[]) => rules(after(uneven, TWO_DAYS, [{ amounts }, { amounts }]))[0];
    expect(done([6, 6])).not.toBe('clean-sessions');
    expect(done([5, 6])).toBe('clean-sessions');
  });
  it('a session of today counts, one that is ahead does not', () => {
    expect(after(rock(), ['2027-02-24', '2027-03-01'], []).decision).toBe('advance-dose');
    expect(after(rock(), ['2027-02-24', '2027-03-02'], []).reasons[0]).toMatchObject({ done: 1 });
  });
  it('to a level that a test or the diary opens, without the test; held back by one that says no', () => {
    const drill = bundledReference.drills.get('two-up-one-down');
    const full = Object.fromEntries((drill?.setupVariables ?? []).map((v) => [v.id, v.steps.at(-1) ?? '']));
    const amount = Math.max(20, drill?.dose.amount.max ?? 0);
    const current = item('two-up-one-down', { amount, sets: 3, setup: full });
    const decided = (...raises: number[]) =>
      after(
        current,
        TWO_DAYS,
        [{ amounts: [amount, amount, amount] }, { amounts: [amount, amount, amount] }],
        {
          screenings: raises.map((value) => ({
            date: '2027-02-27',
            results: [result('heel-raise-reps', 'left', value), result('heel-raise-reps', 'right', value)],
          })),
        },
      ).decision;
    expect([decided(), decided(30), decided(4)]).toEqual(['advance-level', 'advance-level', 'keep']);
  });
  it('not before enough clean sessions', () => {
    const decision = after(rock(), ['2027-02-27'], []);
    expect(decision.decision).toBe('keep');
    expect(decision.reasons[0]).toMatchObject({ rule: 'clean-sessions', done: 1, wanted: 2 });
  });
  it.each([
    ['part of it done', { done: 'part' as const }, 'part-done'],
    ['poor quality', { quality: 1 }, 'poor-quality'],
    ['pain above fine', { pain: 3 }, 'pain-amber'],
    ['too much effort', { effort: 8 }, 'effort-too-high'],
    ['less than prescribed', { amounts: [6, 6] }, 'clean-sessions'],
  ])('not with %s', (_, last, rule) => {
    const decision = after(rock(), TWO_DAYS, [{}, last]);
    expect(decision.decision).toBe('keep');
    expect(rules(decision)[0]).toBe(rule);
  });
  it.each([
    ['done in part', { done: 'part' as const }],
    ['poor', { quality: 1 }],
    ['sore', { pain: 3 }],
    ['worse the next day', { nextDayPain: 2 }],
  ])('a session before that was %s does not count, however good the last one was', (_, first) => {
    const decision = after(rock(), TWO_DAYS, [first, {}]);
    expect(decision.decision).toBe('keep');
    expect(decision.reasons[0]).toMatchObject({ rule: 'clean-sessions', done: 1, wanted: 2 });
  });
  it.each([
    ['as sore the next day as pain may grow', { nextDayPain: 1 }],
    ['as sore as is fine', { pain: 2 }],
    ['of fair quality', { quality: 2 }],
  ])('a session %s counts', (_, first) => {
    expect(after(rock(), TWO_DAYS, [first, first]).decision).toBe('advance-dose');
  });
  it('not of what was short and no longer is on both sides: it is kept up, less often, and a note says so', () => {
    const visit = (date: string, left: number, right: number) => ({
      date,
      results: [result('wblt-distance', 'left', left), result('wblt-distance', 'right', right)],
    });
    const kept = (left: number, over: Partial<RoutineItem> = {}) =>
      after(rock(over), TWO_DAYS, [], {
        screenings: [visit('2027-01-04', 5, 13), visit('2027-02-26', left, 13)],
      });
    const restored = kept(13);
    expect(restored.decision).toBe('maintain');
    expect(restored.reasons[0]).toEqual({ rule: 'restored', restriction: 'ankle-dorsiflexion-limit' });
    expect(restored.next).toEqual({ ...rock(), note: 'To keep up: once or twice a week is enough.' });
    expect(kept(13, { note: 'with the blue band' }).next?.note).toBe('with the blue band');
    expect(kept(8).decision).toBe('advance-dose'); // still short
    expect(after(rock(), TWO_DAYS, [], { screenings: [visit('2027-02-26', 13, 13)] }).decision).toBe(
      'advance-dose', // never was
    );
  });
  it('not in a span marked light, from its first day to its last, and again after it', () => {
    const light = (from: string, until: string) =>
      after(rock(), TWO_DAYS, [], { athlete: { lightSpans: [{ from, until, why: 'regional final' }] } });
    expect(light('2027-02-23', '2027-03-01').reasons[0]).toEqual({
      rule: 'light-span',
      until: '2027-03-01',
      why: 'regional final',
    });
    expect(light('2027-03-01', '2027-03-05').decision).toBe('keep');
    expect(light('2027-02-23', '2027-02-28').decision).toBe('advance-dose');
    expect(light('2027-03-02', '2027-03-05').decision).toBe('advance-dose');
    // What hurts is eased all the same.
    const sore = { athlete: { lightSpans: [{ from: '2027-02-23', until: '2027-03-05', why: 'final' }] } };
    expect(after(rock(), TWO_DAYS, [{}, { pain: 7 }], sore).decision).toBe('ease');
  });
  it('not after more than 14 days off, and one step easier after 28', () => {
    expect(rules(after(rock(), ['2027-02-10', '2027-02-14'], []))[0]).toBe('days-off');
    const fortnight = { routine: { issued: '2027-02-01', mode: 'prepare' as const, items: [rock()] } };
    expect(after(rock(), ['2027-02-12', '2027-02-15'], [], fortnight).decision).toBe('advance-dose');
    const long = after(rock({ amount: 10 }), ['2027-01-20', '2027-01-25'], []);
    expect(long).toMatchObject({ decision: 'ease', next: { amount: 8 } });
  });
  it('one harder thing in a region and a week', () => {
    const input = stiffAnkle({
      routine: {
        issued: '2027-02-15',
        mode: 'prepare',
        items: [rock(), item('ankle-circles', { sets: 1, amount: 8 })],
      },
      diary: TWO_DAYS.map((date) => ({ date, entries: [entry(ROCK), entry('ankle-circles')] })),
    });
    const kinds = decideCase(bundledReference, input).decisions.map((d) => [d.decision, rules(d)[0]]);
    expect(kinds[0]?.[0]).toBe('advance-dose');
    expect(kinds[1]).toEqual(['keep', 'hardened-lately']);
  });
});

describe('the guard test of the next level', () => {
  const raise = item('single-leg-heel-raise', { amount: 15, restSeconds: 60, setup: {} });
  const topSetup = Object.fromEntries(
    (bundledReference.drills.get('single-leg-heel-raise')?.setupVariables ?? []).map((v) => [
      v.id,
      v.steps.at(-1) ?? '',
    ]),
  );
  const three = ['2027-02-20', '2027-02-23', '2027-02-26'];
  const decideWith = (reps: number) =>
    after({ ...raise, setup: topSetup }, three, [], {
      routine: { issued: '2027-02-15', mode: 'build', items: [{ ...raise, setup: topSetup }] },
      screenings: [
        {
          date: '2027-02-27',
          results: [result('heel-raise-reps', 'left', reps), result('heel-raise-reps', 'right', reps)],
        },
      ],
    });
  it('opens it only when P(capacity ≥ gate) is high enough', () => {
    expect(decideWith(30)).toMatchObject({
      decision: 'advance-level',
      next: { drill: 'single-leg-heel-raise-step' },
    });
    // 20 raises: the share of the maximum caps the amount, the set-up is at its end, the gate of 15 holds.
    expect(decideWith(16).decision).toBe('keep');
    expect(rules(decideWith(16))).toContain('guard-test');
  });
});

describe('pain', () => {
  it('above the stop limit eases; twice running stops and refers', () => {
    const once = after(rock({ amount: 10 }), TWO_DAYS, [{}, { pain: 6 }]);
    expect(once).toMatchObject({ decision: 'ease', next: { amount: 8 } });
    const twice = after(rock(), TWO_DAYS, [{ pain: 6 }, { pain: 7 }]);
    expect(twice).toMatchObject({ decision: 'stop-and-refer', next: null });
  });
  it('counts even when it stopped the drill before its first set; a drill left out says nothing', () => {
    const stopped = after(rock({ amount: 10 }), TWO_DAYS, [{}, { done: 'none', amounts: [], pain: 7 }]);
    expect(stopped.decision).toBe('ease');
    const leftOut = after(rock(), [...TWO_DAYS, '2027-02-28'], [{}, {}, { done: 'none', amounts: [] }]);
    expect(leftOut.decision).toBe('advance-dose');
  });
  it('above fine twice running eases', () => {
    expect(after(rock({ amount: 10 }), TWO_DAYS, [{ pain: 3 }, { pain: 4 }]).decision).toBe('ease');
  });
  it('worse next day: once keeps, twice eases, three times refers', () => {
    const worse = { painBefore: 0, nextDayPain: 2 };
    const days = ['2027-02-20', '2027-02-24', '2027-02-27'];
    expect(after(rock({ amount: 10 }), days, [{}, {}, worse]).decision).toBe('keep');
    expect(after(rock({ amount: 10 }), days, [{}, worse, worse]).decision).toBe('ease');
    expect(after(rock({ amount: 10 }), days, [worse, worse, worse]).decision).toBe('stop-and-refer');
  });
  it('one point above the morning before is tolerated', () => {
    expect(after(rock(), TWO_DAYS, [{}, { painBefore: 1, nextDayPain: 2 }]).decision).toBe('advance-dose');
  });
  it('the growing have the stricter limits', () => {
    const young = { athlete: { birthDate: '2011-01-01' } };
    expect(after(rock(), TWO_DAYS, [{}, { pain: 2 }]).decision).toBe('advance-dose');
    expect(rules(after(rock(), TWO_DAYS, [{}, { pain: 2 }], young))[0]).toBe('pain-amber');
  });
});

describe('safety and screening', () => {
  it('a new precaution stops the drill whatever the diary says', () => {
    const precautions = [{ id: 'acute-ankle-sprain', until: null, clearance: null, ended: null }];
    const decision = after(rock(), TWO_DAYS, [], { athlete: { precautions } });
    expect(decision.decision).toBe('stop-and-refer');
    expect(rules(decision)[0]).toBe('no-longer-allowed');
  });
  it('says beside the decision whether the rescreen shows a real change', () => {
    const screenings = [
      { date: '2027-02-13', results: ankleResults() },
      {
        date: '2027-02-27',
        results: [
          result('wblt-distance', 'left', 9, 9.2, 9.1),
          result('wblt-distance', 'right', 11.5, 11.6, 11.4),
        ],
      },
    ];
    const decision = after(rock(), TWO_DAYS, [], { screenings });
    const changes = decision.reasons
      .filter((r) => r.rule === 'screening-change')
      .map((r) => [r.side, r.real]);
    expect(changes).toEqual([
      ['left', 'yes'],
      ['right', 'no'],
    ]);
    const one = after(rock({ side: 'left' }), TWO_DAYS, [], { screenings }).reasons;
    expect(one.flatMap((r) => (r.rule === 'screening-change' ? [r.side] : []))).toEqual(['left']);
  });
});
