import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Case, RoutineItem } from '../domain/index.ts';
import { routineSeconds } from '../dose/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { routineSafetyFaults } from '../safety/index.ts';
import { arbitraryCase } from '../testing/arbitraries.ts';
import { caseOf, item, result, stiffAnkle, placement } from '../testing/cases.ts';
import { buildCase, preparedOf } from '../testing/prepared.ts';
import { testSolver } from '../testing/solver.ts';
import { reasonText } from '../words/index.ts';
import { checkRoutine, needReason } from './index.ts';
import type { Check } from './index.ts';
import { forAll } from '../testing/forAll.ts';

const warm = item('high-knee-skip', { phase: 'general-raise', measure: 'metres', amount: 20 });
const rock = (over: Partial<RoutineItem> = {}) =>
  item('knee-to-wall-rock', { phase: 'general-mobilise', ...over });

function check(input: Case, items: RoutineItem[], rule: string): Check {
  const found = checkRoutine(preparedOf(input), items).find((c) => c.reason.rule === rule);
  if (!found)
    throw new Error(
      `no check ${rule}: ${checkRoutine(preparedOf(input), items)
        .map((c) => c.reason.rule)
        .join()}`,
    );
  return found;
}
const rules = (input: Case, items: readonly RoutineItem[]) =>
  checkRoutine(preparedOf(input), items).map((c) => c.reason.rule);

/** The check is there, and its repair leaves a routine without it. */
function repaired(input: Case, items: RoutineItem[], rule: string): readonly RoutineItem[] {
  const { repair } = check(input, items, rule);
  if (!repair) throw new Error(`no repair for ${rule}`);
  expect(rules(input, repair.items)).not.toContain(rule);
  return repair.items;
}

describe('what must not be', () => {
  const sprain = { id: 'acute-ankle-sprain', until: null, clearance: null, ended: null };
  it('a precaution stops, and the repair takes the drill out or puts an allowed one in', () => {
    const input = stiffAnkle({ athlete: { precautions: [sprain] } });
    expect(check(input, [rock()], 'forbidden-today').level).toBe('stop');
    const items = repaired(input, [rock()], 'forbidden-today');
    expect(routineSafetyFaults(bundledReference, items, input.athlete, input.today)).toEqual([]);
  });
  it('a set-up that a precaution rules out stops, and goes back to the usual one', () => {
    const input = stiffAnkle({
      athlete: {
        trainingYears: 5,
        precautions: [{ id: 'eyes-closed-fall-risk', until: null, clearance: null, ended: null }],
      },
    });
    const closed = item('single-leg-balance', {
      measure: 'hold-seconds',
      amount: 20,
      setup: { eyes: 'closed' },
    });
    expect(check(input, [warm, closed], 'forbidden-today').level).toBe('stop');
    expect(repaired(input, [warm, closed], 'forbidden-today')[1]?.setup).toEqual({ eyes: 'open' });
  });
  it('a pin lifts a dislike but not missing kit', () => {
    const disliked = stiffAnkle({
      athlete: { dislikes: ['knee-to-wall-rock'] },
      request: { pins: ['knee-to-wall-rock'] } as Case['request'],
    });
    expect(rules(disliked, [warm, rock()])).not.toContain('not-at-hand');
    const noWall = stiffAnkle({
      request: { kit: [], pins: ['knee-to-wall-rock'] } as unknown as Case['request'],
    });
    expect(check(noWall, [warm, rock()], 'not-at-hand').reason).toMatchObject({ about: 'wall' });
    const [, instead] = repaired(noWall, [warm, rock()], 'not-at-hand');
    expect(bundledReference.drills.get(instead?.drill ?? '')?.equipment).toEqual([]);
  });
});

describe('before activity', () => {
  const stretch = item('wall-calf-stretch-straight', { measure: 'hold-seconds', amount: 30, sets: 2 });
  it('a static stretch goes against the default school and is replaced by something that moves', () => {
    const items = repaired(stiffAnkle(), [warm, stretch], 'static-before-activity');
    expect(items.map((i) => bundledReference.drills.get(i.drill)?.category)).not.toContain('stretch');
  });
  it('short holds: 2 × 30 s are too long, one of 30 s is left, and movement follows it', () => {
    const input = stiffAnkle({ schools: { 'static-stretch-before': 'short-then-dynamic' } });
    const [, held] = repaired(input, [warm, stretch, rock()], 'static-too-long');
    expect(held).toMatchObject({ sets: 1, amount: 30 });
    const order = repaired(input, [warm, rock(), { ...stretch, sets: 1 }], 'no-movement-after-hold');
    expect(order.map((i) => i.drill)).toEqual([
      'high-knee-skip',
      'wall-calf-stretch-straight',
      'knee-to-wall-rock',
    ]);
  });
  it('counts all stretches together: two of 20 s are over the 30 s there are in all, and share them', () => {
    const input = stiffAnkle({ schools: { 'static-stretch-before': 'short-then-dynamic' } });
    const two = [
      warm,
      { ...stretch, sets: 1, amount: 20 },
      item('standing-shin-stretch', { measure: 'hold-seconds', amount: 20, sets: 1 }),
      rock(),
    ];
    expect(check(input, two, 'static-too-long').reason).toMatchObject({ seconds: 40, most: 30 });
    expect(
      repaired(input, two, 'static-too-long')
        .slice(1, 3)
        .map((i) => i.amount),
    ).toEqual([15, 15]);
  });
  it('a routine that never warms gets a warming drill first', () => {
    const items = repaired(stiffAnkle(), [rock()], 'never-warmed');
    expect(bundledReference.drills.get(items[0]?.drill ?? '')?.raisesTemperature).toBeGreaterThanOrEqual(2);
  });
  it('eleven minutes after the last warming drill it has cooled down again', () => {
    const long = rock({ sets: 6, amount: 14, restSeconds: 10 });
    const { reason } = check(
      stiffAnkle({ request: { minutes: 40 } as Case['request'] }),
      [warm, long],
      'cooled-down',
    );
    if (reason.rule !== 'cooled-down') throw new Error(reason.rule);
    expect(reason.minutes).toBeGreaterThan(10);
    expect(rules(stiffAnkle(), [long, warm])).not.toContain('cooled-down');
  });
});

describe('dose', () => {
  it('14 heel raises tested: 10 reps before activity are 71 %, half is meant, and the drill’s least is allowed', () => {
    const raise = item('single-leg-heel-raise', { side: 'left', amount: 10, sets: 1 });
    const input = stiffAnkle();
    expect(check(input, [raise], 'too-close-to-failure').reason).toMatchObject({
      allowed: 0.5,
      test: 'heel-raise-reps',
    });
    const [lower] = repaired(input, [raise], 'too-close-to-failure');
    expect(lower?.amount).toBe(
      Math.max(7, bundledReference.drills.get('single-leg-heel-raise')?.dose.amount.min ?? 0),
    );
  });
  it('over time: sets go first, then drills, pins never', () => {
    const input = stiffAnkle({ request: { minutes: 3, pins: ['knee-to-wall-rock'] } as Case['request'] });
    const items = repaired(input, [warm, rock(), item('cat-camel'), item('glute-bridge')], 'over-time');
    expect(items.map((i) => i.drill)).toContain('knee-to-wall-rock');
    expect(routineSeconds(bundledReference, items)).toBeLessThanOrEqual(180);
  });
  it('the short left side must not get less than the right', () => {
    const items = repaired(stiffAnkle(), [rock({ side: 'right' })], 'weak-side-forgotten');
    expect(items[0]?.side).not.toBe('right');
    const less = { left: { sets: 1, amount: 10 }, right: { sets: 2, amount: 10 } };
    expect(rules(stiffAnkle(), [rock({ perSide: less })])).toContain('weak-side-forgotten');
    expect(rules(stiffAnkle(), [rock({ perSide: { left: less.right, right: less.left } })])).not.toContain(
      'weak-side-forgotten',
    );
  });
});

describe('order', () => {
  it('a later phase before an earlier one is put into order', () => {
    const items = repaired(
      stiffAnkle({ request: { structure: 'two-block-general-to-specific' } as Case['request'] }),
      [rock(), warm],
      'phase-order',
    );
    expect(items.map((i) => i.drill)).toEqual(['high-knee-skip', 'knee-to-wall-rock']);
  });
  it('the same tissue twice in a row is parted inside its phase', () => {
    const phase = 'specific-prehab';
    const items = [
      item('double-leg-heel-raise', { phase }),
      item('bent-knee-heel-raise-wall', { phase }),
      item('dead-bug', { phase }),
    ];
    expect(repaired(stiffAnkle(), items, 'same-tissue-twice')[1]?.drill).toBe('dead-bug');
  });
  it('two levels of one ladder keep the higher', () => {
    const rungs = [item('double-leg-heel-raise'), item('two-up-one-down')];
    const items = repaired(stiffAnkle(), rungs, 'two-of-one-ladder');
    expect(items.map((i) => i.drill)).toEqual(['two-up-one-down']);
    // An easy mobilising rung prepares the next one.
    expect(rules(stiffAnkle(), [item('ankle-circles'), rock()])).not.toContain('two-of-one-ladder');
  });
  it('a level repeated although the next one is open goes on to it', () => {
    const input = stiffAnkle({
      athlete: {
        placements: [placement('calf-strength', 'single-leg-heel-raise-step')],
      },
      request: { mode: 'build', minutes: 20, kit: ['step', 'wall'] } as unknown as Case['request'],
      routine: { issued: '2027-02-01', mode: 'build', items: [item('single-leg-heel-raise')] },
    });
    const items = repaired(input, [item('single-leg-heel-raise')], 'same-level-again');
    expect(items[0]?.drill).toBe('single-leg-heel-raise-step');
  });
});

describe('a level seen as too hard', () => {
  const hard = (side: 'left' | 'both') =>
    stiffAnkle({
      athlete: {
        trainingYears: 5,
        placements: [placement('calf-strength', 'single-leg-heel-raise', { verdict: 'too-hard', side })],
      },
      request: { mode: 'build', kit: ['step', 'wall'] } as unknown as Case['request'],
    });
  it('gives way to the one below, also where only one of its sides was refused', () => {
    for (const side of ['left', 'both'] as const) {
      const items = repaired(hard(side), [item('single-leg-heel-raise', { side: 'both' })], 'too-hard');
      expect(items.map((i) => i.drill)).toEqual(['two-up-one-down']);
    }
  });
  it('is said with who saw it and when, and needs a reason to be issued all the same', () => {
    const found = check(hard('both'), [item('single-leg-heel-raise')], 'too-hard');
    expect(reasonText(bundledReference, found.reason)).toMatch(/too hard by R\. Halloran on 20 Feb 2027\.$/);
    expect(needReason([found])).toEqual([found]);
  });
  it('says nothing of the other side', () => {
    expect(rules(hard('left'), [item('single-leg-heel-raise', { side: 'right' })])).not.toContain('too-hard');
  });
  it('does not put in twice what stands in the routine already', () => {
    const both = [item('double-leg-heel-raise'), item('single-leg-heel-raise')];
    const items = repaired(hard('both'), both, 'too-hard');
    expect(new Set(items.map((i) => i.drill)).size).toBe(items.length);
  });
});

describe('any built routine', () => {
  it('stops nowhere, is in time and in order, and every repair offered keeps safety', async () => {
    const solver = await testSolver();
    forAll(
      fc.property(arbitraryCase(true), (input) => {
        const routine = buildCase(bundledReference, input, solver).routine;
        if (!routine) return;
        const items = routine.items.map(({ seconds: _s, serves: _v, reasons: _r, ...own }) => own);
        const found = checkRoutine(preparedOf(input), items);
        const names = found.map((c) => c.reason.rule);
        for (const rule of [
          'forbidden-today',
          'not-at-hand',
          'over-time',
          'phase-order',
          'two-of-one-ladder',
          'static-before-activity',
          'static-too-long',
          'too-close-to-failure',
        ])
          expect(names).not.toContain(rule);
        for (const { repair } of found)
          expect(
            routineSafetyFaults(bundledReference, repair?.items ?? [], input.athlete, input.today),
          ).toEqual([]);
      }),
      15,
    );
  });
});

describe('a clean routine', () => {
  it('of someone with nothing short has nothing to say about sides', () => {
    const input = caseOf({
      screenings: [
        {
          date: '2027-02-27',
          results: [result('wblt-distance', 'left', 14), result('wblt-distance', 'right', 14)],
        },
      ],
      request: { kit: ['wall'] } as unknown as Case['request'],
    });
    expect(rules(input, [warm, rock({ side: 'right', sets: 1 })])).not.toContain('weak-side-forgotten');
  });
});

describe('routines composed by hand', () => {
  const line = (over: Partial<RoutineItem>) =>
    item('own-words', { sets: 1, measure: 'seconds', words: 'x', ...over });
  it('own words that take time are named as unchecked; words without time and rests are not', () => {
    const found = check(
      caseOf(),
      [line({ amount: 60 }), line({ amount: 0 }), item('pause', { sets: 1 })],
      'words-unchecked',
    );
    expect(found).toMatchObject({ level: 'note', at: [0], reason: { lines: 1 } });
  });
  it('a turn longer than the clock gives it is slowed down', () => {
    const circuit = { id: 'a', rounds: 3, pace: { by: 'every' as const, seconds: 20 } };
    const [slower] = repaired(
      caseOf(),
      [item('cat-camel', { sets: 1, amount: 12, circuit })],
      'turn-too-long',
    );
    expect(slower?.circuit?.pace).toMatchObject({ by: 'every' });
  });
  it('over time, sets with rests become rounds, and that saves what it says', () => {
    const input = stiffAnkle({ request: { minutes: 3 } as never });
    const items = ['cat-camel', 'dead-bug', 'side-plank'].map((id) => item(id, { sets: 3, restSeconds: 45 }));
    const found = check(input, items, 'rounds-would-fit');
    const saved = found.reason.rule === 'rounds-would-fit' ? found.reason.seconds : 0;
    const after = found.repair?.items ?? [];
    expect(routineSeconds(bundledReference, items) - routineSeconds(bundledReference, after)).toBe(saved);
    expect(after.every(({ circuit, sets }) => circuit?.rounds === 3 && sets === 1)).toBe(true);
  });
  it('a preparation without the action that follows says so and adds it', () => {
    const input = caseOf({
      athlete: {
        tasks: [{ id: 'uphill-running' }],
        exposure: [{ action: 'run', perWeek: 4, effort: 'hard' }],
      } as never,
      request: { minutes: 12, pattern: 'run' } as never,
    });
    const added = repaired(input, [item('cat-camel')], 'action-missing');
    expect(added).toHaveLength(2);
  });
  it('a level nobody has seen waits for a word', () => {
    const input = caseOf({ athlete: { trainingYears: 8 } as never, request: { minutes: 12 } as never });
    const prepared = preparedOf(input);
    const unseen = prepared.options.options.find((option) => option.open.confirm);
    expect(unseen && rules(input, [unseen.item])).toContain('confirm-level');
  });
});
