import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { assessCase } from '../assess/index.ts';
import { buildRoutine } from '../builder/index.ts';
import type { Case, DiaryEntry } from '../domain/index.ts';
import { decideProgress } from '../progress/index.ts';
import { isHarder } from '../progress/hardened.ts';
import { bundledReference } from '../reference/bundled.ts';
import { regionsWorked } from '../reference/index.ts';
import { drillSafety } from '../safety/index.ts';
import { caseOf, entry, item } from '../testing/cases.ts';
import { eachOf } from '../testing/eachOf.ts';
import { forAll } from '../testing/forAll.ts';
import { testSolver } from '../testing/solver.ts';
import { painVerdict, reportsOf } from './index.ts';

const LIMITS = { fine: 3, stop: 5 };
const DAYS = ['2027-02-10', '2027-02-13', '2027-02-16', '2027-02-19', '2027-02-22'];
const verdict = (...said: Partial<DiaryEntry>[]) => {
  const diary = said.map((over, i) => ({
    date: DAYS[i] ?? '',
    provoked: [],
    entries: [entry('wall-sit', over)],
  }));
  return painVerdict(reportsOf({ diary, today: '2027-03-01' }, { drill: 'wall-sit', side: 'both' }, LIMITS));
};

describe('pain in a diary', () => {
  it('above the limit eases, twice running or in every second session of five refers', () => {
    const [calm, hurts] = [{ pain: 0 }, { pain: 6 }];
    expect(verdict(calm, hurts)).toMatchObject({ ask: 'ease', because: 'above-limit' });
    expect(verdict(hurts, hurts)).toMatchObject({ ask: 'refer', because: 'above-limit', times: 2 });
    expect(verdict(hurts, calm, hurts, calm, hurts)).toMatchObject({
      ask: 'refer',
      because: 'above-limit-often',
    });
    expect(verdict(hurts, calm, calm, calm, hurts)).toMatchObject({ ask: 'ease' });
    expect(verdict(calm, { pain: 5 })).toBeNull();
  });
  it('a morning above the limit counts whatever it was before; a morning nobody asked about counts as nothing', () => {
    const bad = { painBefore: 6, pain: 2, nextDayPain: 6 };
    expect(verdict(bad)).toMatchObject({ ask: 'ease', because: 'above-limit' });
    expect(verdict(bad, bad)).toMatchObject({ ask: 'refer' });
    const worse = { painBefore: 1, nextDayPain: 3 };
    expect(verdict(worse, { nextDayPain: null }, worse)).toMatchObject({
      ask: 'ease',
      because: 'worse-next-day',
      times: 2,
    });
    expect(verdict(worse, { nextDayPain: null }, worse, worse)).toMatchObject({ ask: 'refer', times: 3 });
    expect(verdict(worse, { nextDayPain: 0 }, worse)).toMatchObject({ ask: 'keep', times: 1 });
  });
});

const twice = (pain: number) =>
  ['2027-01-10', '2027-01-13'].map((date) => ({
    date,
    provoked: [],
    entries: [entry('wall-sit', { pain, amounts: [30] })],
  }));

describe('a referral', () => {
  const closed = (input: Case, id: string) => {
    const drill = bundledReference.drills.get(id);
    if (!drill) throw new Error(id);
    return drillSafety(bundledReference, drill, assessCase(bundledReference, input).safety).forbidden[0]
      ?.rule;
  };
  const calm = { date: '2027-02-28', provoked: [], entries: [entry('wall-sit', { amounts: [30] })] };
  it('closes its drill and what loads the region, weeks later and however calm it was since', () => {
    const input = caseOf({ diary: [...twice(8), calm] });
    for (const id of eachOf(['wall-sit', 'goblet-squat', 'squat-jump-stick']))
      expect(closed(input, id), id).toBe('referred');
    expect(closed(input, 'cat-camel')).toBe('referred'); // it kneels
    expect(closed(input, 'dead-bug')).toBeUndefined();
    expect(closed(caseOf({ diary: [...twice(5), calm] }), 'goblet-squat')).toBeUndefined();
  });
  it('ends by name and day; what hurts from then on counts anew', () => {
    const end = {
      region: 'knee' as const,
      side: 'central' as const,
      nrs: 8,
      reason: 'seen',
      by: 'R. Halloran',
      referral: true,
      places: null,
    };
    const ended = (date: string, pain = 0) =>
      caseOf({
        athlete: { lifts: [{ ...end, date }] },
        diary: [...twice(8), { ...calm, entries: [entry('wall-sit', { amounts: [30], pain })] }],
      });
    expect(closed(ended('2027-01-20'), 'goblet-squat')).toBeUndefined();
    expect(closed(ended('2027-01-11'), 'goblet-squat')).toBeUndefined(); // one session since, calm after it
    expect(closed(ended('2027-01-20', 8), 'goblet-squat')).toBe('day-rule');
  });
});

describe('what a session says of today', () => {
  const rule = (...sessions: [string, Partial<DiaryEntry>][]) =>
    assessCase(
      bundledReference,
      caseOf({
        diary: sessions.map(([date, said]) => ({
          date,
          provoked: [],
          entries: [entry('wall-sit', { amounts: [30], ...said })],
        })),
      }),
    ).safety.dayRules.find(({ region }) => region === 'knee');
  it('is the latest of the drill: a calm one ends it, one that was left out does not', () => {
    expect(rule(['2027-02-25', { pain: 4 }])).toMatchObject({ band: 'amber', nrs: 4 });
    expect(rule(['2027-02-25', { pain: 4 }], ['2027-02-27', {}])).toBeUndefined();
    const leftOut = { done: 'none' as const, pain: 0, nextDayPain: 0 };
    expect(rule(['2027-02-25', { pain: 4 }], ['2027-02-27', leftOut])).toMatchObject({ band: 'amber' });
    expect(rule(['2027-02-14', { pain: 4 }])).toBeUndefined(); // fifteen days ago
  });
  it('above the limit closes its region that day and the next, a morning a day longer', () => {
    expect(rule(['2027-02-28', { pain: 7 }])?.band).toBe('above');
    expect(rule(['2027-02-27', { pain: 7 }])?.band).toBe('amber');
    expect(rule(['2027-02-27', { nextDayPain: 7 }])?.band).toBe('above');
    expect(rule(['2027-02-26', { nextDayPain: 7 }])?.band).toBe('amber');
  });
  it('a referral of a drill for two regions is ended in each by itself', () => {
    const drill = bundledReference.data.drills.find((d) => !d.unilateral && d.regions.primary.length === 2);
    if (!drill) throw new Error('no drill for two regions');
    const [one, two] = drill.regions.primary;
    const hurt = ['2027-01-10', '2027-01-13'].map((date) => ({
      date,
      provoked: [],
      entries: [entry(drill.id, { pain: 8 })],
    }));
    const end = {
      side: 'central' as const,
      nrs: 8,
      reason: 'seen',
      by: 'R. Halloran',
      date: '2027-01-20',
      referral: true,
      places: null,
    };
    const lifts = [{ ...end, region: one ?? 'knee' }];
    const rules = assessCase(bundledReference, caseOf({ athlete: { lifts }, diary: hurt })).safety.dayRules;
    expect(rules.filter(({ referred }) => referred.length > 0).map(({ region }) => region)).toEqual([two]);
  });
});

describe('hundreds of diaries', () => {
  const DRILLS = ['wall-sit', 'step-up-low', 'double-leg-heel-raise', 'dead-bug', 'clamshell-band'].filter(
    (id) => bundledReference.drills.has(id),
  );
  const score = fc.oneof(fc.constant(0), fc.integer({ min: 0, max: 10 }));
  const said = fc.record({
    pain: score,
    painBefore: score,
    nextDayPain: fc.option(score, { nil: null }),
    effort: fc.integer({ min: 2, max: 8 }),
    quality: fc.integer({ min: 1, max: 3 }),
  });
  const diary = fc.array(
    fc.tuple(fc.integer({ min: 1, max: 27 }), fc.array(said, { minLength: 5, maxLength: 5 })),
    {
      minLength: 2,
      maxLength: 7,
    },
  );
  const inputOf = (sessions: readonly (readonly [number, readonly Partial<DiaryEntry>[]])[]): Case => {
    const items = DRILLS.map((drill) => {
      const { dose } = bundledReference.drills.get(drill) ?? {};
      return item(drill, { sets: 2, amount: dose?.amount.min ?? 8, measure: dose?.measure ?? 'reps' });
    });
    const days = new Map(
      sessions.map(([day, entries]) => [`2027-02-${String(day).padStart(2, '0')}`, entries]),
    );
    return caseOf({
      routine: { issued: '2027-02-01', mode: 'build', items },
      diary: [...days].map(([date, entries]) => ({
        date,
        provoked: [],
        entries: items.map((one, i) =>
          entry(one.drill, { amounts: [one.amount, one.amount], ...entries[i % entries.length] }),
        ),
      })),
    });
  };
  it('make nothing harder into pain, and no two things of one region', () => {
    let harder = 0;
    forAll(
      fc.property(diary, (sessions) => {
        const input = inputOf(sessions);
        const assessment = assessCase(bundledReference, input);
        const items = input.routine?.items ?? [];
        const regions = decideProgress(assessment).decisions.flatMap(({ next }, i) => {
          const before = items[i];
          if (!before || !next || !isHarder(bundledReference, before, next)) return [];
          harder += 1;
          const drill = bundledReference.drills.get(next.drill);
          const worked = drill ? regionsWorked(drill) : [];
          const sore = assessment.safety.dayRules
            .filter((rule) => rule.nrs > rule.fine)
            .map((rule) => rule.region);
          expect(
            worked.filter((region) => sore.includes(region)),
            next.drill,
          ).toEqual([]);
          return worked;
        });
        expect(new Set(regions).size).toBe(regions.length);
      }),
      400,
    );
    expect(harder).toBeGreaterThan(20);
  });
  it('more pain never makes a decision harder', () => {
    const RANK = [
      'stop-and-refer',
      'ease',
      'keep',
      'maintain',
      'change-setup',
      'advance-dose',
      'advance-level',
    ];
    const rank = (kind: string | undefined) => Math.min(RANK.indexOf(kind ?? 'keep'), 4);
    forAll(
      fc.property(diary, fc.integer({ min: 1, max: 5 }), (sessions, more) => {
        const raised = sessions.map(
          ([day, all]) =>
            [day, all.map((one) => ({ ...one, pain: Math.min(10, (one.pain ?? 0) + more) }))] as const,
        );
        const kinds = (given: typeof sessions | typeof raised) =>
          decideProgress(assessCase(bundledReference, inputOf(given))).decisions.map(({ decision }) =>
            rank(decision),
          );
        const [before, after] = [kinds(sessions), kinds(raised)];
        after.forEach((now, i) => expect(now).toBeLessThanOrEqual(before[i] ?? 0));
      }),
      150,
    );
  });
  it('nothing of what was referred is built again', async () => {
    const solver = await testSolver();
    const input = caseOf({
      athlete: { tasks: [{ id: 'front-squat-catch', lead: 'right' }] },
      diary: twice(8),
      request: { mode: 'build', minutes: 15, kit: ['wall', 'box', 'kettlebell'] } as Case['request'],
    });
    const { routine } = buildRoutine(assessCase(bundledReference, input), input.request, solver);
    for (const { drill: id } of eachOf(routine?.items ?? [])) {
      const drill = bundledReference.drills.get(id);
      expect(drill && drill.loadClass !== 'unloaded' && regionsWorked(drill).includes('knee'), id).toBe(
        false,
      );
    }
  });
});
