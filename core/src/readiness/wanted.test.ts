import { describe, expect, it } from 'vitest';
import { bundledReference } from '../reference/bundled.ts';
import { eachOf } from '../testing/eachOf.ts';
import { fitOf, wantedElements } from './index.ts';
import type { ReadinessFor } from './index.ts';

const wanted = (over: Partial<ReadinessFor> = {}) =>
  wantedElements(bundledReference, {
    actions: ['run'],
    tasks: [],
    mode: 'prepare',
    minutes: 12,
    focus: [],
    joints: [],
    age: 27,
    kit: [],
    ...over,
  });
const ids = (over: Partial<ReadinessFor> = {}) => wanted(over).map(({ element }) => element.id);
const parts = (over: Partial<ReadinessFor> = {}) => wanted(over).map(({ element }) => element.part);

describe('what a preparation should hold', () => {
  it('grows with the minutes, warming and rehearsing always first', () => {
    expect([3, 5, 6, 8, 10, 12, 16, 20].map((minutes) => ids({ minutes }).length)).toEqual([
      3, 3, 4, 5, 6, 7, 8, 9,
    ]);
    for (const { id } of eachOf(bundledReference.data.patterns))
      expect(
        parts({ actions: [id], minutes: 5 })
          .slice(0, 2)
          .sort(),
        id,
      ).toEqual(['rehearse', 'warm']);
  });
  it('is that of moving in general for somebody without a sport', () => {
    expect(ids({ actions: [] })[0]).toBe('general-warm');
    expect(ids({ actions: ['no-such'] })).toEqual(ids({ actions: [] }));
  });
  it('of two actions holds each need once; the first leads, the other is rehearsed later', () => {
    const both = wanted({ actions: ['kick', 'run'], minutes: 20 });
    const needs = both.map(({ element }) => element.need);
    expect(new Set(needs).size).toBe(needs.length);
    expect(both[0]?.element.id).toBe('kick-warm');
    expect(both[1]?.element.id).toBe('kick-rehearse');
    // Another order changes who leads, never what warms or rehearses at all.
    expect(ids({ actions: ['run', 'kick'], minutes: 20 }).slice(0, 2)).toEqual(['run-warm', 'run-rehearse']);
  });
  it('of several tasks comes in turn, as they were named, and each action is rehearsed from twelve minutes on', () => {
    const actions = ['run', 'throw'];
    const rank2 = (order: readonly string[]) =>
      wanted({ actions: order, minutes: 20 })
        .filter(({ first }) => !first)
        .slice(0, 4)
        .map(({ element }) => element.id.split('-')[0]);
    expect(rank2(actions)).toEqual(['run', 'throw', 'run', 'throw']);
    expect(rank2([...actions].reverse())).toEqual(['throw', 'run', 'throw', 'run']);
    const rehearsed = (minutes: number) =>
      wanted({ actions, minutes }).filter(({ element }) => element.part === 'rehearse').length;
    expect([8, 12, 20].map(rehearsed)).toEqual([1, 2, 2]);
    // Whatever the file says first: the task that was named first leads.
    const tasks = ['uphill-running', 'sprint'];
    const own = (order: readonly string[]) =>
      ids({ tasks: order, minutes: 20 }).filter((id) => /^(uphill|sprint)-/.test(id));
    expect(own(tasks)[0]).toMatch(/^uphill-/);
    expect(own([...tasks].reverse())[0]).toMatch(/^sprint-/);
  });
  it('has what a task adds before the rest of its rank, and lifts what it needs more', () => {
    const sprint = ids({ tasks: ['sprint'], minutes: 20 });
    expect(sprint).toContain('sprint-hamstring');
    expect(sprint.indexOf('sprint-hamstring')).toBeLessThan(sprint.indexOf('run-calf-foot'));
    // Springing is a third thing for a runner, and a second for a sprinter; the side of the hip the other way round.
    const [plain, own] = [ids({ minutes: 20 }), sprint];
    expect(plain.indexOf('run-side-hip')).toBeLessThan(plain.indexOf('run-spring'));
    expect(own.includes('run-side-hip') ? own.indexOf('run-side-hip') : 99).toBeGreaterThan(
      own.indexOf('run-spring'),
    );
  });
  it('looks after joints: one, two or three elements of each by the minutes, after the first of the action', () => {
    const ofKnee = (minutes: number) =>
      wanted({ joints: ['knee'], minutes }).filter((one) => one.of === 'joint').length;
    expect([5, 10, 15].map(ofKnee)).toEqual([1, 2, 3]);
    expect(wanted({ joints: ['knee'], minutes: 12 }).findIndex(({ of }) => of === 'joint')).toBe(3);
  });
  it('of a named joint keeps what lies in it, and warms by what uses it standing', () => {
    const feet = wanted({ focus: ['ankle-foot'] });
    expect(feet[0]?.element.id).toBe('focus-ankle-foot-warm');
    for (const { element } of eachOf(feet.slice(2))) expect(element.regions).toContain('ankle-foot');
  });
  it('of a child is games of feet', () => {
    expect(ids({ age: 11 })[0]).toBe('youth-warm');
    expect(ids({ age: 14 })[0]).toBe('run-warm');
  });
  it('asks for kit only where it is at hand, and for standing up from sixty on', () => {
    expect(ids({ actions: ['pull'], minutes: 20 })).not.toContain('pull-hang');
    expect(ids({ actions: ['pull'], minutes: 20, kit: ['rings'] })).toContain('pull-hang');
    expect(ids({ actions: [], minutes: 20, age: 61 })).toContain('general-stand-up');
    expect(ids({ actions: [], minutes: 20, age: 60 })).not.toContain('general-stand-up');
  });
  it('asks for nothing twice: what a joint asks for makes room for the next that its action asks for', () => {
    const { patterns, readiness } = bundledReference.data;
    for (const { id } of eachOf(patterns))
      for (const { region, elements } of eachOf(readiness.joints)) {
        const asked = wanted({ actions: [id], joints: [region], minutes: 20 }).map(({ element }) => element);
        const needs = asked.map(({ need }) => need);
        expect(new Set(needs).size, `${id}, ${region}`).toBe(needs.length);
        expect(asked.map((one) => one.id)).toContain(elements[0]?.id);
      }
    const balance = { actions: ['hand-balance'], minutes: 15 };
    const wrist = ids({ ...balance, joints: ['wrist-hand'] });
    expect(ids(balance)).toContain('hand-balance-wrist-back');
    expect(wrist).toContain('wrist-hand-2');
    expect(wrist).not.toContain('hand-balance-wrist-back');
  });
  it('in a session of its own is what trains the joints: those named, else looked after, else worked by the action', () => {
    const build = (over: Partial<ReadinessFor>) => wanted({ mode: 'build', minutes: 20, ...over });
    const regions = (over: Partial<ReadinessFor>) => [
      ...new Set(build(over).flatMap(({ element, of }) => (of === 'joint' ? element.regions : []))),
    ];
    expect(regions({})).toEqual(expect.arrayContaining(['ankle-foot', 'hip-groin']));
    expect(regions({ joints: ['shoulder'] })).toEqual(['shoulder']);
    expect(regions({ joints: ['shoulder'], focus: ['knee'] })).toEqual(['knee']);
    for (const over of [{}, { joints: ['shoulder'] as const }, { actions: [] }]) {
      expect(build(over)[0]?.element.part).toBe('warm');
      expect(build(over).map(({ element }) => element.part)).not.toContain('after');
    }
    // Strength before range.
    expect(parts({ mode: 'build', minutes: 20, focus: ['knee'] }).slice(0, 2)).toEqual(['warm', 'wake']);
  });
  it('after a session is coming down, calm, and letting go of what was worked', () => {
    for (const over of [{}, { actions: ['climb'] }, { actions: [] }, { focus: ['shoulder'] as const }]) {
      const end = ids({ mode: 'restore', minutes: 15, ...over });
      expect(end.slice(0, 2)).toEqual(['after-cool-down', 'after-calm']);
      expect(end.length).toBeGreaterThan(3);
      expect(new Set(parts({ mode: 'restore', minutes: 15, ...over }))).toEqual(new Set(['after']));
    }
  });
});

describe('how well a drill answers an element', () => {
  it('goes by its own name before its ladder', () => {
    const calf = bundledReference.elements.get('run-calf-foot');
    if (!calf) throw new Error('no element');
    const fit = (id: string, ladder: string) => fitOf(calf, { id, ladder });
    expect(fit('towel-side-pull', 'calf-strength')).toBe(0.4);
    expect(fit('anything', 'calf-strength')).toBe(1);
    expect(fit('anything', 'neck')).toBe(0);
  });
  it('is known for ladders and drills that there are, each element by one id', () => {
    const { profiles, tasks, joints, focusWarm, after, youth } = bundledReference.data.readiness;
    const all = [
      ...profiles.flatMap((one) => one.elements),
      ...tasks.flatMap((one) => one.adds),
      ...joints.flatMap((one) => one.elements),
      ...focusWarm,
      ...after,
    ];
    expect(all.length).toBeGreaterThan(350);
    expect(bundledReference.elements.size).toBe(all.length);
    const unknown = all.flatMap((one) => [
      ...Object.keys(one.ladders).filter((id) => !bundledReference.ladders.has(id)),
      ...Object.keys(one.drills).filter((id) => !bundledReference.drills.has(id)),
    ]);
    expect([...unknown, ...youth.exclude.filter((id) => !bundledReference.drills.has(id))]).toEqual([]);
    const actions = new Set(bundledReference.data.patterns.map(({ id }) => id));
    expect(profiles.map(({ action }) => action).filter((id) => !actions.has(id))).toEqual([
      'general',
      'youth',
    ]);
  });
});
