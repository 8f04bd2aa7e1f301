import { describe, expect, it } from 'vitest';
import type { Case } from '../domain/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { caseOf, entry, item, result, stiffAnkle, placement } from '../testing/cases.ts';
import { guardProbability, levelState } from './index.ts';
import { assessCase } from '../assess/index.ts';
import { eachOf } from '../testing/eachOf.ts';

const contextOf = (input: Case) => assessCase(bundledReference, input);
const stateOf = (drillId: string, side: 'left' | 'right' | 'both', input: Case) => {
  const drill = bundledReference.drills.get(drillId);
  if (!drill) throw new Error(drillId);
  return levelState(contextOf(input), drill, side);
};

describe('which level of a ladder is open', () => {
  it('the first level is, without confirmation', () => {
    expect(stateOf('ankle-circles', 'left', caseOf())).toMatchObject({
      open: true,
      by: 'first-level',
      confirm: false,
    });
  });
  it('by the start rule up to demand 3, to be confirmed; to 5 with two years of training and no fresh injury', () => {
    const novice = caseOf({ athlete: { trainingYears: 0 } });
    expect(stateOf('half-kneeling-ankle-rock', 'left', novice)).toMatchObject({
      by: 'start-rule',
      confirm: true,
    });
    expect(stateOf('single-leg-balance', 'left', novice)).toMatchObject({ open: false });
    expect(stateOf('single-leg-balance', 'left', caseOf())).toMatchObject({ by: 'start-rule' });
    const injured = caseOf({
      athlete: { injuries: [{ region: 'ankle-foot', side: 'right', date: '2027-01-01', operated: false }] },
    });
    expect(stateOf('single-leg-balance', 'left', injured)).toMatchObject({ open: false });
  });
  it('an impact drill is never opened by the start rule, first level or not', () => {
    for (const drill of eachOf(
      bundledReference.data.drills.filter((d) => d.loadClass === 'impact' && d.unilateral),
    )) {
      expect(stateOf(drill.id, 'both', caseOf({ athlete: { trainingYears: 20 } })).open, drill.id).toBe(
        false,
      );
    }
  });
  it('by placement: that level and every one below it, on that side', () => {
    const placed = caseOf({
      athlete: {
        trainingYears: 0,
        placements: [placement('calf-strength', 'single-leg-heel-raise', { side: 'left' })],
      },
    });
    expect(stateOf('single-leg-heel-raise', 'left', placed)).toMatchObject({ open: true, by: 'placement' });
    expect(stateOf('single-leg-heel-raise', 'right', placed).open).toBe(false);
    expect(stateOf('single-leg-heel-raise', 'both', placed).open).toBe(false);
    expect(stateOf('single-leg-heel-raise-step', 'left', placed).open).toBe(false);
  });
  describe('by a maximum at a harder rung', () => {
    const held = (seconds: number, rest: object = {}) => {
      const results = (['left', 'right'] as const).map((side) =>
        result('adductor-long-lever-hold', side, seconds),
      );
      return caseOf({
        screenings: [{ date: '2027-02-20', results }],
        athlete: { trainingYears: 0, ...rest },
      });
    };
    it('27 s at the long lever open the long and the short one; nobody measured opens neither', () => {
      for (const drill of ['copenhagen-short-lever', 'copenhagen-long-lever-hold']) {
        expect(stateOf(drill, 'both', held(27)), drill).toMatchObject({ by: 'harder-rung', confirm: false });
        expect(stateOf(drill, 'both', caseOf({ athlete: { trainingYears: 0 } })).open, drill).toBe(false);
      }
      // What lies above it asks for more than a hold.
      expect(stateOf('copenhagen-adduction', 'both', held(27)).open).toBe(false);
    });
    it('a maximum below the least dose, from before an injury, or with pain opens nothing', () => {
      expect(stateOf('copenhagen-short-lever', 'both', held(5)).open).toBe(false);
      const injuries = [{ region: 'hip-groin', side: 'left', date: '2027-02-24', operated: false }];
      expect(stateOf('copenhagen-short-lever', 'left', held(27, { injuries })).open).toBe(false);
      const hurt = held(27);
      const painful = {
        ...hurt,
        screenings: hurt.screenings.map((one) => ({
          ...one,
          results: one.results.map((r) => ({ ...r, pain: { nrs: 6 } })),
        })),
      };
      expect(stateOf('copenhagen-short-lever', 'both', painful).open).toBe(false);
    });
    it('seconds of a hold say nothing of repetitions', () => {
      const results = (['left', 'right'] as const).map((side) => result('hip-flexor-hold', side, 40));
      const input = caseOf({ screenings: [{ date: '2027-02-20', results }], athlete: { trainingYears: 0 } });
      const without = caseOf({ athlete: { trainingYears: 0 } });
      expect(bundledReference.drills.get('standing-knee-lift-hold')?.doseTest).toBe('hip-flexor-hold');
      expect(stateOf('standing-knee-lift-hold', 'both', input)).toEqual(
        stateOf('standing-knee-lift-hold', 'both', without),
      );
    });
    it('one test of several rungs belongs to the easiest of them', () => {
      const results = [result('front-plank-hold', 'central', 60)];
      const planked = caseOf({
        screenings: [{ date: '2027-02-20', results }],
        athlete: { trainingYears: 0 },
      });
      expect(stateOf('forearm-plank', 'both', planked)).toMatchObject({ by: 'harder-rung' });
      expect(stateOf('long-lever-plank', 'both', planked).open).toBe(false);
    });
  });
  describe('by a test or the diary, whichever is there', () => {
    const raise = (raises: number | null, sessions: number) => {
      const days = ['2027-02-10', '2027-02-20'].slice(0, sessions);
      return stateOf(
        'single-leg-heel-raise',
        'left',
        caseOf({
          athlete: { trainingYears: 0 },
          screenings:
            raises === null
              ? []
              : [{ date: '2027-02-27', results: [result('heel-raise-reps', 'left', raises)] }],
          diary: days.map((date) => ({
            date,
            entries: [entry('double-leg-heel-raise', { amounts: [20, 20] })],
          })),
        }),
      );
    };
    it.each([
      [25, 0],
      [12, 0],
      [null, 2],
    ])('%s raises tested and %i sessions open it', (raises, sessions) => {
      expect(raise(raises, sessions)).toEqual({ open: true, by: 'criteria', confirm: false });
    });
    it.each([
      [null, 0],
      [null, 1],
      [9, 0],
      [10, 0], // exactly at the gate: as likely below it
    ])('%s raises tested and %i sessions do not', (raises, sessions) => {
      expect(raise(raises, sessions).open).toBe(false);
    });
    it('a test that says no keeps it closed, whatever the diary says', () => {
      expect(raise(9, 2).open).toBe(false);
    });
  });
  it('seen as too hard: that level and every one above it is closed, until a later word', () => {
    const calf = 'calf-strength';
    const hard = placement(calf, 'single-leg-heel-raise', { verdict: 'too-hard' });
    const with_ = (...placements: (typeof hard)[]) => caseOf({ athlete: { trainingYears: 5, placements } });
    const open = (drill: string, side: 'left' | 'right' | 'both', input: Case) =>
      stateOf(drill, side, input).open;
    const refused = with_(hard);
    expect(stateOf('single-leg-heel-raise', 'both', refused)).toEqual({
      open: false,
      because: 'R. Halloran saw it as too hard',
    });
    expect(open('double-leg-heel-raise', 'both', refused)).toBe(true);
    const left = with_({ ...hard, side: 'left' });
    expect([
      open('single-leg-heel-raise', 'left', left),
      open('single-leg-heel-raise', 'both', left),
    ]).toEqual([false, false]);
    const fine = (date: string) => placement(calf, 'single-leg-heel-raise-step', { date });
    expect(open('single-leg-heel-raise', 'both', with_(hard, fine('2027-02-21')))).toBe(true);
    expect(open('single-leg-heel-raise', 'both', with_(hard, fine('2027-02-20')))).toBe(true);
    expect(open('single-leg-heel-raise', 'both', with_(fine('2027-02-20'), hard))).toBe(false);
    expect(open('single-leg-heel-raise', 'both', with_(fine('2027-02-19'), hard))).toBe(false);
  });
  it('by the routine in force', () => {
    const routine = {
      issued: '2027-02-01',
      mode: 'build' as const,
      items: [item('single-leg-heel-raise', { side: 'left' })],
    };
    expect(stateOf('single-leg-heel-raise', 'left', caseOf({ routine }))).toMatchObject({ by: 'routine' });
    // The other side was never given it, and an easier level opens no harder one.
    expect(stateOf('single-leg-heel-raise', 'right', caseOf({ routine }))).not.toMatchObject({
      by: 'routine',
    });
    expect(stateOf('single-leg-heel-raise-step', 'left', caseOf({ routine })).open).toBe(false);
  });
  it('by the diary: the previous level done as its criterion asks, often enough', () => {
    const days = (count: number, over: object = {}) =>
      caseOf({
        athlete: { trainingYears: 0 },
        diary: ['2027-02-10', '2027-02-14', '2027-02-18'].slice(0, count).map((date) => ({
          date,
          entries: [entry('tandem-stance-hold', { amounts: [30], effort: 3, ...over })],
        })),
      });
    const next = bundledReference.drills.get('single-leg-balance');
    const wanted = next?.entryCriteria.find((c) => c.drill)?.sessions ?? 0;
    expect(wanted).toBeGreaterThan(0);
    expect(stateOf('single-leg-balance', 'both', days(wanted))).toMatchObject({ open: true, by: 'criteria' });
    expect(stateOf('single-leg-balance', 'both', days(wanted - 1)).open).toBe(false);
    expect(stateOf('single-leg-balance', 'both', days(wanted, { pain: 4 })).open).toBe(false);
    expect(stateOf('single-leg-balance', 'both', days(wanted, { amounts: [10] })).open).toBe(false);
  });
  it('a failing test closes a level that the diary would open', () => {
    const withReps = (reps: number) =>
      caseOf({
        screenings: [
          {
            date: '2027-02-27',
            results: [result('heel-raise-reps', 'left', reps), result('heel-raise-reps', 'right', reps)],
          },
        ],
        diary: ['2027-02-10', '2027-02-14', '2027-02-18', '2027-02-22'].map((date) => ({
          date,
          entries: [entry('single-leg-heel-raise', { amounts: [25, 25, 25], effort: 5 })],
        })),
      });
    expect(stateOf('single-leg-heel-raise-step', 'both', withReps(20))).toMatchObject({
      open: true,
      by: 'criteria',
    });
    const closed = stateOf('single-leg-heel-raise-step', 'both', withReps(12));
    expect(closed).toMatchObject({ open: false });
    expect(closed.open ? '' : closed.because).toContain('15 full-height');
  });
});

describe('the guard of a next level', () => {
  const criterion = { text: 'gate', test: 'heel-raise-reps', op: '>=' as const, value: 15, sides: 'both' };
  const probability = (left: number, right: number, pain = 0) =>
    guardProbability(
      contextOf(
        stiffAnkle({
          screenings: [
            {
              date: '2027-03-01',
              results: [
                { ...result('heel-raise-reps', 'left', left), pain: { nrs: pain } },
                result('heel-raise-reps', 'right', right),
              ],
            },
          ],
        }),
      ),
      criterion,
      'left',
    );
  it('is P(capacity ≥ gate) on the worse side asked for', () => {
    // Today's SD is the SEM, 2.2 reps: Φ((18 − 15)/2.2) = Φ(1.3636) = 0.9137.
    expect(probability(18, 30)).toBeCloseTo(0.9137, 3);
    expect(probability(30, 18)).toBeCloseTo(0.9137, 3);
    expect(probability(15, 30)).toBeCloseTo(0.5, 6);
  });
  it('never opens on a pain-limited result, and says nothing about an unmeasured one', () => {
    expect(probability(30, 30, 5)).toBe(0);
    expect(guardProbability(contextOf(caseOf()), criterion, 'left')).toBeNull();
  });
});

describe('the level before, done', () => {
  const done = (days: readonly string[], over: object = {}) =>
    stateOf(
      'single-leg-heel-raise',
      'left',
      caseOf({
        athlete: { trainingYears: 0 },
        diary: days.map((date) => ({
          date,
          entries: [entry('double-leg-heel-raise', { amounts: [20, 20], ...over })],
        })),
      }),
    ).open;
  it('counts up to and with the day it is judged on, and never what is still to come', () => {
    expect(done(['2027-02-20', '2027-03-01'])).toBe(true);
    expect(done(['2027-02-20', '2027-03-02'])).toBe(false);
  });
  it('counts where it was done well enough: quality 2 of 3 is, 1 is not', () => {
    expect(done(['2027-02-20', '2027-02-24'], { quality: 2 })).toBe(true);
    expect(done(['2027-02-20', '2027-02-24'], { quality: 1 })).toBe(false);
  });
  it('counts for the side it was done on, or both', () => {
    expect(done(['2027-02-20', '2027-02-24'], { side: 'left' })).toBe(true);
    expect(done(['2027-02-20', '2027-02-24'], { side: 'right' })).toBe(false);
  });
});

describe('what is done every week', () => {
  /** By what a drill is open for somebody new to training who runs so often and so hard. */
  const by = (drill: string, perWeek: number, effort: 'easy' | 'hard', birthDate = '2001-05-02') => {
    const athlete = { birthDate, trainingYears: 0, exposure: [{ action: 'run', perWeek, effort }] };
    const state = stateOf(drill, 'left', caseOf({ athlete }));
    return state.open ? state.by : null;
  };
  it('once a week opens easy impact and demand up to 6, nothing harder', () => {
    expect(by('run-rehearsal-60', 1, 'easy')).toBe('exposure');
    expect(by('standing-knee-lift-hold', 1, 'easy')).toBe('exposure');
    expect(by('fast-step-up-drive', 1, 'hard')).toBeNull();
    expect(by('shuffle-and-crossover', 1, 'hard')).toBeNull();
  });
  it('hard and twice a week opens demand up to 9 and hard impact; easy or once does not', () => {
    expect(by('run-rehearsal-90', 2, 'hard')).toBe('exposure');
    expect(by('run-rehearsal-90', 2, 'easy')).toBeNull();
    expect(by('run-rehearsal-90', 1, 'hard')).toBeNull();
    expect(by('build-up-run', 2, 'hard')).toBeNull(); // demand 10
  });
  it('opens two less below sixteen, and as much from the birthday on', () => {
    expect(by('run-rehearsal-90', 2, 'hard', '2011-03-01')).toBe('exposure');
    expect(by('run-rehearsal-90', 2, 'hard', '2011-03-02')).toBeNull();
    expect(by('run-rehearsal-80', 2, 'hard', '2011-03-02')).toBe('exposure');
  });
});
