import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { explainItems } from '../builder/index.ts';
import type { MipSolver } from '../builder/index.ts';
import type { Reason } from '../reasons/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { arbitraryCase } from '../testing/arbitraries.ts';
import { entry, item, stiffAnkle } from '../testing/cases.ts';
import { testSolver } from '../testing/solver.ts';
import {
  doseSentence,
  duration,
  figure,
  infeasibleText,
  number,
  percent,
  reasonText,
  setupText,
  signed,
} from './index.ts';
import { buildCase, decideCase, judgeCase, prepareCase } from '../testing/prepared.ts';
import { forAll } from '../testing/forAll.ts';
import { eachOf } from '../testing/eachOf.ts';

let solver: MipSolver;
beforeAll(async () => {
  solver = await testSolver();
});

/** A sentence a person can read: no holes, no ids, no broken figures. */
function expectReadable(reason: Reason): void {
  const text = reasonText(bundledReference, reason);
  expect(text, reason.rule).not.toMatch(/undefined|NaN|null|\[object|Infinity/);
  expect(text, reason.rule).not.toMatch(/^Rule /);
  expect(text, text).toMatch(/[.)]$/);
  expect(text[0], text).toBe(text[0]?.toUpperCase());
}

describe('every reason given for real cases is a readable sentence', () => {
  it('findings and the next test', () => {
    forAll(
      fc.property(arbitraryCase(true), (input) => {
        const report = judgeCase(bundledReference, input);
        report.findings.flatMap((f) => f.reasons).forEach(expectReadable);
        report.nextTest?.why.forEach(expectReadable);
      }),
      40,
    );
  });
  it('built routines, their warnings and what they leave uncovered', () => {
    forAll(
      fc.property(arbitraryCase(true), (input) => {
        const report = buildCase(bundledReference, input, solver);
        report.routine?.items.flatMap((i) => i.reasons).forEach(expectReadable);
        report.warnings.forEach(expectReadable);
        report.unserved.map((u) => u.because).forEach(expectReadable);
      }),
      8,
    );
  }, 60_000);
  it('decisions of a diary that goes every way', () => {
    const items = [
      'knee-to-wall-rock',
      'double-leg-heel-raise',
      'single-leg-heel-raise',
      'ankle-circles',
    ].map((id) => item(id));
    const days = ['2027-02-18', '2027-02-22', '2027-02-26'];
    forAll(
      fc.property(
        fc.array(
          fc.record({
            pain: fc.integer({ min: 0, max: 8 }),
            nextDayPain: fc.option(fc.integer({ min: 0, max: 6 }), { nil: null }),
            done: fc.constantFrom('all' as const, 'part' as const, 'none' as const),
            quality: fc.option(fc.integer({ min: 0, max: 3 }), { nil: null }),
            effort: fc.option(fc.integer({ min: 0, max: 10 }), { nil: null }),
          }),
          { minLength: 3, maxLength: 3 },
        ),
        (sessions) => {
          const input = stiffAnkle({
            routine: { issued: '2027-02-15', mode: 'build', items },
            diary: sessions.map((over, i) => ({
              date: days[i] ?? '',
              entries: items.map((it) => entry(it.drill, over)),
            })),
          });
          const { decisions } = decideCase(bundledReference, input);
          expect(decisions).toHaveLength(items.length);
          decisions.flatMap((d) => d.reasons).forEach(expectReadable);
          for (const decision of decisions) {
            expect(decision.reasons.length).toBeGreaterThan(0);
            if (decision.decision === 'stop-and-refer') expect(decision.next).toBeNull();
            if (decision.decision === 'keep') expect(decision.next?.drill).toBe(decision.drill);
          }
        },
      ),
      150,
    );
  });
  it('hand-picked items say that, and what speaks against them', () => {
    const prepared = prepareCase(bundledReference, stiffAnkle());
    const [explained] = explainItems(prepared, [item('goblet-squat')]);
    expect(explained?.reasons.map((r) => r.rule)).toEqual(['chosen-by-hand']);
    expect(explained?.cautions.map((r) => reasonText(bundledReference, r))).toEqual([
      'Not offered by the builder: kit not at hand: kettlebell or dumbbell.',
    ]);
  });
});

describe('clashing pins in words', () => {
  it.each([
    [
      { rules: ['pin', 'one-per-ladder'], about: ['knee-to-wall-rock', 'ankle-circles'], amount: 1 },
      /Knee-to-wall rock and .+ are on one ladder/,
    ],
    [{ rules: ['pin', 'time'], about: ['cat-camel'], amount: 45 }, /need 45 s more than there are/],
    [
      { rules: ['pin', 'max-drills'], about: ['a', 'b', 'c'], amount: 2 },
      /3 drills are pinned, 2 more than the maximum/,
    ],
    [
      { rules: ['pin', 'kit'], about: ['band-ankle-mobilisation', 'long-band'], amount: null },
      /is pinned, but kit not at hand: long band/,
    ],
    [
      {
        rules: ['pin', 'precaution-exclude'],
        about: ['knee-to-wall-rock', 'acute-ankle-sprain'],
        amount: null,
      },
      /a precaution forbids it: /,
    ],
    [{ rules: ['pin', 'fatigue'], about: ['cat-camel'], amount: 3 }, /more tiring together/],
  ])('%o', (clash, expected) => {
    expect(infeasibleText(bundledReference, clash)).toMatch(expected);
  });
});

describe('figures in words', () => {
  it.each([
    [0, '0 s'],
    [59, '59 s'],
    [60, '1 min 00 s'],
    [605.4, '10 min 05 s'],
  ])('%f s is "%s"', (seconds, text) => {
    expect(duration(seconds)).toBe(text);
  });
  it('signs are true minus signs, and zero has none', () => {
    expect(number(-1.25, 1)).toBe('−1.3');
    expect(signed(0.04, 1)).toBe('0.0');
    expect(signed(2, 0)).toBe('+2');
  });
  it('units are written as people write them', () => {
    expect(figure(41.26, 'deg')).toBe('41.3°');
    expect(figure(2, 'grade-0-3')).toBe('grade 2');
    expect(figure(94.44, '%limb-length')).toBe('94.4 % limb');
    expect(figure(4, 'nrs-0-10')).toBe('4/10');
  });
  it('probabilities at their ends are not rounded to certainty', () => {
    expect([0, 0.004, 0.2, 0.996, 1].map(percent)).toEqual(['0 %', '< 1 %', '20 %', '> 99 %', '100 %']);
  });
});

describe('a dose in one sentence for an athlete', () => {
  const drillOf = (id: string) => {
    const drill = bundledReference.drills.get(id);
    if (!drill) throw new Error(id);
    return drill;
  };
  it.each([
    ['knee-to-wall-rock', { side: 'both' }, '2 sets of 10 repetitions, each side; rest 10 s between sets.'],
    [
      'single-leg-balance',
      { sets: 1, amount: 30, measure: 'hold-seconds', side: 'right' },
      '1 set of 30 seconds held, right only.',
    ],
    [
      'short-foot-seated',
      { holdSeconds: 5, restSeconds: 0 },
      '2 sets of 10 repetitions, holding each for 5 s.',
    ],
    [
      'hands-and-feet-calf-pedal',
      { sets: 1 },
      '1 set of 10 repetitions, left and right in turn, counted together.',
    ],
  ])('%s %o', (id, over, sentence) => {
    expect(doseSentence(drillOf(id), item(id, over as never))).toBe(sentence);
  });
  it('the set-up names each variable with its unit, defaults included', () => {
    expect(setupText(drillOf('knee-to-wall-rock'), item('knee-to-wall-rock'))).toBe(
      'foot distance from wall 6 cm',
    );
    expect(
      setupText(
        drillOf('knee-to-wall-rock'),
        item('knee-to-wall-rock', { setup: { 'foot-wall-distance': 10 } }),
      ),
    ).toBe('foot distance from wall 10 cm');
    expect(setupText(drillOf('cat-camel'), item('cat-camel'))).not.toMatch(/undefined/);
  });
});

describe('words for athletes', () => {
  it('never promise, frighten or clear', () => {
    const texts = [
      ...bundledReference.data.drills.map((d) => d.athleteText),
      ...bundledReference.data.restrictions.map((r) => r.athleteWording),
      ...bundledReference.data.precautions.map((p) => p.athleteWording),
      ...bundledReference.data.redFlags.map((f) => f.action),
    ];
    for (const text of eachOf(texts)) {
      expect(text).not.toMatch(
        /\b(safe|injury-proof|prevents? injury|high risk|cleared|weak link|damaged?)\b/i,
      );
    }
  });
});
