import { describe, expect, it } from 'vitest';
import type { Case } from '../domain/index.ts';
import { REGIONS } from '../domain/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { caseOf, TODAY } from '../testing/cases.ts';
import { answerHolding, gateTopics, regionsInPlay, seasonEnd, topicsDue, topicsDueFor } from './index.ts';
import { eachOf } from '../testing/eachOf.ts';

const ADULT = '2001-05-02';
const answer = (topic: string, on: string, until: string) => ({ topic, on, until });
const athleteWith = (athlete: Partial<Case['athlete']>) => caseOf({ athlete }).athlete;
const GENERAL = gateTopics(bundledReference, [], ADULT, TODAY);
const generalAsked = GENERAL.map(({ id }) => answer(id, TODAY, '2027-09-30'));

describe('a season', () => {
  it.each([
    ['2027-09-30', '10-01', '2027-09-30'],
    ['2027-10-01', '10-01', '2028-09-30'],
    ['2027-01-01', '10-01', '2027-09-30'],
    ['2027-12-31', '01-01', '2027-12-31'],
    ['2028-01-15', '03-01', '2028-02-29'],
    ['2027-01-15', '03-01', '2027-02-28'],
  ])('an answer of %s holds, with seasons from %s, until %s', (day, starts, until) => {
    expect(seasonEnd(day, starts)).toBe(until);
  });
});

describe('an answer', () => {
  const asked = [answer('knee', '2026-10-05', '2027-09-30'), answer('knee', '2027-02-01', '2027-09-30')];
  const topic = (id: string, ...signs: string[]) => ({
    id,
    signs: signs.map((sign) => ({ sign: { id: sign } })),
  });

  it('holds to the end of its season and not a day longer; the newest counts', () => {
    expect(answerHolding(asked, topic('knee'), '2027-09-30')?.on).toBe('2027-02-01');
    expect(answerHolding(asked, topic('knee'), '2027-10-01')).toBeNull();
    expect(answerHolding(asked, topic('hip'), '2027-09-30')).toBeNull();
  });

  it('covers work of an earlier day that is written down afterwards', () => {
    expect(answerHolding(asked, topic('knee'), '2026-09-01')).not.toBeNull();
  });
  it('does not hold for a sign that was not read out then; what was read of older answers is not known', () => {
    const read = [{ ...answer('knee', '2027-02-01', '2027-09-30'), signs: ['locking', 'giving'] }];
    const holds = (given: typeof asked, ...signs: string[]) =>
      answerHolding(given, topic('knee', ...signs), '2027-03-01') !== null;
    expect(holds(read, 'giving')).toBe(true);
    expect(holds(read, 'giving', 'locking')).toBe(true);
    expect(holds(read, 'giving', 'locked')).toBe(false);
    expect(holds(asked, 'giving', 'locked')).toBe(true);
  });
});

describe('the questions', () => {
  it('ask every sign in exactly one place', () => {
    for (const birthDate of [ADULT, '2015-03-01', '1950-03-01']) {
      const signs = gateTopics(bundledReference, REGIONS, birthDate, TODAY).flatMap((t) =>
        t.signs.map(({ sign }) => sign.id),
      );
      expect(new Set(signs).size).toBe(signs.length);
    }
    const asked = new Set(
      ['2015-03-01', ADULT, '1950-03-01'].flatMap((birthDate) =>
        gateTopics(bundledReference, REGIONS, birthDate, TODAY).flatMap((t) =>
          t.signs.map(({ sign }) => sign.id),
        ),
      ),
    );
    expect(bundledReference.data.redFlags.filter((sign) => !asked.has(sign.id))).toEqual([]);
  });

  it('are eight to twelve general groups, and not all of them expect the same answer', () => {
    expect(GENERAL.length).toBeGreaterThanOrEqual(8);
    expect(GENERAL.length).toBeLessThanOrEqual(12);
    expect(new Set(GENERAL.map((topic) => topic.expects)).size).toBe(2);
  });

  it('leave out what is asked at another age, on both sides of the limit', () => {
    const ofAge = (birthDate: string) =>
      gateTopics(bundledReference, REGIONS, birthDate, TODAY).flatMap((t) => t.signs.map((s) => s.sign));
    const limited = bundledReference.data.redFlags.filter((sign) => sign.ageMax !== null);
    expect(limited.length).toBeGreaterThan(0);
    for (const sign of eachOf(limited)) {
      const year = Number(TODAY.slice(0, 4)) - (sign.ageMax as number);
      const birthday = TODAY.slice(4); // turns the limit's age, or one more, on this very day
      expect(ofAge(`${year}${birthday}`)).toContain(sign);
      expect(ofAge(`${year - 1}${birthday}`)).not.toContain(sign);
    }
    for (const sign of eachOf(bundledReference.data.redFlags.filter((one) => one.ageMin !== null))) {
      const year = Number(TODAY.slice(0, 4)) - (sign.ageMin as number);
      expect(ofAge(`${year}${TODAY.slice(4)}`)).toContain(sign);
      expect(ofAge(`${year + 1}${TODAY.slice(4)}`)).not.toContain(sign);
    }
    const always = bundledReference.data.redFlags.filter((one) => one.ageMin === null && one.ageMax === null);
    for (const birthDate of ['2020-01-01', '1950-01-01'])
      expect(ofAge(birthDate)).toEqual(expect.arrayContaining(always));
  });
});

describe('what is due', () => {
  it('is everything for somebody never asked, and nothing where answers are not kept', () => {
    const due = topicsDue(bundledReference, athleteWith({ asked: [] }), ['knee'], TODAY);
    expect(due.map(({ id }) => id)).toEqual([...GENERAL.map(({ id }) => id), 'knee']);
    expect(topicsDue(bundledReference, athleteWith({ asked: null }), ['knee'], TODAY)).toEqual([]);
  });

  it('is a region for the drills whose primary region it is, and for no other', () => {
    const athlete = athleteWith({ asked: [...generalAsked, answer('knee', TODAY, '2027-09-30')] });
    const { general, ofDrill } = topicsDueFor(
      bundledReference,
      athlete,
      ['knee-to-wall-rock', 'no-such-drill'],
      TODAY,
    );
    expect(general).toEqual([]);
    expect([...ofDrill].map(([drill, topic]) => [drill, topic.id])).toEqual([
      ['knee-to-wall-rock', 'ankle-foot'],
    ]);
  });

  it('is a general group again once its season is over', () => {
    const { general } = topicsDueFor(
      bundledReference,
      athleteWith({ asked: generalAsked }),
      [],
      '2027-10-01',
    );
    expect(general).toHaveLength(GENERAL.length);
  });
});

describe('regions in play', () => {
  const injury = (date: string) => ({
    region: 'shoulder' as const,
    side: 'left' as const,
    date,
    operated: false,
  });
  const inPlay = (athlete: Partial<Case['athlete']>) =>
    regionsInPlay(bundledReference, athleteWith({ tasks: [], injuries: [], pains: [], ...athlete }), TODAY);

  it('come from an injury of two years, and not of one a day older', () => {
    const shortly = `${Number(TODAY.slice(0, 4)) - 2}${TODAY.slice(4)}`;
    const before = `${Number(TODAY.slice(0, 4)) - 2}-01-01`;
    expect(inPlay({ injuries: [injury(shortly)] })).toEqual([
      { region: 'shoulder', because: 'injury', about: shortly },
    ]);
    expect(inPlay({ injuries: [injury(before)] })).toEqual([]);
  });

  it('come from a pain that is there, not from one that has ended', () => {
    const pain = { region: 'knee' as const, side: 'left' as const, when: 'movement' as const, nrs: 3 };
    const of = (since: string, ended: string | null) => inPlay({ pains: [{ ...pain, since, ended }] });
    expect(of(TODAY, null)).toMatchObject([{ region: 'knee', because: 'pain' }]);
    expect(of('2027-01-01', TODAY)).toEqual([]);
    expect(of('2027-12-31', null)).toEqual([]);
  });

  it('come from what the sport’s tasks are measured by', () => {
    const found = inPlay({ tasks: [{ id: 'fell-running-descent', lead: 'either' }] });
    expect(found.length).toBeGreaterThan(1);
    expect(found.every(({ because, about }) => because === 'task' && about === 'fell-running-descent')).toBe(
      true,
    );
  });
});
