import { angleTrace, forceTrace, matEvents, SAMPLE_HZ } from '@yonder/core/devices';
import { bundledReference } from '@yonder/core/reference/bundled';
import type { Test } from '@yonder/core/reference';
import { describe, expect, it } from 'vitest';
import { captured, deviceOf } from './capture.ts';

const testOf = (id: string) => bundledReference.tests.get(id) as Test;
const force = (samples: readonly number[], taken: 'peak' | 'best-second' = 'peak') =>
  captured('dynamometer', { samples, contacts: [] }, SAMPLE_HZ, taken);
const flat = (value: number, seconds: number) => Array.from({ length: seconds * SAMPLE_HZ }, () => value);
const ramp = (to: number) => Array.from({ length: 0.3 * SAMPLE_HZ }, (_, i) => (to * (i + 1)) / 30);

describe('the device that measures a test', () => {
  it.each([
    ['ankle-eversion-strength', 'dynamometer'],
    ['grip-strength', 'dynamometer'],
    ['quadriceps-strength', 'dynamometer'],
    ['wblt-angle', 'inclinometer'],
    ['side-hop-reps', 'contact-mat'],
    ['wblt-distance', null],
    ['heel-raise-reps', null],
    ['single-leg-balance-ec', null],
    ['step-down-quality', null],
  ])('of %s is %s', (id, kind) => {
    expect(deviceOf(testOf(id))).toBe(kind);
  });

  it('is never asked for a grade, a rating or a pain', () => {
    const seen = bundledReference.data.tests.filter((t) => t.gradingRule || t.unit === 'nrs-0-10');
    expect(seen.map(deviceOf).filter(Boolean)).toEqual([]);
  });
});

describe('what a recording comes to', () => {
  it('takes the peak or the best second, and says both', () => {
    const samples = [...flat(0, 1), ...ramp(210), ...flat(200, 2)];
    expect(force(samples).value).toBeCloseTo(210, 6);
    expect(force(samples, 'best-second').value).toBeCloseTo(200, 0);
    expect(force(samples).text).toMatch(/^peak 210 N, best second 20\d N$/);
  });

  it('is nothing before there was a pull', () => {
    expect(force([])).toEqual({ value: null, text: '', warnings: [] });
    expect(force(flat(3, 3)).value).toBeNull(); // only the offset
  });

  it('says in words why a pull is worth repeating', () => {
    const jerk = [...flat(0, 1), ...flat(200, 2)];
    const short = [...flat(0, 1), ...ramp(200), ...flat(200, 0.4), ...flat(0, 1)];
    expect(force(jerk).warnings.join()).toContain('jerk');
    expect(force(short).warnings.join()).toContain('let go');
  });

  it('an angle is moving until it holds still', () => {
    const samples = angleTrace(5, 40);
    const at = (seconds: number) =>
      captured(
        'inclinometer',
        { samples: samples.slice(0, seconds * SAMPLE_HZ), contacts: [] },
        SAMPLE_HZ,
        'peak',
      );
    expect(at(1.5)).toMatchObject({ value: null, text: expect.stringContaining('moving') });
    expect(at(6).text).toContain('steady');
    expect(at(6).value).toBeGreaterThan(37);
  });

  it('hops are counted with their height and ratio', () => {
    const none = captured('contact-mat', { samples: [], contacts: [{ t: 0, down: true }] }, 100, 'peak');
    expect(none).toMatchObject({ value: null, text: '0 hops' });
    const some = captured('contact-mat', { samples: [], contacts: matEvents(2, 6) }, 100, 'peak');
    expect(some.value).toBe(6);
    expect(some.text).toMatch(/^6 hops, mean height \d+\.\d cm, flight ÷ contact \d\.\d\d$/);
  });

  it('the stand-in is read as it was played, whichever seed', () => {
    for (let seed = 1; seed < 30; seed += 1) {
      const capture = force(forceTrace(seed, 300));
      if (capture.warnings.length === 0) {
        expect(capture.value).toBeGreaterThan(300 * 0.92);
        expect(capture.value).toBeLessThan(300 * 1.1);
      }
    }
  });
});
