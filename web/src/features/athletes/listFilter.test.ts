import type { AthleteSummary } from '@yonder/core/contracts';
import { describe, expect, it } from 'vitest';
import { viewAthletes } from './listFilter.ts';
import type { ListView } from './listFilter.ts';

const athlete = (name: string, over: Partial<AthleteSummary> = {}): AthleteSummary => ({
  id: name,
  name,
  sport: 'fell running',
  birthDate: '2000-01-01',
  age: 27,
  lastScreening: '2027-02-01',
  rescreenDue: '2027-04-01',
  routineVersion: 1,
  blocked: false,
  precautions: 0,
  reviewsDue: 0,
  protocol: false,
  judged: true,
  restrictions: [],
  todo: [],
  oldResults: 0,
  ridge: [],
  real: { better: 0, worse: 0 },
  ...over,
});
const short = (severity: number) => [{ restriction: 'x', side: 'left' as const, state: 'short', severity }];
const RESCREEN = {
  kind: 'rescreen' as const,
  test: 'wblt-distance',
  side: 'left' as const,
  chance: 0.4,
  drills: 2,
  seconds: 150,
  date: '2027-02-01',
};
const people = [
  athlete('Cade', { restrictions: short(0.4), rescreenDue: '2027-03-01', todo: [RESCREEN] }),
  athlete('Ada', { blocked: true, restrictions: short(0.9), lastScreening: null, rescreenDue: null }),
  athlete('Bo', { sport: 'lead climbing', age: 14, rescreenDue: '2027-02-20', todo: [RESCREEN] }),
];
const names = (view: Partial<ListView>) =>
  viewAthletes(people, { text: '', filters: [], sort: 'name', down: false, ...view }).map((a) => a.name);

describe('the list of athletes', () => {
  it('sorts by any column, both ways; who has no value comes last either way', () => {
    expect(names({})).toEqual(['Ada', 'Bo', 'Cade']);
    expect(names({ down: true })).toEqual(['Cade', 'Bo', 'Ada']);
    expect(names({ sort: 'severity', down: true })).toEqual(['Ada', 'Cade', 'Bo']);
    expect(names({ sort: 'rescreen' })).toEqual(['Bo', 'Cade', 'Ada']);
    expect(names({ sort: 'rescreen', down: true })).toEqual(['Cade', 'Bo', 'Ada']);
  });

  it('finds by name or sport, whatever the case', () => {
    expect(names({ text: 'CLIMB' })).toEqual(['Bo']);
    expect(names({ text: ' cAd' })).toEqual(['Cade']);
  });

  it('narrows by every filter at once', () => {
    expect(names({ filters: ['stop'] })).toEqual(['Ada']);
    expect(names({ filters: ['rescreen'] })).toEqual(['Bo', 'Cade']);
    expect(names({ filters: ['rescreen', 'youth'] })).toEqual(['Bo']);
    expect(names({ filters: ['never'] })).toEqual(['Ada']);
  });
});
