import { describe, expect, it } from 'vitest';
import { assessCase } from '../assess/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { caseOf, result } from '../testing/cases.ts';
import type { CaseInput } from '../testing/cases.ts';
import { needConfidence } from './confidence.ts';
import { isBeyondNorm } from './needs.ts';

const judged = (input: CaseInput) => assessCase(bundledReference, caseOf(input)).report;
const on = (date: string, ...results: ReturnType<typeof result>[]) => ({ date, results });
const TODAY_RESULTS = '2027-02-25';
const finding = (report: ReturnType<typeof judged>, restriction: string, side = 'left') =>
  report.findings.find((one) => one.restriction === restriction && one.side === side);
const rule = <Rule extends string>(one: ReturnType<typeof finding>, wanted: Rule) =>
  one?.reasons.find((reason) => reason.rule === wanted);

describe('a figure for an age', () => {
  const reps = (birthDate: string, athlete: object = {}) =>
    judged({
      athlete: { birthDate, ...athlete },
      screenings: [on(TODAY_RESULTS, result('heel-raise-reps', 'left', 12))],
    });
  it('is not held against somebody older, and is said with the age it is for', () => {
    const [within] = reps('1967-03-02').capacities; // 59
    expect(within).toMatchObject({ need: 20, adultNeed: null });
    const older = reps('1967-03-01'); // 60 today
    expect(older.capacities[0]).toMatchObject({ need: null, adultNeed: 20, state: null });
    expect(finding(older, 'calf-endurance-deficit')).toBeUndefined();
  });
  it('that a task asks for is asked at any age', () => {
    const task = { tasks: [{ id: 'fell-running-descent', lead: 'either' }] };
    const [row] = reps('1960-01-01', task).capacities;
    expect(row?.needSource).toEqual({ kind: 'task', id: 'fell-running-descent' });
  });
  it('is given by every measured test, and by no grade or pain', () => {
    const without = bundledReference.data.tests.filter((test) => !test.reference.ages).map((t) => t.quantity);
    expect(new Set(without)).toEqual(new Set(['movement-quality', 'provocation']));
    const grip = bundledReference.tests.get('grip-strength');
    expect(grip && [50, 51].map((age) => isBeyondNorm(grip, age))).toEqual([false, true]);
  });
});

describe('two tests that contradict', () => {
  const hip = (strength: number, grade: number) =>
    finding(
      judged({
        screenings: [
          on(
            TODAY_RESULTS,
            result('hip-abduction-strength', 'left', strength),
            result('single-leg-squat-alignment', 'left', grade),
          ),
        ],
      }),
      'hip-abductor-strength-deficit',
    );
  it('are named; what measures it counts more than what is seen, which counts half', () => {
    const one = hip(3.2, 0);
    expect(rule(one, 'tests-disagree')).toEqual({
      rule: 'tests-disagree',
      short: 'single-leg-squat-alignment',
      enough: 'hip-abduction-strength',
      measured: 'hip-abduction-strength',
      settle: 'hip-abduction-strength',
      again: true,
    });
    expect(one).toMatchObject({ state: 'likely-short', severity: 0.5 });
  });
  it('are not when both say the same, and a sign does not soften what was measured', () => {
    expect(rule(hip(1.2, 0), 'tests-disagree')).toBeUndefined();
    expect(rule(hip(3.2, 3), 'tests-disagree')).toBeUndefined();
    const weak = hip(1.2, 3);
    expect(rule(weak, 'tests-disagree')).toMatchObject({ measured: 'hip-abduction-strength' });
    expect(weak).toMatchObject({ state: 'short', severity: 1 });
  });
  it('both measured are told apart by a third, or by one of them again', () => {
    const both = finding(
      judged({
        screenings: [on(TODAY_RESULTS, result('wblt-distance', 'left', 5), result('wblt-angle', 'left', 46))],
      }),
      'ankle-dorsiflexion-limit',
    );
    expect(rule(both, 'tests-disagree')).toMatchObject({
      short: 'wblt-distance',
      enough: 'wblt-angle',
      measured: null,
      settle: 'wblt-distance',
      again: true,
    });
    expect(both?.state).toBe('short');
  });
});

describe('the latest reading', () => {
  const visits = (...values: number[]) =>
    finding(
      judged({
        screenings: values.map((value, i) => on(`2027-01-${10 + i}`, result('wblt-angle', 'left', value))),
      }),
      'ankle-dorsiflexion-limit',
    );
  it('is set beside an estimate it lies apart from, and not where they agree', () => {
    const sem = bundledReference.tests.get('wblt-angle')?.sem.value ?? 0;
    const apart = rule(visits(28, 28, 28, 31.8), 'reading-apart');
    if (apart?.rule !== 'reading-apart') throw new Error('not said');
    expect(apart).toMatchObject({ test: 'wblt-angle', value: 31.8, error: 1.96 * sem });
    expect(apart.estimate).toBeGreaterThan(28);
    expect(apart.estimate).toBeLessThan(31.8 - 1.96 * sem);
    expect(rule(visits(28, 28, 28, 30), 'reading-apart')).toBeUndefined();
  });
});

describe('a need inside the error of its test', () => {
  const balance = (test: string, value: number) =>
    finding(
      judged({ screenings: [on(TODAY_RESULTS, result(test, 'left', value))] }),
      'ankle-balance-deficit',
    );
  it('says so', () => {
    expect(rule(balance('single-leg-balance-ec', 2), 'need-inside-error')).toMatchObject({
      need: 8,
      mdc95: 11,
    });
    expect(balance('single-leg-balance-eo', 10)).toBeDefined();
    expect(rule(balance('single-leg-balance-eo', 10), 'need-inside-error')).toBeUndefined();
  });
});

describe('the confidence of a need', () => {
  const of = (
    kind: 'task' | 'floor' | 'override' | 'trend' | 'ratio',
    id: string,
    test = 'prone-knee-bend',
  ) => needConfidence(bundledReference, { test, needSource: { kind, id } });
  it('is that of the figure that asks, not of the test', () => {
    const test = bundledReference.tests.get('prone-knee-bend');
    expect(test?.confidence).not.toBe(test?.confidenceBy.flag);
    expect(of('task', 'climbing-high-step', 'hip-flexion-range')).toBe('low');
    expect(of('floor', 'prone-knee-bend')).toBe(test?.confidenceBy.flag);
    expect(of('trend', '2027-01-01')).toBe(test?.confidenceBy.error);
    expect(of('ratio', 'x')).toBe('low');
    expect(of('override', 'prone-knee-bend')).toBeNull();
  });
});
