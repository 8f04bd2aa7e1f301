import { describe, expect, it } from 'vitest';
import { bundledReference } from '../reference/bundled.ts';
import { caseOf } from '../testing/cases.ts';
import type { Athlete, ScreeningResult } from '../domain/index.ts';
import { PAIN_PATTERNS, painPatterns } from './index.ts';
import { judgeCase, standingOf } from '../testing/prepared.ts';

const lunge = (pain: ScreeningResult['pain'], date = '2027-02-27') => ({
  date,
  results: [{ test: 'wblt-distance', side: 'left' as const, trials: [7], pain }],
});
const pain = (over: Partial<Athlete['pains'][0]>): Athlete['pains'][0] => ({
  region: 'elbow',
  side: 'right',
  aspect: 'outer',
  feel: 'ache',
  when: 'day-after',
  nrs: 3,
  since: '2027-02-01',
  ended: null,
  ...over,
});
const hits = (input: Parameters<typeof caseOf>[0]) =>
  painPatterns(bundledReference, standingOf(caseOf(input)));

describe('the place and feel of a pain', () => {
  it('tells a pinch at the front of the ankle from a stretch at the back', () => {
    const [front] = hits({ screenings: [lunge({ nrs: 2, aspect: 'front', feel: 'pinch' })] });
    const [back] = hits({ screenings: [lunge({ nrs: 2, aspect: 'back', feel: 'stretch' })] });
    expect(front).toMatchObject({ pattern: 'ankle-front-pinch', side: 'left', test: 'wblt-distance' });
    expect(back).toMatchObject({ pattern: 'ankle-back-stretch', restriction: 'ankle-dorsiflexion-limit' });
    expect(front?.says).not.toBe(back?.says);
  });

  it('says nothing without pain, without a feel, or once the newest result is free of it', () => {
    expect(hits({ screenings: [lunge({ nrs: 0, aspect: 'front', feel: 'pinch' })] })).toEqual([]);
    expect(hits({ screenings: [lunge({ nrs: 4 })] })).toEqual([]);
    const hurt = lunge({ nrs: 3, aspect: 'front', feel: 'pinch' }, '2027-01-05');
    expect(hits({ screenings: [hurt, lunge({ nrs: 0 })] })).toEqual([]);
  });

  it('counts what was felt today, and nothing that is ahead', () => {
    const felt = (date: string) =>
      hits({ screenings: [lunge({ nrs: 2, aspect: 'front', feel: 'pinch' }, date)] });
    expect(felt('2027-03-01')).toHaveLength(1);
    expect(felt('2027-03-02')).toEqual([]);
  });

  it('speaks from the story too, until the pain has ended', () => {
    expect(hits({ athlete: { pains: [pain({})] } })).toMatchObject([
      { restriction: 'lateral-elbow-load-irritability', side: 'right', test: null },
    ]);
    expect(hits({ athlete: { pains: [pain({ ended: '2027-02-20' })] } })).toEqual([]);
  });

  it.each(['giving-way', 'locking', 'numb'] as const)('%s asks for the stop-and-refer questions', (feel) => {
    const [hit] = hits({ athlete: { pains: [pain({ feel, aspect: undefined })] } });
    expect(hit).toMatchObject({ refer: true, restriction: null, region: 'elbow' });
  });

  it('moves no severity and no priority', () => {
    const judge = (p: ScreeningResult['pain']) =>
      judgeCase(bundledReference, caseOf({ screenings: [lunge(p)] })).findings.map((f) => [
        f.restriction,
        f.severity,
        f.priority,
      ]);
    expect(judge({ nrs: 1, aspect: 'front', feel: 'pinch' })).toEqual(judge({ nrs: 1 }));
  });

  it('only suggests restrictions of its own region that exist', () => {
    for (const { id, suggests, region } of PAIN_PATTERNS) {
      expect([id, bundledReference.restrictions.get(suggests ?? '')?.region]).toEqual([id, region]);
    }
  });
});
