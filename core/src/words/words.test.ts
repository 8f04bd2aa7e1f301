import { describe, expect, it } from 'vitest';
import { bundledReference } from '../reference/bundled.ts';
import { item } from '../testing/cases.ts';
import { drillOf } from '../testing/prepared.ts';
import type { RoutineItem } from '../domain/index.ts';
import { routineChanges } from '../routine/index.ts';
import {
  amountText,
  circuitText,
  costText,
  kindText,
  doseSentence,
  figure,
  lineName,
  percent,
  reasonText,
  setupText,
  signedFigure,
} from './index.ts';

/** The changes from one list of items to another, in words. */
const changes = (...items: [RoutineItem[], RoutineItem[]]) =>
  routineChanges(bundledReference, ...items).map((change) => reasonText(bundledReference, change));

describe('words', () => {
  it('speak in figures with units and signs', () => {
    expect(figure(6.52, 'cm')).toBe('6.5 cm');
    expect(signedFigure(-2.5, 'cm')).toBe('−2.5 cm');
    expect(signedFigure(-0.04, 'cm')).toBe('0.0 cm');
    expect(percent(0.998)).toBe('> 99 %');
  });

  it('say why a side is short in one sentence', () => {
    const text = reasonText(bundledReference, {
      rule: 'short-of-need',
      test: 'wblt-distance',
      side: 'left',
      estimate: 6.5,
      need: 9,
      source: 'task',
      sourceId: 'fell-running-descent',
      reserve: -2.5,
      margin: -1.5,
      pShort: 0.997,
      state: 'short',
    });
    expect(text).toContain('6.5 cm against 9.0 cm needed (asked by Steep descent running)');
    expect(text).toContain('reserve −2.5 cm, short with > 99 %');
  });
});

describe('what a drill is for', () => {
  it.each([
    ['run-rehearsal-60', 'rehearse'],
    ['chest-ball-slam', 'coordinate'],
    ['squat-jump-stick', 'coordinate'],
    ['glute-bridge', 'activate'],
  ])('%s: %s', (id, text) => {
    expect(kindText(bundledReference, drillOf(id))).toBe(text);
  });
});

describe('what taking a drill in would cost', () => {
  it.each([
    [0, null, 'is being worked out'],
    [0.04, null, 'costs at least 4 %'],
    [0, 0.0001, 'would cost nothing: as good a choice'],
    [0, 0.08, 'costs up to 8 % of the benefit'],
    [0.04, 0.09, 'costs 4 % to 9 % of the benefit'],
    [0.06, 0.06, 'costs 6 % of the benefit'],
    [0.3, 2.4, 'costs 30 % of the benefit or more'],
    [0, 1.9, 'may push out what is asked for before it'],
    [1.2, 4.1, 'would push out what is asked for before it'],
    [1.2, null, 'would push out what is asked for before it'],
  ])('at least %d, at most %s: it %s', (atLeast, atMost, text) => {
    expect(costText({ atLeast, atMost })).toBe(text);
  });
});

describe('what changed between versions', () => {
  it('names dose, set-up, level, and what came and went', () => {
    const before = [
      item('knee-to-wall-rock', { side: 'left', amount: 10, setup: { 'foot-wall-distance': 6 } }),
      item('single-leg-balance', { measure: 'hold-seconds', amount: 20, sets: 1 }),
      item('short-foot-seated'),
    ];
    const after = [
      item('knee-to-wall-rock', { side: 'left', amount: 12, setup: { 'foot-wall-distance': 8 } }),
      item('single-leg-balance-head-turns', { measure: 'seconds', amount: 30, sets: 1 }),
      item('wall-shin-raise'),
    ];
    expect(changes(before, after)).toEqual([
      'Knee-to-wall rock left: 2 × 10 → 2 × 12; foot distance from wall 6 → 8 cm',
      expect.stringMatching(/^Single-leg balance → .+, 1 × 30 s$/),
      expect.stringMatching(/^Added: .+, 2 × 10$/),
      expect.stringMatching(/^Removed: /),
    ]);
  });
  it('is silent when nothing changed', () => {
    expect(changes([item('cat-camel')], [item('cat-camel')])).toEqual([]);
  });

  it('says what changed on each side by itself', () => {
    const plank = item('side-plank', { sets: 1, amount: 20, measure: 'hold-seconds' });
    const uneven = { ...plank, perSide: { left: { sets: 1, amount: 25 }, right: { sets: 1, amount: 20 } } };
    expect(changes([plank], [uneven])).toEqual(['Side plank: 1 × 20 s → 1 × 25 s left, right unchanged']);
    expect(changes([{ ...plank, side: 'left' }], [plank])).toEqual([
      'Side plank: not done → 1 × 20 s right, left unchanged',
    ]);
  });
  it('tells breaths, both ways round, tempo and rounds', () => {
    const before = item('short-foot-seated', { holdSeconds: 5 });
    const after = {
      ...before,
      holdBreaths: 3,
      bothWays: true,
      tempo: '3-1-1',
      circuit: { id: 'a', rounds: 3 },
    };
    expect(changes([before], [after])).toEqual([
      'Arch lift, seated: 2 × 10, hold 5 s → 2 × 10, hold 3 breaths, both ways round; tempo as usual → 3-1-1; rounds: once → 3 rounds',
    ]);
  });
});

describe('composed lines in words', () => {
  const pace = { by: 'clock' as const, work: 30, rest: 15 };
  it('name what is said in own words, and how rounds go', () => {
    expect(lineName(bundledReference, { drill: 'own-words', words: 'Traverse on big holds' })).toBe(
      'Traverse on big holds',
    );
    expect(lineName(bundledReference, { drill: 'pause', words: 'water' })).toBe('Rest: water');
    expect(circuitText({ id: 'a', rounds: 3, pace, restSeconds: 60 })).toBe(
      '3 rounds, 30 s on, 15 s off, 60 s between rounds',
    );
    expect(circuitText({ id: 'a', rounds: 1, step: -2, pace: { by: 'every', seconds: 90 } })).toBe(
      '1 round, a start every 90 s, −2 each round',
    );
  });
  it('a range, as many as stay clean, grip and cadence are said as they are', () => {
    const drill = bundledReference.drills.get('push-up');
    const press = item('push-up', { amount: 12, amountFrom: 8, grip: 'wide', cadence: 20 });
    expect(amountText(press)).toBe('2 × 8–12');
    expect(drill && doseSentence(drill, press)).toMatch(/^2 sets of 8–12 repetitions/);
    expect(drill && setupText(drill, press)).toMatch(/wide grip, 20 a minute$/);
    const many = item('push-up', { amount: 15, asMany: true });
    expect(amountText(many)).toBe('2 × up to 15');
    expect(drill && doseSentence(drill, many)).toContain('as many clean repetitions as you can, up to 15');
    const station = item('push-up', { circuit: { id: 'a', rounds: 2, pace } });
    expect(drill && doseSentence(drill, station)).toBe(
      '2 rounds, 30 s on, 15 s off: as many clean ones as the time allows.',
    );
  });
});
