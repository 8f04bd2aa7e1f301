import { describe, expect, it } from 'vitest';
import type { Case, RoutineItem } from '../domain/index.ts';
import { indexCapacities } from '../dose/index.ts';
import type { DoseContext } from '../dose/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { caseOf, entry, item, result, stiffAnkle } from '../testing/cases.ts';
import { applyVerdicts, decideProgress } from './index.ts';
import { doseTarget, easier, moreDose, setupStep } from './steps.ts';
import { assessCase } from '../assess/index.ts';
import { judgeCase } from '../testing/prepared.ts';

const drillOf = (id: string) => {
  const drill = bundledReference.drills.get(id);
  if (!drill) throw new Error(id);
  return drill;
};
const context = (mode: 'prepare' | 'build', input: Case = caseOf()): DoseContext => ({
  reference: bundledReference,
  today: input.today,
  age: 25,
  mode,
  capacities: indexCapacities(judgeCase(bundledReference, input).capacities),
  trainingYears: 4,
  stretchCapSeconds: null,
  tendonHolds: new Set<string>(),
  fine: 3,
  precautions: [],
  amber: new Set<never>(),
});

describe('more of an uneven dose', () => {
  it('moves the amounts of both sides a step and keeps the extra set of the weak one', () => {
    const drill = drillOf('knee-to-wall-rock');
    const uneven = item(drill.id, {
      amount: 8,
      perSide: { left: { sets: 2, amount: 8 }, right: { sets: 1, amount: 8 } },
    });
    const next = moreDose(drill, uneven, { amount: 12, sets: 2, cappedByMaximum: false });
    expect(next?.perSide?.left.sets).toBe(2);
    expect(next?.perSide?.right.sets).toBe(1);
    expect(next?.perSide?.left.amount).toBe(next?.amount);
    expect(next?.amount).toBeGreaterThan(8);
    expect(next?.amount).toBeLessThanOrEqual(12);
  });
});

describe('more', () => {
  it('goes step by step to the criterion, never past it, then adds a set', () => {
    const drill = drillOf('knee-to-wall-rock');
    const amounts: string[] = [];
    let current: RoutineItem | null = item(drill.id, { sets: 1, amount: 9 });
    while (current) {
      amounts.push(`${current.sets}×${current.amount}`);
      current = moreDose(drill, current, doseTarget(context('prepare'), drill, current));
    }
    expect(amounts).toEqual(['1×9', '1×11', '1×12', '2×12']);
  });
  it('never asks for fewer sets than are done already', () => {
    const drill = drillOf('single-leg-balance');
    const held = item(drill.id, { sets: 3, amount: 30, measure: 'hold-seconds' });
    expect(doseTarget(context('build'), drill, held).sets).toBe(3);
  });
  it('stops at the share of the tested maximum that the mode allows', () => {
    const drill = drillOf('side-plank');
    const input = caseOf({
      screenings: [
        {
          date: '2027-02-27',
          results: [result('side-bridge-hold', 'left', 50), result('side-bridge-hold', 'right', 50)],
        },
      ],
    });
    const held = item(drill.id, { amount: 20, measure: 'hold-seconds' });
    expect(doseTarget(context('prepare', input), drill, held)).toMatchObject({
      amount: 25,
      cappedByMaximum: true,
    });
    expect(doseTarget(context('build', input), drill, held)).toMatchObject({
      amount: 30,
      cappedByMaximum: false,
    });
  });
  it('changes one set-up variable by one step, harder by the drill’s own order', () => {
    const drill = drillOf('knee-to-wall-rock');
    const at = (value: number) => item(drill.id, { setup: { 'foot-wall-distance': value } });
    expect(setupStep(drill, at(6), 1)?.item.setup).toEqual({ 'foot-wall-distance': 8 });
    expect(setupStep(drill, at(6), -1)?.item.setup).toEqual({ 'foot-wall-distance': 4 });
    expect(setupStep(drill, at(14), 1)).toBeNull();
    expect(setupStep(drill, item(drill.id), 1)?.item.setup).toEqual({ 'foot-wall-distance': 8 });
  });
});

describe('easier', () => {
  it('goes down by amount, then set-up, then level, then sets, and ends', () => {
    const trail: string[] = [];
    let current: RoutineItem | null = item('half-kneeling-ankle-rock', { side: 'left', sets: 2, amount: 10 });
    for (let i = 0; current && i < 60; i += 1) {
      trail.push(current.drill);
      current = easier(context('prepare'), drillOf(current.drill), current);
    }
    const distinct = [...new Set(trail)];
    expect(distinct).toEqual(['half-kneeling-ankle-rock', 'ankle-alphabet', 'ankle-circles']);
    expect(current).toBeNull();
  });
  it('drops uneven sides, whose meaning a changed amount would lose', () => {
    const uneven = item('knee-to-wall-rock', {
      amount: 12,
      perSide: { left: { sets: 3, amount: 12 }, right: { sets: 2, amount: 12 } },
    });
    expect(easier(context('prepare'), drillOf(uneven.drill), uneven)?.perSide).toBeUndefined();
  });
});

describe('verdicts', () => {
  const input = stiffAnkle({
    routine: {
      issued: '2027-02-15',
      mode: 'prepare',
      items: [item('knee-to-wall-rock', { side: 'left', amount: 8 }), item('cat-camel')],
    },
    diary: ['2027-02-24', '2027-02-27'].map((date) => ({
      date,
      entries: [
        entry('knee-to-wall-rock', { side: 'left', amounts: [8, 8] }),
        entry('cat-camel', { pain: 7 }),
      ],
    })),
  });
  const assessment = assessCase(bundledReference, input);
  const { decisions } = decideProgress(assessment);
  const next = (...verdicts: Parameters<typeof applyVerdicts>[2]) =>
    applyVerdicts(assessment, decisions, verdicts).map((i) => `${i.drill} ${i.sets}×${i.amount}`);

  it('accepted ones take the next item, and leave out what is to stop', () => {
    expect(decisions.map((d) => d.decision)).toEqual(['advance-dose', 'stop-and-refer']);
    expect(next({ index: 0, verdict: 'accepted' }, { index: 1, verdict: 'accepted' })).toEqual([
      'knee-to-wall-rock 2×10',
    ]);
  });
  it('an untouched item stays as it is', () => {
    expect(next({ index: 1, verdict: 'accepted' })).toEqual(['knee-to-wall-rock 2×8']);
    expect(next()).toEqual(['knee-to-wall-rock 2×8', 'cat-camel 2×10']);
  });
  it.each([
    ['keep', ['knee-to-wall-rock 2×8', 'cat-camel 2×10']],
    ['remove', ['cat-camel 2×10']],
  ] as const)('overruled to %s', (instead, expected) => {
    expect(next({ index: 0, verdict: 'overruled', instead, reason: 'race day' })).toEqual(expected);
  });
  it('overruled to ease takes one step down, here the set-up', () => {
    const eased = applyVerdicts(assessment, decisions, [
      { index: 0, verdict: 'overruled', instead: 'ease', reason: 'race day' },
    ]);
    expect(eased[0]).toMatchObject({ amount: 8, setup: { 'foot-wall-distance': 4 } });
  });
});
