import { bundledReference } from '@yonder/core/reference/bundled';
import { caseSchema } from '@yonder/core/schemas';
import type { ResultRow } from '@yonder/core/contracts';
import type { Test } from '@yonder/core/reference';
import { safetyState } from '@yonder/core/safety';
import { describe, expect, it } from 'vitest';
import { readNumber } from '../../app/readNumber.ts';
import {
  EMPTY_ENTRY,
  entryGrade,
  entryOf,
  painFault,
  resultOf,
  sameAsStored,
  trialFault,
  trialFields,
  trialValues,
  withMark,
} from './entry.ts';
import { conversionOf, inTestUnit } from './convert.ts';
import { testsOfRegion } from './testsOfRegion.ts';

const lunge = bundledReference.tests.get('wblt-distance');
if (!lunge) throw new Error('no lunge test');

describe('what is typed', () => {
  it.each([
    ['7.2', 7.2],
    ['7,2', 7.2],
    [' 7 ', 7],
    ['-3', -3],
    ['−3', -3],
    ['.5', 0.5],
    ['7.', 7],
    ['', null],
    ['seven', null],
    ['7 2', null],
    ['1e3', null],
  ])('"%s" reads as %s', (text, value) => {
    expect(readNumber(text)).toBe(value);
  });
  it('says what would be right when it is not plausible', () => {
    expect(trialFault(lunge, '71')).toBe('outside -5 to 25 cm');
    expect(trialFault(lunge, 'x')).toBe('not a number');
    expect(trialFault(lunge, '')).toBeNull();
    expect(painFault('11')).toBe('0 to 10');
    expect(painFault('4')).toBeNull();
  });
});

describe('trial fields', () => {
  const fields = (...trials: string[]) => trialFields(lunge, { ...EMPTY_ENTRY, trials });
  it('are as many as the test asks for', () => {
    expect(fields()).toBe(3);
    expect(fields('7', '7.1')).toBe(3);
  });
  it('one more where they lie too far apart, once', () => {
    expect(fields('7', '7.1', '8.5')).toBe(4);
    expect(fields('7', '7.1', '8.5', '7.2')).toBe(4);
  });
  it('one for each that was struck out; the place is kept although an earlier field is empty', () => {
    const entry = {
      ...EMPTY_ENTRY,
      trials: ['', '7', '12', '7.2'],
      struck: [{ trial: 2, reason: 'heel came up' }],
    };
    expect(trialValues(lunge, entry)).toEqual([7, 7.2]);
    expect(trialFields(lunge, entry)).toBe(4);
    expect(resultOf(lunge, entry)).toMatchObject({
      trials: [7, 12, 7.2],
      struck: [{ trial: 1, reason: 'heel came up' }],
    });
  });
  it('unreadable text is not a value', () => {
    expect(trialValues(lunge, { ...EMPTY_ENTRY, trials: ['7', '71', 'x', '7,5'] })).toEqual([7, 7.5]);
  });
});

describe('what is stored', () => {
  const row = {
    test: 'wblt-distance',
    side: 'left' as const,
    trials: [7, 7.2],
    pain: { nrs: 1 },
    version: 3,
  };
  it('comes back into the fields as it was', () => {
    expect(entryOf(row)).toEqual({ ...EMPTY_ENTRY, trials: ['7', '7.2'], pain: '1' });
    expect(entryOf(undefined)).toEqual(EMPTY_ENTRY);
  });
  it('is not stored again when nothing changed, and is when pain alone did', () => {
    expect(sameAsStored(lunge, { ...EMPTY_ENTRY, trials: ['7.0', '7,2'], pain: '1' }, row)).toBe(true);
    expect(sameAsStored(lunge, { ...EMPTY_ENTRY, trials: ['7', '7.2'], pain: '2' }, row)).toBe(false);
    expect(sameAsStored(lunge, { ...EMPTY_ENTRY, trials: ['7', '7.2', '7.1'], pain: '1' }, row)).toBe(false);
  });
});

describe('the tests of a region', () => {
  const listed = (athlete: object, screenings: object[] = []) => {
    const input = caseSchema.parse({
      format: 'yonder-ridge-case/1',
      today: '2027-03-01',
      athlete: { birthDate: '2000-01-01', ...athlete },
      screenings,
    });
    const safety = safetyState(bundledReference, input.athlete, input.today);
    return testsOfRegion(bundledReference, input, safety, 'ankle-foot').map((t) => t.id);
  };
  it('hold its own and the whole-body ones that inform it, those asked for first', () => {
    const ids = listed({ tasks: [{ id: 'fell-running-descent' }] });
    expect(ids[0]).toBe('wblt-distance');
    expect(ids).toContain('single-leg-balance-ec');
    expect(ids).not.toContain('knee-flexion-range');
    expect(ids).not.toContain('reach-balance-composite');
    // A composite that is asked for asks for its parts.
    expect(ids.indexOf('reach-balance-anterior')).toBeLessThan(ids.indexOf('wblt-angle'));
  });
  it('keep their order while today’s results come in', () => {
    const before = listed({});
    const during = listed({}, [
      { date: '2027-03-01', results: [{ test: 'hop-achilles-pain', side: 'left', trials: [0] }] },
    ]);
    expect(during).toEqual(before);
    const nextTime = listed({}, [
      { date: '2027-02-01', results: [{ test: 'hop-achilles-pain', side: 'left', trials: [0] }] },
    ]);
    expect(nextTime[0]).toBe('hop-achilles-pain');
  });
  it('are none while a stop sign blocks the region', () => {
    expect(listed({ redFlags: [{ id: 'foot-locking', answer: true }] })).toEqual([]);
  });
});

describe('what was seen', () => {
  const step = bundledReference.tests.get('step-down-quality') as Test;
  const raise = bundledReference.tests.get('active-straight-leg-raise') as Test;
  const [first, second] = (step.faults ?? []).map((f) => f.id) as [string, string];

  it('makes the grade by the stated rule; nobody looked is no grade', () => {
    expect(trialFields(step, EMPTY_ENTRY)).toBe(0);
    expect(entryGrade(step, EMPTY_ENTRY)).toBeNull();
    expect(resultOf(step, EMPTY_ENTRY)).toBeNull();
    expect(entryGrade(step, { ...EMPTY_ENTRY, faults: [] })).toBe(3);
    const slight = withMark(EMPTY_ENTRY, first, 'slight');
    expect(entryGrade(step, slight)).toBe(2);
    expect(entryGrade(step, withMark(slight, second, 'clear'))).toBe(1);
    expect(entryGrade(step, withMark(slight, first, null))).toBe(3);
    expect(entryGrade(step, { ...EMPTY_ENTRY, unable: true })).toBe(0);
  });

  it('is stored with grade and marks, and read back the same', () => {
    const entry = withMark(withMark(EMPTY_ENTRY, first, 'slight'), second, 'clear');
    const stored = resultOf(step, entry);
    expect(stored).toMatchObject({ grade: 1, faults: [{ id: first, mark: 'slight' }, { id: second }] });
    const row = { ...stored, test: step.id, side: 'left', version: 1 } as ResultRow;
    expect(entryOf(row)).toEqual(entry);
    expect(sameAsStored(step, entry, row)).toBe(true);
  });

  it('limits a rating from below', () => {
    const fault = raise.faults?.[0]?.id ?? '';
    const seen = withMark({ ...EMPTY_ENTRY, trials: ['0'] }, fault, 'clear');
    expect(trialFault(raise, '0', seen)).toBe('at least 1: clear faults are marked');
    expect(resultOf(raise, seen)).toBeNull();
    expect(resultOf(raise, { ...seen, trials: ['2'] })).toMatchObject({ grade: 2 });
  });
});

describe('where and how it hurts', () => {
  const lungeTest = bundledReference.tests.get('wblt-distance') as Test;
  const entry = { ...EMPTY_ENTRY, trials: ['7'], aspect: 'front', feel: 'pinch' } as const;
  it('is kept with the pain, and goes with it', () => {
    expect(resultOf(lungeTest, { ...entry, pain: '3' })?.pain).toEqual({
      nrs: 3,
      aspect: 'front',
      feel: 'pinch',
    });
    expect(resultOf(lungeTest, { ...entry, pain: '0' })?.pain).toEqual({ nrs: 0 });
  });
});

describe('a raw reading', () => {
  const athlete = {
    bodyMassKg: 60,
    limbLengthCm: { leg: { left: 86, right: 90 } },
  };
  const of = (id: string, side: 'left' | 'right' = 'left', over = {}) =>
    conversionOf(bundledReference.tests.get(id) as Test, { ...athlete, ...over }, side);
  const reach = bundledReference.data.tests.find(
    (t) => t.unit === '%limb-length' && !t.derivedFrom && t.region !== 'shoulder',
  );
  const torque = bundledReference.data.tests.find((t) => t.unit === 'Nm/kg');

  const as = (id: string, side: 'left' | 'right', reading: number, lever: number | null = null) => {
    const way = of(id, side);
    const test = bundledReference.tests.get(id) as Test;
    return way && 'measured' in way ? inTestUnit(test, { ...way.measured, lever }, reading) : undefined;
  };

  it('in cm is a share of that side’s limb; in N of body mass, with a lever where it is torque', () => {
    expect(of(reach?.id ?? '')).toMatchObject({ measured: { unit: 'cm', per: 86 }, by: 'leg length 86 cm' });
    expect(as(reach?.id ?? '', 'left', 62)).toBe(72.1); // 62 ÷ 86
    expect(as(reach?.id ?? '', 'right', 62)).toBe(68.9); // 62 ÷ 90
    expect(as('ankle-eversion-strength', 'left', 126)).toBe(2.1);
    expect(as(torque?.id ?? '', 'left', 300, 32)).toBe(1.6); // 300 × 0.32 ÷ 60
    expect(as(torque?.id ?? '', 'left', 300)).toBeNull();
    expect(as(torque?.id ?? '', 'left', 300, 0)).toBeNull();
  });

  it('is stored in the unit of the test with what was read beside it, and shown as it was read', () => {
    const test = reach as Test;
    const entry = {
      ...EMPTY_ENTRY,
      trials: ['62', '', '63,5'],
      touchDowns: 1,
      measured: { unit: 'cm' as const, per: 86, lever: null },
    };
    expect(trialValues(test, entry)).toEqual([72.1, 73.8]);
    const stored = resultOf(test, entry);
    expect(stored).toMatchObject({
      trials: [72.1, 73.8],
      raw: { touchDowns: 1, readIn: 'cm', per: 86, lever: null, readings: [62, 63.5] },
    });
    const row = { ...stored, version: 1 } as unknown as ResultRow;
    expect(entryOf(row)).toMatchObject({ trials: ['62', '63.5'], measured: entry.measured });
    expect(sameAsStored(test, entryOf(row), row)).toBe(true);
    // Readings that do not belong to the trials, or are no readings, are not shown in their place.
    expect(entryOf({ ...row, trials: [72.1] } as ResultRow).trials).toEqual(['72.1']);
    expect(entryOf({ ...row, raw: { readIn: 'ells' } } as ResultRow).measured).toBeNull();
  });

  it('that makes no sense says what it comes to; a torque waits for its lever', () => {
    const cm = { ...EMPTY_ENTRY, measured: { unit: 'cm' as const, per: 86, lever: null } };
    expect(trialFault(reach as Test, '300', cm)).toMatch(/^348\.8 % limb is outside \d+ to \d+ % limb$/);
    const newton = { ...EMPTY_ENTRY, measured: { unit: 'N' as const, per: 60, lever: null } };
    expect(trialFault(torque as Test, '300', newton)).toBe('type the lever arm first');
    expect(resultOf(torque as Test, { ...newton, trials: ['300'] })).toBeNull();
  });

  it('says what is missing, and nothing where the unit is direct', () => {
    expect(of('ankle-eversion-strength', 'left', { bodyMassKg: null })).toEqual({ missing: 'body mass' });
    expect(of(reach?.id ?? '', 'left', { limbLengthCm: {} })).toEqual({ missing: 'leg length' });
    expect(of('wblt-distance')).toBeNull();
  });
});
