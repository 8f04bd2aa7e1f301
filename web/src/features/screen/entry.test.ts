import { bundledReference } from '@yonder/core/reference/bundled';
import { caseSchema } from '@yonder/core/schemas';
import { safetyState } from '@yonder/core/safety';
import { describe, expect, it } from 'vitest';
import { readNumber } from '../../app/readNumber.ts';
import { entryOf, painFault, sameAsStored, trialFault, trialFields, trialValues } from './entry.ts';
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
  const fields = (...trials: string[]) => trialFields(lunge, { trials, pain: '' });
  it('are as many as the test asks for', () => {
    expect(fields()).toBe(3);
    expect(fields('7', '7.1')).toBe(3);
  });
  it('one more while the spread is too large, five at most', () => {
    expect(fields('7', '7.1', '8.5')).toBe(4);
    expect(fields('7', '7.1', '8.5', '7.2')).toBe(5);
    expect(fields('7', '7.1', '8.5', '7.2', '7.3')).toBe(5);
  });
  it('unreadable text is not a value', () => {
    expect(trialValues(lunge, { trials: ['7', '71', 'x', '7,5'], pain: '' })).toEqual([7, 7.5]);
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
    expect(entryOf(row)).toEqual({ trials: ['7', '7.2'], pain: '1' });
    expect(entryOf(undefined)).toEqual({ trials: [], pain: '' });
  });
  it('is not stored again when nothing changed, and is when pain alone did', () => {
    expect(sameAsStored(lunge, { trials: ['7.0', '7,2'], pain: '1' }, row)).toBe(true);
    expect(sameAsStored(lunge, { trials: ['7', '7.2'], pain: '2' }, row)).toBe(false);
    expect(sameAsStored(lunge, { trials: ['7', '7.2', '7.1'], pain: '1' }, row)).toBe(false);
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
