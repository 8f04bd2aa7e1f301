import { describe, expect, it } from 'vitest';
import { bundledReference } from '../reference/bundled.ts';
import { estimateSide, normalCdf, realChange, rescreenDue } from './index.ts';

const angle = bundledReference.tests.get('wblt-angle');
if (!angle) throw new Error('no shin angle test');
const visit = (date: string, value: number) => ({ date, value, pain: null });

describe('the local-level filter', () => {
  it('gives the worked example: 36.0 then 40.5 four weeks later is 38.8, SD 1.10', () => {
    const estimate = estimateSide(
      angle,
      [visit('2027-01-04', 36), visit('2027-02-01', 40.5)],
      [],
      '2027-02-01',
    );
    expect(estimate?.mean).toBeCloseTo(38.8, 1);
    expect(estimate?.sd).toBeCloseTo(1.1, 2);
  });

  it('agrees with the closed form of two visits, and with a weighted mean when capacity cannot wander', () => {
    const { value: sem } = angle.sem;
    const { value: q } = angle.processSdPerWeek;
    const weeks = 10 / 7;
    // Two visits: precision-weighted mean of the first (variance sem² + q²·weeks) and the second (sem²).
    const before = sem ** 2 + q ** 2 * weeks;
    const mean = (36 / before + 41 / sem ** 2) / (1 / before + 1 / sem ** 2);
    const sd = Math.sqrt(1 / (1 / before + 1 / sem ** 2) + (q ** 2 * 3) / 7);
    const estimate = estimateSide(
      angle,
      [visit('2027-01-01', 36), visit('2027-01-11', 41)],
      [],
      '2027-01-14',
    );
    expect(estimate?.mean).toBeCloseTo(mean, 9);
    expect(estimate?.sd).toBeCloseTo(sd, 9);

    const still = { ...angle, processSdPerWeek: { ...angle.processSdPerWeek, value: 0 } };
    const three = estimateSide(
      still,
      [visit('2027-01-01', 36), visit('2027-01-11', 41), visit('2027-02-20', 40)],
      [],
      '2027-03-01',
    );
    expect(three?.mean).toBeCloseTo((36 + 41 + 40) / 3, 9);
    expect(three?.sd).toBeCloseTo(sem / Math.sqrt(3), 9);
  });

  it('starts anew after an injury of that region and side, and after a year without a result', () => {
    const [first, second] = [visit('2026-01-01', 36), visit('2026-03-01', 33)];
    const after = (hurtOn: string[]) => estimateSide(angle, [first, second], hurtOn, '2026-03-01')?.mean;
    expect(after(['2026-02-01'])).toBe(33);
    expect(after(['2025-12-01'])).not.toBe(33);
    expect(after([])).not.toBe(33);
    const gap = estimateSide(angle, [visit('2025-01-01', 36), visit('2026-03-01', 30)], [], '2026-03-01');
    expect(gap).toMatchObject({ mean: 30, restarted: { because: 'long-break' } });
  });

  it('keeps the last grade and never averages it', () => {
    const grade = bundledReference.tests.get('step-down-quality');
    if (!grade) throw new Error('no graded test');
    const estimate = estimateSide(grade, [visit('2027-01-01', 1), visit('2027-02-01', 3)], [], '2027-03-01');
    expect(estimate).toMatchObject({ mean: 3, sd: null });
  });
});

describe('Φ', () => {
  it.each([
    [0, 0.5],
    [1.645, 0.950015],
    [1.96, 0.975002],
    [-2.326348, 0.01],
    [0.841621, 0.8],
  ])('at %f is %f (printed tables)', (z, p) => {
    expect(normalCdf(z)).toBeCloseTo(p, 5);
  });
});

describe('is a change real?', () => {
  it('36.0 to 40.5 is, 36 to 39 is not, and between MDC90 and MDC95 it is possible', () => {
    expect(realChange(angle, 36, 40.5)).toMatchObject({ difference: 4.5, real: 'yes' });
    expect(realChange(angle, 36, 39)).toMatchObject({ real: 'no' });
    expect(realChange(angle, 36, 39.4)).toMatchObject({ real: 'possibly' });
  });
  it('a drop is signed as worse, also where less is better', () => {
    const gap = bundledReference.tests.get('finger-flexion-gap');
    if (!gap) throw new Error('no gap test');
    expect(realChange(gap, 2, 0.5).difference).toBe(1.5);
  });
});

describe('when to rescreen', () => {
  const lunge = bundledReference.tests.get('wblt-distance');
  if (!lunge) throw new Error('no lunge test');
  const due = (value: number) => {
    const estimate = estimateSide(lunge, [visit('2027-01-01', value)], [], '2027-01-01');
    if (!estimate) throw new Error('no estimate');
    return rescreenDue(lunge, estimate, value - 9);
  };
  it('an undecided result at once, a clear one at the latest day', () => {
    expect(due(9.1)).toEqual({ due: '2027-01-15', why: 'undecided' });
    expect(due(14)).toEqual({ due: '2027-05-01', why: 'oldest-allowed' });
  });
  it('in between on the first day on which the call may be wrong with more than 20 %', () => {
    const { due: day, why } = due(9.7);
    expect(why).toBe('call-may-have-changed');
    const days = (Date.parse(day) - Date.parse('2027-01-01')) / 86_400_000;
    const wrong = (d: number) => normalCdf(-0.7 / Math.sqrt(0.6 ** 2 + (0.2 ** 2 * d) / 7));
    expect(wrong(days)).toBeGreaterThan(0.2);
    expect(wrong(days - 1)).toBeLessThanOrEqual(0.2);
  });
});
