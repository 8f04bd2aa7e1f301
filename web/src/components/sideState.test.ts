import { assessCase } from '@yonder/core/assess';
import { bundledReference } from '@yonder/core/reference/bundled';
import { caseSchema } from '@yonder/core/schemas';
import { describe, expect, it } from 'vitest';
import { errorText, fieldErrors } from '../app/api.ts';
import { stateOfSide } from './sideState.ts';

const report = (results: object[], athlete: object = {}) =>
  assessCase(
    bundledReference,
    caseSchema.parse({
      format: 'yonder-ridge-case/1',
      today: '2027-03-01',
      athlete: { birthDate: '2000-01-01', ...athlete },
      screenings: [{ date: '2027-02-28', results }],
    }),
  ).report;
const lunge = (side: string, value: number) => ({ test: 'wblt-distance', side, trials: [value] });

describe('the state of a region and side', () => {
  it('is its worst finding', () => {
    const judged = report([
      lunge('left', 6),
      lunge('right', 14),
      { test: 'heel-raise-reps', side: 'right', trials: [19] },
    ]);
    expect(stateOfSide(judged, 'ankle-foot', 'left')).toBe('short');
    expect(stateOfSide(judged, 'ankle-foot', 'right')).toBe('within-error');
    expect(stateOfSide(judged, 'knee', 'left')).toBe('unscreened');
  });
  it('is blocked while a stop sign is open, whatever was measured', () => {
    const judged = report([lunge('left', 14)], { redFlags: [{ id: 'foot-locking', answer: true }] });
    expect(stateOfSide(judged, 'ankle-foot', 'left')).toBe('blocked');
    expect(stateOfSide(judged, 'knee', 'left')).toBe('unscreened');
  });
});

describe('what a failed request says', () => {
  const problem = {
    kind: 'problem',
    problem: {
      type: '',
      title: 'The request has faults',
      status: 400,
      code: 'invalid-request',
      errors: [
        { path: '$.birthDate', message: 'must be before today' },
        { path: '$.tasks[2].id', message: 'unknown task' },
      ],
    },
  };
  it('names each fault, at its field and in one sentence', () => {
    expect(errorText(problem)).toBe('The request has faults: must be before today; unknown task');
    expect(fieldErrors(problem)).toEqual({ birthDate: 'must be before today', tasks: 'unknown task' });
  });
  it('promises that nothing is lost when there is no answer', () => {
    expect(errorText({ kind: 'offline' })).toMatch(/kept on this device/);
    expect(fieldErrors({ kind: 'offline' })).toEqual({});
  });
});
