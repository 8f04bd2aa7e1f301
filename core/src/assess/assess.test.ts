import { beforeEach, describe, expect, it, vi } from 'vitest';
import { buildRoutine, explainItems, prepareBuild, swapsFor, whatIf } from '../builder/index.ts';
import { checkRoutine } from '../checks/index.ts';
import { proposeBattery } from '../findings/index.ts';
import { decideProgress, applyVerdicts } from '../progress/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { entry, item, stiffAnkle } from '../testing/cases.ts';
import type * as EstimateSide from '../estimate/estimateSide.ts';
import type * as Judge from '../findings/judge.ts';
import { testSolver } from '../testing/solver.ts';
import { assessCase } from './index.ts';

const counted = vi.hoisted(() => ({ sides: [] as string[], judgements: 0 }));
vi.mock('../estimate/estimateSide.ts', async (original) => {
  const real = await original<typeof EstimateSide>();
  return {
    ...real,
    estimateSide: (...args: Parameters<typeof real.estimateSide>) => {
      counted.sides.push(`${args[0].id}/${JSON.stringify(args[1])}`);
      return real.estimateSide(...args);
    },
  };
});
vi.mock('../findings/judge.ts', async (original) => {
  const real = await original<typeof Judge>();
  return {
    ...real,
    judgeFindings: (...args: Parameters<typeof real.judgeFindings>) => {
      counted.judgements += 1;
      return real.judgeFindings(...args);
    },
  };
});

const input = stiffAnkle({
  routine: { issued: '2027-02-15', mode: 'prepare', items: [item('knee-to-wall-rock', { amount: 8 })] },
  diary: [{ date: '2027-02-24', entries: [entry('knee-to-wall-rock')] }],
});
beforeEach(() => {
  counted.sides = [];
  counted.judgements = 0;
});

describe('an assessment', () => {
  it('estimates each side once and judges once, whatever is asked of it afterwards', async () => {
    const solver = await testSolver();
    const assessment = assessCase(bundledReference, input);
    const request = { ...input.request, pattern: bundledReference.data.patterns[0]?.id ?? null };
    const report = buildRoutine(assessment, request, solver);
    const prepared = prepareBuild(assessment, request);
    const items = report.routine?.items ?? [];
    explainItems(prepared, items);
    checkRoutine(prepared, items);
    swapsFor(prepared, items, 0);
    whatIf(assessment, request, report, { minutes: 2 }, solver);
    proposeBattery(assessment, 20);
    const { decisions } = decideProgress(assessment);
    applyVerdicts(assessment, decisions, [{ index: 0, verdict: 'accepted' }]);
    expect(counted.judgements).toBe(1);
    expect(counted.sides.length).toBeGreaterThan(3);
    expect(counted.sides.length).toBe(new Set(counted.sides).size);
  });
  it('doses progression by the school’s stretch cap too', () => {
    const { doses } = assessCase(bundledReference, {
      ...input,
      schools: { 'static-stretch-before': 'last-step' },
    });
    expect(doses.prepare.stretchCapSeconds).toBe(20);
    expect(doses.build.stretchCapSeconds).toBeNull();
  });
});
